package stops

import (
	"strings"

	"corvek/core/search"
	"corvek/core/unit"
)

// explain asks for a conclusion, for words on what does not fit it, and, for each cause
// outside the unit by itself, for what is done there and by whom.
func (l *list) explain() {
	c := l.Conclusion
	if c.Cause == "" || c.Cause == unit.CauseNotFound && blank(c.Statement) {
		l.of("explain", unit.StopConclusion, "No conclusion: name the root cause, or say what was ruled out").Act =
			"look at what comes next, or name the root cause"
	}
	if c.Cause == unit.CauseNone && len(l.Found) > 0 {
		l.of("explain", unit.StopConclusion, "It was concluded that there is nothing to explain; found: %s",
			strings.Join(l.Found, "; ")).Act = "look at what comes next, or name the root cause"
	}
	for _, n := range l.Causes {
		code := unit.StopCode{Station: "explain", Kind: unit.StopOutside, Number: n.Number}
		switch {
		case search.Masks(n.Action):
			l.add(
				code,
				"%s: “%s” hides what it does and is no remedy. Say what ends it, and by whom",
				n.Name,
				n.Action,
			)
		case !n.Outside || !blank(n.Action) && !blank(n.Owner):
		case n.Number > 0:
			l.add(code, "%s lies outside the unit: say what is done there and by whom", n.Name)
		default:
			l.add(code, "The cause lies outside the unit: say what is done there and by whom")
		}
	}
	if l.Cause == nil || !blank(c.Statement) {
		return
	}
	if l.Misfit != "" {
		l.of("explain", unit.StopMisfit, "Does not fit %s: %s. Answer it in words", strings.ToLower(l.Cause.Name),
			l.Misfit)
	}
	if len(l.NotLooked) > 0 {
		l.of(
			"explain",
			unit.StopLeftOver,
			"%s is what is left when other roots were looked for. Not looked for: %s. "+
				"Look, or say in words what rules them out",
			l.Cause.Name,
			strings.Join(l.NotLooked, "; "),
		)
	}
}

func (l *list) kit() {
	for _, i := range l.Unit.Kit {
		code := unit.StopCode{Station: "kit", Kind: unit.StopPlace, Part: i.Part}
		if i.Piece > 0 {
			code = unit.StopCode{Station: "kit", Kind: unit.StopPiece, Number: i.Piece}
			if i.Seal {
				code.Kind = unit.StopSeal
			}
		}
		stop := l.add(code, "%s", i.Text)
		if i.Lacks != "" {
			stop.Act = "say what came for " + strings.ToLower(i.Lacks)
		}
	}
}
