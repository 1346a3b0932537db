package family

import "slices"

// everywhere are the cautions of every unit, whatever its family says.
var everywhere = []string{"gauge_jet", "look_first", "lint"}

// opening are the serious cautions of a station that are read before anything of the unit is opened.
var opening = []string{"own_hoist", "stored_pressure"}

// ofKind are the cautions of a family that are read at parts of some kinds.
var ofKind = map[string][]string{
	"lifting":      {"body", "tube"},
	"air_ejection": {"piston", "piston_set", "rod"},
	"lining_dust":  {"plate_pack"},
	"brake_fluid":  {"piston_seal", "lip_seal"},
}

// precise are the kinds that a blow ruins.
var precise = []string{"bearing", "spool", "valve_plate", "needles"}

// CautionsAt are the cautions of a family that matter at a station as a whole.
func (f *Family) CautionsAt(station string) (out []Caution) {
	for _, code := range append(slices.Clone(f.Cautions), everywhere...) {
		if c, ok := CautionByCode(code); ok && c.Station == station {
			out = append(out, c)
		}
	}
	return out
}

// CautionsOf are the cautions of one part as it comes off (strip) or goes in (build): its own, those of its family
// that are its, and those of what it is. first says that nothing of the unit is open yet.
func (f *Family) CautionsOf(p *Part, station string, first bool) (out []Caution) {
	add := func(codes ...string) {
		for _, code := range codes {
			c, ok := CautionByCode(code)
			if ok && c.At(station) && !slices.ContainsFunc(out, func(o Caution) bool { return o.Code == code }) {
				out = append(out, c)
			}
		}
	}
	for _, code := range f.Cautions {
		if slices.Contains(opening, code) && first || slices.Contains(ofKind[code], p.Kind) {
			add(code)
		}
	}
	add(p.Cautions...)
	if slices.Contains(precise, p.Kind) {
		add("impact")
	}
	if p.Kind == "plug" && p.DoNot == "" {
		add("crack_first")
	}
	return out
}

// ReadAt are the cautions of a station as a whole, and the serious ones that parts of the unit carry there.
func (f *Family) ReadAt(station string) []Caution {
	out := f.CautionsAt(station)
	for i := range f.Parts {
		for _, code := range f.Parts[i].Cautions {
			c, ok := CautionByCode(code)
			if ok && c.Serious && c.Station == station &&
				!slices.ContainsFunc(out, func(o Caution) bool { return o.Code == code }) {
				out = append(out, c)
			}
		}
	}
	return out
}
