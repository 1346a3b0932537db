package report

import (
	"strings"

	"corvek/core/bench"
	"corvek/core/unit"
	"corvek/core/wording"
)

// WayDone says how a part was saved: which way, how much came off, and how flat it is.
func WayDone(w bench.Way) string {
	r := w.Row
	out := []string{strings.ToLower(w.Name)}
	if !r.Taken.IsZero() {
		out = append(out, r.Taken.Typed+" off")
	}
	switch {
	case !r.FlatFirst.IsZero() && !r.FlatNow.IsZero():
		out = append(out, "out of flat "+r.FlatFirst.Typed+" before and "+r.FlatNow.Typed+" after")
	case !r.FlatNow.IsZero():
		out = append(out, "out of flat "+r.FlatNow.Typed)
	}
	if r.FlatHow != "" {
		out = append(out, "flatness "+wording.Choice(unit.ScopeRework, "flat_how", r.FlatHow))
	}
	switch {
	case r.Back != "":
		out = append(out, "back on "+string(r.Back))
	case r.Sent != "":
		out = append(out, "sent out on "+string(r.Sent))
	}
	return strings.Join(out, ", ")
}
