package report

import (
	"math"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/fluidpower"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/internal/draw"
)

// Chart is a drawing of the test: what it shows, and what it rests on.
type Chart struct{ Name, SVG, Note string }

// Charts are all that the test of a unit gives to draw: flow against pressure, each hold with
// what temperature did to it, each drift over its time, standby against flow. Page and paper
// show the same.
func Charts(st *bench.State, units quantity.System) (out []Chart) {
	if svg := Plot(st, units); svg != "" {
		c := Chart{Name: "Flow against pressure", SVG: svg}
		if assumed := assumed(st, units); len(assumed) > 0 {
			c.Note = "Predicted, not measured. Rests on: " + joined("; ", assumed...) + "."
		}
		out = append(out, c)
	}
	for _, step := range st.Plan() {
		runs := runsOf(st, step.Code)
		charts := []Chart{decayChart(runs, units), driftChart(runs, units),
			standbyChart(st.Found.Theoretical(), runs, units)}
		for _, c := range charts {
			if c.SVG != "" {
				c.Name = step.Name + ": " + c.Name
				out = append(out, c)
			}
		}
	}
	return out
}

// run is a step as one run read it: as received, or at an attempt.
type run struct {
	name string
	last bool // of the attempt that counts, or of the last one
	bench.Point
}

func runsOf(st *bench.State, code string) (out []run) {
	add := func(name string, last bool, a *bench.Attempt) {
		if a == nil {
			return
		}
		for _, p := range a.Points {
			if p.Test.Code == code && p.Skipped == "" {
				out = append(out, run{name, last, p})
			}
		}
	}
	add("as received", len(st.Attempts) == 0, st.Received)
	for i, a := range st.Attempts {
		name := "after the work"
		if len(st.Attempts) > 1 {
			name = "attempt " + plain(float64(a.Number), 3)
		}
		add(name, i == len(st.Attempts)-1, a)
	}
	return out
}

// read gives a figure of the run, nil where it was not read.
func (r run) read(is func(*proof.Figured) bool) *proof.Figured {
	for i := range r.Figures {
		if f := &r.Figures[i]; is(f) && !f.Q.IsZero() {
			return f
		}
	}
	return nil
}

func (r run) figure(code string) *proof.Figured {
	return r.read(func(f *proof.Figured) bool { return f.Figure == code })
}

// over is how long the step took: as it was held, else as it should have been, s.
func (r run) over() float64 {
	if held := r.Row.Held().Seconds(); held > 0 {
		return held
	}
	hold, err := quantity.Parse(r.Test.Hold, quantity.Time)
	if err != nil {
		return 0
	}
	return hold.SI
}

// timeAxis is the time of a hold, in minutes where it is long.
func timeAxis(longest float64) draw.Axis {
	x := draw.Axis{Label: "time", Dim: quantity.Time, Top: longest}
	if longest > 600 {
		x.Unit = "min"
	}
	return x
}

// classOf draws the run that counts as now and others as before.
func classOf(r run) (trace, spot string) {
	if r.last {
		return "now", "petrol"
	}
	return "was", "ochre"
}

// decayChart draws what a shut-in pressure lost, and what of it temperature took.
func decayChart(runs []run, units quantity.System) (out Chart) {
	c := draw.Chart{Said: "pressure over the hold", System: units,
		Y: draw.Axis{Label: "pressure", Dim: quantity.Pressure, Low: math.Inf(1)}}
	show := func(v float64) string { return quantity.Show(v, quantity.Pressure, units) }
	within := func(list ...float64) {
		for _, v := range list {
			c.Y.Low, c.Y.Top = min(c.Y.Low, v), max(c.Y.Top, v)
		}
	}
	longest := 0.0
	for _, r := range runs {
		end := r.read(func(f *proof.Figured) bool { return f.By == family.ByDecay || f.Figure == "pressure_end" })
		start, took := r.figure("pressure"), r.over()
		if end == nil || start == nil || took <= 0 {
			continue
		}
		longest = max(longest, took)
		trace, spot := classOf(r)
		within(start.Q.SI, end.Q.SI)
		c.Traces = append(c.Traces, draw.Trace{Class: "was", Label: r.name + ", as read", At: 0.3,
			Points: [][2]float64{{0, start.Q.SI}, {took, end.Q.SI}}})
		c.Spots = append(c.Spots, draw.Spot{Class: "ochre", X: took, Y: end.Q.SI, Label: show(end.Q.SI)})
		corrected := end.Q.SI - end.Heat
		switch {
		case end.Told:
			within(corrected)
			c.Traces = append(c.Traces, draw.Trace{Class: trace, Label: "temperature taken out", At: 0.6,
				Points: [][2]float64{{0, start.Q.SI}, {took, corrected}}})
			c.Spots = append(c.Spots, draw.Spot{Class: spot, X: took, Y: corrected, Label: show(corrected)})
			out.Note = "Temperature did " + show(math.Abs(end.Heat)) + " of it."
		case r.last && end.Cooling > 0:
			could := max(start.Q.SI-end.Cooling, 0)
			within(could)
			c.Strips = append(c.Strips, draw.Strip{Class: "look", Label: "cooling alone could do this",
				From: could, To: start.Q.SI})
			out.Note = "No temperatures were taken: cooling by 10 K alone could do what is shaded."
		}
		limit := 0.0
		switch l := end.Limits; {
		case end.Dim == quantity.Number && l.HasUpper: // a share that may be lost
			limit = start.Q.SI * (1 - l.Upper)
		case end.Of == "start" && end.Dim == quantity.Number && l.HasLower:
			limit = start.Q.SI * l.Lower
		case end.Dim == quantity.Pressure && l.HasLower: // the unit's own
			limit = l.Lower
		}
		if r.last && limit > 0 {
			within(limit)
			c.Traces = append(c.Traces, draw.Trace{Class: "limit", Label: "limit, " + end.From, At: 0.01,
				Points: [][2]float64{{0, limit}, {took, limit}}})
		}
	}
	if longest == 0 {
		return Chart{}
	}
	room := max((c.Y.Top-c.Y.Low)*.25, c.Y.Top*.01)
	c.Y.Low, c.Y.Top = max(0, c.Y.Low-room), c.Y.Top+room
	c.X = timeAxis(longest)
	out.Name, out.SVG = "pressure over the hold", c.SVG()
	return out
}

// driftChart draws how far a load sank over the time of the step. Two readings are all there
// is, so the way between them is drawn straight and said to be.
func driftChart(runs []run, units quantity.System) (out Chart) {
	c := draw.Chart{Said: "drift over the hold", System: units,
		Y: draw.Axis{Label: "drift", Dim: quantity.Length}}
	longest := 0.0
	for _, r := range runs {
		f, took := r.figure("drift"), r.over()
		if f == nil || took <= 0 {
			continue
		}
		longest = max(longest, took)
		trace, spot := classOf(r)
		c.Y.Top = max(c.Y.Top, f.Q.SI)
		c.Traces = append(c.Traces, draw.Trace{Class: trace, Label: r.name, At: 0.5,
			Points: [][2]float64{{0, 0}, {took, f.Q.SI}}})
		c.Spots = append(c.Spots, draw.Spot{Class: spot, X: took, Y: f.Q.SI,
			Label: quantity.Show(f.Q.SI, quantity.Length, units)})
		if r.last && f.Limits.HasUpper && f.Dim == quantity.Length {
			c.Y.Top = max(c.Y.Top, f.Limits.Upper)
			c.Traces = append(c.Traces, draw.Trace{Class: "limit", Label: "limit, " + f.From, At: 0.01,
				Points: [][2]float64{{0, f.Limits.Upper}, {took, f.Limits.Upper}}})
		}
	}
	if longest == 0 || c.Y.Top == 0 {
		return Chart{}
	}
	c.Y.Top *= 1.25
	c.X = timeAxis(longest)
	return Chart{Name: "drift over the hold", SVG: c.SVG(),
		Note: "Read at the start and at the end; straight between them."}
}

// standbyChart draws the flow that each standby gave. Flow goes as the root of the pressure
// over the controlling orifice, so the curve says what another setting would give.
func standbyChart(theory float64, runs []run, units quantity.System) Chart {
	c := draw.Chart{Said: "flow against standby", System: units,
		X: draw.Axis{Label: "standby", Dim: quantity.Pressure}, Y: draw.Axis{Label: "flow", Dim: quantity.Flow}}
	var last *run
	for i, r := range runs {
		standby, flow := r.figure("standby"), r.figure("flow")
		if standby == nil || flow == nil || standby.Q.SI <= 0 {
			continue
		}
		_, spot := classOf(r)
		c.X.Top, c.Y.Top = max(c.X.Top, 1.5*standby.Q.SI), max(c.Y.Top, 1.25*flow.Q.SI)
		c.Spots = append(c.Spots, draw.Spot{Class: spot, X: standby.Q.SI, Y: flow.Q.SI, Label: r.name + ", " +
			quantity.Show(flow.Q.SI, quantity.Flow, units)})
		if l := standby.Limits; l.HasLower && l.HasUpper {
			c.X.Top = max(c.X.Top, 1.2*l.Upper)
			c.Strips = []draw.Strip{{Class: "good", Label: standby.From, From: l.Lower, To: l.Upper, Upright: true}}
		}
		last = &runs[i]
	}
	if last == nil {
		return Chart{}
	}
	if theory > 0 {
		c.Y.Top = max(c.Y.Top, 1.15*theory)
		c.Traces = append(c.Traces, draw.Trace{Class: "limit", Label: "theoretical",
			Points: [][2]float64{{0, theory}, {c.X.Top, theory}}})
	}
	standby, flow := last.figure("standby").Q.SI, last.figure("flow").Q.SI
	c.Traces = append(c.Traces, draw.Trace{Class: "now", Points: draw.Over(0, c.X.Top, 60, func(p float64) float64 {
		return fluidpower.FlowAtMargin(flow, standby, p)
	})})
	return Chart{Name: "flow against standby", SVG: c.SVG(),
		Note: "The curve is not measured: from the last reading, flow goes as the root of the standby."}
}
