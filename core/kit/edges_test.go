package kit_test

import (
	"strings"
	"testing"

	"corvek/core/kit"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A list holds 200 lines and a field 200 letters, no more; a fault is told at its line, counted
// as a reader counts.
func TestBoundsOfAList(t *testing.T) {
	full, err := kit.ReadList(strings.Repeat("a;b;1\n", 200))
	require.NoError(t, err)
	assert.Len(t, full, 200)
	_, err = kit.ReadList(strings.Repeat("a;b;1\n", 201))
	assert.Error(t, err)

	_, err = kit.ReadList("x;" + strings.Repeat("n", 200))
	require.NoError(t, err)
	_, err = kit.ReadList("x;" + strings.Repeat("n", 201))
	assert.Error(t, err)

	for count, good := range map[string]bool{"1": true, "10000": true, "0": false, "-1": false, "10001": false} {
		_, err := kit.ReadList("a;b;" + count)
		assert.Equal(t, good, err == nil, count)
	}
	_, err = kit.ReadList("a;b;1\na;b;some")
	assert.ErrorContains(t, err, "line 2:")
	more, err := kit.ReadList("K-1; seal; 1; ; ; ; ; a cell more than there are columns")
	require.NoError(t, err)
	assert.Equal(t, []kit.Line{{Code: "K-1", Name: "seal", Count: 1}}, more)
	quoted, err := kit.ReadList("K-1; seal 1\" wide; 2")
	require.NoError(t, err)
	assert.Equal(t, []kit.Line{{Code: "K-1", Name: "seal 1\" wide", Count: 2}}, quoted)
}

// Two words of a head make a head, or one that stands alone; a piece may be called "ball" and its
// number "no", so one word among others is a piece.
func TestHeadOfAList(t *testing.T) {
	alone, err := kit.ReadList("piece\nfront gasket")
	require.NoError(t, err)
	assert.Equal(t, []kit.Line{{Name: "front gasket", Count: 1}}, alone)
	one, err := kit.ReadList("K-1;item;2")
	require.NoError(t, err)
	assert.Equal(t, []kit.Line{{Code: "K-1", Name: "item", Count: 2}}, one)
	two, err := kit.ReadList("code;item;remark\nK-1;ball;steel")
	require.NoError(t, err)
	assert.Equal(t, []kit.Line{{Code: "K-1", Name: "ball", Count: 1}}, two)
}

// Names are told apart by their words, sizes by letters, figures and points; a short end of a size
// stands for nothing.
func TestNamesAndSizes(t *testing.T) {
	one := func(name, size string) []kit.Want {
		return []kit.Want{{Part: "here", Name: name, Kind: "ring", Size: size, Open: 1}}
	}
	for _, c := range []struct {
		piece      kit.Offered
		name, size string
		fits       bool
	}{
		{kit.Offered{Name: "the seal of a rod"}, "Seal, rod", "", true},
		{kit.Offered{Name: "zip seal 09"}, "zip seal 09", "x", true},
		{kit.Offered{Name: "zip seal 09"}, "zip seal 08", "x", false},
		{kit.Offered{Name: "azure"}, "bzure", "x", false},
		{kit.Offered{Name: "thing", Size: "214"}, "Ring", "AS568 -214", true},
		{kit.Offered{Name: "thing", Size: "AS568 -214"}, "Ring", "214", true},
		{kit.Offered{Name: "thing", Size: "14"}, "Ring", "AS568 -214", false},
		{kit.Offered{Name: "thing", Size: "AS568 -214"}, "Ring", "14", false},
		{kit.Offered{Name: "thing", Size: "24,99 x 3,53"}, "Ring", "24.99x3.53", true},
		{kit.Offered{Name: "thing", Size: "20 z 9"}, "Ring", "20 z 0", false},
		{kit.Offered{Name: "thing", Size: "a0"}, "Ring", "a0", true},
		{kit.Offered{Name: "thing", Size: "z9"}, "Ring", "z9", true},
		{kit.Offered{Name: "thing", Size: "2.5"}, "Ring", "25", false},
		{kit.Offered{Name: "thing", Size: "--"}, "Ring", "++", false},
	} {
		assert.Equal(t, c.fits, len(kit.Fits(c.piece, one(c.name, c.size))) > 0, "%+v against %s %s", c.piece, c.name,
			c.size)
	}
}

// A seal's sizes are looked up only with both of its measures; a removed lip seal is smaller than
// it was by what it was pressed in with.
func TestSizesNeedBothMeasures(t *testing.T) {
	assert.Empty(t, kit.Sizes(unit.Seal{Section: mm("3.53 mm")}, 3))
	assert.Empty(t, kit.Sizes(unit.Seal{Shaft: mm("20 mm")}, 3))
	assert.Empty(t, kit.Sizes(unit.Seal{Bore: mm("35 mm")}, 3))
	assert.Equal(t, []string{"AS568 -214"}, kit.Sizes(unit.Seal{Inside: mm("24.99 mm"), Section: mm("3.53 mm")}, 1))
}

// Age and material must both be told; glycol and one rubber asks no bag of its own.
func TestNothingIsSaidOfWhatIsNotKnown(t *testing.T) {
	s := kit.Setting{Today: "2031-06-30", Fluid: "HFC water-glycol"}
	for _, c := range [][2]string{{"", "2024-Q2"}, {"NBR", ""}} {
		f, ok := s.Age(c[0], c[1], false)
		assert.False(t, ok)
		assert.Empty(t, f.Text)
	}
	_, ok := kit.Setting{}.Age("NBR", "2024-Q2", false)
	assert.False(t, ok, "no day")
	assert.Empty(t, s.Mixed([]string{"NBR"}))
	assert.Contains(t, s.Mixed([]string{"NBR", "FKM"}), "NBR and FKM in one unit")
}
