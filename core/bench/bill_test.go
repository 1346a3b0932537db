package bench_test

import (
	"testing"

	"corvek/core/bench"
	"corvek/core/bench/benchtest"
	"corvek/core/decide"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func size(t *testing.T, text string, d quantity.Dimension) quantity.Quantity {
	t.Helper()
	q, err := quantity.Parse(text, d)
	require.NoError(t, err)
	return q
}

// What goes on the invoice is what was put in, worked and agreed; what is not entered is named, and never reckoned
// with.
func TestWhatGoesOnTheInvoice(t *testing.T) {
	j := worn(t)
	u := j.Units[0]
	none := bench.Prices{Lot: func(string) (float64, bool) { return 0, false }}
	b := bench.BillOf([]*bench.State{benchtest.State(t, j)}, none)
	assert.Zero(t, b.Sum(), "nothing was put in")
	assert.Contains(t, b.Missing, "hours worked")
	assert.False(t, b.HasAgreed)

	seal := u.Part("seal_outer")
	require.NotNil(t, seal)
	seal.Decisions = []*unit.Decision{{Round: 1, Choice: string(decide.Replace)}}
	k := u.AddPiece("K32-1", "shaft seal", 1, "seal_outer")
	k.Lot = "S-234567"
	j.LabourHours = size(t, "5 h", quantity.Time)
	b = bench.BillOf([]*bench.State{benchtest.State(t, j)}, none)
	require.Len(t, b.Lines, 1)
	assert.False(t, b.Lines[0].Known)
	assert.Contains(t, b.Missing, "price of "+b.Lines[0].What)
	assert.Contains(
		t,
		b.Missing,
		"hours worked (the offer reckoned with 5 h)",
		"what was reckoned with is not what was worked",
	)

	j.WorkedHours, j.LabourRate = size(t, "6.5 h", quantity.Time), size(t, "48", quantity.Number)
	j.OutsideCost, j.Quote.Agreed = size(t, "75.50", quantity.Number), size(t, "400", quantity.Number)
	b = bench.BillOf(
		[]*bench.State{benchtest.State(t, j)},
		bench.Prices{Lot: func(lot string) (float64, bool) { return 14.2, lot == "S-234567" }},
	)
	assert.Empty(t, b.Missing)
	// 14.20 for the seal, 6.5 × 48 = 312.00 for the hours, 75.50 outside.
	assert.InDelta(t, 401.70, b.Sum(), 1e-9)
	assert.InDelta(t, 1.70, b.Over(), 1e-9)

	seal.Price = size(t, "12", quantity.Number)
	j.PartsCost = size(t, "30", quantity.Number)
	b = bench.BillOf([]*bench.State{benchtest.State(t, j)}, none)
	assert.InDelta(t, 12+312+75.5+30, b.Sum(), 1e-9, "a price of its own, beside the kit")
}
