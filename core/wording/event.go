package wording

import (
	"fmt"

	"corvek/core/unit"
)

// Event is the line of the record that tells of an event.
func Event(e unit.Event) string {
	switch e.Kind {
	case unit.EventReceived:
		return "created"
	case unit.EventRestOff:
		return "took off the rest, not counted"
	case unit.EventPicture:
		return "picture: " + e.Name
	case unit.EventSignedOff:
		return fmt.Sprintf("signed off the papers of unit %d: %s", e.Unit, SignedFor(e))
	case unit.EventHandedOver:
		return "handed over"
	case unit.EventPaperKept:
		return "kept the paper of the day " + e.Name + ", SHA-256 " + e.Sum
	case unit.EventAskedBack:
		return "asked back: " + Asked(e.Asked) + ", by " + string(e.Due)
	case unit.EventCameBack:
		return "came back: " + Asked(e.Asked) + ": " + CameBack(e.Result) + Behind(", ", e.Words)
	case unit.EventOpenedAgain:
		return "opened again: " + e.Words
	case unit.EventWithdrawn:
		return "withdrawn: " + e.Words
	case unit.EventPutBack:
		return "took the withdrawal back: " + e.Words
	case unit.EventTakenOver:
		return "what an earlier version left is fingerprinted from here on"
	}
	return Plain(e.Kind) + Behind(": ", e.Words)
}

// SignedFor says for which record papers were signed off.
func SignedFor(e unit.Event) string {
	return "record of " + Counted(e.Lines, "line", "lines") + ", fingerprint " + e.Head
}

// Behind sets words behind a sign; where there are none, nothing stands.
func Behind(sign, words string) string {
	if words == "" {
		return ""
	}
	return sign + words
}

// Around writes words between two others, and nothing of them where there are none.
func Around(before, words, after string) string {
	if words == "" {
		return ""
	}
	return before + words + after
}
