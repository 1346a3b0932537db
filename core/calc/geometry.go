package calc

import (
	"math"
	"strings"

	"corvek/core/field"
	"corvek/core/fluidpower"
	"corvek/core/metrology"
	"corvek/core/quantity"
)

func init() { register(intensifierDef, ejectionDef, storedEnergyDef, rodBowDef) }

var intensifierDef = &Def{
	Name:    "intensifier",
	Asked:   []string{"ram_force", "output_pressure"},
	Subject: "Geometry and force",
	Summary: "What an air-over-oil intensifier and its ram deliver, and whether quoted figures can be true",
	Inputs: []Input{
		q("drive_bore", quantity.Length, "of the low-pressure piston"),
		q("drive_pressure", quantity.Pressure, ""),
		optional(q("plunger_diameter", quantity.Length, "or plunger_area")),
		optional(q("plunger_area", quantity.Area, "")),
		optional(q("stroke", quantity.Length, "of the plunger")),
		optional(q("ram_bore", quantity.Length, "")),
		optional(q("ram_stroke", quantity.Length, "")),
		optional(Input{Name: "cycle_rate", Dim: quantity.Frequency, Help: "strokes a minute or Hz"}),
		absent(q("return_spring_force", quantity.Force, ""), "0"),
		atMost(absent(number("force_efficiency", ""), "1"), 1),
		{Name: "stated", Kind: Figures, Optional: true, Help: "result keys with the figures somebody quoted"},
	},
	Results: []Result{
		{"drive_area", "m2", ""},
		{"plunger_area", "m2", ""},
		{"ratio", "", "drive over plunger area"},
		{"drive_force", "N", "net of the return spring"},
		{"output_pressure", "Pa", ""},
		{
			"volume_per_stroke",
			"m3",
			"",
		},
		{"ram_force", "N", ""},
		{"strokes_to_extend", "", "not rounded"},
		{"output_flow", "m3/s", ""},
		{"extend_time", "s", ""},
		{"stated", "", "difference, and what each input alone would have to be"},
	},
	Formula: "F = (p·A_drive − F_spring)·η; p_out = F/A_plunger; V = A_plunger·stroke; " +
		"strokes = A_ram·s_ram/V",
	Source:      "area relations of any fluid-power textbook",
	Assumptions: "no leak back past the valves, oil taken as stiff",
	Example: `{"drive_bore":"120 mm","drive_pressure":"6 bar","plunger_diameter":"20 mm","stroke":"50 mm",` +
		`"ram_bore":"60 mm","ram_stroke":"30 mm","cycle_rate":"40 /min","stated":{"output_pressure":"250 bar"}}`,
	Run: runIntensifier,
}

// intensified works out one result from the inputs; ok is false where an input
// it needs is missing.
func intensified(in map[string]float64, result string) (v float64, ok bool) {
	plunger, byArea := in["plunger_area"]
	if !byArea {
		plunger = fluidpower.CircleArea(in["plunger_diameter"])
	}
	drive := fluidpower.CircleArea(in["drive_bore"])
	force := (in["drive_pressure"]*drive - in["return_spring_force"]) * in["force_efficiency"]
	has := func(names ...string) bool {
		for _, n := range names {
			if _, ok := in[n]; !ok {
				return false
			}
		}
		return true
	}
	volume := plunger * in["stroke"]
	ram := fluidpower.CircleArea(in["ram_bore"])
	switch result {
	case "drive_area":
		return drive, true
	case "plunger_area":
		return plunger, true
	case "ratio":
		return drive / plunger, true
	case "drive_force":
		return force, true
	case "output_pressure":
		return force / plunger, true
	case "volume_per_stroke":
		return volume, has("stroke")
	case "ram_force":
		return force / plunger * ram, has("ram_bore")
	case "strokes_to_extend":
		return ram * in["ram_stroke"] / volume, has("stroke", "ram_bore", "ram_stroke")
	case "output_flow":
		return volume * in["cycle_rate"], has("stroke", "cycle_rate")
	case "extend_time":
		return ram * in["ram_stroke"] / volume / in["cycle_rate"], has("stroke", "ram_bore", "ram_stroke", "cycle_rate")
	}
	return 0, false
}

func runIntensifier(a *Args, o *Output) error {
	if a.Has("plunger_area") && a.Has("plunger_diameter") {
		return field.Errorf("plunger_area", "give the plunger's diameter or its area, not both")
	}
	if !a.Has("plunger_area") && !a.Has("plunger_diameter") {
		return field.Errorf("plunger_diameter", "is missing; give it in mm or in, or plunger_area")
	}
	in := map[string]float64{"force_efficiency": a.Or("force_efficiency", 1)}
	for _, i := range registry["intensifier"].Inputs {
		if i.Kind == Single && a.Has(i.Name) {
			in[i.Name] = a.Val(i.Name)
		}
	}
	got := map[string]float64{}
	for _, r := range registry["intensifier"].Results {
		if v, ok := intensified(in, r.Name); ok {
			got[r.Name] = v
		}
	}
	if got["drive_force"] < 0 {
		return field.Errorf("return_spring_force", "is more than the drive can push; nothing moves")
	}
	for _, r := range registry["intensifier"].Results {
		if v, ok := got[r.Name]; ok {
			o.Fig(r.Name, v, r.Unit)
		}
	}
	drive, plunger := got["drive_area"], got["plunger_area"]
	o.Step("A_drive = π/4·(%s)² = %s", mm(in["drive_bore"]), cm2(drive))
	if a.Has("plunger_diameter") {
		o.Step("A_plunger = π/4·(%s)² = %s", mm(in["plunger_diameter"]), cm2(plunger))
	}
	o.Step("ratio = A_drive/A_plunger = %s / %s = %s", cm2(drive), cm2(plunger), f(got["ratio"]))
	o.Step("F = (p·A_drive − F_spring)·η = (%s · %s − %s N)·%s = %s N", bar(in["drive_pressure"]), cm2(drive),
		f(in["return_spring_force"]), f(in["force_efficiency"]), f(got["drive_force"]))
	o.Step("p_out = F/A_plunger = %s", bar(got["output_pressure"]))
	if a.Has("stated") {
		return weighStated(a, o, in, got)
	}
	return nil
}

// weighStated holds quoted figures against the computed ones and turns each
// input alone until the quoted figure would be true.
func weighStated(a *Args, o *Output, in, got map[string]float64) error {
	rows := map[string]any{}
	for _, r := range registry["intensifier"].Results {
		want, ok := a.figures["stated"][r.Name]
		if !ok {
			continue
		}
		have, known := got[r.Name]
		if !known {
			return field.Errorf("stated."+r.Name,
				"cannot be worked out from the inputs given, so it cannot be held against them")
		}
		row := map[string]any{"difference": Figure{want - have, r.Unit}}
		need := map[string]any{}
		for _, i := range registry["intensifier"].Inputs {
			v, given := in[i.Name]
			if i.Kind != Single || !given || v == 0 {
				continue
			}
			if x, ok := solveFor(in, i.Name, r.Name, want); ok && (i.Name != "force_efficiency" || x <= 1) {
				need[i.Name] = Figure{x, i.Dim.Base()}
			}
		}
		row["would_need"] = need
		rows[r.Name] = row
		o.Step("%s: %s stated, %s worked out", r.Name, Figure{want, r.Unit}, Figure{have, r.Unit})
		if have != 0 && math.Abs(want-have) > 0.02*math.Abs(have) {
			o.Warn("stated_differs", "the stated %s is %s %% %s what the dimensions give",
				strings.ReplaceAll(r.Name, "_", " "), quantity.Figures(100*math.Abs(want-have)/math.Abs(have), 3),
				map[bool]string{true: "over", false: "under"}[want > have])
		}
	}
	o.Results = append(o.Results, Entry{"stated", rows})
	return nil
}

// solveFor finds the value of one input at which a result meets a target, over
// ten thousand times up and down. On the logarithm of the input every result is
// a + b·e^(c·x), which Ridders' method (IEEE Trans. Circuits Syst. 26, 1979)
// meets in a step or two.
func solveFor(in map[string]float64, input, result string, target float64) (float64, bool) {
	given := in[input]
	defer func() { in[input] = given }()
	at := func(log float64) float64 {
		in[input] = given * math.Exp(log)
		v, _ := intensified(in, result)
		return v - target
	}
	lo, hi := -math.Log(1e4), math.Log(1e4)
	flo, fhi := at(lo), at(hi)
	if flo*fhi > 0 || math.IsNaN(flo*fhi) || flo == fhi {
		return 0, false
	}
	const close, most = 1e-13, 60
	x, fx := lo, flo
	for range most {
		mid := (lo + hi) / 2
		fmid := at(mid)
		if fmid == 0 {
			x, fx = mid, 0
			break
		}
		root := math.Sqrt(fmid*fmid - flo*fhi)
		x = mid + (mid-lo)*math.Copysign(1, flo-fhi)*fmid/root
		if fx = at(x); math.Abs(fx) <= close*math.Abs(target) {
			break
		}
		switch { // the root lies between the two nearest points of unlike sign
		case math.Signbit(fmid) != math.Signbit(fx):
			lo, flo, hi, fhi = mid, fmid, x, fx
		case math.Signbit(flo) != math.Signbit(fx):
			hi, fhi = x, fx
		default:
			lo, flo = x, fx
		}
		if math.Abs(hi-lo) <= close {
			break
		}
	}
	in[input] = given * math.Exp(x)
	force, _ := intensified(in, "drive_force") // under its return spring the drive would not move at all
	return in[input], force >= 0
}

// Ejection forces above which air behind a piston hurts and maims, N.
const (
	ejectionWarn    = 50.0
	ejectionSerious = 250.0
)

var ejectionDef = &Def{
	Name:        "ejection",
	Title:       "Air behind a piston",
	Asked:       []string{"force"},
	Subject:     "Geometry and force",
	Summary:     "Force of compressed air behind a stuck piston",
	Inputs:      []Input{q("bore", quantity.Length, ""), q("pressure", quantity.Pressure, "of the air")},
	Results:     []Result{{"force", "N", ""}},
	Formula:     "F = p·π/4·d²",
	Source:      "area relation",
	Assumptions: "the piston is stuck until it lets go at once",
	Example:     `{"bore":"25 mm","pressure":"2 bar"}`,
	Run: func(a *Args, o *Output) error {
		force := a.Val("pressure") * fluidpower.CircleArea(a.Val("bore"))
		o.Fig("force", force, "N")
		o.Step("F = %s·π/4·(%s)² = %s N", bar(a.Val("pressure")), mm(a.Val("bore")), f(force))
		switch {
		case force > ejectionSerious:
			o.Warn("ejection_serious",
				"%s N of air behind a piston throws it like a shot: do not; push it out mechanically or with oil",
				f(force))
		case force > ejectionWarn:
			o.Warn(
				"ejection",
				"%s N: port covered, shield in front, nobody in line; regulated air only, a push by hand or oil first",
				f(force),
			)
		}
		return nil
	},
}

// tntEnergy is the energy of a kilogram of TNT, J.
const tntEnergy = 4.6e6

var storedEnergyDef = &Def{
	Name:    "stored_energy",
	Asked:   []string{"isentropic_energy", "liquid_energy"},
	Subject: "Geometry and force",
	Summary: "Energy shut in by a test with gas or with liquid",
	Inputs: []Input{
		q("volume", quantity.Volume, ""),
		q("pressure", quantity.Pressure, "gauge"),
		choice("medium", "", "", "gas", "liquid"),
		absent(number("gamma", "ratio of specific heats"), "1.4"),
		absent(q("bulk_modulus", quantity.Pressure, "of the liquid"), "1.5 GPa"),
		absent(q("ambient", quantity.Pressure, "absolute"), "101325 Pa"),
	},
	Results: []Result{
		{"isentropic_energy", "J", ""},
		{"isothermal_energy", "J", ""},
		{"isothermal_available", "J", "less the work on the surroundings"},
		{"liquid_energy", "J", ""},
		{"tnt_equivalent", "kg", ""},
	},
	Formula: "gas: p1·V/(γ−1)·(1 − (p0/p1)^((γ−1)/γ)); p1·V·ln(p1/p0); that − (p1−p0)·V. " +
		"liquid: V·p²/(2K)",
	Source:      "expansion of an ideal gas, textbook",
	Assumptions: "vessel walls store nothing; fragments are another matter",
	Example:     `{"volume":"2 L","pressure":"100 bar","medium":"gas"}`,
	Run: func(a *Args, o *Output) error {
		v, p := a.Val("volume"), a.Val("pressure")
		if a.Text("medium") == "liquid" {
			e := v * p * p / (2 * a.Or("bulk_modulus", 1.5e9))
			o.Fig("liquid_energy", e, "J")
			o.Fig("tnt_equivalent", e/tntEnergy, "kg")
			o.Step("E = V·p²/(2K) = %s J", f(e))
			return nil
		}
		gamma, p0 := a.Or("gamma", 1.4), a.Or("ambient", 101325)
		if gamma <= 1 {
			return field.Errorf("gamma", "is more than 1: 1.4 for air and nitrogen")
		}
		p1 := p + p0
		isentropic := p1 * v / (gamma - 1) * (1 - math.Pow(p0/p1, (gamma-1)/gamma))
		isothermal := p1 * v * math.Log(p1/p0)
		o.Fig("isentropic_energy", isentropic, "J")
		o.Fig("isothermal_energy", isothermal, "J")
		o.Fig("isothermal_available", isothermal-(p1-p0)*v, "J")
		o.Fig("tnt_equivalent", isentropic/tntEnergy, "kg")
		o.Step("p1 = %s absolute; E = p1·V/(γ−1)·(1 − (p0/p1)^((γ−1)/γ)) = %s J", bar(p1), f(isentropic))
		o.Warn("gas_stored_energy",
			"dry inert gas only, never oxygen near oil; shield and distance; site rules and local codes come first")
		return nil
	},
}

var rodBowDef = &Def{
	Name:    "rod_bow",
	Asked:   []string{"bow_per_metre"},
	Subject: "Pumps, motors, heat",
	Summary: "Bow of a rod from its swing on the dial",
	Inputs: []Input{
		q("tir", quantity.Length, "whole swing"),
		q("length", quantity.Length, "between the supports"),
		optional(Input{Name: "limit_per_metre", Dim: quantity.Slope, Bare: "mm/m"}),
	},
	Results:     []Result{{"bow", "m", ""}, {"bow_per_metre", "", "m/m"}, {"verdict", "", ""}},
	Formula:     "bow = TIR/2",
	Source:      "geometry of a bowed bar turning in V-blocks",
	Assumptions: "round rod, dial at the middle",
	Example:     `{"tir":"0.4 mm","length":"1 m","limit_per_metre":"0.3 mm/m"}`,
	Run: func(a *Args, o *Output) error {
		bow := a.Val("tir") / 2
		slope := bow / a.Val("length")
		o.Fig("bow", bow, "m")
		o.Fig("bow_per_metre", slope, "")
		o.Step("bow = %s/2 = %s, %s mm a metre", mm(a.Val("tir")), mm(bow), f(slope*1e3))
		if a.Has("limit_per_metre") && finite(slope) {
			o.Word("verdict",
				string(metrology.Judge(slope, metrology.AtMost(a.Val("limit_per_metre")), 0, false).Verdict))
		}
		return nil
	},
}
