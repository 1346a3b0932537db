// Package strip judges the strip record: is everything off, does every count
// tie, is what lies loose tied to what is missing.
package strip

import (
	"fmt"
	"strings"

	"corvek/core/unit"
)

// Part is a line of the strip record.
type Part struct {
	Code          string
	Name          string
	Off           bool
	Alone         bool     // it is left on as it came
	InWay         []string // what is still on and keeps it from coming off
	Expected      int
	Found         int
	Counted       bool // Found was really entered
	Explained     string
	Loose         int  // whole pieces found loose and tied to this part
	Fragments     int  // pieces of broken ones, wherever they lay
	FragmentsMake int  // whole pieces that the bits make up together
	Facings       bool // the part has a facing that matters
	Facing        string
}

// Missing is how many pieces are still unaccounted for; negative means too many.
func (p Part) Missing() int {
	if !p.Counted {
		return 0
	}
	return p.Expected - p.have()
}

// have is how many whole pieces are there, found, loose or in fragments. These count as
// what they make up: three of a ring are one ring, one of a slipper is none.
func (p Part) have() int { return p.Found + p.Loose + min(p.FragmentsMake, p.Fragments) }

// Loose is debris or a piece found lying loose.
type Loose struct {
	Number int
	What   string
	Tied   bool
	Note   string // what it is, where it is not tied to a part
}

// Issue is something to settle before the record is honest.
type Issue struct {
	Part  string // code
	Loose int    // number of what was found loose
	Kind  unit.StopKind
	Text  string
}

// Check gives what keeps the strip record from being complete.
func Check(parts []Part, loose []Loose) []Issue {
	var out []Issue
	left := 0
	for _, p := range parts {
		if !p.Off {
			if !p.Alone {
				left++
			}
			continue
		}
		if len(p.InWay) > 0 {
			out = append(out, Issue{Part: p.Code, Kind: unit.StopOrder,
				Text: fmt.Sprintf("%s is off, and still on in its way: %s", p.Name, strings.Join(p.InWay, ", "))})
		}
		switch m := p.Missing(); {
		case !p.Counted:
			// A single piece that is off was there; of several nobody knows.
			if p.Expected != 1 || p.Fragments > 0 {
				out = append(out, Issue{Part: p.Code, Kind: unit.StopUncounted,
					Text: fmt.Sprintf("%s: not counted", p.Name)})
			}
		case p.Explained != "":
		case m > 0 && p.Fragments > 0:
			out = append(out, Issue{Part: p.Code, Kind: unit.StopShort,
				Text: fmt.Sprintf("%s: %d of %d and %s, which %s: %s not found", p.Name, p.Found+p.Loose,
					p.Expected, bitsAre(p.Fragments), bitsMake(min(p.FragmentsMake, p.Fragments)), pieces(m))})
		case m > 0:
			out = append(out, Issue{Part: p.Code, Kind: unit.StopShort,
				Text: fmt.Sprintf("%s: %d of %d, %s not found", p.Name, p.Found+p.Loose, p.Expected, pieces(m))})
		case m < 0:
			out = append(out, Issue{Part: p.Code, Kind: unit.StopOver,
				Text: fmt.Sprintf("%s: %s more than expected", p.Name, pieces(-m))})
		}
		// What is not there faces nowhere.
		if there := !p.Counted || p.Found+p.Loose+p.Fragments > 0; p.Facings && p.Facing == "" && there {
			out = append(out, Issue{Part: p.Code, Kind: unit.StopFacing,
				Text: fmt.Sprintf("%s: facing not noted", p.Name)})
		}
	}
	if left > 0 {
		out = append(out, Issue{Kind: unit.StopStillOn, Text: fmt.Sprintf("%s still on the unit", partsAre(left))})
	}
	for _, l := range loose {
		if !l.Tied && l.Note == "" {
			out = append(out, Issue{Loose: l.Number, Kind: unit.StopLoose,
				Text: fmt.Sprintf("%s was found loose and is not assigned to a part yet", l.What)})
		}
	}
	return out
}

func bitsAre(n int) string {
	if n == 1 {
		return "one piece of a broken one"
	}
	return fmt.Sprintf("%d pieces of broken ones", n)
}

func bitsMake(n int) string {
	switch n {
	case 0:
		return "make up no whole one"
	case 1:
		return "make up one"
	}
	return fmt.Sprintf("make up %d", n)
}

func pieces(n int) string {
	if n == 1 {
		return "one"
	}
	return fmt.Sprint(n)
}

func partsAre(n int) string {
	if n == 1 {
		return "one part is"
	}
	return fmt.Sprintf("%d parts are", n)
}
