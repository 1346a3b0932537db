// Package economics weighs a rebuild against a new unit. Money is in whatever
// currency the shop writes; only ratios are judged.
package economics

// Case is one unit to be rebuilt or replaced.
type Case struct {
	Parts, LabourHours, Rate, OutsideWork float64
	RebuildDays                           float64
	NewPrice, NewDays, DowntimePerDay     float64
	HasNew                                bool    // false: no new unit is to be had
	LifeFraction                          float64 // of a new unit's life that the rebuild gives
	Threshold                             float64 // ratio above which rebuilding does not pay
}

// Usual figures where the shop gives none.
const (
	UsualThreshold = 0.65
	NewLife        = 1.0
)

// Advice is what the figures say.
type Advice string

// The possible advices.
const (
	Rebuild Advice = "rebuild"
	Replace Advice = "replace"
)

// RebuildCost is parts, labour and outside work together.
func (c Case) RebuildCost() float64 { return c.Parts + c.LabourHours*c.Rate + c.OutsideWork }

// Ratio is the rebuild's cost for the life it gives, against a new unit.
func (c Case) Ratio() float64 { return c.RebuildCost() / (c.NewPrice * c.LifeFraction) }

// BreakEven is the price of a new unit at which the ratio meets the threshold.
func (c Case) BreakEven() float64 { return c.RebuildCost() / (c.Threshold * c.LifeFraction) }

// Advise rebuilds while the ratio keeps to the threshold, and always when no
// new unit can be had.
func (c Case) Advise() Advice {
	if c.HasNew && c.Ratio() > c.Threshold {
		return Replace
	}
	return Rebuild
}

// RebuildTotal and NewTotal add the downtime to each way.
func (c Case) RebuildTotal() float64 { return c.RebuildCost() + c.RebuildDays*c.DowntimePerDay }

// NewTotal is the new unit's price with the wait for it.
func (c Case) NewTotal() float64 { return c.NewPrice + c.NewDays*c.DowntimePerDay }
