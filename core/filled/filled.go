// Package filled tells what a calculator takes from a unit on the bench: its duty, the sizes and readings of a part,
// its springs, bolts and seals, what its test read. Nothing is made up: an input that the unit does not know stays
// empty, and each that is filled in says where the unit has it from.
package filled

import (
	"cmp"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/quantity"
)

// Input is an input of a calculator as a unit knows it: its name there, the text as it is typed there, and where it
// is from.
type Input struct{ Name, Text, Whence string }

// Subject is a part, part.feature or leak path that a calculator can be asked about.
type Subject struct{ Code, Name string }

// from collects the inputs of one calculator.
type from struct {
	*bench.State
	out []Input
}

// put gives an input; an empty text is none.
func (f *from) put(name, text, whence string) {
	if text != "" {
		f.out = append(f.out, Input{name, text, whence})
	}
}

// size gives an input that was typed on the job, as it was typed.
func (f *from) size(name string, q quantity.Quantity, whence string) {
	if _, known := q.Known(); known {
		f.put(name, q.String(), whence)
	}
}

// si gives an input in base units.
func (f *from) si(name string, v float64, d quantity.Dimension, whence string) {
	if d == quantity.Number {
		f.put(name, quantity.Figures(v, 5), whence)
		return
	}
	u, places := quantity.ShopUnit(v, d, quantity.Metric)
	number, unit, _ := strings.Cut(u.Format(v, places+2), " ")
	if strings.Contains(number, ".") {
		number = strings.TrimRight(strings.TrimRight(number, "0"), ".")
	}
	f.put(name, strings.TrimSpace(number+" "+unit), whence)
}

// asked are the calculators that a unit can fill in: each by what it is asked about, and how.
var asked = map[string]struct {
	about func(*bench.State) []Subject // nil where it asks of the whole unit
	fill  func(*from, string)
}{
	"pump":               {nil, pump},
	"motor":              {nil, motor},
	"cylinder":           {nil, cylinder},
	"piston_ripple":      {nil, pistonRipple},
	"flow_divider":       {nil, flowDivider},
	"fluid_balance":      {nil, fluidBalance},
	"residual":           {nil, residual},
	"fill_plan":          {nil, fillPlan},
	"line_pull":          {nil, linePull},
	"creep_leak":         {nil, creepLeak},
	"standby":            {nil, standby},
	"shims":              {nil, shims},
	"needle_complement":  {nil, needles},
	"retainer_lift":      {nil, retainerLift},
	"annular_leak":       {leaks("annular"), annularLeak},
	"plane_leak":         {leaks("plane"), planeLeak},
	"coil_spring":        {ofKind("spring"), coilSpring},
	"spring_check":       {ofKind("spring"), springCheck},
	"disc_stack":         {ofKind("disc_springs"), discStack},
	"friction_pack":      {packs, frictionPack},
	"bolt_torque":        {bolted, boltTorque},
	"bolt_pattern":       {bolted, boltPattern},
	"oring_find":         {ofKind("o_ring", "backup_ring", "piston_seal"), ringFind},
	"oring_gland":        {ofKind("o_ring"), ringGland},
	"lip_seal_find":      {ofKind("lip_seal"), lipFind},
	"lip_offset":         {ofKind("lip_seal"), lipOffset},
	"shelf_life":         {soft, shelfLife},
	"compatible":         {soft, compatible},
	"readings":           {measured(family.MethodGrid, family.MethodValue, family.MethodSisters), readings},
	"judge":              {measured(sized...), judge},
	"feeler":             {measured(family.MethodFeeler), feeler},
	"wear_life":          {measured(family.MethodGrid, family.MethodValue), wearLife},
	"runout":             {measured(family.MethodTIR), runout},
	"rod_bow":            {measured(family.MethodTIR), rodBow},
	"gap_ratio":          {measured(sized...), gapRatio},
	"rebuild_or_replace": {nil, rebuild},
}

// sized are the methods by which a figure is read.
var sized = []family.Method{family.MethodFeeler, family.MethodDepth, family.MethodGrid, family.MethodValue,
	family.MethodTIR, family.MethodFit, family.MethodSisters}

// Knows reports that a unit can fill a calculator in.
func Knows(calculator string) bool { _, known := asked[calculator]; return known }

// Subjects are what of a unit a calculator can be asked about, in the order they come off; none where it asks of the
// whole unit.
func Subjects(st *bench.State, calculator string) []Subject {
	a := asked[calculator]
	if a.about == nil {
		return nil
	}
	return a.about(st)
}

// Of gives the inputs of a calculator that the unit knows. about is the code of a subject; where there is one only it
// need not be said, and where there are several and none is said nothing is filled in.
func Of(st *bench.State, calculator, about string) []Input {
	a, known := asked[calculator]
	if !known {
		return nil
	}
	f := &from{State: st}
	if a.about == nil {
		a.fill(f, "")
		return f.out
	}
	all := a.about(st)
	if about == "" && len(all) == 1 {
		about = all[0].Code
	}
	if slices.ContainsFunc(all, func(s Subject) bool { return s.Code == about }) {
		a.fill(f, about)
	}
	return f.out
}

// Serving are the calculators that can be asked about a part, by the names of its features where they ask of one.
func Serving(st *bench.State, part string) []Serves {
	var out []Serves
	for name, a := range asked {
		if a.about == nil {
			continue
		}
		for _, s := range a.about(st) {
			if code, _ := family.CutFeature(s.Code); s.Code == part || code == part {
				out = append(out, Serves{name, s})
			}
		}
	}
	slices.SortFunc(out, func(a, b Serves) int {
		return cmp.Or(cmp.Compare(a.About.Code, b.About.Code), cmp.Compare(a.Calculator, b.Calculator))
	})
	return out
}

// Serves is a calculator with what it would be asked about.
type Serves struct {
	Calculator string
	About      Subject
}
