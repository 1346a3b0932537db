package fluidpower_test

import (
	"testing"

	"corvek/core/fluidpower"

	"github.com/stretchr/testify/assert"
)

// 600 psi give 22 of 25 gpm: 600 * (25/22)^2 = 774.8; and back again.
func TestFlowGoesAsTheRootOfTheMargin(t *testing.T) {
	margin := fluidpower.MarginFor(25, 22, 600)
	assert.InDelta(t, 774.8, margin, 0.05)
	assert.InDelta(t, 25, fluidpower.FlowAtMargin(22, 600, margin), 1e-9)
}
