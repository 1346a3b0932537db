package seal_test

import (
	"math"
	"testing"
	"time"

	"corvek/core/seal"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Every ring of the tables, measured without error, finds itself first; and a
// used one, off by 2 %, still counts as near it.
func TestEveryRingFindsItself(t *testing.T) {
	for _, r := range seal.Rings {
		found := seal.FindRings(r.Inside, r.Section, 0, 3)
		require.Len(t, found, 3)
		assert.InDelta(t, r.Inside, found[0].Inside, 1e-12, "%s %s", r.Standard, r.Code)
		assert.InDelta(t, r.Section, found[0].Section, 1e-12, "%s %s", r.Standard, r.Code)
		assert.True(t, r.Near(r.Inside*1.02, r.Section*0.98), r.Code)
		assert.False(t, r.Near(r.Inside, r.Section*1.2), r.Code)
	}
}

func TestRingsAreRankedByHowLittleTheyDiffer(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		inside, section := rapid.Float64Range(1e-3, .6).Draw(t, "inside"),
			rapid.Float64Range(1e-3, 8e-3).Draw(t, "section")
		tolerance := rapid.Float64Range(0, 3e-3).Draw(t, "tolerance")
		found := seal.FindRings(inside, section, tolerance, 8)
		last := 0.0
		for _, r := range found {
			miss := math.Abs(r.Section-section)/section + math.Abs(r.Inside-inside)/(inside+section)
			if miss < last-1e-12 {
				t.Fatalf("%s comes after a worse one", r.Code)
			}
			last = miss
			if tolerance > 0 && (math.Abs(r.Inside-inside) > tolerance*(1+1e-6) ||
				math.Abs(r.Section-section) > tolerance*(1+1e-6)) {
				t.Fatalf("%s lies outside %g", r.Code, tolerance)
			}
		}
		if tolerance == 0 && len(found) != 8 {
			t.Fatalf("%d rings without a tolerance", len(found))
		}
	})
}

func TestLipSealsForAShaftAndABore(t *testing.T) {
	// 3/4 in × 1-1/4 in is a common inch size.
	found := seal.FindLips(.75*.0254, 1.25*.0254, 0, nil, 5)
	require.NotEmpty(t, found)
	assert.InDelta(t, .75*.0254, found[0].Shaft, 1e-9)
	assert.InDelta(t, 1.25*.0254, found[0].Bore, 1e-9)
	// A shaft worn by 0.4 mm still finds its seal, one of 1 mm less does not.
	assert.NotEmpty(t, seal.FindLips(24.6e-3, 40e-3, 0, nil, 5))
	for _, l := range seal.FindLips(24.0e-3, 40e-3, 0, nil, 5) {
		assert.NotEqual(t, 25e-3, l.Shaft)
	}
	// The shop's own stock is offered too, and width decides between equals.
	own := seal.Lip{Standard: "in stock", Shaft: 25e-3, Bore: 40e-3, Width: 10e-3}
	assert.Equal(t, own, seal.FindLips(25e-3, 40e-3, 10e-3, []seal.Lip{own}, 1)[0])
	assert.Equal(t, 7e-3, seal.FindLips(25e-3, 40e-3, 7e-3, []seal.Lip{own}, 1)[0].Width)
}

// However the groove lies, a lip pressed to a depth that is offered keeps off it
// by the margin, and the seal stays inside its bore.
func TestPressedLipKeepsOffTheGroove(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mm := func(name string, lo, hi float64) float64 { return rapid.Float64Range(lo, hi).Draw(t, name) * 1e-3 }
		groove, width, seal7, lip, bottom, margin := mm("groove", 0, 15), mm("groove width", 0, 4),
			mm("seal", 4, 12), mm("lip", 0, 12), mm("bottom", 4, 25), mm("margin", 0, 2)
		inside := func(depth float64) bool { return depth >= -1e-9 && depth+seal7 <= bottom+1e-9 }
		off := func(depth float64) bool {
			at := depth + lip
			return at <= groove-margin+1e-9 || at >= groove+width+margin-1e-9
		}
		spans := seal.PressDepths(groove, width, seal7, lip, bottom, margin)
		for _, s := range spans {
			for _, share := range []float64{0, .5, 1} {
				depth := s.From + share*(s.To-s.From)
				if !inside(depth) || !off(depth) {
					t.Fatalf("depth %g of %v", depth, spans)
				}
			}
		}
		// And what is not offered does not do: 200 depths are tried.
		for i := range 200 {
			depth := float64(i) / 199 * (bottom - seal7)
			offered := false
			for _, s := range spans {
				offered = offered || depth >= s.From-1e-9 && depth <= s.To+1e-9
			}
			if !offered && inside(depth-2e-9) && off(depth) && off(depth-2e-9) && off(depth+2e-9) && depth > 0 {
				t.Fatalf("depth %g would do and is not offered: %v", depth, spans)
			}
		}
	})
}

// ISO 2230: five, seven and ten years, and two, three and five more after a look.
func TestStorageGroups(t *testing.T) {
	for elastomer, want := range map[string]seal.Group{"SBR": {Name: "A", Life: 5, Extension: 2},
		"nbr": {Name: "B", Life: 7, Extension: 3}, " CR ": {Name: "B", Life: 7, Extension: 3},
		"EPDM": {Name: "C", Life: 10, Extension: 5}, "FKM": {Name: "C", Life: 10, Extension: 5}} {
		got, err := seal.GroupOf(elastomer)
		require.NoError(t, err)
		assert.Equal(t, want, got, elastomer)
	}
	for elastomer, says := range map[string]string{"PTFE": "does not age", "LEATHER": "not in the storage groups",
		"": "not in the storage groups"} {
		_, err := seal.GroupOf(elastomer)
		assert.ErrorContains(t, err, says)
	}
}

func TestCureDates(t *testing.T) {
	day := func(s string) time.Time {
		d, err := time.Parse(time.DateOnly, s)
		require.NoError(t, err)
		return d
	}
	for text, want := range map[string][2]string{
		"2017-Q1": {"2017-01-01", "2017-03-31"}, "2017-q3": {"2017-07-01", "2017-09-30"},
		"2016-Q4": {"2016-10-01", "2016-12-31"}, " 2024-02-29 ": {"2024-02-29", "2024-02-29"},
	} {
		first, err := seal.CureBegins(text)
		require.NoError(t, err)
		last, err := seal.ParseCure(text)
		require.NoError(t, err)
		assert.Equal(t, day(want[0]), first, text)
		assert.Equal(t, day(want[1]), last, text)
	}
	for _, text := range []string{"", "2017", "2017-Q0", "2017-Q5", "2017-Q11", "Q3-2017", "2017-13-01",
		"2023-02-29", "0000-Q1"} {
		_, err := seal.CureBegins(text)
		assert.ErrorContains(t, err, "no cure date", text)
	}
}
