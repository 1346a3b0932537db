package calc

import (
	"errors"
	"math"
	"strings"

	"corvek/core/bearing"
	"corvek/core/field"
	"corvek/core/metrology"
	"corvek/core/quantity"
)

func init() { register(readingsDef, judgeDef, feelerDef, clearanceDef, wearLifeDef, needleDef) }

var readingsDef = &Def{
	Name:    "readings",
	Asked:   []string{"wear", "range"},
	Subject: "Measuring and judging",
	Summary: "Mean, range, out-of-round, taper and wear from readings",
	Inputs: []Input{
		optional(list("readings", quantity.Length, "one value each")),
		{Name: "grid", Kind: Grid, Dim: quantity.Length, Optional: true, Help: "depths × axes, in place of readings"},
		optional(q("nominal", quantity.Length, "when new; needs kind")),
		{Name: "kind", Kind: Choice, Choices: []string{"bore", "shaft"}, Optional: true, Help: "which way it wears"},
	},
	Results: []Result{
		{"mean", "m", ""},
		{"minimum", "m", ""},
		{"maximum", "m", ""},
		{"range", "m", ""},
		{"out_of_round", "m", "worst spread at one depth"},
		{"taper", "m", "worst end-to-end difference on one axis"},
		{"wear", "m", ""},
		{"standard_deviation", "m", "n − 1"},
	},
	Formula:     "s² = Σ(x − x̄)²/(n − 1)",
	Source:      "plain statistics; two-point diameters as in shop practice",
	Assumptions: "two-point readings do not show lobing",
	Example:     `{"grid":[["50.012 mm","50.020 mm"],["50.014 mm","50.031 mm"]],"nominal":"50 mm","kind":"bore"}`,
	Run:         runReadings,
}

func runReadings(a *Args, o *Output) error {
	if a.Has("readings") && a.Has("grid") {
		return field.Errorf("grid", "takes the place of readings; give one of the two")
	}
	var s metrology.Summary
	switch {
	case a.Has("grid"):
		s = metrology.SummariseGrid(a.Grid("grid"))
	case len(a.List("readings")) > 0:
		s = metrology.Summarise(a.List("readings"))
	default:
		return field.Errorf("readings", "give at least one reading")
	}
	if a.Has("nominal") && !a.Has("kind") {
		return field.Errorf("kind", "say bore or shaft, so that wear has a direction")
	}
	o.Fig("mean", s.Mean, "m")
	o.Fig("minimum", s.Minimum, "m")
	o.Fig("maximum", s.Maximum, "m")
	o.Fig("range", s.Range, "m")
	o.Step("%d readings, mean %s, from %s to %s", s.N, mm(s.Mean), mm(s.Minimum), mm(s.Maximum))
	if s.HasOutOfRound {
		o.Fig("out_of_round", s.OutOfRound, "m")
	}
	if s.HasTaper {
		o.Fig("taper", s.Taper, "m")
	}
	if a.Has("nominal") {
		kind := metrology.Kind(a.Text("kind"))
		wear := s.Wear(a.Val("nominal"), kind)
		o.Fig("wear", wear, "m")
		o.Step("wear of a %s = |%s − %s| = %s at the worst reading", kind, mm(s.Worst(kind)), mm(a.Val("nominal")),
			mm(wear))
	}
	if s.N > 1 {
		o.Fig("standard_deviation", s.StandardDeviation, "m")
	}
	return nil
}

func anyQ(name, help string) Input {
	return Input{Name: name, AnyDim: true, Signed: true, Help: help}
}

func spread(name, help string) Input {
	in := optional(anyQ(name, help))
	in.Spread = true
	return in
}

var judgeDef = &Def{
	Name:    "judge",
	Title:   "In, out or undecided",
	Asked:   []string{"margin_upper", "margin_lower"},
	Subject: "Measuring and judging",
	Summary: "In, out or undecided, with what the instrument can tell",
	Inputs: []Input{
		anyQ("value", "as measured"),
		optional(anyQ("lower", "limit")),
		optional(anyQ("upper", "limit")),
		spread("uncertainty", "expanded, k = 2; of a temperature a difference, 2 K"),
		spread("resolution", "of the instrument; used where there is no uncertainty"),
		choice("rule", "guarded", "guarded keeps a band for the uncertainty; simple goes by the value alone",
			"guarded", "simple"),
	},
	Results: []Result{
		{"verdict", "", "in, out or undecided"},
		{"margin_lower", "as the value", "positive inside"},
		{"margin_upper", "as the value", "positive inside"},
		{"band", "as the value", "upper less lower"},
	},
	Formula: "guarded: in if value ± U lies inside; out if it lies outside; else undecided. U = resolution/√3 " +
		"where only that is known",
	Source:      "ISO 14253-1",
	Assumptions: "the uncertainty covers instrument and method",
	Example:     `{"value":"0.186 mm","lower":"3 thou","upper":"7 thou","resolution":"0.01 mm"}`,
	Run: func(a *Args, o *Output) error {
		l := metrology.Limits{
			Lower:    a.Val("lower"),
			Upper:    a.Val("upper"),
			HasLower: a.Has("lower"),
			HasUpper: a.Has("upper"),
		}
		if l.Empty() {
			return field.Errorf("upper", "give at least one limit, lower or upper")
		}
		if l.HasLower && l.HasUpper && l.Lower > l.Upper {
			return field.Errorf("upper", "lies below the lower limit")
		}
		for _, name := range []string{"uncertainty", "resolution"} {
			if a.Val(name) < 0 {
				return field.Errorf(name, "cannot be below zero")
			}
		}
		value := a.Quantity("value")
		delta, shown := value.Dim.Base(), value.Unit
		if value.Dim == quantity.Temperature { // a difference of temperatures is in K
			delta = quantity.TemperatureDifference.Base()
			shown, _ = quantity.UnitByName(delta, quantity.TemperatureDifference)
		}
		wide := func(u float64) string { return strings.TrimSpace(f(shown.In(u)) + " " + shown.Name) }
		u := a.Val("uncertainty")
		if !a.Has("uncertainty") && a.Has("resolution") {
			u = metrology.ExpandedFromResolution(a.Val("resolution"))
			o.Step("U = resolution/√3 = %s", wide(u))
		}
		j := metrology.Judge(a.Val("value"), l, u, a.Text("rule") != "simple")
		o.Word("verdict", string(j.Verdict))
		if l.HasLower {
			o.Fig("margin_lower", j.MarginLower, delta)
		}
		if l.HasUpper {
			o.Fig("margin_upper", j.MarginUpper, delta)
		}
		if l.HasLower && l.HasUpper {
			o.Fig("band", l.Upper-l.Lower, delta)
		}
		o.Step("value %s, U %s: %s", value.Typed, wide(u), j.Verdict)
		return nil
	},
}

var feelerDef = &Def{
	Name:    "feeler",
	Title:   "Feeler leaves",
	Asked:   []string{"next_leaf", "midpoint", "at_least"},
	Subject: "Measuring and judging",
	Summary: "What feeler leaves tell of a gap, and which to try next",
	Inputs: []Input{
		list("goes", quantity.Length, "leaves that pass"),
		list("stops", quantity.Length, "leaves that do not; may be empty"),
		optional(list("drags", quantity.Length, "leaves that pass with drag")),
		optional(q("lower", quantity.Length, "limit")),
		optional(q("upper", quantity.Length, "limit")),
		{
			Name:     "measured",
			Kind:     Choice,
			Choices:  []string{"total", "each"},
			Optional: true,
			Default:  "total",
			Help:     "pushed to one side, or each side of a centred part",
		},
		{
			Name:     "limit_for",
			Kind:     Choice,
			Choices:  []string{"total", "each"},
			Optional: true,
			Default:  "as measured",
			Help:     "what the limit means",
		},
		optional(list("leaves", quantity.Length, "the set at hand")),
	},
	Results: []Result{
		{"at_least", "m", ""},
		{"less_than", "m", ""},
		{"midpoint", "m", ""},
		{"verdict", "", ""},
		{"next_leaf", "m", "in the sense measured"},
	},
	Formula:     "gap in [thickest that goes, thinnest that stops)",
	Source:      "shop practice; ISO 14253-1 for the open cases",
	Assumptions: "leaves clean, flat and marked truly",
	Example:     `{"goes":["3 thou","5 thou"],"stops":["9 thou"],"lower":"3 thou","upper":"7 thou"}`,
	Run:         runFeeler,
}

func runFeeler(a *Args, o *Output) error {
	leaves := metrology.Leaves{Goes: a.List("goes"), Drags: a.List("drags"), Stops: a.List("stops")}
	iv, err := leaves.Interval()
	switch {
	case errors.Is(err, metrology.ErrContradiction):
		name := "stops"
		if _, plain := (metrology.Leaves{Goes: leaves.Goes, Stops: leaves.Stops}).Interval(); plain == nil {
			name = "drags"
		}
		return field.Errorf(name, "%s", err)
	case err != nil:
		return field.Errorf("goes", "%s", err)
	}
	for _, d := range leaves.Drags {
		for _, g := range leaves.Goes {
			if d == g {
				return field.Errorf("drags", "the leaf of %s is given both as going freely and as dragging", mm(d))
			}
		}
	}
	l := metrology.Limits{
		Lower:    a.Val("lower"),
		Upper:    a.Val("upper"),
		HasLower: a.Has("lower"),
		HasUpper: a.Has("upper"),
	}
	if l.HasLower && l.HasUpper && l.Lower > l.Upper {
		return field.Errorf("upper", "lies below the lower limit")
	}
	o.Fig("at_least", iv.AtLeast, "m")
	if mid, ok := iv.Midpoint(); ok {
		o.Fig("less_than", iv.LessThan, "m")
		o.Fig("midpoint", mid, "m")
		o.Step("the gap lies in [%s, %s)", mm(iv.AtLeast), mm(iv.LessThan))
	} else {
		o.Step("the gap is at least %s; no leaf stopped, so there is no upper bound", mm(iv.AtLeast))
	}
	if l.Empty() {
		return nil
	}
	measured := metrology.Sense(a.Text("measured"))
	if measured == "" {
		measured = metrology.Total
	}
	meant := metrology.Sense(a.Text("limit_for"))
	if meant == "" {
		meant = measured
	}
	asMeasured := l.In(meant, measured)
	v := iv.Judge(asMeasured)
	o.Word("verdict", string(v))
	if meant != measured {
		o.Step("measured %s, limit for %s: brought to one sense before judging", measured, meant)
	}
	if iv.Coarse(asMeasured) {
		o.Warn("leaves_coarse", "in as far as the leaves tell: they leave the whole band open")
	}
	if leaf, ok := iv.NextLeaf(asMeasured, leaves.Tried(), a.List("leaves")); ok {
		o.Fig("next_leaf", leaf, "m")
		o.Step("the leaf of %s is the next to try", mm(leaf))
	}
	return nil
}

var clearanceDef = &Def{
	Name:    "clearance",
	Asked:   []string{"diametral", "diametral_min"},
	Subject: "Measuring and judging",
	Summary: "Play between a hole and a shaft",
	Inputs: []Input{
		optional(q("hole", quantity.Length, "one figure, or hole_min and hole_max")),
		optional(q("hole_min", quantity.Length, "")),
		optional(q("hole_max", quantity.Length, "")),
		optional(q("shaft", quantity.Length, "one figure, or shaft_min and shaft_max")),
		optional(q("shaft_min", quantity.Length, "")),
		optional(q("shaft_max", quantity.Length, "")),
	},
	Results: []Result{
		{"diametral", "m", ""},
		{"radial", "m", ""},
		{"diametral_min", "m", "with ranges"},
		{"diametral_max", "m", ""},
		{"radial_min", "m", ""},
		{"radial_max", "m", ""},
	},
	Formula:     "diametral = hole − shaft; radial = diametral/2",
	Source:      "ISO 286-1 terms",
	Assumptions: "both at the same temperature",
	Example:     `{"hole":"20.045 mm","shaft":"19.998 mm"}`,
	Run: func(a *Args, o *Output) error {
		pair := func(name string) (lo, hi float64, err error) {
			single, low, high := a.Has(name), a.Has(name+"_min"), a.Has(name+"_max")
			switch {
			case single && (low || high):
				return 0, 0, field.Errorf(map[bool]string{true: name + "_max", false: name + "_min"}[high],
					"give either one figure for the %s or a smallest and a largest", name)
			case single:
				return a.Val(name), a.Val(name), nil
			case low && high:
				if a.Val(name+"_min") > a.Val(name+"_max") {
					return 0, 0, field.Errorf(name+"_max", "lies below %s_min", name)
				}
				return a.Val(name + "_min"), a.Val(name + "_max"), nil
			case low:
				return 0, 0, field.Errorf(name+"_max", "is missing beside %s_min", name)
			case high:
				return 0, 0, field.Errorf(name+"_min", "is missing beside %s_max", name)
			}
			return 0, 0, field.Errorf(name, "is missing; give it in mm or in")
		}
		holeLo, holeHi, err := pair("hole")
		if err != nil {
			return err
		}
		shaftLo, shaftHi, err := pair("shaft")
		if err != nil {
			return err
		}
		least, most := holeLo-shaftHi, holeHi-shaftLo
		if a.Has("hole") && a.Has("shaft") {
			o.Fig("diametral", most, "m")
			o.Fig("radial", most/2, "m")
			o.Step("%s − %s = %s across, %s on each side", mm(holeHi), mm(shaftLo), mm(most), mm(most/2))
		} else {
			o.Fig("diametral_min", least, "m")
			o.Fig("diametral_max", most, "m")
			o.Fig("radial_min", least/2, "m")
			o.Fig("radial_max", most/2, "m")
			o.Step("smallest %s − %s = %s, largest %s − %s = %s", mm(holeLo), mm(shaftHi), mm(least), mm(holeHi),
				mm(shaftLo), mm(most))
		}
		if least < 0 {
			o.Warn("interference", "the shaft can be larger than the hole: this is a press fit, not a running one")
		}
		return nil
	},
}

var wearLifeDef = &Def{
	Name:    "wear_life",
	Asked:   []string{"hours_left", "used"},
	Subject: "Measuring and judging",
	Summary: "Wear rate and hours left to a limit",
	Inputs: []Input{
		q("nominal", quantity.Length, "when new"),
		q("limit", quantity.Length, "where it is condemned"),
		q("measured", quantity.Length, "now"),
		hours("hours", "run since new"),
	},
	Results:     []Result{{"rate", "m/h", ""}, {"used", "", "share of the wear limit"}, {"hours_left", "h", ""}},
	Formula:     "rate = |measured − nominal|/hours; hours_left = (allowance − wear)/rate",
	Source:      "straight-line extrapolation",
	Assumptions: "wear goes on at the same rate; it seldom does",
	Example:     `{"nominal":"20 mm","limit":"19.95 mm","measured":"19.97 mm","hours":"6000 h"}`,
	Run: func(a *Args, o *Output) error {
		if a.Val("nominal") == a.Val("limit") {
			return field.Errorf("limit", "is the same as nominal, so there is no allowance to use")
		}
		h := a.Val("hours") / 3600
		life := metrology.WearLife(a.Val("nominal"), a.Val("limit"), a.Val("measured"), h)
		o.Fig("rate", life.Rate, "m/h")
		o.Fig("used", life.Used, "")
		o.Step("wear %s of %s allowed in %s h", mm(life.Rate*h), mm(math.Abs(a.Val("limit")-a.Val("nominal"))), f(h))
		if life.Worn {
			o.Fig("hours_left", life.HoursLeft, "h")
			o.Warn("linear", "hours left assume that wear goes on in a straight line; it speeds up as clearances open")
			return nil
		}
		o.Warn("no_wear", "there is no wear yet, so hours left cannot be worked out")
		return nil
	},
}

var needleDef = &Def{
	Name:    "needle_complement",
	Asked:   []string{"most"},
	Subject: "Mechanical helpers",
	Summary: "How many needles belong round a shaft",
	Inputs: []Input{
		q("shaft", quantity.Length, "diameter of the track"),
		q("needle", quantity.Length, "diameter of a needle"),
	},
	Results: []Result{
		{"most", "", "largest number that fits"},
		{"circumferential_gap", "m", "left on the pitch circle"},
	},
	Formula:     "⌊π/asin(d/(D + d))⌋",
	Source:      "circles on a circle, plain geometry",
	Assumptions: "full complement, no cage; the maker's count wins",
	Example:     `{"shaft":"20 mm","needle":"3.5 mm"}`,
	Run: func(a *Args, o *Output) error {
		if a.Val("needle") == 0 {
			return field.Errorf("needle", "must be more than zero here")
		}
		most, gap := bearing.NeedleComplement(a.Val("shaft"), a.Val("needle"))
		o.Fig("most", float64(most), "")
		o.Fig("circumferential_gap", gap, "m")
		o.Step("asin(%s/(%s + %s)) goes %d times into π; %s left over", mm(a.Val("needle")), mm(a.Val("shaft")),
			mm(a.Val("needle")), most, mm(gap))
		return nil
	},
}
