package family

import "slices"

// Caution is a short warning with what to do, shown at the step it matters at.
type Caution struct {
	Code, Station, Title, Do string
	Also                     string // another station at which a part carries it
	Serious                  bool   // read once per job, at the step
}

// At reports that the caution matters at a station.
func (c *Caution) At(station string) bool { return c.Station == station || c.Also == station }

// Deference goes with every caution: Corvek does not stand above the people in charge.
const Deference = "Site rules, local codes, the maker's manual and licensed practice come first."

var cautions = []Caution{
	{Code: "own_hoist", Station: "receive", Also: "strip", Serious: true,
		Title: "Nobody under a load that this machine's own hoist holds",
		Do: "What is taken apart is what holds it. Let the load down to the ground, or hang it from another, " +
			"rated hoist with rated slings, before anything of it is opened."},
	{Code: "lifting", Station: "receive", Also: "strip", Title: "Heavy part",
		Do: "Use rated slings and a hoist that is not part of the machine; nobody stands under it."},
	{Code: "reservoir", Station: "receive", Also: "strip", Title: "The reservoir can hold pressure",
		Do: "Crack the filler slowly and let it breathe before opening."},
	{Code: "gauge_jet", Station: "receive", Title: "A joint that is cracked under pressure throws a jet",
		Do: "Fit and change gauges with the pressure off. Card, never a hand, near a leak; oil under the " +
			"skin is an emergency even when it looks small."},
	{Code: "stored_pressure", Station: "strip", Serious: true, Title: "Pressure may still be shut in",
		Do: "Bring every port to zero, vent accumulators and block the load before a joint is loosened."},
	{Code: "crack_first", Station: "strip", Title: "Crack it, wait, then take it out",
		Do: "A turn or two, a cloth over it and your face out of line, until nothing hisses or runs any " +
			"more. What it holds back may be oil, gas or a spring."},
	{Code: "spring_load", Station: "strip", Also: "build", Title: "Springs under load",
		Do: "Keep your face out of line; let the cap out by its full thread against hand pressure."},
	{Code: "strong_spring", Station: "strip", Also: "build", Serious: true,
		Title: "A strong spring is held by this",
		Do: "Take its force in a press, or on two long bolts that are let out by turns, before the ring, " +
			"yoke or bolt is off. Nobody stands in its line."},
	{Code: "own_weight", Station: "strip", Also: "build", Title: "It slides out by its own weight",
		Do: "Lay it flat or hang it in a rated sling before what holds it is loosened; hands out from under " +
			"it."},
	{Code: "air_ejection", Station: "strip", Serious: true, Title: "Compressed air makes a piston a projectile",
		Do: "Push it out by hand or with oil first. If air is the only way: regulated to a few psi, port " +
			"covered, shield in front."},
	{Code: "hot_oil", Station: "strip", Title: "Hot oil",
		Do: "Let it cool below 45 °C before draining; wear sleeves and face shield."},
	{Code: "solvent", Station: "strip", Title: "Solvent near heat",
		Do: "No flame or hot work by the wash; ventilate; collect the waste oil."},
	{Code: "hot_work", Station: "strip", Also: "build", Title: "No flame on what holds oil",
		Do: "A stuck part is washed and worked free, or warmed in oil or by hot air. Flame, welding and " +
			"grinding ask a clean, open part and the site's permit; brake cleaner in a flame is poison gas."},
	{Code: "impact", Station: "strip", Also: "build", Title: "No hammer and no impact driver here",
		Do: "A blow brings a bearing seat, a spool bore or a thread out of true. Press, puller, hand and " +
			"heat of oil."},
	{Code: "look_first", Station: "strip", Title: "Look before you wipe",
		Do: "What is wiped off is gone. Note the mark and take its picture; then wash, and dry with air at " +
			"low pressure away from eyes and skin."},
	{Code: "brake_fluid", Station: "strip", Also: "build",
		Title: "Brake fluid and mineral oil ruin each other's seals",
		Do: "Know which is in it before anything is wiped, washed or oiled; keep funnels and cups apart; " +
			"brake fluid strips paint and hurts eyes."},
	{Code: "lining_dust", Station: "strip", Serious: true, Title: "Old linings can hold asbestos",
		Do: "No air line, no dry brushing: wet it, wear a mask rated for it, bag the waste as the site rules " +
			"say."},
	{Code: "lint", Station: "build", Title: "No thread of cloth in it",
		Do: "Lint-free wipes only, passages blown out from inside, looked through against the light: one " +
			"thread holds a valve off its seat."},
	{Code: "bleeding_jet", Station: "build", Title: "Bled under pressure it throws a jet",
		Do: "Hose over the screw into a cup, a turn or two and never right out, eyes covered, hand out of " +
			"its way."},
	{Code: "injection", Station: "prove", Serious: true, Title: "High-pressure jets pierce skin",
		Do: "Never feel for a leak by hand; use card. Oil under the skin is an emergency even when it looks " +
			"small: hospital at once."},
	{Code: "rotating", Station: "prove", Serious: true, Title: "Rotating shaft",
		Do: "Guard over the coupling, sleeves closed, stop within reach before the drive starts."},
	{Code: "relief_first", Station: "prove", Title: "The stand must be able to let go",
		Do: "Prove the stand's own relief below the unit's rating before the load valve is closed."},
	{Code: "gas_energy", Station: "prove", Serious: true, Title: "Compressed gas stores far more than oil",
		Do: "Dry inert gas only, shield and distance; never oxygen where oil has been."},
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
