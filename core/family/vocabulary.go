package family

import "slices"

// Caution is a short warning with what to do, shown at the station it matters at.
type Caution struct {
	Code, Station, Title, Do string
	Serious                  bool // acknowledged once per job
}

// Deference goes with every caution: Corvek does not stand above the people in charge.
const Deference = "Site rules, local codes, the maker's manual and licensed practice come first."

var cautions = []Caution{
	{"stored_pressure", "strip", "Pressure may still be shut in",
		"Bring every port to zero, vent accumulators and block the load before a joint is loosened.", true},
	{"spring_load", "strip", "Springs under load", "Keep your face out of line; let the cap out by its full thread " +
		"against hand pressure.", false},
	{"air_ejection", "strip", "Compressed air makes a piston a projectile",
		"Push it out by hand or with oil first. If air is the only way: regulated to a few psi, port covered, " +
			"shield in front.", true},
	{"hot_oil", "strip", "Hot oil", "Let it cool below 45 °C before draining; wear sleeves and face shield.", false},
	{"lifting", "receive", "Heavy part", "Use rated slings and a hoist that is not part of the machine; nobody " +
		"stands under it.", false},
	{"injection", "prove", "High-pressure jets pierce skin",
		"Never feel for a leak by hand; use card. Oil under the skin is an emergency even when it looks small: " +
			"hospital at once.", true},
	{"rotating", "prove", "Rotating shaft", "Guard over the coupling, sleeves closed, stop within reach before the " +
		"drive starts.", true},
	{"relief_first", "prove", "The stand must be able to let go",
		"Prove the stand's own relief below the unit's rating before the load valve is closed.", false},
	{"solvent", "strip", "Solvent near heat", "No flame or hot work by the wash; ventilate; collect the waste oil.",
		false},
	{"gas_energy", "prove", "Compressed gas stores far more than oil",
		"Dry inert gas only, shield and distance; never oxygen where oil has been.", true},
	{"brake_fluid", "strip", "Brake fluid and mineral oil ruin each other's seals",
		"Know which is in it before anything is wiped, washed or oiled; keep funnels and cups apart; brake fluid " +
			"strips paint and hurts eyes.", false},
	{"lining_dust", "strip", "Old linings can hold asbestos",
		"No air line, no dry brushing: wet it, wear a mask rated for it, bag the waste as the site rules say.", true},
	{"reservoir", "receive", "The reservoir can hold pressure",
		"Crack the filler slowly and let it breathe before opening.", false},
}

// Cautions are all cautions, in the order they are offered.
func Cautions() []Caution { return slices.Clone(cautions) }

// CautionByCode finds a caution.
func CautionByCode(code string) (Caution, bool) {
	for _, c := range cautions {
		if c.Code == code {
			return c, true
		}
	}
	return Caution{}, false
}

// Grades are the steps of judging a face by touch; a grade is never a number of µm.
var Grades = []string{"polished", "visible, cannot feel", "nail drags", "nail catches", "step or groove"}

// CautionsAt are the cautions of a family that matter at a station.
func (f *Family) CautionsAt(station string) (out []Caution) {
	for _, code := range f.Cautions {
		if c, ok := CautionByCode(code); ok && c.Station == station {
			out = append(out, c)
		}
	}
	return out
}
