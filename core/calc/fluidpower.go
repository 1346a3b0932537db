package calc

import (
	"math"

	"corvek/core/field"
	"corvek/core/fluidpower"
	"corvek/core/quantity"
)

func init() { register(cylinderDef, pumpDef, heatDef) }

var cylinderDef = &Def{
	Name:    "cylinder",
	Asked:   []string{"push_force"},
	Subject: "Geometry and force",
	Summary: "Areas, forces, speeds and blocked-rod pressure of a cylinder",
	Inputs: []Input{
		q("bore", quantity.Length, "inside diameter of the tube"),
		optional(q("rod", quantity.Length, "rod diameter, smaller than the bore")),
		q("pressure", quantity.Pressure, "at the driven side"),
		optional(q("return_pressure", quantity.Pressure, "at the other side; needs the rod")),
		optional(q("flow", quantity.Flow, "into the driven side")),
		optional(q("stroke", quantity.Length, "")),
		atMost(absent(number("force_efficiency", "share of the force left after friction"), "1"), 1),
	},
	Results: []Result{
		{
			"cap_area",
			"m2",
			"",
		},
		{"annulus_area", "m2", ""},
		{"area_ratio", "", "cap over annulus"},
		{"push_force", "N", ""},
		{"pull_force", "N", ""},
		{
			"extend_speed",
			"m/s",
			"",
		},
		{"retract_speed", "m/s", ""},
		{"cap_volume", "m3", ""},
		{"annulus_volume", "m3", ""},
		{
			"extend_time",
			"s",
			"",
		},
		{"retract_time", "s", ""},
		{"blocked_rod_pressure", "Pa", "at the rod end when its port is shut"},
	},
	Formula:     "A = π/4·d²; F = (p·A − p_ret·A_other)·η; v = Q/A; p_blocked = p·A_cap/A_ann",
	Source:      "area relations of any fluid-power textbook",
	Assumptions: "steady pressures, no leak past the piston",
	Example:     `{"bore":"63 mm","rod":"36 mm","pressure":"210 bar"}`,
	Run:         runCylinder,
}

func runCylinder(a *Args, o *Output) error {
	bore, rod, p, back := a.Val("bore"), a.Val("rod"), a.Val("pressure"), a.Val("return_pressure")
	hasRod := a.Has("rod")
	if hasRod && rod >= bore {
		return field.Errorf("rod", "must be smaller than the bore of %s", mm(bore))
	}
	if !hasRod && a.Has("return_pressure") {
		return field.Errorf("return_pressure", "acts on the annulus, so give the rod diameter too")
	}
	eff := a.Or("force_efficiency", 1)
	cap := fluidpower.CircleArea(bore)
	ann := cap - fluidpower.CircleArea(rod)
	o.Fig("cap_area", cap, "m2")
	o.Step("A_cap = π/4·d² = 0.7854·(%s)² = %s cm²", mm(bore), f(cap*1e4))
	push := p * cap * eff
	if hasRod {
		o.Fig("annulus_area", ann, "m2")
		o.Fig("area_ratio", cap/ann, "")
		o.Step("A_ann = A_cap − π/4·(%s)² = %s cm²", mm(rod), f(ann*1e4))
		push = (p*cap - back*ann) * eff
	}
	o.Fig("push_force", push, "N")
	o.Step("push = (p·A_cap − p_ret·A_ann)·η = %s N with p = %s, η = %s", f(push), bar(p), f(eff))
	if hasRod {
		o.Fig("pull_force", (p*ann-back*cap)*eff, "N")
		o.Step("pull = (p·A_ann − p_ret·A_cap)·η = %s N", f((p*ann-back*cap)*eff))
		if back*cap > p*ann {
			o.Warn("pull_stalled", "the return pressure on the full bore outweighs the pull; the rod will not come in")
		}
	}
	if a.Has("flow") {
		flow := a.Val("flow")
		o.Fig("extend_speed", flow/cap, "m/s")
		o.Step("v_out = Q/A_cap = %s mm/s", f(flow/cap*1e3))
		if hasRod {
			o.Fig("retract_speed", flow/ann, "m/s")
		}
		if a.Has("stroke") {
			o.Fig("extend_time", a.Val("stroke")*cap/flow, "s")
			if hasRod {
				o.Fig("retract_time", a.Val("stroke")*ann/flow, "s")
			}
		}
	}
	if a.Has("stroke") {
		o.Fig("cap_volume", cap*a.Val("stroke"), "m3")
		if hasRod {
			o.Fig("annulus_volume", ann*a.Val("stroke"), "m3")
		}
	}
	if hasRod {
		blocked := p * cap / ann
		o.Fig("blocked_rod_pressure", blocked, "Pa")
		o.Step("with the rod port shut: p_rod = p·A_cap/A_ann = %s", bar(blocked))
		o.Warn("rod_end_intensified",
			"with the rod-end port blocked the rod end sees %s; never cap or shut it under pressure", bar(blocked))
	}
	return nil
}

var pumpDef = &Def{
	Name:    "pump",
	Title:   "Pump figures",
	Asked:   []string{"overall_efficiency", "volumetric_efficiency", "theoretical_flow"},
	Subject: "Pumps, motors, heat",
	Summary: "Theoretical flow, slip, powers and efficiencies of a pump",
	Inputs: []Input{
		q("displacement", quantity.Displacement, "per revolution"),
		q("speed", quantity.Rotation, "of the shaft"),
		q("pressure", quantity.Pressure, "at the outlet"),
		absent(signed(q("inlet_pressure", quantity.Pressure, "gauge; below zero for a suction lift")), "0"),
		optional(q("flow", quantity.Flow, "delivered, as measured")),
		optional(q("torque", quantity.Torque, "at the shaft, as measured")),
		optional(q("case_flow", quantity.Flow, "from the case drain")),
	},
	Results: []Result{
		{
			"theoretical_flow",
			"m3/s",
			"",
		},
		{"slip", "m3/s", "theoretical less delivered"},
		{"volumetric_efficiency", "", ""},
		{"hydraulic_power", "W", ""},
		{
			"shaft_power",
			"W",
			"",
		},
		{"overall_efficiency", "", ""},
		{"hydromechanical_efficiency", "", ""},
		{"theoretical_torque", "N·m", ""},
		{"case_fraction", "", "case flow over theoretical"},
		{"heat", "W", "shaft less hydraulic power"},
	},
	Formula:     "Q_th = D·n; slip = Q_th − Q; η_v = Q/Q_th; T_th = Δp·D/2π; P_hyd = Δp·Q; P = T·ω",
	Source:      "ISO 4391 and ISO 4409",
	Assumptions: "displacement is the derived one of this very unit; the nameplate's may be a few per cent off",
	Example:     `{"displacement":"32 cc/rev","speed":"1450 rpm","pressure":"175 bar","flow":"42 L/min"}`,
	Run:         runPump,
}

func runPump(a *Args, o *Output) error {
	disp, n := a.Val("displacement"), a.Val("speed")
	drop := a.Val("pressure") - a.Val("inlet_pressure")
	theory := fluidpower.TheoreticalFlow(disp, n)
	o.Fig("theoretical_flow", theory, "m3/s")
	o.Step("Q_th = D·n = %s cc/rev · %s rpm = %s", f(disp*1e6), f(n), lpm(theory))
	torque := fluidpower.TheoreticalTorque(drop, disp)
	o.Fig("theoretical_torque", torque, "N·m")
	o.Step("T_th = Δp·D/2π = %s · %s cc/rev / 6.283 = %s N·m", bar(drop), f(disp*1e6), f(torque))
	var hydraulic, shaft float64
	if a.Has("flow") {
		flow := a.Val("flow")
		o.Fig("slip", theory-flow, "m3/s")
		o.Fig("volumetric_efficiency", flow/theory, "")
		o.Step("slip = %s − %s = %s; η_v = %s", lpm(theory), lpm(flow), lpm(theory-flow), f(flow/theory))
		hydraulic = drop * flow
		o.Fig("hydraulic_power", hydraulic, "W")
		o.Step("P_hyd = Δp·Q = %s kW", f(hydraulic/1e3))
		if flow > theory {
			o.Warn("delivery_above_theory",
				"the delivered flow is above the theoretical one; check displacement, speed and the flow meter")
		}
	}
	if a.Has("torque") {
		shaft = fluidpower.ShaftPower(a.Val("torque"), n)
		o.Fig("shaft_power", shaft, "W")
		o.Fig("hydromechanical_efficiency", torque/a.Val("torque"), "")
		o.Step("P_shaft = T·2πn/60 = %s kW; η_hm = T_th/T = %s", f(shaft/1e3), f(torque/a.Val("torque")))
	}
	if a.Has("flow") && a.Has("torque") {
		o.Fig("overall_efficiency", hydraulic/shaft, "")
		o.Fig("heat", shaft-hydraulic, "W")
		o.Step("η = P_hyd/P_shaft = %s; heat = %s kW", f(hydraulic/shaft), f((shaft-hydraulic)/1e3))
	}
	if a.Has("case_flow") {
		o.Fig("case_fraction", a.Val("case_flow")/theory, "")
	}
	return nil
}

var heatDef = &Def{
	Name:    "heat",
	Title:   "Heat made",
	Asked:   []string{"temperature_rate", "power"},
	Subject: "Pumps, motors, heat",
	Summary: "Heat made where oil drops pressure without doing work",
	Inputs: []Input{
		q("pressure_drop", quantity.Pressure, ""),
		q("flow", quantity.Flow, "what really passes the drop: leakage, relief or throttle flow"),
		optional(q("volume", quantity.Volume, "oil that takes up the heat")),
		density("density"),
		{Name: "specific_heat", Dim: quantity.SpecificHeat, Bare: "J/(kg·K)", Optional: true,
			Default: "1900 J/(kg·K)"},
		absent(q("cooling", quantity.Power, "carried away; taken off the rate, not the power"), "0"),
	},
	Results:     []Result{{"power", "W", ""}, {"temperature_rate", "K/s", ""}, {"time_per_10K", "s", ""}},
	Formula:     "P = Δp·Q; dT/dt = (P − cooling)/(ρ·c·V)",
	Source:      "energy balance of a throttled liquid",
	Assumptions: "all oil mixed, nothing taken up by metal",
	Example:     `{"pressure_drop":"175 bar","flow":"7 L/min","volume":"120 L"}`,
	Run: func(a *Args, o *Output) error {
		power := a.Val("pressure_drop") * a.Val("flow")
		o.Fig("power", power, "W")
		o.Step(
			"P = Δp·Q = %s · %s = %s kW; Q is the flow that really passes the drop: an idle pump on stroke "+
				"heats by its leakage, not by its full flow",
			bar(a.Val("pressure_drop")),
			lpm(a.Val("flow")),
			f(power/1e3),
		)
		if !a.Has("volume") {
			return nil
		}
		rho, c := a.Or("density", usualDensity), a.Or("specific_heat", 1900)
		rate := fluidpower.TemperatureRate(power-a.Val("cooling"), a.Val("volume"), rho, c)
		o.Fig("temperature_rate", rate, "K/s")
		o.Step("dT/dt = (P − cooling)/(ρ·c·V) = %s W/(%s·%s·%s L) = %s K/min", f(power-a.Val("cooling")), f(rho),
			f(c), f(a.Val("volume")*1e3), f(rate*60))
		if rate <= 0 && !math.IsNaN(rate) {
			o.Warn("cooling_covers_it", "the cooling carries the heat away; the oil does not warm up")
			return nil
		}
		o.Fig("time_per_10K", 10/rate, "s")
		return nil
	},
}
