// Package kit holds the pieces of a repair kit against the places they must
// fill. An empty place and a piece that is left over both stop the build until
// somebody has said why.
package kit

import "fmt"

// Slot is where new pieces go.
type Slot struct {
	Part string // code
	Name string
	Need int
}

// Piece is a line of the kit as it came.
type Piece struct {
	Number     int // of the line in the kit
	Name       string
	Count      int
	Place      string   // code of the part it is for; "" not placed
	LeftReason string   // other variant, spare, or what was found out
	Unfit      string   // why it does not go in, as it was tried
	Faults     []string // of its rubber: fluid, age
}

// Issue is an unfilled place or an unexplained piece.
type Issue struct {
	Part  string // code of the place that wants pieces
	Piece int    // number of the piece that is left over, or does not suit
	Seal  bool   // its rubber does not suit
	Lacks string // name of a place that has no piece at all
	Text  string
}

// Filled counts the pieces put to a place.
func Filled(place string, pieces []Piece) int {
	n := 0
	for _, p := range pieces {
		if p.Place == place {
			n += p.Count
		}
	}
	return n
}

// Check gives the issues of a kit.
func Check(places []Slot, pieces []Piece) []Issue {
	var out []Issue
	known := map[string]bool{}
	for _, pl := range places {
		known[pl.Part] = true
		switch have := Filled(pl.Part, pieces); {
		case have == 0:
			out = append(out, Issue{Part: pl.Part, Lacks: pl.Name, Text: pl.Name + ": no piece for this place"})
		case have < pl.Need:
			out = append(out, Issue{Part: pl.Part, Text: fmt.Sprintf("%s: %d of %d pieces", pl.Name, have, pl.Need)})
		case have > pl.Need && !explained(pl.Part, pieces):
			out = append(out, Issue{Part: pl.Part, Text: fmt.Sprintf(
				"%s: %d pieces for %d; say what the others are", pl.Name, have, pl.Need)})
		}
	}
	for _, p := range pieces {
		for _, f := range p.Faults {
			if known[p.Place] {
				out = append(out, Issue{Piece: p.Number, Seal: true, Text: p.Name + ": " + f})
			}
		}
		if known[p.Place] && p.Unfit != "" {
			out = append(out, Issue{Piece: p.Number, Text: p.Name + ": " + p.Unfit})
		}
		if !known[p.Place] && p.LeftReason == "" && p.Unfit == "" {
			out = append(out, Issue{Piece: p.Number, Text: p.Name + ": left over and not explained"})
		}
	}
	return out
}

func explained(place string, pieces []Piece) bool {
	for _, p := range pieces {
		if p.Place == place && p.LeftReason != "" {
			return true
		}
	}
	return false
}
