package kit_test

import (
	"testing"

	"corvek/core/kit"

	"github.com/stretchr/testify/assert"
)

func TestCheck(t *testing.T) {
	places := []kit.Place{{1, "Outer seal", 1}, {2, "Front needles", 34}}
	cases := []struct {
		name   string
		pieces []kit.Piece
		issues int
	}{
		{"all filled", []kit.Piece{{ID: 1, Count: 1, Place: 1}, {ID: 2, Count: 34, Place: 2}}, 0},
		{"split over two bags", []kit.Piece{{ID: 1, Count: 1, Place: 1}, {ID: 2, Count: 17, Place: 2}, {ID: 3, Count: 17, Place: 2}}, 0},
		{"a place is empty", []kit.Piece{{ID: 2, Count: 34, Place: 2}}, 1},
		{"a needle short", []kit.Piece{{ID: 1, Count: 1, Place: 1}, {ID: 2, Count: 33, Place: 2}}, 1},
		{"a ring left over", []kit.Piece{{ID: 1, Count: 1, Place: 1}, {ID: 2, Count: 34, Place: 2}, {ID: 3, Count: 1}}, 1},
		{"left over and explained", []kit.Piece{{ID: 1, Count: 1, Place: 1}, {ID: 2, Count: 34, Place: 2}, {ID: 3, Count: 1, LeftReason: "other variant"}}, 0},
		{"too many at a place", []kit.Piece{{ID: 1, Count: 2, Place: 1}, {ID: 2, Count: 34, Place: 2}}, 1},
		{"pack of a hundred, said so", []kit.Piece{{ID: 1, Count: 100, Place: 1, LeftReason: "pack size, spares to stock"}, {ID: 2, Count: 34, Place: 2}}, 0},
		{"put to a place that is not renewed", []kit.Piece{{ID: 1, Count: 1, Place: 1}, {ID: 2, Count: 34, Place: 2}, {ID: 3, Count: 1, Place: 9}}, 1},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) { assert.Len(t, kit.Check(places, c.pieces), c.issues) })
	}
}
