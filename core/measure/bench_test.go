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
	assert.Equal(t, metrology.In, r.Verdict)
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

func TestSistersNameTheOddOne(t *testing.T) {
	s := measure.Spec{Method: family.MethodSisters, Cols: 9, Upper: size("0.15 mm"), Resolution: size("0.01 mm")}
	like := measure.Evaluate(s, values("v", "0.08 mm", "0.09 mm", "0.08 mm", "0.10 mm", "0.09 mm", "0.08 mm",
		"0.11 mm", "0.09 mm", "0.08 mm"))
	assert.Zero(t, like.Odd, "scatter is no odd one")
	odd := measure.Evaluate(s, values("v", "0.08 mm", "0.09 mm", "0.08 mm", "0.14 mm", "0.09 mm", "0.08 mm",
		"0.09 mm", "0.09 mm", "0.08 mm"))
	assert.Equal(t, 4, odd.Odd)
	assert.Equal(t, metrology.In, odd.Verdict, "inside the limit, and still not like its sisters")
	assert.InDelta(t, 50e-6, odd.OddBy, 1e-12)
	assert.Zero(t, measure.Evaluate(s, values("v", "0.08 mm", "0.14 mm", "0.08 mm")).Odd, "three are too few to tell")
	assert.Zero(t, measure.Evaluate(s, values("v", "0.08 mm", "0.08 mm", "0.09 mm", "0.08 mm")).Odd,
		"one step of the dial is nothing")
}

func TestSwingAndBow(t *testing.T) {
	s := measure.Spec{Method: family.MethodTIR, Upper: size("0.30 mm"), Resolution: size("0.01 mm")}
	r := measure.Evaluate(s, values("v", "0.24 mm"))
	require.True(t, r.HasBow)
	assert.InDelta(t, 0.12e-3, r.Bow, 1e-12)
	assert.Equal(t, metrology.In, r.Verdict)
}

func TestTooCoarse(t *testing.T) {
	for _, c := range []struct {
		name string
		s    measure.Spec
		want bool
	}{
		{"a vernier on five microns", measure.Spec{Method: family.MethodValue, Lower: size("20.000 mm"),
			Upper: size("20.005 mm"), Resolution: size("0.02 mm")}, true},
		{"a micrometer on twenty microns", measure.Spec{Method: family.MethodValue, Nominal: size("20 mm"),
			Lower: size("19.98 mm"), Resolution: size("0.001 mm")}, false},
		{"exactly a quarter", measure.Spec{Method: family.MethodValue, Upper: size("0.04 mm"),
			Resolution: size("0.01 mm")}, false},
		{"leaves", measure.Spec{Method: family.MethodFeeler, Upper: size("1 thou"), Resolution: size("1 thou")}, false},
		{"no limit", measure.Spec{Method: family.MethodValue, Resolution: size("1 mm")}, false},
	} {
		assert.Equal(t, c.want, c.s.TooCoarse(), c.name)
	}
}

// No shipped family asks for a reading with a tool that cannot judge its limit.
func TestShippedToolsAreFineEnough(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, f := range lib.List() {
		for _, p := range f.Parts {
			for _, ft := range p.Features {
				s := measure.Spec{Method: ft.Method, Nominal: size(ft.Nominal), Lower: size(ft.Lower),
					Upper: size(ft.Upper), Resolution: size(ft.Resolution)}
				assert.False(t, s.TooCoarse(), "%s %s.%s: %s", f.Code, p.Code, ft.Code, ft.Resolution)
			}
		}
	}
}
