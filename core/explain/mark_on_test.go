package explain_test

import (
	"testing"

	"corvek/core/explain"
	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMarkOn(t *testing.T) {
	_, ok := explain.From{}.MarkOn()
	assert.False(t, ok)
	on, ok := explain.From{Mark: "retainer=broken|cracked"}.MarkOn()
	require.True(t, ok)
	assert.True(t, on.Of("retainer", "plate"))
	assert.False(t, on.Of("rear_plate", "plate"))
	assert.True(t, on.Means("broken"))
	assert.False(t, on.Means("cracked"), "told by itself it says broken")
	any, _ := explain.From{Mark: "*=rust"}.MarkOn()
	assert.True(t, any.Of("anything", "at_all"))
	assert.False(t, any.Means("rust"), "which part rusted is not told by it")
}

// A mark on a part counts once: for the evidence that speaks of that very part before
// one of its kind, and for that before one of any part.
func TestAMarkCountsForTheClosest(t *testing.T) {
	k := explain.Knowledge{Evidence: []explain.Evidence{
		{Code: "any", From: explain.From{Mark: "*=broken"}}, {Code: "kind", From: explain.From{Mark: "@plate=broken"}},
		{Code: "part", From: explain.From{Mark: "retainer=broken"}}}}
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
			on, ok := e.From.MarkOn()
			if !ok {
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
