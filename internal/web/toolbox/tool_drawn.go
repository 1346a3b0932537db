package toolbox

import (
	"fmt"
	"html/template"
	"math"
	"strings"

	"corvek/core/calc"
	"corvek/core/fluid"
	"corvek/core/fluidpower"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/spring"
	"corvek/internal/answer"
	"corvek/internal/draw"
)

// worked is a calculator's inputs and answer, for those who draw them.
type worked struct {
	in  *calc.Args
	out *calc.Output
	s   quantity.System
}

// show writes a result in the shop's unit, "" when it was left out.
func (w worked) show(name string) string {
	f, ok := w.out.Get(name).(calc.Figure)
	if !ok {
		return ""
	}
	return answer.Text(f, w.s)
}

func (w worked) value(name string) float64 {
	v, _ := w.out.Value(name)
	return v
}

func (w worked) length(name string) string {
	if !w.in.Has(name) {
		return ""
	}
	return "⌀ " + w.in.Quantity(name).String()
}

func (w worked) word(name string) string {
	s, _ := w.out.Get(name).(string)
	return s
}

func percent(v float64) string { return fmt.Sprintf("%.0f %%", 100*v) }

// drawers are the calculators whose subject can be drawn.
var drawers = map[string]func(worked) string{
	"cylinder": drawCylinder, "intensifier": drawIntensifier, "oring_gland": drawGland, "lip_offset": drawLipOffset,
	"disc_stack": drawDiscs, "friction_pack": drawPlates, "bolt_pattern": drawBoltCircle,
	"judge": drawJudge, "feeler": drawFeeler, "shims": drawShims, "readings": drawReadings, "wear_life": drawWearLife,
	"viscosity": drawViscosity, "piston_ripple": drawRipple, "pressure_decay": drawDecay, "fill_plan": drawFill,
	"annular_leak": drawAnnular, "coil_spring": drawCoil, "standby": drawStandby, "spring_check": drawSpringCheck,
}

// drawn is the picture of a worked calculator, empty where there is none.
func drawn(name string, in *calc.Args, out *calc.Output, s quantity.System) template.HTML {
	f := drawers[name]
	if f == nil {
		return ""
	}
	return template.HTML(f(worked{in, out, s})) // our own drawing; its words are escaped by draw
}

func drawCylinder(w worked) string {
	c := draw.CylinderSection{Bore: w.in.Val("bore"), Rod: w.in.Val("rod"), Stroke: w.in.Val("stroke"),
		BoreWord: w.length("bore"), RodWord: w.length("rod"),
		CapArea: w.show("cap_area"), AnnulusArea: w.show("annulus_area"),
		CapPressure: w.in.Quantity("pressure").String(),
		Push:        w.show("push_force"), Pull: w.show("pull_force"), Blocked: w.show("blocked_rod_pressure")}
	if w.in.Has("stroke") {
		c.StrokeWord = w.in.Quantity("stroke").String()
	}
	if w.in.Has("return_pressure") {
		c.BackPressure = "back " + w.in.Quantity("return_pressure").String()
	}
	return c.SVG()
}

func drawIntensifier(w worked) string {
	area := w.value("plunger_area")
	return draw.IntensifierSection{Drive: w.in.Val("drive_bore"), Plunger: 2 * math.Sqrt(area/math.Pi),
		DriveWord: w.length("drive_bore"), PlungerWord: w.length("plunger_diameter"),
		DrivePressure: w.in.Quantity("drive_pressure").String(), Output: w.show("output_pressure"),
		Force: w.show("drive_force"), Ratio: quantity.Figures(w.value("ratio"), 3)}.SVG()
}

func drawGland(w worked) string {
	section, groove := w.in.Val("section"), w.in.Val("gland_diameter")
	g := draw.GlandSection{Section: section, Width: w.in.Val("gland_width"), Squeeze: percent(w.value("squeeze")),
		Fill: percent(w.value("fill")), Pressure: w.in.Quantity("pressure").String(), Tone: "petrol"}
	switch {
	case w.in.Text("use") == "face":
		g.Depth = w.in.Val("gland_depth")
	case w.in.Has("bore"):
		g.Depth = (w.in.Val("bore") - groove) / 2
	default:
		g.Depth, g.FromAbove = (groove-w.in.Val("rod"))/2, true
	}
	if gap, ok := w.out.Value("extrusion_gap"); ok {
		g.Gap, g.HasGap, g.GapWord = gap, true, w.show("extrusion_gap")
	}
	g.Backup, _ = w.out.Get("backup_needed").(bool)
	if len(w.out.Warnings) > 0 {
		g.Tone = "ochre"
	}
	return g.SVG()
}

func drawLipOffset(w worked) string {
	l := draw.LipOffset{Groove: w.in.Val("groove_from_face"), GrooveWidth: w.in.Val("groove_width"),
		Seal: w.in.Val("seal_width"), Lip: w.in.Val("lip_position"), Bottom: w.in.Val("bore_depth")}
	if w.in.Has("shoulder_depth") {
		l.Bottom = math.Min(l.Bottom, w.in.Val("shoulder_depth"))
	}
	// Of the depths that will do the deepest span is drawn at its near end: the
	// least press that clears the track.
	if rows, ok := w.out.Get("press_depths").([]map[string]any); ok && len(rows) > 0 {
		last := rows[len(rows)-1]
		from, _ := last["from"].(calc.Figure)
		to, _ := last["to"].(calc.Figure)
		l.Depth, l.HasDepth = from.Value, true
		l.Word = "press " + answer.Text(from, w.s) + " to " + answer.Text(to, w.s) + " deep"
	}
	return l.SVG()
}

func drawDiscs(w worked) string {
	disc := spring.Disc{Outside: w.in.Val("outside"), Inside: w.in.Val("inside"), Thickness: w.in.Val("thickness"),
		Cone: w.in.Val("cone_height"), Youngs: w.in.Or("youngs", spring.SteelYoungs),
		Poisson: w.in.Or("poisson", spring.SteelPoisson)}
	text := strings.Join(strings.Fields(w.in.Text("stack")), "")
	nests, err := spring.Nests(text)
	if err != nil {
		return ""
	}
	stack := spring.Stack{Disc: disc, Nests: nests}
	d := draw.DiscStack{Stack: text, Outside: disc.Outside, Inside: disc.Inside, Thickness: disc.Thickness,
		Cone: disc.Cone, Edit: "stack", Said: fmt.Sprintf("stack of %d dished springs, %s", len(text), text)}
	force, loaded := w.out.Value("force")
	if loaded {
		for _, n := range nests {
			d.Squash = append(d.Squash, disc.Deflection(force/float64(n))/disc.Cone)
		}
	}
	c := draw.Chart{Said: "force against travel", System: w.s,
		X: draw.Axis{Label: "travel", Dim: quantity.Length, Top: stack.Solid()},
		Y: draw.Axis{Label: "force", Dim: quantity.Force},
		Strips: []draw.Strip{{Class: "look", Label: "over 75 %", From: 0.75 * stack.Solid(), To: stack.Solid(),
			Upright: true}}}
	c.Traces = []draw.Trace{{Class: "now", Points: draw.Over(0, stack.Solid(), 40,
		func(x float64) float64 { f, _, _ := stack.ForceAt(x); return f })}}
	for _, p := range c.Traces[0].Points {
		c.Y.Top = math.Max(c.Y.Top, p[1]*1.1)
	}
	if w.in.Has("needed_force") {
		c.Y.Top = math.Max(c.Y.Top, w.in.Val("needed_force")*1.1)
		c.Traces = append(c.Traces, draw.Trace{Class: "limit", Label: "needed",
			Points: [][2]float64{{0, w.in.Val("needed_force")}, {stack.Solid(), w.in.Val("needed_force")}}})
	}
	if loaded {
		c.Spots = []draw.Spot{{Class: "petrol", X: w.value("deflection"), Y: force, Label: w.show("force")}}
	}
	return d.SVG() + c.SVG()
}

func drawPlates(w worked) string {
	return draw.PlateStack(strings.Join(strings.Fields(w.in.Text("plates")), ""), "plates")
}

func drawBoltCircle(w worked) string {
	figs, _ := w.out.Get("order").([]calc.Figure)
	order := make([]int, len(figs))
	for i, f := range figs {
		order[i] = int(f.Value)
	}
	return draw.BoltCircle(order)
}

// limitsOf reads lower? and upper? of a calculator.
func limitsOf(in *calc.Args, lower, upper string) metrology.Limits {
	return metrology.Limits{Lower: in.Val(lower), Upper: in.Val(upper), HasLower: in.Has(lower),
		HasUpper: in.Has(upper)}
}

func drawJudge(w worked) string {
	u := w.in.Val("uncertainty")
	if !w.in.Has("uncertainty") && w.in.Has("resolution") {
		u = metrology.ExpandedFromResolution(w.in.Val("resolution"))
	}
	if w.in.Text("rule") == "simple" {
		u = 0
	}
	dim := w.in.Quantity("value").Dim
	return draw.ToleranceBar{Limits: limitsOf(w.in, "lower", "upper"), Uncertainty: u, Value: w.in.Val("value"),
		HasValue: true, Verdict: metrology.Verdict(w.word("verdict")),
		Show: func(v float64) string { return quantity.Show(v, dim, w.s) }}.SVG()
}

func drawFeeler(w worked) string {
	iv := metrology.Interval{AtLeast: w.value("at_least")}
	iv.LessThan, iv.Bounded = w.out.Value("less_than")
	measured, limitFor := metrology.Sense(w.in.Text("measured")), metrology.Sense(w.in.Text("limit_for"))
	limits := limitsOf(w.in, "lower", "upper").In(limitFor, measured)
	if limits.Empty() && !iv.Bounded {
		return ""
	}
	return draw.ToleranceBar{Limits: limits, Interval: iv, IsLeaves: true,
		Verdict: metrology.Verdict(w.word("verdict")), Show: draw.Length(w.s)}.SVG()
}

func drawShims(w worked) string {
	limits := limitsOf(w.in, "lower", "upper")
	bar := draw.ToleranceBar{Limits: limits, HasValue: true, Value: w.value("resulting_clearance"),
		Show: draw.Length(w.s), Others: []float64{w.in.Val("measured_clearance"), w.value("predicted_clearance")},
		Verdict: metrology.Out}
	if v, ok := w.out.Value("resulting_clearance"); ok {
		bar.Verdict = metrology.Judge(v, limits, 0, false).Verdict
	} else {
		bar.HasValue = false
	}
	return bar.SVG()
}

func drawReadings(w worked) string {
	kind := w.in.Text("kind")
	if !w.in.Has("grid") || !w.in.Has("nominal") {
		return ""
	}
	return draw.Profile{Grid: w.in.Grid("grid"), Nominal: w.in.Val("nominal"), Bore: kind == "bore"}.SVG()
}

func drawSpringCheck(w worked) string {
	nominal, tol := w.in.Val("nominal"), w.in.Val("tolerance")
	if !w.in.Has("tolerance") {
		return ""
	}
	dim := w.in.Quantity("measured").Dim
	return draw.ToleranceBar{Limits: metrology.Between(nominal-tol, nominal+tol), Value: w.in.Val("measured"),
		HasValue: true, Verdict: metrology.Verdict(w.word("verdict")),
		Show: func(v float64) string { return quantity.Show(v, dim, w.s) }}.SVG()
}

func drawAnnular(w worked) string {
	return draw.EccentricRing(w.in.Val("eccentricity"), w.show("radial_clearance"))
}

func drawWearLife(w worked) string {
	nominal, limit, now, hours := w.in.Val("nominal"), w.in.Val("limit"), w.in.Val("measured"), w.in.Val("hours")
	left, known := w.out.Value("hours_left")
	span := hours
	if known {
		span = math.Max(hours, hours+left*3600) // hours_left comes in h, hours in s
	}
	lo, hi := math.Min(math.Min(nominal, limit), now), math.Max(math.Max(nominal, limit), now)
	room := (hi - lo) * .15
	c := draw.Chart{Said: "wear over the hours", System: w.s,
		X: draw.Axis{Label: "running time", Dim: quantity.Time, Top: span * 1.08, Unit: "h"},
		Y: draw.Axis{Label: "size", Dim: quantity.Length, Low: lo - room, Top: hi + room}}
	c.Traces = []draw.Trace{{Class: "limit", Label: "limit",
		Points: [][2]float64{{0, limit}, {span * 1.08, limit}}},
		{Class: "now", Points: [][2]float64{{0, nominal}, {hours, now}}}}
	if known && left > 0 {
		c.Traces = append(c.Traces, draw.Trace{Class: "was", Points: [][2]float64{{hours, now}, {span, limit}}})
	}
	c.Spots = []draw.Spot{{Class: "petrol", X: hours, Y: now, Label: quantity.Show(now, quantity.Length, w.s)}}
	return c.SVG()
}

func drawViscosity(w worked) string {
	line := fluid.Line(w.in.Val("v40")*1e6, w.in.Val("v100")*1e6)
	at := func(t float64) float64 { return line.At(t) * 1e-6 }
	win := fluid.Window
	t := w.in.Val("temperature")
	c := draw.Chart{Said: "viscosity against temperature", System: w.s,
		X: draw.Axis{Label: "temperature", Dim: quantity.Temperature, Low: math.Min(-20, t-5),
			Top: math.Max(110, t+5)}, Y: draw.Axis{Label: "viscosity", Dim: quantity.KinematicViscosity, Low: 4e-6,
			Top: 2000e-6, Log: true},
		Strips: []draw.Strip{{Class: "stop", Label: "too thick to start", From: win.Thickest, To: 2000e-6},
			{Class: "good", Label: "good running", From: win.Low, To: win.High},
			{Class: "stop", Label: "too thin to carry", From: 4e-6, To: win.Thinnest, AtLeft: true}},
		Traces: []draw.Trace{{Class: "now", Points: draw.Over(math.Min(-20, t-5), math.Max(110, t+5), 60, at)}},
		Spots: []draw.Spot{{Class: "petrol", X: t, Y: at(t),
			Label: w.show("kinematic") + " at " + quantity.Show(t, quantity.Temperature, w.s)}}}
	return c.SVG()
}

func drawRipple(w worked) string {
	delivery, err := calc.Delivery(w.in)
	if err != nil {
		return ""
	}
	full := make([]float64, len(delivery))
	for i := range full {
		full[i] = 1
	}
	flow := fluidpower.TheoreticalFlow(w.in.Val("displacement"), w.in.Val("speed"))
	sum := func(d []float64) [][2]float64 {
		return draw.Over(0, 2*math.Pi, 360, func(t float64) float64 { return fluidpower.PistonFlow(d, flow, t) })
	}
	c := draw.Chart{Said: "flow over one turn", System: w.s,
		X: draw.Axis{Label: "turn of the shaft", Dim: quantity.Angle, Top: 2 * math.Pi},
		Y: draw.Axis{Label: "flow", Dim: quantity.Flow, Top: flow * 1.25}}
	c.Traces = []draw.Trace{{Class: "was", Points: sum(full)}, {Class: "now", Points: sum(delivery)}}
	mean := w.value("mean_flow")
	c.Traces = append(c.Traces, draw.Trace{Class: "limit", Label: "mean " + w.show("mean_flow"),
		Points: [][2]float64{{0, mean}, {2 * math.Pi, mean}}})
	return c.SVG()
}

func drawDecay(w worked) string {
	start, end, took := w.in.Val("start_pressure"), w.in.Val("end_pressure"), w.in.Val("duration")
	fixed := w.value("corrected_end_pressure")
	lo, hi := math.Min(start, math.Min(end, fixed)), math.Max(start, math.Max(end, fixed))
	c := draw.Chart{Said: "pressure over the hold", System: w.s,
		X: draw.Axis{Label: "time", Dim: quantity.Time, Top: took},
		Y: draw.Axis{Label: "pressure", Dim: quantity.Pressure}}
	if took > 600 {
		c.X.Unit = "min"
	}
	if !w.in.Has("start_temperature") {
		could := math.Max(0, start-calc.CoolingDrop(w.in, 293.15))
		lo = math.Min(lo, could)
		c.Strips = []draw.Strip{{Class: "look", Label: "cooling alone could do this", From: could, To: start}}
	}
	room := math.Max((hi-lo)*.25, hi*.01)
	c.Y.Low, c.Y.Top = math.Max(0, lo-room), hi+room
	c.Traces = []draw.Trace{{Class: "was", Label: "as read", Points: [][2]float64{{0, start}, {took, end}}}}
	c.Spots = []draw.Spot{{Class: "ochre", X: took, Y: end, Label: quantity.Show(end, quantity.Pressure, w.s)}}
	if w.in.Has("start_temperature") {
		// A leak slows as the pressure falls; over a hold it is near enough a straight line.
		c.Traces = append(c.Traces, draw.Trace{Class: "now", Label: "temperature taken out",
			Points: [][2]float64{{0, start}, {took, fixed}}})
		c.Spots = append(c.Spots, draw.Spot{Class: "petrol", X: took, Y: fixed,
			Label: w.show("corrected_end_pressure")})
	}
	return c.SVG()
}

func drawFill(w worked) string {
	rows, _ := w.out.Get("additions").([]map[string]any)
	mark := w.in.Val("capacity")
	top := mark + w.in.Val("cap")
	points := [][2]float64{{0, w.in.Val("level")}}
	for i, r := range rows {
		total, _ := r["total"].(calc.Figure)
		points = append(points, [2]float64{float64(i + 1), total.Value})
	}
	n := float64(len(rows)) + .6
	points = append(points, [2]float64{n, points[len(points)-1][1]})
	low := math.Max(0, w.in.Val("level")-(top-w.in.Val("level"))*.25)
	return draw.Chart{Said: "level after each filling", System: w.s,
		X: draw.Axis{Label: "fillings", Dim: quantity.Number, Top: n},
		Y: draw.Axis{Label: "in the system", Dim: quantity.Volume, Low: low, Top: top + (top-low)*.12},
		Strips: []draw.Strip{{Class: "good", Label: "over the mark, full stroke checked", From: mark, To: top},
			{Class: "stop", Label: "never", From: top, To: top + (top-low)*.12}},
		Traces: []draw.Trace{{Class: "now", Points: points, Step: true}}}.SVG()
}

func drawCoil(w worked) string {
	free := w.in.Val("free_length")
	rate, ok := w.out.Value("rate")
	installed := w.in.Val("installed_length")
	if !ok || free <= 0 {
		return ""
	}
	low := free * .5
	if w.in.Has("installed_length") {
		low = math.Min(low, installed*.85)
	}
	c := draw.Chart{Said: "force against length", System: w.s,
		X:      draw.Axis{Label: "length", Dim: quantity.Length, Low: low, Top: free * 1.04},
		Y:      draw.Axis{Label: "force", Dim: quantity.Force, Top: rate * (free - low) * 1.08},
		Traces: []draw.Trace{{Class: "now", Points: [][2]float64{{low, rate * (free - low)}, {free, 0}}}}}
	if w.in.Has("installed_length") {
		c.Spots = []draw.Spot{{Class: "petrol", X: installed, Y: w.value("force"),
			Label: w.show("force") + " at " + w.in.Quantity("installed_length").String()}}
	}
	return c.SVG()
}

func drawStandby(w worked) string {
	verdicts := map[string]metrology.Verdict{"in": metrology.In, "low": metrology.Undecided,
		"high": metrology.Undecided, "over_ceiling": metrology.Out}
	bar := draw.ToleranceBar{Limits: metrology.Between(w.in.Val("book_low"), w.in.Val("book_high")),
		Value: w.in.Val("measured"), HasValue: true, Verdict: verdicts[w.word("verdict")],
		Others: []float64{w.in.Val("ceiling")},
		Show:   func(v float64) string { return quantity.Show(v, quantity.Pressure, w.s) }}
	return bar.SVG()
}
