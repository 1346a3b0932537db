package bench

import (
	"strings"

	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/shop"
	"corvek/core/unit"
)

// gauge is what a figure of an attempt was read with. Where several are named, a large meter and a jug
// for what drips, it is the first that such a figure can be read with.
func (st *Given) gauge(a *unit.Attempt, figure string, q quantity.Quantity) proof.Gauge {
	f, _ := family.FigureByCode(figure)
	names := map[quantity.Dimension]string{quantity.Pressure: a.PressureGauge, quantity.Flow: a.FlowMeter,
		quantity.Temperature: a.Thermometer}[f.Dim]
	if names == "" {
		asked := a.Number > 0 && (f.Dim == quantity.Pressure || f.Dim == quantity.Flow)
		return proof.Gauge{Unnamed: asked && st.keeps(f.Dim)}
	}
	var first proof.Gauge
	for _, name := range strings.Split(names, ",") {
		tool, known := st.Tools.Named(name)
		if !known {
			continue
		}
		g := gaugeOf(tool, f.Dim, a)
		if g.Weak(q) == "" {
			return g
		}
		if first.Name == "" {
			first = g
		}
	}
	return first
}

// keeps reports that the shop keeps instruments that read in a dimension.
func (st *Given) keeps(dim quantity.Dimension) bool {
	for _, i := range st.Tools {
		if _, err := quantity.Parse(i.Resolution, dim); err == nil {
			return true
		}
	}
	return false
}

func gaugeOf(i shop.Instrument, dim quantity.Dimension, a *unit.Attempt) proof.Gauge {
	size := func(text string) float64 {
		q, err := quantity.Parse(text, dim)
		if err != nil {
			return 0
		}
		return q.SI - q.Unit.Offset // a step of a thermometer is no temperature
	}
	class, _ := quantity.Parse(i.Class, quantity.Number)
	g := proof.Gauge{Name: i.Name, Resolution: size(i.Resolution), Class: class.SI, FullScale: size(i.FullScale)}
	if !a.At.IsZero() && i.Overdue(unit.DateOf(a.At)) {
		g.Overdue = i.DueOn.Format("2 Jan 2006")
	}
	return g
}
