package fastener_test

import (
	"testing"

	"corvek/core/fastener"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Published stress areas: ISO 898-1 table in mm², ASME B1.1 in in².
func TestStressAreas(t *testing.T) {
	for thread, mm2 := range map[string]float64{"M6": 20.1, "M8": 36.6, "M10": 58.0, "M12": 84.3, "M16": 157,
		"M20": 245, "M24": 353, "M30": 561, "M36": 817, "M10x1.25": 61.2, "M12x1.25": 92.1, "M20x1.5": 272} {
		th, err := fastener.ParseThread(thread)
		require.NoError(t, err, thread)
		assert.InEpsilon(t, mm2, th.StressArea()*1e6, 0.004, thread)
	}
	for thread, in2 := range map[string]float64{"1/4-20 UNC": .0318, "3/8-16": .0775, "1/2-13 UNC": .1419,
		"1/2-20 UNF": .1599, "3/4-10 UNC": .334, "1-8 UNC": .606, "1-1/2-6 UNC": 1.405} {
		th, err := fastener.ParseThread(thread)
		require.NoError(t, err, thread)
		assert.InEpsilon(t, in2, th.StressArea()/0.0254/0.0254, 0.004, thread)
	}
}

func TestThreadsAreReadLeniently(t *testing.T) {
	for typed, name := range map[string]string{"m12": "M12", "M12×1,25": "M12x1.25", "1/2 unc": "1/2-13 UNC",
		`1/2"-20`: "1/2-20 UNF", "1-1/8-7": "1-1/8-7 UNC", "1 UNF": "1-12 UNF"} {
		th, err := fastener.ParseThread(typed)
		require.NoError(t, err, typed)
		assert.Equal(t, name, th.Name)
	}
	for _, bad := range []string{"", "M", "M13", "M12x9", "1/2", "1/2-14", "1/2-13 UNF", "7/13-4", "bolt"} {
		_, err := fastener.ParseThread(bad)
		assert.Error(t, err, bad)
	}
}

// ISO 228-1: diameter over the crests and pitch as published; no bolt table goes by them.
func TestPipeThreads(t *testing.T) {
	for typed, want := range map[string]struct {
		name        string
		over, pitch float64 // mm
	}{"G 1/2": {"G 1/2", 20.955, 1.814}, "g1/4a": {"G 1/4", 13.157, 1.337}, "1-1/4 bsp": {"G 1-1/4", 41.910, 2.309},
		`3/4" BSPP`: {"G 3/4", 26.441, 1.814}, "G1 1/2": {"G 1-1/2", 47.803, 2.309}} {
		th, err := fastener.ParseThread(typed)
		require.NoError(t, err, typed)
		assert.True(t, th.Pipe)
		assert.Equal(t, want.name, th.Name)
		assert.InDelta(t, want.over, th.Diameter*1e3, 1e-9)
		assert.InDelta(t, want.pitch, th.Pitch*1e3, 0.0006, typed)
		assert.Empty(t, fastener.Span(th, fastener.KOiled, fastener.UsualPreload))
	}
	_, err := fastener.ParseThread("G 5/4")
	assert.ErrorContains(t, err, "no pipe thread")
}

func TestCrosswise(t *testing.T) {
	assert.Equal(t, []int{1, 3, 2, 4}, fastener.Crosswise(4))
	assert.Equal(t, []int{1, 4, 2, 5, 3, 6}, fastener.Crosswise(6))
	assert.Equal(t, []int{1, 5, 3, 7, 2, 6, 4, 8}, fastener.Crosswise(8))
	assert.Equal(t, []int{1, 3, 5, 2, 4}, fastener.Crosswise(5))
	for n := 1; n <= 40; n++ {
		order := fastener.Crosswise(n)
		seen := map[int]bool{}
		for i, p := range order {
			assert.False(t, seen[p] || p < 1 || p > n, "%d of %d", p, n)
			seen[p] = true
			if n%2 == 0 && i%2 == 1 {
				assert.Equal(t, n/2, (p-order[i-1]+n)%n, "the next lies opposite")
			}
		}
		assert.Len(t, order, n)
	}
	assert.Nil(t, fastener.Crosswise(0))
}

func TestProofByRange(t *testing.T) {
	c, err := fastener.ClassByName("8.8")
	require.NoError(t, err)
	assert.Equal(t, 580e6, c.Proof(0.016))
	assert.Equal(t, 600e6, c.Proof(0.020))
	g2, err := fastener.ClassByName("GRADE 2")
	require.NoError(t, err)
	assert.Less(t, g2.Proof(0.0254), g2.Proof(0.0127))
	_, err = fastener.ClassByName("butter")
	assert.Error(t, err)
}

func FuzzParseThread(f *testing.F) {
	f.Add("M12x1.25")
	f.Add("1-1/8-7 UNC")
	f.Fuzz(func(t *testing.T, s string) {
		if th, err := fastener.ParseThread(s); err == nil && th.StressArea() <= 0 {
			t.Fatalf("%q has no area", s)
		}
	})
}
