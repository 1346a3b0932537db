package calc

import (
	"math"
	"strings"

	"corvek/core/field"
	"corvek/core/fluid"
	"corvek/core/fluidpower"
	"corvek/core/friction"
	"corvek/core/metrology"
	"corvek/core/quantity"
)

func init() { register(frictionDef, linePullDef, proudDef, retainerDef, meshDef, runoutDef) }

var frictionDef = &Def{
	Name:    "friction_pack",
	Asked:   []string{"torque"},
	Subject: "Mechanical helpers",
	Summary: "Torque of a clutch or brake pack as it is stacked",
	Inputs: []Input{
		{Name: "plates", Kind: Text, Help: "f friction with two faces, s separator, in order"},
		number("friction", "coefficient"),
		q("force", quantity.Force, "on the pack"),
		q("outer", quantity.Length, "diameter of the lining"),
		q("inner", quantity.Length, "diameter of the lining"),
	},
	Results:     []Result{{"faces", "", "rubbing contacts"}, {"mean_radius", "m", ""}, {"torque", "N·m", ""}},
	Formula:     "r = 2/3·(Ro³−Ri³)/(Ro²−Ri²); T = faces·μ·F·r",
	Source:      "uniform pressure, textbook on machine elements",
	Assumptions: "flat faces, wet or dry μ as given",
	Example:     `{"plates":"sfsfsfs","friction":0.1,"force":"8 kN","outer":"160 mm","inner":"120 mm"}`,
	Run: func(a *Args, o *Output) error {
		plates := strings.ToLower(strings.Join(strings.Fields(a.Text("plates")), ""))
		faces := 0
		for i, p := range plates {
			if p != 'f' && p != 's' {
				return field.Errorf("plates", "has %q; a plate is f or s", p)
			}
			if i > 0 && plates[i] != plates[i-1] {
				faces++
			}
		}
		ro, ri := a.Val("outer")/2, a.Val("inner")/2
		if ri >= ro {
			return field.Errorf("inner", "must be smaller than the outer diameter")
		}
		r := friction.MeanRadius(ro, ri)
		torque := friction.Torque(faces, a.Val("friction"), a.Val("force"), r)
		o.Fig("faces", float64(faces), "")
		o.Fig("mean_radius", r, "m")
		o.Fig("torque", torque, "N·m")
		o.Step("%d contacts of lining on separator; r = %s; T = %d·%s·%s N·r = %s N·m", faces, mm(r), faces,
			f(a.Val("friction")), f(a.Val("force")), f(torque))
		if strings.Contains(plates, "ff") || strings.Contains(plates, "ss") {
			o.Warn("like_plates_touch",
				"two plates of a kind lie on each other: that contact carries nothing; look at the order")
		}
		return nil
	},
}

var linePullDef = &Def{
	Name:    "line_pull",
	Asked:   []string{"pull"},
	Subject: "Mechanical helpers",
	Summary: "Rope pull of a drum by layer",
	Inputs: []Input{
		q("torque", quantity.Torque, "of the motor"),
		q("drum_diameter", quantity.Length, ""),
		q("rope_diameter", quantity.Length, ""),
		number("layer", "1 is the first"),
		absent(number("ratio", "of the gear"), "1"),
		atMost(absent(number("efficiency", ""), "1"), 1),
	},
	Results:     []Result{{"radius", "m", ""}, {"pull", "N", ""}},
	Formula:     "r = drum/2 + rope·(layer − 1/2); F = T·ratio·η/r",
	Source:      "geometry of the drum",
	Assumptions: "layers lie square on each other",
	Example: `{"torque":"1050 N·m","drum_diameter":"300 mm","rope_diameter":"16 mm","layer":2,"ratio":5,` +
		`"efficiency":0.9}`,
	Run: func(a *Args, o *Output) error {
		layer := a.Val("layer")
		if layer < 1 || layer != math.Trunc(layer) {
			return field.Errorf("layer", "is a whole number, 1 for the first layer")
		}
		r := a.Val("drum_diameter")/2 + a.Val("rope_diameter")*(layer-0.5)
		pull := a.Val("torque") * a.Or("ratio", 1) * a.Or("efficiency", 1) / r
		o.Fig("radius", r, "m")
		o.Fig("pull", pull, "N")
		o.Step("r = %s; F = %s N·m·%s·%s/r = %s N", mm(r), f(a.Val("torque")), f(a.Or("ratio", 1)),
			f(a.Or("efficiency", 1)), f(pull))
		return nil
	},
}

var proudDef = &Def{
	Name:    "proud",
	Title:   "Standing proud",
	Asked:   []string{"proud"},
	Subject: "Mechanical helpers",
	Summary: "How far a pack stands out of its recess",
	Inputs: []Input{
		list("thicknesses", quantity.Length, "of the pieces"),
		q("recess", quantity.Length, "depth"),
		optional(signed(q("lower", quantity.Length, "limit"))),
		optional(signed(q("upper", quantity.Length, "limit"))),
	},
	Results:     []Result{{"proud", "m", "below zero: sunk"}, {"verdict", "", ""}},
	Formula:     "Σ thicknesses − recess",
	Source:      "geometry",
	Assumptions: "clean, flat, fully seated",
	Example:     `{"thicknesses":["4.02 mm","4.01 mm"],"recess":"8.00 mm","lower":"0.01 mm","upper":"0.05 mm"}`,
	Run: func(a *Args, o *Output) error {
		if len(a.List("thicknesses")) == 0 {
			return field.Errorf("thicknesses", "give at least one")
		}
		if a.Has("lower") && a.Has("upper") && a.Val("lower") > a.Val("upper") {
			return field.Errorf("upper", "lies below the lower limit")
		}
		sum := 0.0
		for _, t := range a.List("thicknesses") {
			sum += t
		}
		proud := sum - a.Val("recess")
		o.Fig("proud", proud, "m")
		o.Step("%s − %s = %s", mm(sum), mm(a.Val("recess")), mm(proud))
		l := metrology.Limits{
			Lower:    a.Val("lower"),
			Upper:    a.Val("upper"),
			HasLower: a.Has("lower"),
			HasUpper: a.Has("upper"),
		}
		if !l.Empty() {
			// The difference of two lengths carries their rounding, far above that of the limits.
			l.Lower, l.Upper = l.Lower-1e-9*sum, l.Upper+1e-9*sum
			o.Word("verdict", string(metrology.Judge(proud, l, 0, false).Verdict))
		}
		return nil
	},
}

var retainerDef = &Def{
	Name:    "retainer_lift",
	Asked:   []string{"force_total"},
	Subject: "Mechanical helpers",
	Summary: "Force that case pressure over suction puts on the slipper retainer",
	Inputs: []Input{
		q("piston_diameter", quantity.Length, ""),
		q("case_pressure", quantity.Pressure, ""),
		signed(q("suction_pressure", quantity.Pressure, "gauge; below zero for a vacuum")),
		absent(number("pistons", "on the suction side"), "1"),
	},
	Results:     []Result{{"force_each", "N", ""}, {"force_total", "N", ""}},
	Formula:     "F = (p_case − p_suction)·π/4·d²",
	Source:      "area relation",
	Assumptions: "suction pressure under the whole piston",
	Example:     `{"piston_diameter":"18 mm","case_pressure":"8 bar","suction_pressure":"-0.3 bar","pistons":4}`,
	Run: func(a *Args, o *Output) error {
		each := (a.Val("case_pressure") - a.Val("suction_pressure")) * fluidpower.CircleArea(a.Val("piston_diameter"))
		o.Fig("force_each", each, "N")
		o.Fig("force_total", each*a.Or("pistons", 1), "N")
		o.Step("(%s − %s)·π/4·(%s)² = %s N each", bar(a.Val("case_pressure")), bar(a.Val("suction_pressure")),
			mm(a.Val("piston_diameter")), f(each))
		return nil
	},
}

var meshDef = &Def{
	Name:        "mesh",
	Title:       "Strainer mesh",
	Asked:       []string{"opening"},
	Subject:     "Mechanical helpers",
	Summary:     "Opening of a strainer mesh",
	Inputs:      []Input{number("mesh", "wires per inch")},
	Results:     []Result{{"opening", "m", ""}},
	Formula:     "table",
	Source:      "ASTM E11 test sieves",
	Assumptions: "strainer cloth of other wire has another opening",
	Example:     `{"mesh":100}`,
	Run: func(a *Args, o *Output) error {
		opening, below, above := fluid.Sieve(a.Val("mesh"))
		switch {
		case below == 0:
			return field.Errorf("mesh", "is coarser than the table, which begins at 4")
		case math.IsInf(above, 1):
			return field.Errorf("mesh", "is finer than the table, which ends at 635")
		case opening == 0:
			return field.Errorf("mesh", "is no usual test sieve; the neighbours are %s and %s", f2(below), f2(above))
		}
		o.Fig("opening", opening, "m")
		o.Step("mesh %s has %s mm of opening", f2(a.Val("mesh")), f(1e3*opening))
		return nil
	},
}

func f2(v float64) string { return quantity.Figures(v, 3) }

var runoutDef = &Def{
	Name:    "runout",
	Asked:   []string{"eccentricity"},
	Subject: "Mechanical helpers",
	Summary: "Eccentricity from the swing of a dial",
	Inputs: []Input{
		q("tir", quantity.Length, "whole swing"),
		optional(q("limit", quantity.Length, "for the whole swing")),
	},
	Results:     []Result{{"eccentricity", "m", ""}, {"verdict", "", ""}},
	Formula:     "e = TIR/2",
	Source:      "geometry",
	Assumptions: "the surface itself is round",
	Example:     `{"tir":"0.04 mm","limit":"0.05 mm"}`,
	Run: func(a *Args, o *Output) error {
		o.Fig("eccentricity", a.Val("tir")/2, "m")
		o.Step("%s/2 = %s", mm(a.Val("tir")), mm(a.Val("tir")/2))
		if a.Has("limit") {
			o.Word("verdict", string(metrology.Judge(a.Val("tir"), metrology.AtMost(a.Val("limit")), 0, false).Verdict))
		}
		return nil
	},
}
