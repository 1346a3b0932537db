package fluid

import (
	"slices"
	"strings"
	"unicode"
)

// Sight is what a drained fluid shows to the eye and the nose.
type Sight struct {
	Clear bool // bright, nothing in it
	Milky bool // water in it
	Burnt bool // dark and smelling of heat
	Metal bool // glitter, flakes or chips
}

// Spent reports that the fluid bears water, heat or metal: it does not go back in unless
// it is cleaned and dried.
func (s Sight) Spent() bool { return s.Milky || s.Burnt || s.Metal }

// The beginnings of the words that tell each. Brass and bronze are metal to whoever drains.
var (
	clearWords = []string{"clear", "bright", "clean"}
	milkyWords = []string{"milk", "water", "emuls", "cream", "cloud"}
	burntWords = []string{"burn", "dark", "black", "scorch", "brown"}
	metalWords = []string{"metal", "glitter", "flake", "chip", "bronze", "brass", "silver", "swarf", "filing", "shav"}
	denials    = []string{"no", "not", "without", "never", "free"}
)

// SightOf reads what somebody wrote down of the drained fluid. A word with a denial
// just before it, "no metal", tells nothing.
func SightOf(text string) (s Sight) {
	words := strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return !unicode.IsLetter(r) })
	for i, w := range words {
		if denied(words[:i]) {
			continue
		}
		begins := func(list []string) bool {
			return slices.ContainsFunc(list, func(b string) bool { return strings.HasPrefix(w, b) })
		}
		s.Clear = s.Clear || begins(clearWords)
		s.Milky = s.Milky || begins(milkyWords)
		s.Burnt = s.Burnt || begins(burntWords)
		s.Metal = s.Metal || begins(metalWords)
	}
	if s.Spent() {
		s.Clear = false // "bright flakes" are flakes
	}
	return s
}

// denied reports a denial among the last two words before one.
func denied(before []string) bool {
	for _, w := range before[max(0, len(before)-2):] {
		if slices.Contains(denials, w) {
			return true
		}
	}
	return false
}
