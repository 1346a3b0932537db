package figures_test

import (
	"fmt"
	"math/rand"
	"testing"

	"corvek/core/figures"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func measure(t *testing.T, code string) *figures.Measure {
	t.Helper()
	for i := range figures.Measures {
		if figures.Measures[i].Code == code {
			return &figures.Measures[i]
		}
	}
	t.Fatal(code)
	return nil
}

func tags(jobs []*figures.Job) (out []string) {
	for _, j := range jobs {
		out = append(out, j.Tag)
	}
	return out
}

// Four jobs, worked out by hand.
func TestWhatFourJobsCameTo(t *testing.T) {
	tested := func(proved bool, attempts, rounds int) []figures.Unit {
		return []figures.Unit{{Family: "gear", Known: true, Proved: proved, Attempts: attempts, Rounds: rounds}}
	}
	jobs := []*figures.Job{
		{Tag: "A", Customer: "x", Received: "2031-05-01", Promised: "2031-05-10", HandedOver: "2031-05-09",
			Units: tested(true, 1, 1), Estimated: 4, Worked: 5, Waits: map[string]float64{"parts": 4}},
		{
			Tag:        "B",
			Customer:   "x",
			Received:   "2031-05-01",
			Promised:   "2031-05-10",
			HandedOver: "2031-05-31",
			Reopened:   true,
			Units: tested(
				true,
				2,
				2,
			),
			Estimated: 10,
			Worked:    10,
			Waits:     map[string]float64{"parts": 12, "customer": 2},
		},
		{
			Tag:        "C",
			Customer:   "y",
			Received:   "2031-06-01",
			Promised:   "2031-06-09",
			HandedOver: "2031-06-08",
			Moved:      true,
			Warranty:   true,
			Units:      tested(false, 1, 1),
		},
		{Tag: "D", Customer: "y", Received: "2031-06-01", HandedOver: "2031-06-03",
			Units: []figures.Unit{{Family: "gear"}, {Family: "vane"}}},
	}
	for _, c := range []struct {
		code  string
		value float64
		of    []string // the worst first
	}{
		{"jobs", 4, []string{"A", "B", "C", "D"}},
		{"turnaround", 7.5, []string{"B", "A", "C", "D"}}, // 30, 8, 7, 2 days: the middle
		{"promises", 100.0 / 3, []string{"B", "C", "A"}},  // one of three: B is late, the day of C was moved
		{"first", 100.0 / 3, []string{"B", "C", "A"}},     // D was not tested, as far as is known
		{"rework", 100.0 / 3, []string{"B", "A", "C"}},
		{"back", 25, []string{"B", "A", "C", "D"}},
		{"warranty", 25, []string{"C", "A", "B", "D"}},
		{"hours", 1.125, []string{"A", "B"}}, // 1.25 and 1
	} {
		v := measure(t, c.code).Of(jobs)
		assert.InDelta(t, c.value, v.Value, 1e-9, c.code)
		assert.Equal(t, c.of, tags(v.Jobs), c.code)
	}
	waits := figures.Waits(jobs)
	require.Len(t, waits, 2)
	assert.Equal(t, "parts", waits[0].For)
	assert.InDelta(t, 4, waits[0].Days, 1e-9, "16 days on four jobs")
	assert.Equal(t, []string{"B", "A"}, tags(waits[0].Jobs))

	by := func(way string) (out []string) {
		for _, g := range figures.Groups(jobs, way) {
			out = append(out, fmt.Sprint(g.Key, tags(g.Jobs)))
		}
		return out
	}
	assert.Equal(t, []string{"2031-05[A B]", "2031-06[C D]"}, by(figures.ByMonth))
	assert.Equal(t, []string{"gear[A B C D]", "vane[D]"}, by(figures.ByFamily))
	assert.Equal(t, []string{"[A B C D]"}, by(figures.ByCause), "of none it is known")
}

// Whatever the jobs: each stands in a group, a share lies within 0 and 100, and a job counts in a measure once.
func TestFiguresOfAnyJobs(t *testing.T) {
	random := rand.New(rand.NewSource(3))
	for range 500 {
		var jobs []*figures.Job
		for i := range random.Intn(12) {
			j := &figures.Job{
				Tag:        fmt.Sprint(i),
				Received:   "2031-05-01",
				HandedOver: unit.Date("2031-05-01").Add(random.Intn(90)),
				Moved:      random.Intn(2) == 0,
				Reopened:   random.Intn(2) == 0,
				Worked:     float64(random.Intn(3)),
				Estimated:  float64(random.Intn(3)),
			}
			for range random.Intn(3) {
				j.Units = append(
					j.Units,
					figures.Unit{Family: string(rune('a' + random.Intn(3))), Known: random.Intn(2) == 0,
						Attempts: random.Intn(3), Rounds: 1 + random.Intn(2), Proved: random.Intn(2) == 0},
				)
			}
			jobs = append(jobs, j)
		}
		for i := range figures.Measures {
			m := &figures.Measures[i]
			v := m.Of(jobs)
			require.LessOrEqual(t, len(v.Jobs), len(jobs))
			seen := map[string]bool{}
			for _, j := range v.Jobs {
				require.False(t, seen[j.Tag])
				seen[j.Tag] = true
			}
			if m.Unit == "%" {
				require.True(t, v.Value >= 0 && v.Value <= 100)
			}
		}
		for _, way := range figures.Ways {
			there := map[string]bool{}
			for _, g := range figures.Groups(jobs, way) {
				for _, j := range g.Jobs {
					there[j.Tag] = true
				}
			}
			for _, j := range jobs {
				require.True(
					t,
					there[j.Tag] || len(j.Units) == 0 && way != figures.ByMonth && way != figures.ByCustomer,
				)
			}
		}
	}
}
