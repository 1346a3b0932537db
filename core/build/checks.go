package build

import (
	"slices"
	"strings"

	"corvek/core/family"
)

// ChecksOf are what is looked to as a part goes in: its family's own, then its kind's, each once. What runs dry is
// not oiled, and a part that pressure takes from both sides is not told to stand on one.
func ChecksOf(def *family.Part) []string {
	out := slices.Clone(def.Checks)
	add := func(text string) {
		if !slices.ContainsFunc(out, func(own string) bool { return sameStart(own, text) }) {
			out = append(out, text)
		}
	}
	if def.Reaches {
		add("not so deep that it reaches what moves behind it")
	}
	if said := slices.ContainsFunc(out, func(own string) bool { return strings.Contains(own, "side") }); !said &&
		def.Kind == "backup_ring" {
		_, right := FittingWays(def)
		add(right)
	}
	k, known := family.KindByCode(def.Kind)
	if !known {
		return out
	}
	for _, c := range k.Checks {
		if def.Dry && strings.Contains(c, "oiled") {
			continue
		}
		add(c)
	}
	return out
}

// sameStart reports that two checks begin with the same two words: the family says it its own way.
func sameStart(a, b string) bool {
	x, y := strings.Fields(strings.ToLower(a)), strings.Fields(strings.ToLower(b))
	return len(x) > 1 && len(y) > 1 && x[0] == y[0] && x[1] == y[1] || strings.EqualFold(a, b)
}

// Wets reports that a part goes in wet with the system's own fluid: what seals and what moves, and does not run dry.
func Wets(def *family.Part) bool {
	k, known := family.KindByCode(def.Kind)
	return known && def.Kind != "gasket" && !def.Dry && (k.Soft || k.Moves)
}

// Sides of a back-up ring in its groove.
const (
	SideAway = "on the side away from the pressure"
	SideTo   = "on the side to the pressure"
	SideBoth = "on both sides"
)

// FittingWays are the ways a part can go in, and the right one; of a back-up ring its side,
// where its family names none: both where there are two to a groove, for pressure from both
// sides.
func FittingWays(def *family.Part) (ways []string, right string) {
	if len(def.Facings) > 0 || def.Kind != "backup_ring" {
		return def.Facings, def.Facing
	}
	right = SideAway
	if def.BothSides {
		right = SideBoth
	}
	return []string{SideAway, SideTo, SideBoth}, right
}
