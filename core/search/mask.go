package search

import (
	"slices"
	"strings"
)

// masks are words that together say that a fault was hidden and not found.
var masks = [][]string{
	{"relief", "raised"}, {"relief", "raise"}, {"relief", "up"}, {"relief", "higher"}, {"relief", "shut"},
	{"standby", "raised"}, {"pressure", "raised"}, {"setting", "raised"}, {"setting", "up"},
	{"oil", "thicker"}, {"oil", "heavier"}, {"thicker", "grade"}, {"higher", "viscosity"},
	{"spring", "stiffer"}, {"spring", "stronger"}, {"spring", "harder"}, {"spring", "heavier"},
	{"leak", "stopped", "additive"}, {"oil", "additive"}, {"speed", "raised"},
}

// turnedBack are words that say that it is not done, or is undone.
var turnedBack = []string{"not", "no", "never", "without", "instead", "back"}

// Masks reports that a change in a mechanic's words hides a fault: a relief raised over its
// book or a thicker oil makes the figure good and leaves what is wrong. Words that turn it down are none.
func Masks(words string) bool {
	said := strings.FieldsFunc(strings.ToLower(words), func(r rune) bool {
		return (r < 'a' || r > 'z') && r != '-'
	})
	if slices.ContainsFunc(turnedBack, func(w string) bool { return slices.Contains(said, w) }) {
		return false
	}
	for _, all := range masks {
		if !slices.ContainsFunc(all, func(w string) bool { return !slices.Contains(said, w) }) {
			return true
		}
	}
	return false
}
