package metrology_test

import (
	"testing"

	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
)

// A gauge of class 1.0 and 250 bar may be off by 2.5 bar: 2·2.5/√3 = 2.887 bar with k = 2. A step
// of 0.01 mm is known to half of it: 2·0.005/√3 = 0.005774 mm.
func TestUncertaintyByHand(t *testing.T) {
	assert.InEpsilon(t, 2.88675e5, metrology.ExpandedFromClass(1, 250e5), 1e-5)
	assert.InEpsilon(t, 0.0057735e-3, metrology.ExpandedFromResolution(0.01e-3), 1e-5)
}
