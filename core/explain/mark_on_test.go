package explain_test

import (
	"testing"

	"corvek/core/explain"
	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMarkOn(t *testing.T) {
	read := func(text string) *explain.MarkOn {
		on := &explain.MarkOn{}
		require.NoError(t, on.UnmarshalText([]byte(text)))
		return on
	}
	on := read("retainer=broken|cracked")
	assert.True(t, on.Of("retainer", "plate"))
	assert.False(t, on.Of("rear_plate", "plate"))
	assert.True(t, on.Means("broken"))
	assert.False(t, on.Means("cracked"), "told by itself it says broken")
	any := read("*=rust")
	assert.True(t, any.Of("anything", "at_all"))
	assert.False(t, any.Means("rust"), "which part rusted is not told by it")
	for _, wrong := range []string{"", "retainer", "retainer=", "=broken", "@=broken"} {
		require.Error(t, new(explain.MarkOn).UnmarshalText([]byte(wrong)), wrong)
		require.Error(t, new(explain.Answered).UnmarshalText([]byte("air_supply")))
	}
	var a explain.Answered
	require.NoError(t, a.UnmarshalText([]byte("air_supply=falls")))
	assert.Equal(t, explain.Answered{To: "air_supply", With: "falls"}, a)
}

// A mark on a part counts once: for the evidence that speaks of that very part before
// one of its kind, and for that before one of any part.
func TestAMarkCountsForTheClosest(t *testing.T) {
	broken := func(part, kind string) *explain.MarkOn {
		return &explain.MarkOn{PartOf: explain.PartOf{Part: part, Kind: kind}, Marks: []string{"broken"}}
	}
	k := explain.Knowledge{Evidence: []explain.Evidence{
		{Code: "any", From: explain.From{Mark: broken("", "")}},
		{Code: "kind", From: explain.From{Mark: broken("", "plate")}},
		{Code: "part", From: explain.From{Mark: broken("retainer", "")}}}}
	assert.Equal(t, "part", k.Marked("retainer", "plate", "broken").Code)
	assert.Equal(t, "kind", k.Marked("rear_plate", "plate", "broken").Code)
	assert.Equal(t, "any", k.Marked("spool", "spool", "broken").Code)
	assert.Nil(t, k.Marked("spool", "spool", "rust"))
}

// Whatever a knowledge file says of marks, each is one that parts bear, on a part, a
// kind or any.
func TestMarksOnPartsAreKnown(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	k, err := explain.Shipped()
	require.NoError(t, err)
	kinds := map[string]bool{}
	for _, kind := range family.Kinds() {
		kinds[kind] = true
	}
	heard := 0
	for code, f := range lib {
		for _, e := range k.For(code).Of(f.Has()).Evidence {
			on := e.From.Mark
			if on == nil {
				continue
			}
			heard++
			for _, m := range on.Marks {
				_, known := family.PartMark(m)
				assert.True(t, known, "%s: %s says %q", code, e.Code, m)
			}
			assert.True(t, on.Kind == "" || kinds[on.Kind], "%s: %s names kind %q", code, e.Code, on.Kind)
		}
	}
	assert.Greater(t, heard, 200)
}
