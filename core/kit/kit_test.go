package kit_test

import (
	"testing"

	"corvek/core/kit"

	"github.com/stretchr/testify/assert"
)

func TestCheck(t *testing.T) {
	places := []kit.Slot{{"seal", "Outer seal", 1}, {"needles", "Front needles", 34}}
	cases := []struct {
		name   string
		pieces []kit.Piece
		issues int
	}{
		{"all filled", []kit.Piece{{Number: 1, Count: 1, Place: "seal"}, {Number: 2, Count: 34, Place: "needles"}}, 0},
		{"split over two bags", []kit.Piece{{Number: 1, Count: 1, Place: "seal"},
			{Number: 2, Count: 17, Place: "needles"}, {Number: 3, Count: 17, Place: "needles"}}, 0},
		{"a place is empty", []kit.Piece{{Number: 2, Count: 34, Place: "needles"}}, 1},
		{"a needle short", []kit.Piece{{Number: 1, Count: 1, Place: "seal"},
			{Number: 2, Count: 33, Place: "needles"}}, 1},
		{"a ring left over", []kit.Piece{{Number: 1, Count: 1, Place: "seal"},
			{Number: 2, Count: 34, Place: "needles"}, {Number: 3, Count: 1}}, 1},
		{"left over and explained", []kit.Piece{{Number: 1, Count: 1, Place: "seal"},
			{Number: 2, Count: 34, Place: "needles"}, {Number: 3, Count: 1, LeftReason: "other variant"}}, 0},
		{"too many at a place", []kit.Piece{{Number: 1, Count: 2, Place: "seal"},
			{Number: 2, Count: 34, Place: "needles"}}, 1},
		{"pack of a hundred, said so", []kit.Piece{{Number: 1, Count: 100, Place: "seal",
			LeftReason: "pack size, spares to stock"}, {Number: 2, Count: 34, Place: "needles"}}, 0},
		{"put to a place that is not renewed", []kit.Piece{{Number: 1, Count: 1, Place: "seal"},
			{Number: 2, Count: 34, Place: "needles"}, {Number: 3, Count: 1, Place: "body"}}, 1},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) { assert.Len(t, kit.Check(places, c.pieces), c.issues) })
	}
}
