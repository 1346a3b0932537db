package hidden_test

import (
	"testing"

	"corvek/core/bench"
	"corvek/core/explain"
	"corvek/core/hidden"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// fleeting is a case with a mark on a part that goes when the part is wiped, where something is measured on it.
func fleeting(t *testing.T, s *hidden.Shop) (*hidden.Case, *bench.Part, *explain.Evidence, string) {
	for seed := uint64(1); seed < 200; seed++ {
		c, err := hidden.Draw(s, "axial_piston_pump", hidden.Own, seed)
		require.NoError(t, err)
		truth, err := s.Truth(c)
		require.NoError(t, err)
		for _, p := range truth.True.Parts {
			for _, m := range p.Seen {
				e := truth.True.Knowledge.Marked(p.Code, p.Def.Kind, m.Code)
				if e != nil && e.Unwashed && len(p.Features) > 0 {
					return c, p, e, m.Code
				}
			}
		}
	}
	t.Fatal("none drawn")
	return nil, nil, nil, ""
}

// A part that is looked all over was looked at for each mark on it: they count as told, and wiping it afterwards takes
// nothing away. Wiped first, what goes with the oil is seen neither so nor by itself.
func TestAllOverIsALookForEachMark(t *testing.T) {
	s := shopOf(t)
	c, p, e, mark := fleeting(t, s)
	u := c.True.Unit(1)
	over, by := u.PartRef(p.Code, "sound"), u.PartMarkRef(p.Code, mark, "state")
	reading := u.ReadingRef(p.Code, p.Features[0].Code, unit.StageFound, p.Features[0].Spec.Slots()[0])
	for _, first := range []bool{true, false} {
		h := newHand(t, s, c, "axial_piston_pump")
		h.opens(explain.Stripped)
		if first {
			h.looks(over)
		}
		h.looks(reading)
		if !first {
			h.looks(over)
		}
		seen := h.looks(by)
		assert.Equal(t, first, !seen.Gone)
		assert.Less(t, seen.Minutes, 1.0, "it lies before him already")
		assert.Equal(t, first, seen.Value == unit.MarkSeen)
		way, err := h.bench.Way(nil)
		require.NoError(t, err)
		told := false
		for _, step := range way.Steps {
			for _, f := range step.Told {
				told = told || f.Code == e.Code && f.Likely()
			}
		}
		assert.Equal(t, first, told)
	}
}
