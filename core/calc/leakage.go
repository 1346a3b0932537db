package calc

import (
	"math"

	"corvek/core/field"
	"corvek/core/fluid"
	"corvek/core/leakage"
	"corvek/core/quantity"
)

func init() { register(annularDef, planeDef, gapRatioDef) }

const usualDensity = fluid.UsualDensity

var annularDef = &Def{
	Name:    "annular_leak",
	Asked:   []string{"flow"},
	Subject: "Leakage",
	Summary: "Leak through the ring gap of a piston, spool or journal",
	Inputs: []Input{
		q("diameter", quantity.Length, ""),
		q("clearance", quantity.Length, "diametral: bore less spool"),
		q("length", quantity.Length, "of the sealing land"),
		q("pressure_drop", quantity.Pressure, ""),
		optional(q("dynamic_viscosity", quantity.DynamicViscosity, "or the kinematic one with the density")),
		optional(q("kinematic_viscosity", quantity.KinematicViscosity, "with the density")),
		{Name: "density", Dim: quantity.Density, Bare: "kg/m3", Optional: true},
		atMost(absent(number("eccentricity", "0 centred to 1 touching"), "0"), 1),
	},
	Results: []Result{
		{"radial_clearance", "m", ""},
		{"flow", "m3/s", ""},
		{"concentric_flow", "m3/s", ""},
		{"reynolds", "", ""},
	},
	Formula:     "Q = π·d·h³·Δp·(1 + 1.5ε²)/(12·μ·L), h = clearance/2; Re = 2·h·v/ν",
	Source:      "laminar flow in a thin annulus, textbook",
	Assumptions: "laminar, gap small against length, walls at rest",
	Example: `{"diameter":"20 mm","clearance":"0.03 mm","length":"25 mm","pressure_drop":"175 bar",` +
		`"dynamic_viscosity":"40 mPa·s"}`,
	Run: func(a *Args, o *Output) error {
		mu, rho := a.Val("dynamic_viscosity"), a.Or("density", usualDensity)
		switch {
		case a.Has("dynamic_viscosity") && a.Has("kinematic_viscosity"):
			return field.Errorf("kinematic_viscosity", "give one viscosity, dynamic or kinematic, not both")
		case a.Has("kinematic_viscosity") && !a.Has("density"):
			return field.Errorf("density", "is needed with a kinematic viscosity; 870 kg/m3 is usual for mineral oil")
		case a.Has("kinematic_viscosity"):
			mu = a.Val("kinematic_viscosity") * rho
			o.Step("μ = ν·ρ = %s cSt · %s kg/m³ = %s", f(a.Val("kinematic_viscosity")*1e6), f(rho), mpas(mu))
		case !a.Has("dynamic_viscosity"):
			return field.Errorf("dynamic_viscosity",
				"is missing; give it in mPa·s or cP, or a kinematic viscosity with the density")
		}
		d, h, l, dp, e := a.Val("diameter"), a.Val("clearance")/2, a.Val("length"), a.Val(
			"pressure_drop",
		), a.Val("eccentricity")
		centred := leakage.Annular(d, h, l, dp, mu, 0)
		flow := leakage.Annular(d, h, l, dp, mu, e)
		o.Fig("radial_clearance", h, "m")
		o.Fig("flow", flow, "m3/s")
		o.Fig("concentric_flow", centred, "m3/s")
		o.Step("h = %s/2 = %s", mm(a.Val("clearance")), mm(h))
		o.Step("Q = π·%s·(%s)³·%s·(1 + 1.5·%s²)/(12·%s·%s) = %s", mm(d), mm(h), bar(dp), f(e), mpas(mu),
			mm(l), lpm(flow))
		re := 0.0
		if flow != 0 {
			re = leakage.Reynolds(h, flow/(math.Pi*d*h), mu/rho)
		}
		o.Fig("reynolds", re, "")
		if re > leakage.LaminarLimit {
			o.Warn(
				"not_laminar",
				"the Reynolds number is %s; above 1000 the flow is not laminar and the real leak is smaller than this",
				f(re),
			)
		}
		return nil
	},
}

var planeDef = &Def{
	Name:    "plane_leak",
	Asked:   []string{"flow"},
	Subject: "Leakage",
	Summary: "Leak between two flat faces",
	Inputs: []Input{
		q("width", quantity.Length, "across the flow"),
		q("length", quantity.Length, "along the flow"),
		q("gap", quantity.Length, ""),
		q("pressure_drop", quantity.Pressure, ""),
		q("dynamic_viscosity", quantity.DynamicViscosity, ""),
	},
	Results:     []Result{{"flow", "m3/s", ""}},
	Formula:     "Q = w·h³·Δp/(12·μ·L)",
	Source:      "laminar flow between parallel walls, textbook",
	Assumptions: "laminar, walls parallel and at rest",
	Example: `{"width":"25 mm","length":"18 mm","gap":"0.09 mm","pressure_drop":"175 bar",` +
		`"dynamic_viscosity":"40 mPa·s"}`,
	Run: func(a *Args, o *Output) error {
		flow := leakage.Plane(a.Val("width"), a.Val("gap"), a.Val("length"), a.Val("pressure_drop"),
			a.Val("dynamic_viscosity"))
		o.Fig("flow", flow, "m3/s")
		o.Step("Q = %s·(%s)³·%s/(12·%s·%s) = %s", mm(a.Val("width")), mm(a.Val("gap")),
			bar(a.Val("pressure_drop")), mpas(a.Val("dynamic_viscosity")), mm(a.Val("length")), lpm(flow))
		return nil
	},
}

var gapRatioDef = &Def{
	Name:        "gap_ratio",
	Asked:       []string{"flow_ratio"},
	Subject:     "Mechanical helpers",
	Summary:     "How much more a wider gap leaks",
	Inputs:      []Input{q("before", quantity.Length, ""), q("after", quantity.Length, "")},
	Results:     []Result{{"flow_ratio", "", "cube of the gap ratio"}},
	Formula:     "(after/before)³",
	Source:      "laminar gap flow",
	Assumptions: "same length, pressure and oil",
	Example:     `{"before":"5 thou","after":"9 thou"}`,
	Run: func(a *Args, o *Output) error {
		r := a.Val("after") / a.Val("before")
		o.Fig("flow_ratio", r*r*r, "")
		o.Step("(%s / %s)³ = %s", mm(a.Val("after")), mm(a.Val("before")), f(r*r*r))
		return nil
	},
}
