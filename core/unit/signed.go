package unit

import (
	"fmt"
	"slices"
	"strings"
)

// closing are the fields that are written while a unit is handed over; papers that were
// signed off stand all the same.
var closing = []string{"collected_by", "gave_old_parts", "gave_springs", "gave_card", "lesson", "lesson_at", "waiting",
	"promised_on"}

// SignedOff is the act of signing off the papers of a unit, for a record as it stood.
func SignedOff(number int, record string) string {
	return fmt.Sprintf("%s%d: %s", ActSignedOff, number, record)
}

// SignedFor tells for which record an act signed off the papers of a unit; ok is false for
// any other act.
func SignedFor(number int, action string) (record string, ok bool) {
	return strings.CutPrefix(action, SignedOff(number, ""))
}

// ChangesPapers reports that a line of the record changed what the papers of a unit say.
func ChangesPapers(e Entry) bool {
	for _, act := range []string{ActHandedOver, ActSignedOff, ActKeptPaper, ActAskedBack, ActCameBack} {
		if strings.HasPrefix(e.Action, act) {
			return false
		}
	}
	ref, err := ParseRef(e.Field)
	return err != nil || ref.Scope != ScopeJob || !slices.Contains(closing, ref.Name)
}
