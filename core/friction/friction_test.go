package friction_test

import (
	"testing"

	"corvek/core/friction"

	"github.com/stretchr/testify/assert"
)

// 160 and 120 mm: 2/3·(80³ − 60³)/(80² − 60²) = 70.476 mm; six faces, μ 0.1,
// 8 kN: 6·0.1·8000·0.070476 = 338.29 N·m.
func TestByHand(t *testing.T) {
	r := friction.MeanRadius(.080, .060)
	assert.InDelta(t, 0.0704762, r, 1e-7)
	assert.InDelta(t, 338.286, friction.Torque(6, .1, 8000, r), 1e-3)
	assert.InDelta(t, 2.0/3*.05, friction.MeanRadius(.05, 0), 1e-12, "a full disc acts at two thirds")
}
