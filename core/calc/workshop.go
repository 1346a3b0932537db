package calc

import (
	"math"

	"corvek/core/economics"
	"corvek/core/fastener"
	"corvek/core/field"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/spring"
)

func init() { register(shimsDef, coilDef, springCheckDef, torqueDef, patternDef, rebuildDef) }

var shimsDef = &Def{
	Name:    "shims",
	Asked:   []string{"resulting_clearance"},
	Subject: "Measuring and judging",
	Summary: "Shim pack that brings side clearance to the middle of its band",
	Inputs: []Input{
		signed(q("measured_clearance", quantity.Length, "with the fitted pack")),
		q("lower", quantity.Length, "limit"),
		q("upper", quantity.Length, "limit"),
		optional(list("fitted", quantity.Length, "shims fitted now; may be empty")),
		{
			Name:     "available",
			Kind:     Objects,
			Optional: true,
			Help:     "available, not counting the fitted ones",
			Parts:    []Input{q("thickness", quantity.Length, ""), absent(number("count", ""), "1")},
		},
		absent(q("removed_from_body", quantity.Length, "ground or lapped off the body"), "0"),
		absent(q("removed_from_gears", quantity.Length, "ground off the gear faces"), "0"),
	},
	Results: []Result{
		{"predicted_clearance", "m", ""},
		{"change_needed", "m", "positive asks for more"},
		{"best", "m", "the whole new pack"},
		{"resulting_clearance", "m", ""},
		{"possible", "", ""},
	},
	Formula:     "predicted = measured − off body + off gears; result = predicted + new pack − fitted pack",
	Source:      "geometry of the stack",
	Assumptions: "shims lie flat between body and plate",
	Example: `{"measured_clearance":"9 thou","lower":"3 thou","upper":"7 thou","fitted":["0.10 mm","0.05 mm"],` +
		`"available":[{"thickness":"0.05 mm","count":2}]}`,
	Run: func(a *Args, o *Output) error {
		if a.Val("lower") > a.Val("upper") {
			return field.Errorf("upper", "lies below the lower limit")
		}
		for i, t := range a.List("fitted") {
			if t == 0 {
				return field.Errorf(indexed("fitted", i), "a shim of no thickness is none; measure it")
			}
		}
		var stock []metrology.ShimStock
		for i, s := range a.Objects("available") {
			n := 1.0
			if c, ok := s["count"]; ok {
				n = c.SI
			}
			if s["thickness"].SI == 0 {
				return field.Errorf(indexed("available", i)+".thickness", "must be more than zero")
			}
			if n != math.Trunc(n) || n > 1000 {
				return field.Errorf(indexed("available", i)+".count", "is a whole number of shims, at most 1000")
			}
			stock = append(stock, metrology.ShimStock{Thickness: s["thickness"].SI, Count: int(n)})
		}
		c, err := metrology.ChooseShims(a.Val("measured_clearance"), a.Val("lower"), a.Val("upper"), a.List("fitted"),
			stock, a.Val("removed_from_body"), a.Val("removed_from_gears"))
		if err != nil {
			return field.Errorf("available", "%s", err)
		}
		o.Fig("predicted_clearance", c.Predicted, "m")
		o.Fig("change_needed", c.ChangeNeeded, "m")
		o.List("best", c.Pack, "m")
		o.Fig("resulting_clearance", c.Resulting, "m")
		o.Bool("possible", c.Possible)
		o.Step("predicted = %s − %s + %s = %s", mm(a.Val("measured_clearance")), mm(a.Val("removed_from_body")),
			mm(a.Val("removed_from_gears")), mm(c.Predicted))
		o.Step("middle of the band %s, so change by %s; the new pack gives %s", mm((a.Val("lower")+a.Val("upper"))/2),
			mm(c.ChangeNeeded), mm(c.Resulting))
		if !c.Possible {
			o.Warn("not_possible", "no pack of these shims brings the clearance into the band")
		}
		return nil
	},
}

func indexed(name string, i int) string { return name + "[" + quantity.Figures(float64(i), 1) + "]" }

var coilDef = &Def{
	Name:    "coil_spring",
	Asked:   []string{"cracking_pressure", "force", "rate"},
	Subject: "Springs, fasteners",
	Summary: "Rate, force and cracking pressure of a relief or check spring",
	Inputs: []Input{
		q("free_length", quantity.Length, ""),
		optional(q("rate", quantity.SpringRate, "or wire, mean_diameter and active_coils")),
		optional(q("wire", quantity.Length, "diameter")),
		optional(q("mean_diameter", quantity.Length, "of the coil, centre to centre of the wire")),
		optional(number("active_coils", "")),
		absent(q("shear_modulus", quantity.Pressure, ""), "79.3 GPa"),
		q("installed_length", quantity.Length, ""),
		optional(q("seat_diameter", quantity.Length, "")),
		optional(q("target_pressure", quantity.Pressure, "needs the seat")),
	},
	Results: []Result{
		{"rate", "N/m", ""},
		{"force", "N", ""},
		{"cracking_pressure", "Pa", ""},
		{"shim_for_target", "m", "negative: take away"},
		{"pressure_per_mm", "Pa/mm", ""},
	},
	Formula:     "k = G·d⁴/(8·D³·n); F = k·(free − installed); p = F/(π/4·seat²)",
	Source:      "EN 13906-1",
	Assumptions: "round wire, no friction, seat seals on its edge",
	Example: `{"free_length":"42 mm","rate":"28 N/mm","installed_length":"34 mm","seat_diameter":"4 mm",` +
		`"target_pressure":"180 bar"}`,
	Run: runCoil,
}

func runCoil(a *Args, o *Output) error {
	geometry := []string{"wire", "mean_diameter", "active_coils"}
	given := 0
	for _, g := range geometry {
		if a.Has(g) {
			given++
		}
	}
	k := a.Val("rate")
	switch {
	case a.Has("rate") && given > 0:
		for _, g := range geometry {
			if a.Has(g) {
				return field.Errorf(g, "give the rate or the spring's geometry, not both")
			}
		}
	case !a.Has("rate"):
		if given == 0 {
			return field.Errorf("rate", "is missing; give it in N/mm, or wire, mean_diameter and active_coils")
		}
		for _, g := range geometry {
			if !a.Has(g) {
				return field.Errorf(g, "is missing beside the rest of the spring's geometry")
			}
		}
		shear := a.Or("shear_modulus", spring.SteelShear)
		if a.Val("wire") >= a.Val("mean_diameter") {
			return field.Errorf("mean_diameter", "must be larger than the wire")
		}
		k = spring.Rate(a.Val("wire"), a.Val("mean_diameter"), a.Val("active_coils"), shear)
		o.Step("k = G·d⁴/(8·D³·n) = %s GPa·(%s)⁴/(8·(%s)³·%s) = %s N/mm", f(shear/1e9), mm(a.Val("wire")),
			mm(a.Val("mean_diameter")), f(a.Val("active_coils")), f(k/1e3))
	}
	free, installed := a.Val("free_length"), a.Val("installed_length")
	if installed > free {
		return field.Errorf("installed_length", "is longer than the free length of %s", mm(free))
	}
	force := spring.Force(k, free, installed)
	o.Fig("rate", k, "N/m")
	o.Fig("force", force, "N")
	o.Step("F = k·(%s − %s) = %s N", mm(free), mm(installed), f(force))
	if !a.Has("seat_diameter") {
		if a.Has("target_pressure") {
			return field.Errorf("seat_diameter", "is needed for a target pressure")
		}
		return nil
	}
	seat := a.Val("seat_diameter")
	cracking := spring.Cracking(force, seat)
	o.Fig("cracking_pressure", cracking, "Pa")
	o.Step("p = F/(π/4·(%s)²) = %s", mm(seat), bar(cracking))
	if a.Has("target_pressure") {
		shim := spring.ShimFor(a.Val("target_pressure"), seat, k, free, installed)
		o.Fig("shim_for_target", shim, "m")
		o.Step("for %s: shim %s under the spring", bar(a.Val("target_pressure")), mm(shim))
	}
	o.Fig("pressure_per_mm", spring.Cracking(k*1e-3, seat), "Pa/mm")
	return nil
}

var springCheckDef = &Def{
	Name:    "spring_check",
	Asked:   []string{"deviation"},
	Subject: "Springs, fasteners",
	Summary: "Free length against the book",
	Inputs: []Input{
		q("measured", quantity.Length, "free length"),
		q("nominal", quantity.Length, "book figure"),
		optional(q("tolerance", quantity.Length, "plus or minus")),
	},
	Results: []Result{
		{"verdict", "", "in, out or undecided"},
		{"deviation", "m", ""},
		{"variant_suspected", "", ""},
	},
	Formula:     "deviation = measured − nominal; another variant suspected beyond 10 %",
	Source:      "shop practice",
	Assumptions: "a length does not prove a pressure setting",
	Example:     `{"measured":"40.8 mm","nominal":"42 mm","tolerance":"0.5 mm"}`,
	Run: func(a *Args, o *Output) error {
		dev := a.Val("measured") - a.Val("nominal")
		v := metrology.Undecided
		if a.Has("tolerance") {
			v = metrology.Judge(dev, metrology.Between(-a.Val("tolerance"), a.Val("tolerance")), 0, false).Verdict
		} else {
			o.Warn("no_tolerance", "without a tolerance the length cannot be judged")
		}
		o.Word("verdict", string(v))
		o.Fig("deviation", dev, "m")
		suspect := math.Abs(dev) > spring.VariantShare*a.Val("nominal")
		o.Bool("variant_suspected", suspect)
		o.Step("%s − %s = %s", mm(a.Val("measured")), mm(a.Val("nominal")), mm(dev))
		if suspect {
			o.Warn(
				"variant_suspected",
				"more than 10 %% off: this may be the spring of another variant and not a worn one; a length does "+
					"not prove a pressure",
			)
		}
		return nil
	},
}

var torqueDef = &Def{
	Name:    "bolt_torque",
	Asked:   []string{"torque", "torque_min"},
	Subject: "Springs, fasteners",
	Summary: "Tightening torque by size and class, or the preload of a torque",
	Inputs: []Input{
		{
			Name: "thread",
			Kind: Text,
			Help: "M12, M12x1.25, 1/2-13 UNC, 1/2-20 UNF",
		},
		{Name: "class", Kind: Text, Help: "8.8, 10.9, 12.9, grade 2, grade 5, grade 8, unknown"},
		absent(number("k", "0.2 dry, 0.15 oiled"), "0.2"),
		absent(number("preload_fraction", "of proof load"), "0.75"),
		optional(q("torque", quantity.Torque, "then the preload it gives")),
	},
	Results: []Result{
		{"stress_area", "m2", ""},
		{"proof_load", "N", ""},
		{"preload", "N", ""},
		{"torque", "N·m", ""},
		{"proof_share", "", "preload over proof load"},
		{"torque_min", "N·m", "class unknown: lowest of the usual classes"},
		{"torque_max", "N·m", "class unknown: highest"},
	},
	Formula:     "A_s = π/4·(d − 0.9382·P)² metric, 0.9743·P inch; T = K·d·F",
	Source:      "ISO 898-1, SAE J429, ASME B1.1",
	Assumptions: "torque scatters ±25 % or worse; the maker's figure wins",
	Example:     `{"thread":"M10","class":"8.8"}`,
	Run:         runTorque,
}

func runTorque(a *Args, o *Output) error {
	thread, err := fastener.ParseThread(a.Text("thread"))
	if err != nil {
		return field.Errorf("thread", "%s", err)
	}
	if thread.Pipe {
		return field.Errorf("thread", "%s", thread.NoTable())
	}
	k, share := a.Or("k", fastener.KDry), a.Or("preload_fraction", fastener.UsualPreload)
	if a.Has("preload_fraction") && a.Has("torque") {
		return field.Errorf("torque", "give the share of proof load or the torque, not both")
	}
	if isUnknown(a.Text("class")) {
		return unknownClass(a, o, thread, k, share)
	}
	class, err := fastener.ClassByName(a.Text("class"))
	if err != nil {
		return field.Errorf("class", "%s", err)
	}
	if class.Inch != thread.Inch {
		return field.Errorf("class",
			"%s does not belong on the thread %s; metric threads have property classes, inch threads have grades",
			class.Name, thread.Name)
	}
	area := thread.StressArea()
	proof := class.Proof(thread.Diameter) * area
	o.Fig("stress_area", area, "m2")
	o.Fig("proof_load", proof, "N")
	o.Step("%s: A_s = %s mm²; proof load = %s MPa · A_s = %s kN", thread.Name, f(area*1e6),
		f(class.Proof(thread.Diameter)/1e6), f(proof/1e3))
	preload, torque := share*proof, 0.0
	if a.Has("torque") {
		torque = a.Val("torque")
		preload = fastener.Preload(k, thread.Diameter, torque)
		o.Step("F = T/(K·d) = %s N·m/(%s·%s) = %s kN", f(torque), f(k), mm(thread.Diameter), f(preload/1e3))
	} else {
		torque = fastener.Torque(k, thread.Diameter, preload)
		o.Step("F = %s·proof = %s kN; T = K·d·F = %s·%s·F = %s N·m", f(share), f(preload/1e3), f(k),
			mm(thread.Diameter), f(torque))
	}
	o.Fig("preload", preload, "N")
	o.Fig("torque", torque, "N·m")
	o.Fig("proof_share", preload/proof, "")
	warnProof(o, preload/proof)
	return nil
}

func isUnknown(s string) bool { return s == "unknown" || s == "Unknown" || s == "UNKNOWN" }

func warnProof(o *Output, share float64) {
	if share > fastener.ProofWarning {
		o.Warn("near_proof",
			"the preload is %s of the proof load; with the scatter of a torque wrench the bolt may yield", f(share))
	}
}

// unknownClass gives the span over the usual classes and calls none of it safe.
func unknownClass(a *Args, o *Output, thread fastener.Thread, k, share float64) error {
	area := thread.StressArea()
	o.Fig("stress_area", area, "m2")
	low, high, worst := math.Inf(1), 0.0, 0.0
	for _, c := range fastener.Span(thread, k, share) {
		low, high = math.Min(low, c.Torque), math.Max(high, c.Torque)
		worst = math.Max(worst, fastener.Preload(k, thread.Diameter, a.Val("torque"))/c.Proof)
		o.Step("%s: %s N·m", c.Class.Name, f(c.Torque))
	}
	o.Fig("torque_min", low, "N·m")
	o.Fig("torque_max", high, "N·m")
	if a.Has("torque") {
		o.Fig("preload", fastener.Preload(k, thread.Diameter, a.Val("torque")), "N")
		warnProof(o, worst)
	}
	o.Warn("class_unknown", "no torque is safe until the head mark is read: the usual classes run from %s to %s N·m",
		f(low), f(high))
	return nil
}

var patternDef = &Def{
	Name:    "bolt_pattern",
	Asked:   []string{"order"},
	Subject: "Springs, fasteners",
	Summary: "Crosswise order and torque stages of a bolt circle",
	Inputs: []Input{
		atMost(number("count", "bolts in the circle"), 200),
		atMost(absent(number("steps", "rounds of tightening"), "3"), 20),
		q("torque", quantity.Torque, "final"),
	},
	Results: []Result{
		{"order", "", "positions from 1 round the circle"},
		{"stages", "", "share and torque of each round"},
	},
	Formula:     "opposite pairs, spread; 30, 60, 100 % in three rounds",
	Source:      "shop practice",
	Assumptions: "equal bolts on one circle; the maker's order wins",
	Example:     `{"count":8,"torque":"49 N·m"}`,
	Run: func(a *Args, o *Output) error {
		n, steps := a.Val("count"), a.Or("steps", 3)
		if n < 1 || n != math.Trunc(n) {
			return field.Errorf("count", "is a whole number of bolts, at least 1")
		}
		if steps < 1 || steps != math.Trunc(steps) {
			return field.Errorf("steps", "is a whole number of rounds, at least 1")
		}
		order := fastener.Crosswise(int(n))
		figs := make([]float64, len(order))
		for i, p := range order {
			figs[i] = float64(p)
		}
		o.List("order", figs, "")
		var rows []map[string]any
		for _, s := range fastener.StageShares(int(steps)) {
			rows = append(rows, map[string]any{"percent": Figure{s, ""}, "torque": Figure{s * a.Val("torque"), "N·m"}})
			o.Step("%s of %s N·m = %s N·m, all bolts in this order", f(s), f(a.Val("torque")), f(s*a.Val("torque")))
		}
		o.Table("stages", rows)
		return nil
	},
}

func money(name, help string) Input { return number(name, help) }

var rebuildDef = &Def{
	Name:    "rebuild_or_replace",
	Asked:   []string{"rebuild_cost"},
	Subject: "Deciding and planning",
	Summary: "What a rebuild costs against a new unit",
	Inputs: []Input{
		money("parts", ""),
		hours("labour_hours", ""),
		money("rate", "per hour"),
		absent(money("outside_work", "grinding, plating"), "0"),
		days("rebuild_days", "until it is back"),
		optional(money("new_price", "leave out if none is to be had")),
		optional(days("new_days", "delivery")),
		optional(money("downtime_cost_per_day", "")),
		absent(number("life_fraction", "of a new unit's life"), "1"),
		absent(number("threshold", "ratio above which rebuilding does not pay"), "0.65"),
	},
	Results: []Result{
		{"rebuild_cost", "", ""},
		{"ratio", "", "against new for the same life"},
		{"rebuild_total", "", "with downtime"},
		{"new_total", "", "with downtime"},
		{"cost_per_life", "", ""},
		{"advice", "", "rebuild or replace"},
		{"break_even_new_price", "", ""},
	},
	Formula:     "cost = parts + hours·rate + outside; ratio = cost/(new·life); break-even = cost/(threshold·life)",
	Source:      "shop practice",
	Assumptions: "one life against one life; no interest",
	Example: `{"parts":310,"labour_hours":6,"rate":72,"rebuild_days":3,"new_price":1450,"new_days":21,` +
		`"downtime_cost_per_day":400}`,
	Run: func(a *Args, o *Output) error {
		const day = 86400
		c := economics.Case{
			Parts:          a.Val("parts"),
			LabourHours:    a.Val("labour_hours") / 3600,
			Rate:           a.Val("rate"),
			OutsideWork:    a.Val("outside_work"),
			RebuildDays:    a.Val("rebuild_days") / day,
			NewPrice:       a.Val("new_price"),
			NewDays:        a.Val("new_days") / day,
			DowntimePerDay: a.Val("downtime_cost_per_day"),
			HasNew:         a.Has("new_price"),
			LifeFraction:   a.Or("life_fraction", economics.NewLife),
			Threshold:      a.Or("threshold", economics.UsualThreshold),
		}
		o.Fig("rebuild_cost", c.RebuildCost(), "")
		o.Step("cost = %s + %s h·%s + %s = %s", f(c.Parts), f(c.LabourHours), f(c.Rate), f(c.OutsideWork),
			f(c.RebuildCost()))
		if c.HasNew {
			o.Fig("ratio", c.Ratio(), "")
			o.Step("ratio = cost/(%s·%s) = %s against %s", f(c.NewPrice), f(c.LifeFraction), f(c.Ratio()),
				f(c.Threshold))
		}
		downtime := a.Has("downtime_cost_per_day")
		if downtime {
			o.Fig("rebuild_total", c.RebuildTotal(), "")
			if c.HasNew && a.Has("new_days") {
				o.Fig("new_total", c.NewTotal(), "")
			}
		}
		o.Fig("cost_per_life", c.RebuildCost()/c.LifeFraction, "")
		o.Word("advice", string(c.Advise()))
		o.Fig("break_even_new_price", c.BreakEven(), "")
		if !c.HasNew {
			o.Warn("no_new_unit", "no new unit is to be had, so the rebuild is worth what standing still costs")
		}
		if downtime && c.HasNew && a.Has("new_days") &&
			(c.NewTotal() < c.RebuildTotal()) != (c.Advise() == economics.Replace) {
			o.Warn("downtime_disagrees", "with downtime counted the other way is the cheaper one: rebuild %s, new %s",
				f(c.RebuildTotal()), f(c.NewTotal()))
		}
		return nil
	},
}
