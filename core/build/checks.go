package build

import (
	"slices"
	"strings"

	"corvek/core/family"
)

// ChecksOf are what is looked to as a part goes in: its family's own, then its kind's.
func ChecksOf(def *family.Part) []string {
	out := slices.Clone(def.Checks)
	if k, known := family.KindByCode(def.Kind); known {
		for _, c := range k.Checks {
			if !slices.ContainsFunc(out, func(x string) bool { return strings.EqualFold(x, c) }) {
				out = append(out, c)
			}
		}
	}
	return out
}

// Wets reports that a part goes in wet with the system's own fluid: what seals and what moves.
func Wets(def *family.Part) bool {
	k, known := family.KindByCode(def.Kind)
	return known && def.Kind != "gasket" && (k.Soft || k.Moves)
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
