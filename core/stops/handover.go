package stops

import (
	"fmt"
	"strings"

	"corvek/core/unit"
)

// mostUnsettled is how many claims are named one by one.
const mostUnsettled = 3

// prove asks that each claim be shown, or that somebody say why it cannot be.
func (l *list) prove() {
	n := len(l.Unsettled)
	if n == 0 {
		return
	}
	named := strings.Join(l.Unsettled[:min(n, mostUnsettled)], "; ")
	if n > mostUnsettled {
		named += fmt.Sprintf(" and %d more", n-mostUnsettled)
	}
	why := "Not shown yet: " + named
	if l.Exercise {
		why = "Only an exercise on the simulated stand. " + why
	}
	l.of("prove", unit.StopProved, "%s", why).Act = "run the bench test, or say at the step why it is not possible here"
}

func (l *list) handover() {
	if n := len(l.Rounds); n > 1 && blank(l.Job.Lesson) {
		l.of("handover", unit.StopLesson, "It took %d rounds: write down what the next one should know", n)
	}
	l.outside()
	l.flush()
	l.ending()
}

// outside asks, each for itself, for what lies outside the unit and would spoil it again:
// an answer to one does not settle another.
func (l *list) outside() {
	c := l.Conclusion
	if !blank(c.Blamed) && blank(c.BlamedFound) {
		l.of("handover", unit.StopBlamed, "%s is blamed and was not measured: say what was measured on it", c.Blamed)
	}
	if l.Cause != nil && l.Cause.Where == "outside" && l.Ending == unit.EndReplaced && blank(c.Cured) {
		l.of("handover", unit.StopUncured, "Another unit runs where “%s” was not cured: say what was done before",
			strings.ToLower(l.Cause.Name))
	}
	if l.GainedElsewhere.SI > 0 && blank(l.OtherSump) {
		l.of("handover", unit.StopSump, "Another sump gained %s of this oil: say how it was drained and refilled",
			l.GainedElsewhere.Typed)
	}
}

// flush asks, after a break-up, for every place of the circuit where pieces can lie, and
// for who flushed it.
func (l *list) flush() {
	if !l.BrokenUp {
		return
	}
	var open []string
	for _, place := range unit.FlushPlaces {
		if l.Flushes[place] == "" {
			open = append(open, strings.ReplaceAll(place, "_", " "))
		}
	}
	switch {
	case len(open) > 0:
		l.of("handover", unit.StopFlush, "Debris in the system: not flushed yet, or not said: %s",
			strings.Join(open, ", "))
	case blank(l.FlushedBy):
		l.of("handover", unit.StopFlush, "Debris in the system: say who flushed it")
	}
}

// ending asks what an ending leaves untold.
func (l *list) ending() {
	if l.EndingNote != "" {
		return
	}
	switch l.Ending {
	case unit.EndReplaced:
		l.of("handover", unit.StopEnding, "Replaced by another unit: say by which")
	case unit.EndCondemned:
		l.of("handover", unit.StopEnding, "Condemned: say where it went, and who agreed")
	case unit.EndReturned:
		l.of("handover", unit.StopEnding, "Returned unopened: say to whom, and with what papers")
	}
}
