package proof

import (
	"math"
	"strings"

	"corvek/core/fluidpower"
	"corvek/core/metrology"
	"corvek/core/quantity"
)

// Gauge is what a figure was read with. The zero Gauge is one that nobody named.
type Gauge struct {
	Name       string
	Resolution float64 // in the base unit of what it reads, 0 where not known
	Class      float64 // largest error in percent of full scale, 0 where not known
	FullScale  float64
	Overdue    string // since when its calibration is due, "" where it holds
	Unnamed    bool   // nobody says which of the shop's it was
}

// leastShare is the share of its range above which a gauge is read (ISO 4409 asks for the upper part
// of the range; a fifth is the least that is taken here).
const leastShare = 0.2

// Weak says why a figure that was read with the gauge carries no claim, "" where it does.
func (g Gauge) Weak(q quantity.Quantity) string {
	switch {
	case g.Unnamed:
		return "nobody says which gauge it was read with"
	case g.Overdue != "":
		return g.Name + " is out of date since " + g.Overdue
	case g.FullScale > 0 && q.Dim != quantity.Temperature && math.Abs(q.SI) < leastShare*g.FullScale:
		return "read below a fifth of the range of " + g.Name
	}
	return ""
}

// unnamed is the expanded relative uncertainty (k = 2) taken for a flow, a torque or a force
// that was read with a meter nobody named: class C of ISO 4409 allows 2.5 %, a meter of a
// rebuild shop that is looked after does better.
const unnamed = 0.01

// Uncertainty is the expanded uncertainty (k = 2) of a figure: the class and the resolution
// of the gauge, or the last digit that was written where no gauge is named.
func (g Gauge) Uncertainty(q quantity.Quantity) float64 {
	resolution := g.Resolution
	if resolution == 0 {
		resolution = lastDigit(q)
	}
	u := metrology.ExpandedFromResolution(resolution)
	switch {
	case g.Class > 0 && g.FullScale > 0:
		u = math.Hypot(u, metrology.ExpandedFromClass(g.Class, g.FullScale))
	case q.Dim == quantity.Flow || q.Dim == quantity.Torque || q.Dim == quantity.Force:
		u = math.Hypot(u, unnamed*math.Abs(q.SI))
	}
	return u
}

// Thermometer is the expanded uncertainty (k = 2) of one temperature: by the class of the
// thermometer, or the kelvin that is taken where nobody said which it was. How finely it
// reads says nothing of how right it is.
func (g Gauge) Thermometer() float64 {
	if g.Class <= 0 || g.FullScale <= 0 {
		return fluidpower.ReadingDoubt
	}
	return math.Hypot(metrology.ExpandedFromResolution(g.Resolution), metrology.ExpandedFromClass(g.Class, g.FullScale))
}

// lastDigit is the weight of the last digit that was typed: 175 bar is read to 1 bar, 44.0
// L/min to 0.1 L/min. What is typed as a fraction is read to a hundredth of itself.
func lastDigit(q quantity.Quantity) float64 {
	number := strings.ReplaceAll(q.Typed, ",", ".")
	end := strings.IndexFunc(number, func(r rune) bool { return (r < '0' || r > '9') && r != '.' && r != '-' })
	if end >= 0 {
		if number[end] == '/' {
			return math.Abs(q.SI) / 100
		}
		number = number[:end]
	}
	_, decimals, _ := strings.Cut(number, ".")
	factor := q.Unit.Factor
	if factor == 0 {
		factor = 1
	}
	return factor * math.Pow10(-len(decimals))
}
