package kit

import (
	"slices"
	"strings"
)

// Want is a place that waits for a piece, as a piece is held against it.
type Want struct {
	Part    string // code
	Name    string
	Kind    string
	Size    string // its standard size where that is known
	MakerNo string
	Open    int // pieces that are still wanted
}

// Offered is a piece that is held against the places.
type Offered struct {
	Name, Code, Size string
}

// Same reports that two pieces are of one make: by the number on the bag, else by size, else by name.
func (p Offered) Same(o Offered) bool {
	switch {
	case p.Code != "" && o.Code != "":
		return strings.EqualFold(p.Code, o.Code)
	case p.Size != "" && o.Size != "":
		return sameSize(p.Size, o.Size)
	}
	return sameWords(p.Name, o.Name)
}

// Fits are the codes of the places that a piece may be for, the surest first: by the
// number on the bag, then by its size, then by its name. Places that are filled are left out.
// A piece that fits two is for neither until one is chosen.
func Fits(p Offered, wants []Want) []string {
	for _, by := range []func(Want) bool{
		func(w Want) bool { return p.Code != "" && strings.EqualFold(p.Code, w.MakerNo) },
		func(w Want) bool { return p.Size != "" && sameSize(p.Size, w.Size) && likely(p.Name, w) },
		func(w Want) bool { return p.Size != "" && sameSize(p.Size, w.Size) },
		func(w Want) bool { return w.Name != "" && sameWords(p.Name, w.Name) },
		func(w Want) bool { return w.Size == "" && likely(p.Name, w) },
	} {
		var out []string
		for _, w := range wants {
			if w.Open > 0 && by(w) {
				out = append(out, w.Part)
			}
		}
		if len(out) > 0 {
			return out
		}
	}
	return nil
}

// Plainly reports that a piece is for a place by its number or its size, not by its name alone.
func Plainly(p Offered, w Want) bool {
	return p.Code != "" && strings.EqualFold(p.Code, w.MakerNo) ||
		p.Size != "" && w.Size != "" && sameSize(p.Size, w.Size) && (likely(p.Name, w) || len(usual[w.Kind]) == 0)
}

// words of a name in small letters, without those that say nothing.
func words(name string) []string {
	return slices.DeleteFunc(strings.FieldsFunc(strings.ToLower(name), func(r rune) bool {
		return !(r >= 'a' && r <= 'z' || r >= '0' && r <= '9')
	}), func(w string) bool { return w == "the" || w == "of" || w == "a" })
}

func sameWords(a, b string) bool { return slices.Equal(words(a), words(b)) }

// sameSize compares sizes without blanks and signs, so that AS568-214 is -214 of AS568.
func sameSize(a, b string) bool {
	bare := func(s string) string {
		return strings.Map(func(r rune) rune {
			if r >= 'a' && r <= 'z' || r >= '0' && r <= '9' || r == '.' {
				return r
			}
			return -1
		}, strings.ToLower(strings.ReplaceAll(s, ",", ".")))
	}
	x, y := bare(a), bare(b)
	const least = 3 // letters that are enough to stand for the whole
	return x != "" && x == y || len(y) >= least && strings.HasSuffix(x, y) ||
		len(x) >= least && strings.HasSuffix(y, x)
}

// usual are the words by which pieces of a kind are called on bags.
var usual = map[string][]string{
	"o_ring": {"o-ring", "o ring", "oring"}, "backup_ring": {"back-up", "backup", "back up"},
	"lip_seal": {"lip seal", "shaft seal", "rotary seal", "wiper"}, "piston_seal": {"piston seal", "rod seal", "cup",
		"u-cup", "wear ring", "seal"}, "gasket": {"gasket"}, "bearing": {"bearing"}, "needles": {"needle", "roller"},
	"retaining_ring": {"retaining ring", "circlip", "snap ring"}, "spring": {"spring"}, "ball": {"ball"},
	"bush": {"bush"}, "plate_pack": {"friction", "plate"}, "vanes": {"vane"}, "key": {"key"},
}

// likely reports that a piece's name speaks of the place's kind, or of the place itself.
func likely(name string, w Want) bool {
	low := strings.ToLower(name)
	for _, word := range usual[w.Kind] {
		if strings.Contains(low, word) {
			return true
		}
	}
	return low != "" && strings.Contains(strings.ToLower(w.Name), low)
}

// Another reports that a piece is called by the words of other kinds than its place is of, and by none of its own.
func Another(name string, place Want) bool {
	if len(usual[place.Kind]) == 0 || likely(name, place) || sameWords(name, place.Name) {
		return false
	}
	for other := range usual {
		if other != place.Kind && other != "piston_seal" && likely(name, Want{Kind: other}) {
			return true
		}
	}
	return false
}
