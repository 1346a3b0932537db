package kit_test

import (
	"testing"

	"corvek/core/kit"

	"github.com/stretchr/testify/assert"
)

// The number on the bag says it surely, then the size, then the name; a piece that fits two
// places is for neither until one is chosen, and a filled place wants none.
func TestFits(t *testing.T) {
	wants := []kit.Want{
		{Part: "seal_outer", Name: "Outer shaft seal", Kind: "lip_seal", Size: "20 x 35 x 7", MakerNo: "K32-1",
			Open: 1},
		{Part: "seal_inner", Name: "Inner shaft seal", Kind: "lip_seal", Size: "20 x 35 x 7", Open: 1},
		{Part: "cover_ring", Name: "Cover O-ring", Kind: "o_ring", Size: "AS568 -214", Open: 2},
		{Part: "plug_ring", Name: "Plug ring", Kind: "o_ring", Open: 1},
		{Part: "gasket", Name: "Front gasket", Kind: "gasket", Open: 0},
	}
	for _, c := range []struct {
		piece kit.Offered
		want  []string
	}{
		{kit.Offered{Name: "something", Code: "k32-1"}, []string{"seal_outer"}},
		{kit.Offered{Name: "lip seal", Size: "20x35x7"}, []string{"seal_outer", "seal_inner"}},
		{kit.Offered{Name: "O-ring", Size: "-214"}, []string{"cover_ring"}},
		{kit.Offered{Name: "cover o-ring"}, []string{"cover_ring"}},
		{kit.Offered{Name: "O-ring, thin"}, []string{"plug_ring"}},
		{kit.Offered{Name: "front gasket"}, nil},
		{kit.Offered{Name: "spring"}, nil},
		{kit.Offered{}, nil},
	} {
		assert.Equal(t, c.want, kit.Fits(c.piece, wants), "%+v", c.piece)
	}
}
