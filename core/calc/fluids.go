package calc

import (
	"math"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/core/fluid"
	"corvek/core/quantity"
)

func init() { register(viscosityDef, cleanlinessDef, balanceDef, residualDef, fillDef) }

var viscosityDef = &Def{
	Name:    "viscosity",
	Asked:   []string{"kinematic"},
	Subject: "Fluid",
	Summary: "Viscosity at a temperature, and viscosity index",
	Inputs: []Input{
		q("v40", quantity.KinematicViscosity, "at 40 °C"),
		q("v100", quantity.KinematicViscosity, "at 100 °C"),
		q("temperature", quantity.Temperature, ""),
		{Name: "density", Dim: quantity.Density, Bare: "kg/m3", Optional: true},
	},
	Results: []Result{
		{"kinematic", "m2/s", ""},
		{"dynamic", "Pa·s", "needs the density"},
		{"viscosity_index", "", "from 2 mm2/s at 100 °C"},
	},
	Formula:     "log10 log10(ν+0.7) = A − B·log10 T",
	Source:      "ASTM D341, ASTM D2270",
	Assumptions: "no wax, no shear thinning",
	Example:     `{"v40":"46 cSt","v100":"6.8 cSt","temperature":"60 °C","density":870}`,
	Run: func(a *Args, o *Output) error {
		v40, v100 := a.Val("v40")*1e6, a.Val("v100")*1e6
		for _, n := range []string{"v40", "v100"} {
			if a.Val(n)*1e6 <= 0.3 {
				return field.Errorf(n, "must be more than 0.3 cSt for this formula")
			}
		}
		if v100 >= v40 {
			return field.Errorf("v100", "must be less than the viscosity at 40 °C")
		}
		if a.Val("temperature") <= -273.15 {
			return field.Errorf("temperature", "lies at absolute zero")
		}
		line := fluid.Line(v40, v100)
		v := line.At(a.Val("temperature"))
		if !finite(v) {
			return field.Errorf("temperature", "lies outside what the formula can tell of this oil")
		}
		o.Fig("kinematic", v*1e-6, "m2/s")
		o.Step("A = %s, B = %s; at %s °C ν = %s cSt", f(line.A), f(line.B), f(a.Val("temperature")), f(v))
		if a.Has("density") {
			o.Fig("dynamic", v*1e-6*a.Val("density"), "Pa·s")
		}
		if vi, ok := fluid.VI(v40, v100); ok {
			o.Fig("viscosity_index", vi, "")
			o.Step("viscosity index %s", f(vi))
		}
		return nil
	},
}

var cleanlinessDef = &Def{
	Name:    "cleanliness",
	Title:   "Oil cleanliness",
	Asked:   []string{"code"},
	Subject: "Fluid",
	Summary: "ISO 4406 code of a particle count, against a target",
	Inputs: []Input{
		list("counts", quantity.Number, "per mL above 4, 6 and 14 µm(c)"),
		optional(Input{Name: "target", Kind: Text, Help: "like 18/16/13"}),
	},
	Results:     []Result{{"code", "", ""}, {"verdict", "", "in when no code exceeds the target's"}},
	Formula:     "each code doubles the count",
	Source:      "ISO 4406",
	Assumptions: "counter calibrated in µm(c), clean bottle",
	Example:     `{"counts":[2100,520,65],"target":"18/16/13"}`,
	Run: func(a *Args, o *Output) error {
		counts := a.List("counts")
		if len(counts) != 3 {
			return field.Errorf("counts", "are three figures: above 4, 6 and 14 µm(c)")
		}
		var codes []int
		var parts []string
		for i, n := range counts {
			if i > 0 && n > counts[i-1] {
				return field.Errorf(indexed("counts", i),
					"cannot be more than the count of smaller particles before it")
			}
			c := fluid.Code(n)
			codes = append(codes, c)
			text := strconv.Itoa(c)
			if c > fluid.MostCode {
				text = ">28"
			}
			parts = append(parts, text)
		}
		o.Word("code", strings.Join(parts, "/"))
		o.Step("%s, %s, %s per mL are %s", f(counts[0]), f(counts[1]), f(counts[2]), strings.Join(parts, "/"))
		if !a.Has("target") {
			return nil
		}
		target := strings.Split(strings.ReplaceAll(a.Text("target"), " ", ""), "/")
		if len(target) != 3 {
			return field.Errorf("target", "is three codes, like 18/16/13")
		}
		verdict := "in"
		for i, t := range target {
			n, err := strconv.Atoi(t)
			if err != nil || n < 0 || n > fluid.MostCode {
				return field.Errorf("target", "is three codes from 0 to 28, like 18/16/13")
			}
			if codes[i] > n {
				verdict = "out"
			}
		}
		o.Word("verdict", verdict)
		return nil
	},
}

// balanceShare is the share of the level before within which a balance counts as closed.
const balanceShare = 0.05

var balanceDef = &Def{
	Name:    "fluid_balance",
	Asked:   []string{"unexplained"},
	Subject: "Fluid",
	Summary: "Does what was drained account for what was in",
	Inputs: []Input{
		q("capacity", quantity.Volume, ""),
		optional(q("level_before", quantity.Volume, "in the system when draining began")),
		q("drained", quantity.Volume, "with the water in it"),
		optional(q("water", quantity.Volume, "of the drained")),
		absent(q("gained_elsewhere", quantity.Volume, "by another sump"), "0"),
		optional(q("vessel", quantity.Volume, "size of a drain vessel")),
	},
	Results: []Result{
		{"missing", "m3", ""},
		{"unexplained", "m3", ""},
		{"water_fraction", "", ""},
		{"vessels", "", ""},
		{"verdict", "", "balanced, short or undecided"},
	},
	Formula:     "missing = level before − drained; unexplained = missing − gained elsewhere",
	Source:      "shop practice",
	Assumptions: "balanced within 5 % of the level before",
	Example: `{"capacity":"120 L","level_before":"110 L","drained":"96 L","water":"2 L",` +
		`"gained_elsewhere":"12 L","vessel":"20 L"}`,
	Run: func(a *Args, o *Output) error {
		if a.Val("water") > a.Val("drained") {
			return field.Errorf("water", "is more than was drained")
		}
		verdict := "undecided"
		if a.Has("level_before") {
			missing := a.Val("level_before") - a.Val("drained")
			unexplained := missing - a.Val("gained_elsewhere")
			o.Fig("missing", missing, "m3")
			o.Fig("unexplained", unexplained, "m3")
			o.Step("missing = %s L, explained elsewhere %s L, unexplained %s L", f(missing*1e3),
				f(a.Val("gained_elsewhere")*1e3), f(unexplained*1e3))
			verdict = "balanced"
			if unexplained > balanceShare*a.Val("level_before")+1e-15 {
				verdict = "short"
			}
			if unexplained < -balanceShare*a.Val("level_before")-1e-15 {
				verdict = "undecided"
				o.Warn("more_than_was_in",
					"more came out than was in; the level before, or another fluid, needs a second look")
			}
		} else {
			o.Step("the level before draining is not known, so what is missing stays undecided")
		}
		if a.Has("water") {
			o.Fig("water_fraction", a.Val("water")/a.Val("drained"), "")
		}
		if a.Has("vessel") {
			o.Fig("vessels", math.Ceil(math.Max(a.Val("capacity"), a.Val("drained"))/a.Val("vessel")-1e-9), "")
		}
		o.Word("verdict", verdict)
		return nil
	},
}

var residualDef = &Def{
	Name:    "residual",
	Title:   "Old oil left",
	Asked:   []string{"old_fraction"},
	Subject: "Fluid",
	Summary: "Old oil left after partial changes",
	Inputs: []Input{
		q("capacity", quantity.Volume, ""),
		q("drained", quantity.Volume, "each time"),
		absent(number("changes", ""), "1"),
	},
	Results:     []Result{{"old_fraction", "", "after refilling"}},
	Formula:     "(1 − drained/capacity)^changes",
	Source:      "mixing",
	Assumptions: "well mixed between changes",
	Example:     `{"capacity":"120 L","drained":"80 L","changes":2}`,
	Run: func(a *Args, o *Output) error {
		if a.Val("drained") > a.Val("capacity")*(1+1e-12) {
			return field.Errorf("drained", "is more than the system holds")
		}
		left := math.Pow(math.Max(0, 1-a.Val("drained")/a.Val("capacity")), a.Or("changes", 1))
		o.Fig("old_fraction", left, "")
		o.Step("(1 − %s/%s)^%s = %s", f(a.Val("drained")*1e3), f(a.Val("capacity")*1e3), f(a.Or("changes", 1)),
			f(left))
		return nil
	},
}

// mostSteps keeps a filling plan readable.
const mostSteps = 500

var fillDef = &Def{
	Name:    "fill_plan",
	Asked:   []string{"additions"},
	Subject: "Fluid",
	Summary: "Filling in steps to the mark and a little over, full stroke checked each time",
	Inputs: []Input{
		q("capacity", quantity.Volume, "to the mark"),
		absent(q("level", quantity.Volume, "in already"), "0"),
		q("step", quantity.Volume, ""),
		q("cap", quantity.Volume, "most that may be added over the mark"),
		optional(q("ram_area", quantity.Area, "")),
	},
	Results:     []Result{{"additions", "", "add and total"}, {"stroke_per_step", "m", ""}},
	Formula:     "stroke a step = step/area",
	Source:      "shop practice",
	Assumptions: "level read with the machine in its stated position",
	Example:     `{"capacity":"10 L","level":"8 L","step":"0.75 L","cap":"0.5 L","ram_area":"28 cm2"}`,
	Run: func(a *Args, o *Output) error {
		mark, step := a.Val("capacity"), a.Val("step")
		top := mark + a.Val("cap")
		if step == 0 {
			return field.Errorf("step", "must be more than zero here")
		}
		if a.Val("level") > top*(1+1e-12) {
			return field.Errorf("level", "stands over the mark and the cap already; take out %s L",
				f((a.Val("level")-top)*1e3))
		}
		if (top-a.Val("level"))/step > mostSteps {
			return field.Errorf("step", "is so small that more than %d additions would be needed", mostSteps)
		}
		rows := []map[string]any{}
		total := a.Val("level")
		for _, goal := range []float64{mark, top} {
			for goal-total > 1e-12 {
				add := math.Min(step, goal-total)
				if goal-total-add < 1e-9*step {
					add = goal - total
				}
				total += add
				rows = append(rows, map[string]any{"add": Figure{add, "m3"}, "total": Figure{total, "m3"}})
			}
		}
		o.Table("additions", rows)
		o.Step("%d additions, to the mark at %s L and not over %s L; check the full stroke after each", len(rows),
			f(mark*1e3), f(top*1e3))
		if a.Has("ram_area") {
			o.Fig("stroke_per_step", step/a.Val("ram_area"), "m")
		}
		return nil
	},
}
