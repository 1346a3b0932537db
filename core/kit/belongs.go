package kit

import (
	"slices"
	"strings"
)

// Build is a build of a unit with the kit that belongs to it.
type Build struct{ Variant, Kit string }

// OfAnother reports that a kit, as it is called on its bag, is that of another build than this one, and of which;
// own is this unit's build, empty where nobody knows it. A name that is no build's says nothing.
func OfAnother(came string, own Build, all []Build) (other Build, is bool) {
	named := func(b Build) bool { return b.Kit != "" && containsAll(words(came), words(b.Kit)) }
	if strings.TrimSpace(came) == "" || own.Variant == "" || named(own) {
		return Build{}, false
	}
	for _, b := range all {
		if b.Variant != own.Variant && named(b) && !sameWords(b.Kit, own.Kit) {
			return b, true
		}
	}
	return Build{}, false
}

func containsAll(in, all []string) bool {
	return len(all) > 0 && !slices.ContainsFunc(all, func(w string) bool { return !slices.Contains(in, w) })
}
