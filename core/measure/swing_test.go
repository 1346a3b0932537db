package measure_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSwingAndBow(t *testing.T) {
	s := measure.Spec{Method: family.MethodTIR, Upper: size("0.30 mm"), Resolution: size("0.01 mm")}
	r := measure.Evaluate(s, values("v", "0.24 mm"))
	require.True(t, r.HasBow)
	assert.InDelta(t, 0.12e-3, r.Bow, 1e-12)
	assert.Equal(t, metrology.In, r.Verdict)
}
