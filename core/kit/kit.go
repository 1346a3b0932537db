// Package kit holds the pieces of a repair kit against the places they must
// fill. An empty place and a piece that is left over both stop the build until
// somebody has said why.
package kit

import "fmt"

// Place is where new pieces go.
type Place struct {
	ID   uint // of the part
	Name string
	Need int
}

// Piece is a line of the kit as it came.
type Piece struct {
	ID         uint
	Name       string
	Count      int
	Place      uint   // 0: not placed
	LeftReason string // other variant, spare, or what was found out
}

// Issue is an unfilled place or an unexplained piece.
type Issue struct {
	PlaceID, PieceID uint
	Text             string
}

// Filled counts the pieces put to a place.
func Filled(place uint, pieces []Piece) int {
	n := 0
	for _, p := range pieces {
		if p.Place == place {
			n += p.Count
		}
	}
	return n
}

// Check gives the issues of a kit.
func Check(places []Place, pieces []Piece) []Issue {
	var out []Issue
	known := map[uint]bool{}
	for _, pl := range places {
		known[pl.ID] = true
		switch have := Filled(pl.ID, pieces); {
		case have == 0:
			out = append(out, Issue{PlaceID: pl.ID, Text: pl.Name + ": no piece for this place"})
		case have < pl.Need:
			out = append(out, Issue{PlaceID: pl.ID, Text: fmt.Sprintf("%s: %d of %d pieces", pl.Name, have, pl.Need)})
		case have > pl.Need && !explained(pl.ID, pieces):
			out = append(out, Issue{PlaceID: pl.ID, Text: fmt.Sprintf("%s: %d pieces for %d; say what the others are", pl.Name, have, pl.Need)})
		}
	}
	for _, p := range pieces {
		if !known[p.Place] && p.LeftReason == "" {
			out = append(out, Issue{PieceID: p.ID, Text: p.Name + ": left over and not explained"})
		}
	}
	return out
}

func explained(place uint, pieces []Piece) bool {
	for _, p := range pieces {
		if p.Place == place && p.LeftReason != "" {
			return true
		}
	}
	return false
}
