package calc

import (
	"fmt"
	"math"
	"strings"

	"corvek/core/field"
	"corvek/core/fluidpower"
	"corvek/core/quantity"
)

func init() { register(motorDef, rippleDef, dividerDef, orificeDef) }

var motorDef = &Def{
	Name:    "motor",
	Title:   "Motor figures",
	Asked:   []string{"overall_efficiency", "volumetric_efficiency", "theoretical_torque"},
	Subject: "Pumps, motors, heat",
	Summary: "Theoretical torque, powers and efficiencies of a motor",
	Inputs: []Input{
		q("displacement", quantity.Displacement, ""),
		q("speed", quantity.Rotation, ""),
		q("pressure", quantity.Pressure, "at the inlet"),
		absent(signed(q("outlet_pressure", quantity.Pressure, "")), "0"),
		optional(q("flow", quantity.Flow, "taken in")),
		optional(q("torque", quantity.Torque, "at the shaft")),
		optional(q("case_flow", quantity.Flow, "")),
	},
	Results: []Result{
		{"theoretical_flow", "m3/s", ""},
		{"theoretical_torque", "N·m", ""},
		{"volumetric_efficiency", "", "theoretical over actual"},
		{"hydromechanical_efficiency", "", ""},
		{"overall_efficiency", "", ""},
		{"shaft_power", "W", ""},
		{"hydraulic_power", "W", ""},
		{"case_fraction", "", ""},
	},
	Formula:     "Q_th = D·n; T_th = Δp·D/2π; η_v = Q_th/Q; η_hm = T/T_th",
	Source:      "ISO 4391 and ISO 4409",
	Assumptions: "steady running",
	Example: `{"displacement":"400 cc/rev","speed":"120 rpm","pressure":"180 bar","flow":"52 L/min",` +
		`"torque":"1050 N·m"}`,
	Run: func(a *Args, o *Output) error {
		disp, n := a.Val("displacement"), a.Val("speed")
		drop := a.Val("pressure") - a.Val("outlet_pressure")
		theory, torque := fluidpower.TheoreticalFlow(disp, n), fluidpower.TheoreticalTorque(drop, disp)
		o.Fig("theoretical_flow", theory, "m3/s")
		o.Fig("theoretical_torque", torque, "N·m")
		o.Step("Q_th = %s cc/rev · %s rpm = %s; T_th = %s · D/2π = %s N·m", f(disp*1e6), f(n), lpm(theory),
			bar(drop), f(torque))
		hydraulic, shaft := drop*a.Val("flow"), fluidpower.ShaftPower(a.Val("torque"), n)
		if a.Has("flow") {
			o.Fig("volumetric_efficiency", theory/a.Val("flow"), "")
			o.Fig("hydraulic_power", hydraulic, "W")
			if theory > a.Val("flow") {
				o.Warn("flow_below_theory",
					"the motor takes in less than its theoretical flow; check displacement, speed and the flow meter")
			}
		}
		if a.Has("torque") {
			o.Fig("hydromechanical_efficiency", a.Val("torque")/torque, "")
			o.Fig("shaft_power", shaft, "W")
		}
		if a.Has("flow") && a.Has("torque") {
			o.Fig("overall_efficiency", shaft/hydraulic, "")
			o.Step("η = %s kW/%s kW = %s", f(shaft/1e3), f(hydraulic/1e3), f(shaft/hydraulic))
		}
		if a.Has("case_flow") {
			o.Fig("case_fraction", a.Val("case_flow")/theory, "")
		}
		return nil
	},
}

var rippleDef = &Def{
	Name:    "piston_ripple",
	Asked:   []string{"outlet_1_ripple", "ripple"},
	Subject: "Pumps, motors, heat",
	Summary: "Flow ripple of a piston pump with whole or dead pistons",
	Inputs: []Input{
		atMost(number("pistons", ""), 60),
		absent(atMost(number("outlets", "pistons alternate between them"), 6), "1"),
		optional(
			Input{
				Name: "delivery",
				Kind: List,
				Dim:  quantity.Number,
				Max:  1,
				Help: "for each piston: 1 full, 0 dead, 0.4 partial",
			},
		),
		optional(number("dead", "how many, side by side, from the first")),
		q("speed", quantity.Rotation, ""),
		q("displacement", quantity.Displacement, ""),
	},
	Results:     rippleResults(),
	Formula:     "q_i = max(0, sin(θ + 2π·i/z)); ripple = (peak − low)/mean of the sum",
	Source:      "kinematics of piston pumps, textbook",
	Assumptions: "stiff oil, no valve timing; real pulsation is larger",
	Example:     `{"pistons":9,"speed":"1480 rpm","displacement":"71 cc/rev","dead":1}`,
	Run:         runRipple,
}

func rippleResults() []Result {
	base := []Result{
		{"mean_flow", "m3/s", "actual"},
		{"ripple", "", "peak to peak over the actual mean"},
		{"ripple_of_ideal", "", "over the mean with all pistons"},
		{"pulsation_frequency", "Hz", "lowest in the pattern"},
	}
	out := append([]Result{}, base...)
	out = append(out, Result{"shaft_frequency", "Hz", ""})
	for i := 1; i <= 6; i++ {
		for _, r := range base {
			out = append(out, Result{fmt.Sprintf("outlet_%d_%s", i, r.Name), r.Unit, r.Help})
		}
	}
	return out
}

// Delivery is the share each piston of piston_ripple's inputs gives.
func Delivery(a *Args) ([]float64, error) {
	z := a.Val("pistons")
	delivery := make([]float64, int(z))
	for i := range delivery {
		delivery[i] = 1
	}
	switch {
	case a.Has("delivery") && a.Has("dead"):
		return nil, field.Errorf("dead", "give the delivery of each piston or how many are dead, not both")
	case a.Has("delivery"):
		if len(a.List("delivery")) != int(z) {
			return nil, field.Errorf("delivery", "has %d entries for %d pistons", len(a.List("delivery")), int(z))
		}
		return a.List("delivery"), nil
	case a.Has("dead"):
		dead := a.Val("dead")
		if dead != math.Trunc(dead) {
			return nil, field.Errorf("dead", "is a whole number of pistons")
		}
		if dead >= z {
			return nil, field.Errorf("dead", "leaves no piston that pumps")
		}
		for i := range int(dead) {
			delivery[i] = 0
		}
	}
	return delivery, nil
}

func runRipple(a *Args, o *Output) error {
	z, outlets := a.Val("pistons"), a.Or("outlets", 1)
	if z < 1 || z != math.Trunc(z) {
		return field.Errorf("pistons", "is a whole number, at least 1")
	}
	if outlets < 1 || outlets != math.Trunc(outlets) || outlets > z {
		return field.Errorf("outlets", "is a whole number from 1 to the number of pistons")
	}
	delivery, err := Delivery(a)
	if err != nil {
		return err
	}
	flow, turns := fluidpower.TheoreticalFlow(a.Val("displacement"), a.Val("speed")), a.Val("speed")/60
	write := func(prefix string, d []float64, of []bool) float64 {
		r := fluidpower.PistonRipple(d, of, flow)
		o.Fig(prefix+"mean_flow", r.Mean, "m3/s")
		if r.Mean > 0 {
			o.Fig(prefix+"ripple", r.PeakToPeak()/r.Mean, "")
		}
		if r.Ideal > 0 {
			o.Fig(prefix+"ripple_of_ideal", r.PeakToPeak()/r.Ideal, "")
		}
		o.Fig(prefix+"pulsation_frequency", float64(r.PerTurn)*turns, "Hz")
		o.Step("%smean %s, from %s to %s, %d pulsations a turn", strings.ReplaceAll(prefix, "_", " "), lpm(r.Mean),
			lpm(r.Low), lpm(r.Peak), r.PerTurn)
		return r.Mean
	}
	all := make([]bool, len(delivery))
	for i := range all {
		all[i] = true
	}
	if write("", delivery, all) == 0 && flow > 0 {
		return field.Errorf("delivery", "leaves no piston that pumps")
	}
	o.Fig("shaft_frequency", turns, "Hz")
	if outlets > 1 {
		for k := range int(outlets) {
			d, of := make([]float64, len(delivery)), make([]bool, len(delivery))
			for i := range delivery {
				if i%int(outlets) == k {
					d[i], of[i] = delivery[i], true
				}
			}
			write(fmt.Sprintf("outlet_%d_", k+1), d, of)
		}
	}
	return nil
}

var dividerDef = &Def{
	Name:    "flow_divider",
	Asked:   []string{"error_a"},
	Subject: "Pumps, motors, heat",
	Summary: "How evenly a flow divider shares",
	Inputs: []Input{
		q("flow_a", quantity.Flow, ""),
		q("flow_b", quantity.Flow, ""),
		optional(q("inlet", quantity.Flow, "")),
		atMost(absent(number("split", "share meant for A"), "0.5"), 1),
	},
	Results: []Result{
		{"total", "m3/s", ""},
		{"share_a", "", ""},
		{"share_b", "", ""},
		{"error_a", "", "over its share"},
		{"speed_difference", "", "of equal cylinders"},
		{"internal_leak", "m3/s", "inlet less total"},
	},
	Formula:     "error = (Q_a − split·total)/(split·total)",
	Source:      "definition",
	Assumptions: "both measured at the same time",
	Example:     `{"flow_a":"21 L/min","flow_b":"19 L/min","inlet":"40.5 L/min"}`,
	Run: func(a *Args, o *Output) error {
		x, y := a.Val("flow_a"), a.Val("flow_b")
		total, split := x+y, a.Or("split", 0.5)
		o.Fig("total", total, "m3/s")
		o.Fig("share_a", x/total, "")
		o.Fig("share_b", y/total, "")
		o.Fig("error_a", (x-split*total)/(split*total), "")
		o.Fig("speed_difference", (x-y)/total, "")
		o.Step("total = %s + %s = %s; A has %s of it, %s was meant", lpm(x), lpm(y), lpm(total), f(x/total), f(split))
		if a.Has("inlet") {
			o.Fig("internal_leak", a.Val("inlet")-total, "m3/s")
			if a.Val("inlet") < total {
				o.Warn("more_out_than_in", "more comes out than goes in; check the flow meters")
			}
		}
		return nil
	},
}

var orificeDef = &Def{
	Name:    "orifice",
	Asked:   []string{"flow"},
	Subject: "Leakage",
	Summary: "Flow through a sharp-edged hole",
	Inputs: []Input{
		q("diameter", quantity.Length, ""),
		q("pressure_drop", quantity.Pressure, ""),
		density("density"),
		atMost(absent(number("discharge", "coefficient"), "0.61"), 1),
	},
	Results:     []Result{{"flow", "m3/s", ""}, {"velocity", "m/s", "flow over the hole's area"}},
	Formula:     "Q = Cd·A·√(2Δp/ρ)",
	Source:      "sharp-edged orifice, textbook",
	Assumptions: "turbulent, thin plate",
	Example:     `{"diameter":"1 mm","pressure_drop":"100 bar"}`,
	Run: func(a *Args, o *Output) error {
		area := fluidpower.CircleArea(a.Val("diameter"))
		v := a.Or("discharge", 0.61) * math.Sqrt(2*a.Val("pressure_drop")/a.Or("density", usualDensity))
		o.Fig("flow", v*area, "m3/s")
		o.Fig("velocity", v, "m/s")
		o.Step("Q = %s·π/4·(%s)²·√(2·%s/%s) = %s", f(a.Or("discharge", 0.61)), mm(a.Val("diameter")),
			bar(a.Val("pressure_drop")), f(a.Or("density", usualDensity)), lpm(v*area))
		return nil
	},
}
