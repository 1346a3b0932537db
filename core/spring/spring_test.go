package spring_test

import (
	"math"
	"testing"

	"corvek/core/spring"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func disc(t, h float64) spring.Disc {
	return spring.Disc{Outside: .050, Inside: .0254, Thickness: t, Cone: h, Youngs: 206e9, Poisson: .3}
}

// DIN 2093, series A and B, De = 50 mm: loads at 0.75·h0.
func TestPublishedDiscs(t *testing.T) {
	for _, d := range []struct{ t, h, load float64 }{{.003, .0011, 11976}, {.002, .0014, 4762}} {
		assert.InEpsilon(t, d.load, disc(d.t, d.h).Force(.75*d.h), .005)
	}
}

func TestDeflectionInvertsForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := disc(.002, rapid.Float64Range(.0005, .0028).Draw(t, "cone"))
		s := rapid.Float64Range(0, .3).Draw(t, "share") * d.Cone
		if got := d.Deflection(d.Force(s)); math.Abs(got-s) > 1e-9 {
			t.Fatalf("%v came back as %v", s, got)
		}
	})
}

func TestNests(t *testing.T) {
	for stack, want := range map[string][]int{">": {1}, ">>": {2}, "><": {1, 1}, ">><<": {2, 2}, "><<>": {1, 2, 1}} {
		got, err := spring.Nests(stack)
		require.NoError(t, err)
		assert.Equal(t, want, got, stack)
	}
	for _, bad := range []string{"", "x", "> <"} {
		_, err := spring.Nests(bad)
		assert.Error(t, err)
	}
}

// At one fixed height the longer opposed stack is pressed harder than the nested
// one, which may not even be held.
func TestFixedHeightTurnsTheRuleRound(t *testing.T) {
	d := disc(.002, .0014)
	opposed := spring.Stack{Disc: d, Nests: []int{1, 1}}
	nested := spring.Stack{Disc: d, Nests: []int{2}}
	assert.InDelta(t, .0068, opposed.FreeLength(), 1e-12)
	assert.InDelta(t, .0054, nested.FreeLength(), 1e-12)
	height := .0056
	assert.Less(t, nested.FreeLength(), height, "the nested stack rattles")
	force, _, _ := opposed.ForceAt(opposed.FreeLength() - height)
	assert.Greater(t, force, 2000.0)
	// At equal deflection nests add force and groups add travel.
	a, _, _ := nested.ForceAt(.0007)
	b, _, _ := opposed.ForceAt(.0014)
	assert.InEpsilon(t, 2*b, a, 1e-9)
}

func TestMixedNestsShareOneForce(t *testing.T) {
	s := spring.Stack{Disc: disc(.003, .0011), Nests: []int{1, 2}}
	force, most, energy := s.ForceAt(.0009)
	total, again, _ := s.Travel(force)
	assert.InDelta(t, .0009, total, 1e-9)
	assert.InDelta(t, most, again, 1e-9)
	assert.Positive(t, energy)
	assert.Greater(t, most, .00045, "the single disc gives more than the nest")
}

func TestADiscThatDips(t *testing.T) {
	d := disc(.001, .0018)
	assert.True(t, d.Dips())
	assert.Less(t, d.Deflection(d.Force(.0005)), .00051, "the smaller deflection is taken")
	assert.False(t, disc(.002, .0014).Dips())
}

func FuzzNests(f *testing.F) {
	f.Add("><<>")
	f.Fuzz(func(t *testing.T, s string) {
		nests, err := spring.Nests(s)
		if err != nil {
			return
		}
		sum := 0
		for _, n := range nests {
			sum += n
		}
		if sum != len(s) {
			t.Fatalf("%q has %d discs in its nests", s, sum)
		}
	})
}
