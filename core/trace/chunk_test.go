package trace_test

import (
	"math"
	"testing"
	"time"

	"corvek/core/trace"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// A log that says 4.1 s is kept at 4.1 s: as a binary fraction it is a nanosecond less.
func TestPackedTimesAreRounded(t *testing.T) {
	r := run(42, level(175e5), level(7e-4))
	back := &trace.Trace{Channels: r.Channels}
	require.NoError(t, back.Unpack(r.Pack(), r.Samples[0].At))
	assert.Equal(t, day.Add(4100*time.Millisecond), back.Samples[41].At)
}

// What is packed comes out again to the seven digits that are kept, and an outline holds
// every sample, however many are joined.
func TestPackedAndOutlined(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		values := rapid.SliceOfN(rapid.Float64Range(0, 4e7), 1, 200).Draw(rt, "values")
		r := run(len(values), func(s float64) float64 {
			if i := int(s*10 + 0.5); i%7 != 3 {
				return values[i]
			}
			return math.NaN()
		}, level(7e-4))
		back := &trace.Trace{Channels: r.Channels}
		require.NoError(rt, back.Unpack(r.Pack(), r.Samples[0].At))
		require.Len(rt, back.Samples, len(values))
		for i, s := range back.Samples {
			require.Equal(rt, r.Samples[i].At.Round(time.Millisecond), s.At)
			if !math.IsNaN(r.Samples[i].Values[0]) {
				require.InEpsilon(rt, 1+r.Samples[i].Values[0], 1+s.Values[0], 1e-6)
			}
		}
		var outlines []trace.Outline
		for at := 0; at < len(r.Samples); at += 10 {
			part := trace.Trace{Channels: r.Channels, Samples: r.Samples[at:min(at+10, len(r.Samples))]}
			o := part.Outline()
			again, err := trace.UnpackOutline(o.Pack(), 2, o.From, o.To)
			require.NoError(rt, err)
			outlines = append(outlines, again)
		}
		joined := trace.Join(outlines, rapid.IntRange(1, 9).Draw(rt, "most"))
		low, high := math.Inf(1), math.Inf(-1)
		for _, o := range joined {
			low, high = min(low, o.Low[0]), max(high, o.High[0])
		}
		for _, s := range r.Samples {
			if v := s.Values[0]; !math.IsNaN(v) && !math.IsNaN(low) && (v < low-8 || v > high+8) {
				rt.Fatalf("%g is not between %g and %g", v, low, high)
			}
		}
	})
	assert.Error(t, (&trace.Trace{Channels: []string{"pressure"}}).Unpack([]byte{1, 2, 3}, day))
	_, err := trace.UnpackOutline([]byte{1}, 1, day, day)
	assert.Error(t, err)
}
