package bench

import (
	"corvek/core/shop"
	"corvek/core/unit"
)

// ComplaintRepeated reports that the complaint's own condition was tried on this unit at the
// stand, not on a simulated one.
func (st *Tested) ComplaintRepeated() bool {
	a := st.Counts()
	if a == nil || a.Source == unit.SourceSimulated {
		return false
	}
	p := a.Attempt.Point("complaint")
	return p != nil && p.Word != "" && p.Skipped == ""
}

// Lessons are what earlier jobs of this variant left for a station, the newest first.
func (st *Given) Lessons(station string) (out []shop.Lesson) {
	for _, l := range st.lessons {
		at := l.Station
		if at == "" {
			at = "receive"
		}
		if at == station && len(out) < mostShownLessons {
			out = append(out, l)
		}
	}
	return out
}

// mostShownLessons at one station.
const mostShownLessons = 3
