package report

import (
	"strings"

	"corvek/core/unit"
	"corvek/core/wording"
)

// Handed says who took the unit and what went back with it, "" where nobody wrote it down.
func Handed(j *unit.Job) string {
	var gave []string
	for _, g := range []struct {
		on   bool
		name string
	}{{j.GaveOldParts, "the old parts"}, {j.GaveSprings, "the old springs"}, {j.GaveCard, "the start-up card"}} {
		if g.on {
			gave = append(gave, g.name)
		}
	}
	out := wording.Behind("Collected by ", j.CollectedBy)
	if len(gave) > 0 {
		out = strings.TrimPrefix(out+"; given back: "+strings.Join(gave, ", "), "; ")
	}
	return out
}
