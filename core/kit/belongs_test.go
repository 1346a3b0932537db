package kit_test

import (
	"testing"

	"corvek/core/kit"

	"github.com/stretchr/testify/assert"
)

// A kit is told by the build that it belongs to; what is called otherwise is nobody's, and nothing is said where
// nobody knows which build the unit is.
func TestAKitOfAnotherBuild(t *testing.T) {
	left, right := kit.Build{Variant: "l", Kit: "cartridge kit L"}, kit.Build{Variant: "r", Kit: "cartridge kit R"}
	all := []kit.Build{left, right, {Variant: "x"}}
	for came, want := range map[string]string{"Cartridge kit R": "r", "kit R, cartridge": "r", "cartridge kit L": "",
		"CK 4471": "", "": "", "kit": ""} {
		other, is := kit.OfAnother(came, left, all)
		assert.Equal(t, want != "", is, came)
		assert.Equal(t, want, other.Variant, came)
	}
	_, is := kit.OfAnother("cartridge kit R", kit.Build{}, all)
	assert.False(t, is, "which build it is, nobody said")
	_, is = kit.OfAnother(
		"seal kit",
		kit.Build{Variant: "a", Kit: "seal kit"},
		[]kit.Build{{Variant: "b", Kit: "seal kit"}},
	)
	assert.False(t, is, "one kit for both")
}
