package draw

import (
	"math"
	"strconv"

	"corvek/core/quantity"
)

// Axis is one side of a chart in base units of its dimension. Names, when
// given, are written instead of round figures.
type Axis struct {
	Label    string
	Dim      quantity.Dimension
	Low, Top float64
	Log      bool
	Unit     string // overrides the shop's unit
}

// Trace is a curve of a chart.
type Trace struct {
	Class  string // now, was, limit
	Label  string
	Points [][2]float64
	Step   bool    // flat between points, as with fillings
	At     float64 // share of its way at which its label stands, a third where it is 0
}

// at is the place on the curve at a share of its way along x.
func (t Trace) at(share float64) (x, y float64) {
	first, last := t.Points[0], t.Points[len(t.Points)-1]
	x = first[0] + share*(last[0]-first[0])
	for i := 1; i < len(t.Points); i++ {
		a, b := t.Points[i-1], t.Points[i]
		if b[0] >= x && b[0] > a[0] {
			return x, a[1] + (x-a[0])/(b[0]-a[0])*(b[1]-a[1])
		}
	}
	return last[0], last[1]
}

// Strip is a band of a chart along one axis.
type Strip struct {
	Class    string // good, look, stop
	Label    string
	From, To float64
	Upright  bool // along the x axis
	AtLeft   bool // its label, where the curve is in the way on the right
}

// Spot is a marked point; its label stands beside it.
type Spot struct {
	Class string
	X, Y  float64
	Label string
}

// Chart is a plain plot of curves over bands, 560 wide and 300 high.
type Chart struct {
	Said   string
	X, Y   Axis
	Traces []Trace
	Strips []Strip
	Spots  []Spot
	System quantity.System
}

const chartLeft, chartRight, chartTop, chartBottom = 58.0, 546.0, 24.0, 258.0

func (a Axis) unit(s quantity.System) quantity.Unit {
	if a.Unit != "" {
		if u, ok := quantity.UnitByName(a.Unit, a.Dim); ok {
			return u
		}
	}
	u, _ := quantity.ShopUnit(math.Max(math.Abs(a.Top), math.Abs(a.Low)), a.Dim, s)
	return u
}

// place gives the share of the axis at which a value lies, held to the axis.
func (a Axis) place(v float64) float64 {
	lo, hi := a.Low, a.Top
	if a.Log {
		v, lo, hi = math.Log(math.Max(v, 1e-300)), math.Log(lo), math.Log(hi)
	}
	if hi <= lo {
		return 0
	}
	return math.Min(1, math.Max(0, (v-lo)/(hi-lo)))
}

func (a Axis) ticks(u quantity.Unit, about int) []float64 {
	lo, hi := u.In(a.Low), u.In(a.Top)
	if !a.Log {
		return ticks(lo, hi, about)
	}
	var out []float64
	for decade := math.Pow(10, math.Floor(math.Log10(lo))); decade <= hi; decade *= 10 {
		for _, m := range []float64{1, 2, 5} {
			if v := decade * m; v >= lo*(1-1e-9) && v <= hi*(1+1e-9) {
				out = append(out, v)
			}
		}
	}
	return out
}

// SVG draws the chart.
func (c Chart) SVG() string {
	if !(c.X.Top > c.X.Low) || !(c.Y.Top > c.Y.Low) {
		return ""
	}
	px := func(v float64) float64 { return chartLeft + c.X.place(v)*(chartRight-chartLeft) }
	py := func(v float64) float64 { return chartBottom - c.Y.place(v)*(chartBottom-chartTop) }
	s := newSheet("plot", 560, 300, c.Said)
	for _, b := range c.Strips {
		if b.Upright {
			s.rect("st-"+b.Class, px(b.From), chartTop, px(b.To)-px(b.From), chartBottom-chartTop)
			s.text("st-t "+b.Class, px(b.From)+5, chartTop+16, "start", b.Label)
			continue
		}
		s.rect("st-"+b.Class, chartLeft, py(b.To), chartRight-chartLeft, math.Max(1.5, py(b.From)-py(b.To)))
		at, anchor := chartRight-5, "end"
		if b.AtLeft {
			at, anchor = chartLeft+6, "start"
		}
		s.text("st-t "+b.Class, at, py(b.To)+15, anchor, b.Label)
	}
	c.axes(s, px, py)
	for _, t := range c.Traces {
		d := ""
		for _, p := range t.Points {
			if p[1] > c.Y.Top*(1+1e-9) || p[1] < c.Y.Low*(1-1e-9) {
				continue // off the sheet; a curve drawn along its edge would lie
			}
			switch {
			case d == "":
				d += "M" + num(px(p[0])) + " " + num(py(p[1]))
			case t.Step:
				d += "H" + num(px(p[0])) + "V" + num(py(p[1]))
			default:
				d += "L" + num(px(p[0])) + " " + num(py(p[1]))
			}
		}
		if d == "" {
			continue
		}
		s.path("tr "+t.Class, d)
	}
	for _, t := range c.Traces {
		if t.Label == "" || len(t.Points) == 0 {
			continue
		}
		share := t.At
		if share == 0 {
			share = 0.3
		}
		x, y := t.at(share)
		s.text("tr-t "+t.Class, px(x)+4, py(y)-9, "start", t.Label)
	}
	for _, m := range c.Spots {
		x, y := px(m.X), py(m.Y)
		s.circle("sp "+m.Class, x, y, 6)
		up := -11.0
		if y < chartTop+24 {
			up = 20
		}
		s.text("sp-t "+m.Class, x, y+up, anchor(x, chartLeft, chartRight), m.Label)
	}
	return s.svg()
}

func (c Chart) axes(s *sheet, px, py func(float64) float64) {
	xu, yu := c.X.unit(c.System), c.Y.unit(c.System)
	for _, v := range c.X.ticks(xu, 6) {
		x := px(v*xu.Factor + xu.Offset)
		s.path("pl-tick", "M%v %v v5", x, chartBottom)
		s.text("pl-t", x, chartBottom+18, "middle", tickText(v))
	}
	for _, v := range c.Y.ticks(yu, 4) {
		y := py(v*yu.Factor + yu.Offset)
		s.path("pl-g", "M%v %v H%v", chartLeft, y, chartRight)
		s.text("pl-t", chartLeft-7, y+5, "end", tickText(v))
	}
	s.path("pl-ax", "M%v %v V%v H%v", chartLeft, chartTop-6, chartBottom, chartRight)
	s.text("pl-t", chartRight, chartBottom+36, "end", named(c.X.Label, xu))
	s.text("pl-t", 4, 13, "start", named(c.Y.Label, yu))
}

func tickText(v float64) string {
	if math.Abs(v) < 1e-12 {
		return "0"
	}
	return strconv.FormatFloat(v, 'g', 5, 64)
}

func named(label string, u quantity.Unit) string {
	if u.Name == "" {
		return label
	}
	return label + ", " + u.Name
}

// Over samples a function between two ends.
func Over(from, to float64, steps int, f func(float64) float64) [][2]float64 {
	out := make([][2]float64, 0, steps+1)
	for i := range steps + 1 {
		x := from + (to-from)*float64(i)/float64(steps)
		out = append(out, [2]float64{x, f(x)})
	}
	return out
}
