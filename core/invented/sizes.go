// Package invented makes up what a unit of any family might be: its sizes, what its machine asks, what is found on a
// sound one and how it is built. It is for practice and for tests; no real unit is judged by it.
package invented

import (
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Sizes are those of an invented unit of any family, so that every rule has what it goes by.
type Sizes struct {
	Scale float64 // of an ordinary one; 0 is 1
	Inch  bool    // typed in inch
}

// usualSizes are in mm, by the code of the feature or its path.
var usualSizes = map[string]float64{
	"ram.diameter":  40,
	"tip":           48,
	"width":         35,
	"side_land":     22,
	"side_width":    14,
	"tip_land":      16,
	"outside":       60,
	"land_outside":  26,
	"land_inside":   14,
	"guided":        34,
	"span":          800,
	"core":          1.6,
	"outer":         134,
	"inner":         86,
	"installed":     34.2,
	"seat_diameter": 4.1,
	"lining":        3.2,
	"free_length":   42,
	"height":        13,
	"slipper":       6,
	"land":          12,
	"bore":          80,
	"diameter":      20,
	"wire":          2.5,
}

// of is the size as new of a feature in m: of a bore that of what runs in it, with the gap it has new.
func (s Sizes) of(st *bench.State, path string) float64 {
	scale := max(s.Scale, 0)
	if scale == 0 {
		scale = 1
	}
	part, code := family.CutFeature(path)
	mm, own := usualSizes[path]
	if !own {
		mm = usualSize(code)
	}
	def, known := st.ByCode[part].Def.FeatureByCode(code)
	if known && def.Mate != nil {
		mate := s.of(st, def.Mate.Of)
		gap := (share(def.Mate.Low) + share(def.Mate.High) + share(def.Mate.Out)/2) / 2
		if def.Wears == "bore" {
			return mate * (1 + gap)
		}
		return mate * (1 - gap)
	}
	return mm * scale / 1e3
}

func usualSize(code string) float64 {
	if mm, usual := usualSizes[code]; usual {
		return mm
	}
	return 20
}

func share(text string) float64 {
	q, err := quantity.Parse(text, quantity.Number)
	if err != nil {
		return 0
	}
	return q.SI
}

func (s Sizes) text(m float64) string {
	if s.Inch {
		return plain(m/25.4e-3, 8) + " in"
	}
	return plain(m*1e3, 7) + " mm"
}

// plain writes a figure with so many places at most.
func plain(v float64, places int) string {
	text := strings.TrimRight(strconv.FormatFloat(v, 'f', places, 64), "0")
	return strings.TrimSuffix(text, ".")
}

// Write types the sizes as new, and those that others go by and that are measured on the unit itself.
func (s Sizes) Write(st *bench.State) []Value {
	out := s.Papers(st)
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if !f.Def.Size {
				continue
			}
			for _, slot := range f.Spec.Slots() {
				ref := st.Unit.ReadingRef(p.Code, f.Code, unit.StageFound, slot)
				out = append(out, Value{ref, s.text(s.of(st, f.Path()))})
			}
		}
	}
	return out
}

// Papers types what the maker's sheet gives of the unit: its sizes as new, its joints, its springs.
func (s Sizes) Papers(st *bench.State) (out []Value) {
	u := st.Unit
	for _, p := range st.Parts {
		for _, f := range p.Features {
			size := s.text(s.of(st, f.Path()))
			if f.Def.AsksEach() {
				out = append(out, Value{u.FeatureRef(p.Code, f.Code, "measured"), string(metrology.Total)})
			}
			if f.Spec.IsSize() && !f.Def.Size {
				ref := func(name string) unit.Ref { return u.FeatureRef(p.Code, f.Code, name) }
				out = append(out, Value{ref("new_low"), size}, Value{ref("new_from"), unit.NewDocument},
					Value{ref("new_source"), "the maker's sheet, page 4"})
			}
		}
		say := func(name, text string) { out = append(out, Value{u.PartRef(p.Code, name), text}) }
		out = append(out, s.joint(u, p)...)
		if p.Def.Stack.Presses() {
			say("spring_outside", "80 mm")
			say("spring_inside", "41 mm")
			say("spring_thickness", "2.25 mm")
			say("spring_cone", "2.95 mm")
			say("stack_space", "26 mm")
			say("stack_needed", "1 kN")
		}
		if p.Def.Stack != nil && p.Def.Stack.Friction != nil {
			say("friction", "0.11")
			say("friction_source", "the maker's sheet, page 9")
		}
		if p.Def.Kind == "spring" {
			say("coil_rate", "33 N/mm")
		}
	}
	return out
}

// Good is an entry within a feature's limits: what little has worn of a size, the middle of a gap.
func Good(f *bench.Feature, slot string) string {
	switch {
	case f.Spec.IsSize() || f.Def.Size:
		return Worn(f, slot, 0.2)
	case f.Def.Method == family.MethodFit: // clear of the least gap by more than what measuring two parts leaves open
		return Worn(f, slot, 0.7)
	}
	return Worn(f, slot, 0.5)
}

// Worn is an entry of a feature that has used so much of what its limits allow; more than 1 is out. What has no limits
// is as good as it was.
func Worn(f *bench.Feature, slot string, used float64) string {
	text := Sizes{}.text
	switch {
	case f.Def.Method == family.MethodGrade && used > 1:
		return "3"
	case f.Def.Method == family.MethodGrade:
		return "0"
	case f.Def.Method == family.MethodFit:
		return fit(f.Def.Rule, slot, used)
	case f.Spec.IsSize() || f.Def.Size:
		if !f.New.Holds() {
			return text(usualSize(f.Code) / 1e3)
		}
		worn := f.Spec.Allowance(f.Found.Limits) * used
		if f.Def.Wears == "shaft" {
			worn = -worn
		}
		return text(f.New.Middle() + worn)
	}
	v := 0.05e-3
	if mm, usual := usualSizes[f.Code]; usual {
		v = mm / 1e3
	}
	switch l := f.Found.Limits; {
	case l.HasLower && l.HasUpper:
		v = l.Lower + used*(l.Upper-l.Lower)
	case l.HasUpper:
		v = used * l.Upper
	}
	if f.Def.Method == family.MethodFeeler {
		if leaf := length(strings.TrimPrefix(slot, "leaf:")); leaf <= v {
			return measure.Goes
		}
		return measure.Stops
	}
	return text(v)
}

// fit is a hole or what runs in it, with so much of the gap between its least and its most.
func fit(r *family.Rule, slot string, used float64) string {
	const hole = 20e-3
	low, high := 0.0, 0.0
	switch {
	case r == nil:
	case r.Least != "":
		low, high = length(r.Least), length(r.Most)
	default:
		low, high = hole*share(r.Low), hole*share(r.High)
	}
	text := Sizes{}.text
	if strings.HasPrefix(slot, "h") {
		return text(hole + low + used*(high-low))
	}
	return text(hole)
}

// Stray is a reading of a piece that is not like its fellows, worn or not: far beyond its limits, and without any a
// tenth short of them.
func Stray(f *bench.Feature, slot string) string {
	const far = 4.5 // times its limits
	good, text := Good(f, slot), Worn(f, slot, far)
	if text == good {
		return Sizes{}.text(0.9 * length(good))
	}
	return text
}

func length(text string) float64 {
	q, err := quantity.Parse(text, quantity.Length)
	if err != nil {
		return 0
	}
	return q.SI
}

// joint is what is read off a joint of this unit.
func (s Sizes) joint(u *unit.Unit, p *bench.Part) []Value {
	out := jointOf(u, p)
	for i := range out {
		if text, inch := map[string]string{"M10": "1/2-13 UNC", "8.8": "grade_5"}[out[i].Text]; inch && s.Inch {
			out[i].Text = text
		}
	}
	return out
}

// jointOf is what is read off a joint: of screws thread and head mark, of caps and nuts a torque out of the book.
func jointOf(u *unit.Unit, p *bench.Part) []Value {
	at := func(name, text string) Value { return Value{u.PartRef(p.Code, name), text} }
	switch {
	case p.Def.Bolt == nil:
		return nil
	case p.Def.Kind == "bolts":
		return []Value{at("thread", "M10"), at("class", "8.8")}
	}
	return []Value{at("joint_torque", "60 N·m"), at("joint_source", "the maker's sheet, page 6")}
}
