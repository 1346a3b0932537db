package trace

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// 100 bar that falls by 1 bar a second and swings by 2 bar up and down twice a second: the
// fall is no ripple, the swing is 4 bar from end to end.
func TestRippleLeavesTheTrendOut(t *testing.T) {
	at := time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC)
	tr := Trace{Channels: []string{"pressure"}}
	for i := range 400 {
		s := float64(i) / 40
		tr.Samples = append(tr.Samples, Sample{at.Add(time.Duration(s * 1e9)),
			[]float64{1e7 - 1e5*s + 2e5*math.Cos(2*math.Pi*2*s)}})
	}
	r, ok := tr.Ripple("pressure")
	require.True(t, ok)
	assert.InDelta(t, 4e5, r.Swing, 0.05e5)
	assert.InDelta(t, 40, r.Rate, 0.2)
	assert.InDelta(t, 1e7-1e5*399/80, r.Mean, 0.02e5)
	assert.InDelta(t, 0.042, r.Share(), 0.001)
	assert.True(t, r.Shows(16))
	assert.False(t, r.Shows(24), "a piston of a pump at 1450 rpm hides between 40 readings a second")
}

func TestRippleNeedsReadings(t *testing.T) {
	tr := Trace{Channels: []string{"flow"}}
	for i := range 20 {
		v := math.NaN()
		if i < 9 {
			v = 1
		}
		tr.Samples = append(tr.Samples, Sample{time.Unix(int64(i), 0), []float64{v}})
	}
	_, ok := tr.Ripple("flow")
	assert.False(t, ok)
	_, ok = tr.Ripple("torque")
	assert.False(t, ok)
	assert.Zero(t, Ripple{Swing: 1}.Share())
}
