package job

import (
	"strings"

	"corvek/core/entry"
	"corvek/core/unit"
)

// stopOutside asks, each for itself, for what lies outside the unit and would spoil
// it again: an answer to one does not settle another.
func (st *State) stopOutside() {
	c := st.Conclude
	blank := func(s string) bool { return strings.TrimSpace(s) == "" }
	outside := st.Cause != nil && st.Cause.Where == "outside"
	for _, n := range st.Causes() {
		code := unit.StopCode{Station: "explain", Kind: unit.StopOutside, Number: n.Number}
		switch {
		case !n.Outside || !blank(n.Action) && !blank(n.Owner):
		case n.Number > 0:
			st.add(code, "%s lies outside the unit: say what is done there and by whom", n.Name)
		case n.Code == c.Cause:
			st.add(code, "The cause lies outside the unit: say what is done there and by whom")
		}
	}
	if !blank(c.Blamed) && blank(c.BlamedFound) {
		st.stop("handover", unit.StopBlamed, "%s is blamed and was not measured: say what was measured on it", c.Blamed)
	}
	if outside && st.Unit.Ending == unit.EndReplaced && blank(c.Cured) {
		st.stop("handover", unit.StopUncured,
			"Another unit runs where “%s” was not cured: say what was done before", strings.ToLower(st.Cause.Name))
	}
	if gained, ok := known(st.Unit.GainedElsewhere); ok && gained > 0 && blank(st.Unit.OtherSump) {
		st.stop("handover", unit.StopSump, "Another sump gained %s of this oil: say how it was drained and refilled",
			st.Unit.GainedElsewhere.Typed)
	}
	st.stopFlush()
}

// stopFlush asks, after a break-up, for every place of the circuit where pieces can
// lie, and for who flushed it.
func (st *State) stopFlush() {
	if !st.BrokenUp() {
		return
	}
	var open []string
	for _, place := range entry.FlushPlaces {
		if st.Unit.Flushes[place] == "" {
			open = append(open, strings.ReplaceAll(place, "_", " "))
		}
	}
	switch {
	case len(open) > 0:
		st.stop("handover", unit.StopFlush, "Debris in the system: not flushed yet, or not said: %s",
			strings.Join(open, ", "))
	case strings.TrimSpace(st.Unit.FlushedBy) == "":
		st.stop("handover", unit.StopFlush, "Debris in the system: say who flushed it")
	}
}
