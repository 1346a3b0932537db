package proof

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Nine pistons at 1450 rpm: 9 * 24.17 = 217.5 a second.
func TestBeat(t *testing.T) {
	hertz, ok := Beat("piston_set", 9, 1450)
	assert.True(t, ok)
	assert.InDelta(t, 217.5, hertz, 1e-9)
	for _, none := range []struct {
		kind   string
		pieces int
		speed  float64
	}{{"spring", 9, 1450}, {"piston_set", 1, 1450}, {"vanes", 10, 0}} {
		_, ok := Beat(none.kind, none.pieces, none.speed)
		assert.False(t, ok, none)
	}
}
