package trace_test

import (
	"math"
	"strings"
	"testing"
	"time"

	"corvek/core/trace"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A stretch of a run, rounded as a file rounds it, is told to be of that run; another run of the same
// program is not, nor a gauge that stands still.
func TestACopyIsTold(t *testing.T) {
	noise := func(seed float64) func(float64) float64 {
		return func(s float64) float64 { return 175e5 + 3e5*math.Sin(seed*s*7.1) + 2e5*math.Sin(seed*s*3.3) }
	}
	ran := run(400, noise(1), level(7e-4))
	copied := run(400, func(s float64) float64 { return math.Round(noise(1)(s)/1e4) * 1e4 }, level(7e-4))
	copied.Samples = copied.Samples[100:250]
	assert.True(t, copied.PartOf(ran))
	assert.False(t, run(150, noise(1.01), level(7e-4)).PartOf(ran), "another run")
	still := run(150, level(5e5), level(0))
	assert.False(t, still.PartOf(run(400, level(5e5), level(0))))
	copied.Samples = copied.Samples[:10]
	assert.False(t, copied.PartOf(ran), "too few to tell")
}

// The samples of a file lie in time as it says, and the last stretch without a break is a hold.
func TestUnbroken(t *testing.T) {
	r := run(100, level(1), level(1))
	from, to := r.Unbroken()
	assert.Equal(t, r.Samples[0].At, from)
	assert.Equal(t, r.Samples[99].At, to)
	for i := 40; i < 100; i++ {
		r.Samples[i].At = r.Samples[i].At.Add(time.Minute)
	}
	from, _ = r.Unbroken()
	assert.Equal(t, r.Samples[40].At, from)
	from, to = (&trace.Trace{}).Unbroken()
	assert.True(t, from.IsZero() && to.IsZero())
}

// A file of an exercise says so in its heading, and is read so.
func TestAFileOfAnExerciseSaysSo(t *testing.T) {
	m, err := trace.ParseMapping("time = time\npressure = pressure in bar")
	require.NoError(t, err)
	for text, exercise := range map[string]bool{
		"time,pressure\n0,1\n1,2\n":                   false,
		"time,pressure,simulated\n0,1,yes\n1,2,yes\n": true,
	} {
		r, err := trace.ReadCSV(strings.NewReader(text), m, time.Date(2031, 5, 1, 0, 0, 0, 0, time.UTC))
		require.NoError(t, err)
		assert.Equal(t, exercise, r.Simulated)
	}
}
