package trace_test

import (
	"math"
	"strings"
	"testing"
	"time"

	"corvek/core/trace"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

var day = time.Date(2031, 5, 20, 0, 0, 0, 0, time.UTC)

// run is ten samples a second of pressure and flow.
func run(n int, pressure, flow func(seconds float64) float64) *trace.Trace {
	t := &trace.Trace{Channels: []string{"pressure", "flow"}}
	for i := range n {
		s := float64(i) / 10
		t.Samples = append(t.Samples, trace.Sample{At: day.Add(time.Duration(s * float64(time.Second))),
			Values: []float64{pressure(s), flow(s)}})
	}
	return t
}

func level(v float64) func(float64) float64 { return func(float64) float64 { return v } }

func TestSteady(t *testing.T) {
	steady := func(r *trace.Trace) bool { ok, _ := r.Steady("pressure", "flow"); return ok }
	assert.True(t, steady(run(50, level(175e5), level(7e-4))))
	assert.False(t, steady(run(20, level(175e5), level(7e-4))), "two seconds are too short")
	assert.False(t, steady(run(50, func(s float64) float64 { return 100e5 + 10e5*s }, level(7e-4))), "it climbs")
	assert.False(t, steady(run(50, func(s float64) float64 { return 175e5 + 10e5*math.Sin(20*s) }, level(7e-4))),
		"it hunts by 6 %")
	assert.True(t, steady(run(80, func(s float64) float64 { return 175e5 - 100e5*math.Exp(-3*s) }, level(0))),
		"it has come to rest, and no flow is no movement")
	_, why := run(50, func(s float64) float64 { return 100e5 + 10e5*s }, level(7e-4)).Steady("pressure", "flow")
	assert.Equal(t, "pressure", why)
}

// Of 2, 4, 4, 4, 5, 5, 7, 9 the mean is 5 and the deviation √(32/7).
func TestMean(t *testing.T) {
	values := []float64{2, 4, 4, 4, 5, 5, 7, 9}
	r := run(9, func(s float64) float64 {
		if i := int(s*10 + 0.5); i < 8 {
			return values[i]
		}
		return math.NaN()
	}, level(1))
	mean, deviation, ok := r.Mean("pressure")
	require.True(t, ok)
	assert.InDelta(t, 5, mean, 1e-12)
	assert.InDelta(t, math.Sqrt(32.0/7), deviation, 1e-12)
	_, _, ok = r.Mean("torque")
	assert.False(t, ok)
}

func TestALogOfAnotherStand(t *testing.T) {
	m := trace.Mapping{Time: "Zeit", Columns: []trace.Column{{Heading: "p1 [bar]", Figure: "pressure", Unit: "bar"},
		{Heading: "Q [l/min]", Figure: "flow", Unit: "L/min"}, {Heading: "T", Figure: "temperature", Unit: "°C"}}}
	const log = "\ufeffZeit;p1 [bar];Q [l/min];T\n0,0;100,5;46,2;44\n0,1;101;;44\n"
	r, err := trace.ReadCSV(strings.NewReader(log), m, day)
	require.NoError(t, err)
	require.Len(t, r.Samples, 2)
	assert.InDelta(t, 100.5e5, r.Samples[0].Values[0], 1e-6)
	assert.InDelta(t, 46.2e-3/60, r.Samples[0].Values[1], 1e-12)
	assert.InDelta(t, 44, r.Samples[0].Values[2], 1e-9)
	assert.True(t, math.IsNaN(r.Samples[1].Values[1]), "what was not read is nothing")
	assert.Equal(t, 100*time.Millisecond, r.Samples[1].At.Sub(r.Samples[0].At))

	for _, c := range []struct{ name, text, says string }{
		{"empty", "", "empty"}, {"heading alone", "Zeit;p1 [bar];Q [l/min];T\n", "no samples"},
		{"no such column", "Zeit;p1 [bar];T\n0;1;2\n", `no column "Q [l/min]"`},
		{"no number", "Zeit;p1 [bar];Q [l/min];T\n0;high;1;2\n", "line 2"},
		{"no time", "Zeit;p1 [bar];Q [l/min];T\nnoon;1;1;2\n", "line 2"},
		{"backwards", "Zeit;p1 [bar];Q [l/min];T\n5;1;1;2\n4;1;1;2\n", "line 3"},
		{"infinite", "Zeit;p1 [bar];Q [l/min];T\n0;1e999;1;2\n", "no number"},
	} {
		_, err := trace.ReadCSV(strings.NewReader(c.text), m, day)
		assert.ErrorContains(t, err, c.says, c.name)
	}
	_, err = trace.ReadCSV(strings.NewReader("t,p\n0,1\n"), trace.Mapping{Time: "t",
		Columns: []trace.Column{{Heading: "p", Figure: "pressure", Unit: "mm"}}}, day)
	assert.ErrorContains(t, err, "no unit of a pressure")
}

func FuzzReadCSV(f *testing.F) {
	f.Add("t,p,q\n0,1,2\n0.1,2,3\n", "t", "p", "bar")
	f.Add("t;p\n14:02:00;1,5\n", "t", "p", "psi")
	f.Add("\"t\n", "t", "p", "bar")
	f.Fuzz(func(t *testing.T, text, clock, heading, unit string) {
		r, err := trace.ReadCSV(strings.NewReader(text), trace.Mapping{Time: clock,
			Columns: []trace.Column{{Heading: heading, Figure: "pressure", Unit: unit}}}, day)
		if err != nil {
			return
		}
		for i, s := range r.Samples {
			if len(s.Values) != 1 || i > 0 && s.At.Before(r.Samples[i-1].At) {
				t.Fatal("a log was read that is none")
			}
		}
	})
}

// However a trace is cut, the means of what is in a window lie between its least and most.
func TestMeansLieInside(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		values := rapid.SliceOfN(rapid.Float64Range(-1e7, 1e7), 1, 60).Draw(rt, "values")
		r := run(len(values), func(s float64) float64 { return values[int(s*10+0.5)] }, level(0))
		low, high := math.Inf(1), math.Inf(-1)
		w := r.Last(time.Second)
		for _, s := range w.Samples {
			low, high = math.Min(low, s.Values[0]), math.Max(high, s.Values[0])
		}
		mean, deviation, _ := w.Mean("pressure")
		if mean < low-1e-6 || mean > high+1e-6 || deviation < 0 {
			rt.Fatalf("mean %g of %g to %g", mean, low, high)
		}
	})
}
