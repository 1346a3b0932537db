package measure_test

import (
	"fmt"
	"math"
	"testing"

	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func values(prefix string, vs ...string) []*unit.Reading {
	var out []*unit.Reading
	for i, v := range vs {
		out = append(out, entry(fmt.Sprintf("%s%d", prefix, i+1), v))
	}
	return out
}

// What counts of mating parts is the hole less its own shaft, pair by pair, not
// the largest hole less the smallest shaft.
func TestFits(t *testing.T) {
	s := measure.Spec{Method: family.MethodFit, Lower: size("0.010 mm"), Upper: size("0.040 mm"), Measured: "total",
		LimitFor: "total", Cols: 3, Resolution: size("0.001 mm")}
	assert.Equal(t, []string{"h1", "s1", "h2", "s2", "h3", "s3"}, s.Slots())
	r := measure.Evaluate(s, []*unit.Reading{entry("h1", "18.040 mm"), entry("s1", "18.010 mm"),
		entry("h2", "18.020 mm"), entry("s2", "17.985 mm"), entry("h3", "18.0 mm")})
	assert.InDelta(t, 35e-6, r.Value, 1e-12, "the worst pair, not 18.040 − 17.985")
	assert.Equal(t, metrology.Undecided, r.Verdict, "one shaft is still to be measured")
	assert.Equal(t, 1, r.ToGo)
	require.Len(t, r.Fits, 3)
	assert.InDelta(t, 30e-6, r.Fits[0], 1e-12)
	assert.True(t, math.IsNaN(r.Fits[2]), "half a pair says nothing")
	assert.False(t, r.Complete)
	// Two readings, so U = √2·0.001/√3 mm.
	assert.InDelta(t, 1e-6*math.Sqrt2/math.Sqrt(3), r.Uncertainty, 1e-15)

	r = measure.Evaluate(s, []*unit.Reading{entry("h1", "18.000 mm"), entry("s1", "18.010 mm")})
	assert.Contains(t, r.Faults["s1"], "larger than its hole")
	assert.Empty(t, r.Verdict)
}

// A set is in only when all of it was measured, or as many as its family calls a
// sample; what is out is out from the first.
func TestPartOfASetDecidesNothing(t *testing.T) {
	s := measure.Spec{Method: family.MethodSisters, Lower: size("19.990 mm"), Upper: size("20.010 mm"), Cols: 10,
		Resolution: size("0.001 mm")}
	two := values("v", "20.000 mm", "20.001 mm")
	r := measure.Evaluate(s, two)
	assert.Equal(t, metrology.Undecided, r.Verdict)
	assert.Equal(t, "2 in so far, 8 to go", r.Settle)
	s.Sample = 2
	assert.Equal(t, metrology.In, measure.Evaluate(s, two).Verdict)
	s.Sample = 0
	assert.Equal(t, metrology.Out, measure.Evaluate(s, values("v", "20.000 mm", "20.100 mm")).Verdict)
}
