package search

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Hand-worked: 0.3 of the causes, half of a named one, stiff, two marks: 0.3+0.5+0.5+0.2.
func TestWeightOfASuspect(t *testing.T) {
	assert.InDelta(t, 1.5, Against{Cause: 0.3, Named: 0.5, Stiff: true, Marks: 2}.Weight(), 1e-12)
	assert.Zero(t, Against{}.Weight())
}
