package measure_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

var side = measure.Spec{Method: family.MethodFeeler, Lower: size("3 thou"), Upper: size("7 thou"),
	Measured: "total", LimitFor: "total", Leaves: []string{"3 thou", "5 thou", "7 thou", "8 thou", "9 thou"}}

func leaves(pairs ...string) []*unit.Reading {
	var out []*unit.Reading
	for i := 0; i < len(pairs); i += 2 {
		out = append(out, entry("leaf:"+pairs[i], pairs[i+1]))
	}
	return out
}

func TestLeaves(t *testing.T) {
	cases := []struct {
		name    string
		spec    measure.Spec
		in      []*unit.Reading
		verdict metrology.Verdict
		next    float64
	}{
		{"between 8 and 9", side, leaves("3 thou", "goes", "8 thou", "drags", "9 thou", "stops"), metrology.Out, 0},
		{"exactly the band", side, leaves("3 thou", "goes", "7 thou", "stops"), metrology.In, 127e-6},
		{"open above", side, leaves("5 thou", "goes"), metrology.Undecided, 177.8e-6},
		{"across the limit", side, leaves("5 thou", "goes", "9 thou", "stops"), metrology.Undecided, 177.8e-6},
		{"nothing tried", side, nil, "", 0},
		{"contradiction", side, leaves("9 thou", "goes", "3 thou", "stops"), metrology.Undecided, 0},
		{"each side against a total limit", with(side, func(s *measure.Spec) { s.Measured = "each" }),
			leaves("3 thou", "goes", "0.0035 in", "stops"), metrology.In, 0},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			r := measure.Evaluate(c.spec, c.in)
			assert.Equal(t, c.verdict, r.Verdict)
			assert.InDelta(t, c.next, r.NextLeaf, 1e-9)
		})
	}
}

func with(s measure.Spec, f func(*measure.Spec)) measure.Spec { f(&s); return s }

func TestGridAgainstLimitWithResolution(t *testing.T) {
	bore := measure.Spec{Method: family.MethodGrid, Rows: 2, Cols: 2, Wears: "bore", New: point("27.000 mm"),
		Upper: size("27.030 mm"), Resolution: size("0.005 mm")}
	grid := func(a, b, c, d string) []*unit.Reading {
		return []*unit.Reading{entry("r1c1", a), entry("r1c2", b), entry("r2c1", c), entry("r2c2", d)}
	}
	r := measure.Evaluate(bore, grid("27.005 mm", "27.010 mm", "27.005 mm", "27.015 mm"))
	assert.Equal(t, metrology.In, r.Verdict)
	assert.InDelta(t, 27.015e-3, r.Value, 1e-12)
	assert.InDelta(t, 0.5, r.Used, 1e-6)
	assert.InDelta(t, 0.010e-3, r.Summary.OutOfRound, 1e-12)
	assert.InDelta(t, 0.005e-3, r.Summary.Taper, 1e-12)
	assert.Equal(t, metrology.Undecided, measure.Evaluate(bore,
		grid("27 mm", "27 mm", "27 mm", "27.028 mm")).Verdict, "inside the guard band of a 5 µm gauge")
	assert.Equal(t, metrology.Out, measure.Evaluate(bore, grid("27 mm", "27 mm", "27 mm", "27.040 mm")).Verdict)
	assert.False(t, measure.Evaluate(bore, grid("27 mm", "", "27 mm", "27 mm")).Complete)
}

func TestSpringUsesTheToleranceOnItsSide(t *testing.T) {
	s := measure.Spec{Method: family.MethodValue, New: point("42.0 mm"), Lower: size("41.5 mm"),
		Upper: size("42.5 mm"), Resolution: size("0.02 mm"), Rows: 1, Cols: 1}
	r := measure.Evaluate(s, []*unit.Reading{entry("v1", "40.8 mm")})
	assert.Equal(t, metrology.Out, r.Verdict)
	assert.InDelta(t, 2.4, r.Used, 1e-6)
}

// Without a size as new, the share used is the way through the band; with an upper limit alone, of
// the limit.
func TestShareUsedWithoutASizeAsNew(t *testing.T) {
	used := func(s measure.Spec, v string) float64 {
		s.Method, s.Rows, s.Cols, s.Resolution = family.MethodValue, 1, 1, size("0.001 mm")
		return measure.Evaluate(s, []*unit.Reading{entry("v1", v)}).Used
	}
	band := measure.Spec{Lower: size("0.05 mm"), Upper: size("0.15 mm")}
	assert.InDelta(t, 0.5, used(band, "0.10 mm"), 1e-9)
	assert.InDelta(t, 1.5, used(band, "0.20 mm"), 1e-9)
	assert.Zero(t, used(band, "0.04 mm"))
	assert.InDelta(t, 0.25, used(measure.Spec{Upper: size("0.04 mm")}, "0.01 mm"), 1e-9)
}

func TestGradeIsNoNumber(t *testing.T) {
	s := measure.Spec{Method: family.MethodGrade, WorstGrade: 3}
	assert.Equal(t, metrology.In, measure.Evaluate(s, []*unit.Reading{entry("grade", "2")}).Verdict)
	r := measure.Evaluate(s, []*unit.Reading{entry("grade", "3")})
	assert.Equal(t, metrology.Out, r.Verdict)
	assert.False(t, r.HasValue)
	assert.False(t, r.HasUsed, "what a nail felt is no share of a limit")
}

func TestEntriesAreRefusedInTheReadersWords(t *testing.T) {
	bore := measure.Spec{Method: family.MethodGrid, Rows: 1, Cols: 1, New: point("27 mm")}
	for _, bad := range []string{"27", "27 bar", "-27 mm", "twenty"} {
		assert.NotNil(t, measure.CheckEntry(bore, "r1c1", bad), bad)
	}
	assert.Nil(t, measure.CheckEntry(bore, "r1c1", "27,01 mm"))
	assert.Nil(t, measure.CheckEntry(bore, "r1c1", "27 in"), "far off is questioned, not refused")
	assert.Nil(t, measure.CheckEntry(bore, "r1c1", ""))
	assert.False(t, measure.ValidSlot(bore, "r9c9"))
	assert.True(t, measure.ValidSlot(side, "leaf:6.5 thou"), "a leaf between those of the set")
}

// entry is a reading as it comes from the bench.
func entry(slot, value string) *unit.Reading {
	r := &unit.Reading{Slot: slot, Value: value}
	r.Measure()
	return r
}

// point is a size as new out of a document, without a band.
func point(text string) unit.AsNew { return unit.AsNew{Low: size(text), From: unit.NewDocument} }

func size(text string) quantity.Quantity {
	if text == "" {
		return quantity.Quantity{}
	}
	q, err := quantity.Parse(text, quantity.Length)
	if err != nil {
		panic(err)
	}
	return q
}

// 0.10 mm on each side of a centred part is 0.20 mm of play pushed to one side: what a leak or a
// model takes is the whole, whichever way it was measured.
func TestAClearanceOfEachSideIsDoubled(t *testing.T) {
	r := measure.Evaluate(with(side, func(s *measure.Spec) { s.Measured = "each" }),
		leaves("0.08 mm", "goes", "0.12 mm", "stops"))
	assert.InDelta(t, 100e-6, r.Value, 1e-9)
	assert.InDelta(t, 200e-6, r.Total("each"), 1e-9)
	assert.InDelta(t, 100e-6, r.Total("total"), 1e-9)
}
