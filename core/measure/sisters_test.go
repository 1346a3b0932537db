package measure_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
)

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
