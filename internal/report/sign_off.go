package report

import (
	"fmt"

	"corvek/core/handover"
	"corvek/internal/document"
)

// signedWords say when it was signed, and for what; or why it is not.
func signedWords(s handover.SignOff) string {
	switch {
	case s.Version == 0:
		return "No lead has signed these papers off. What they say is what stands in the record so far."
	case s.Beside:
		return fmt.Sprintf("What %s signed off on %s (%s) is another now, and no line of the record tells why.",
			s.Who, s.At.Format("2 January 2006"), s.For)
	case s.Since > 0:
		changes := "A change was"
		if s.Since > 1 {
			changes = fmt.Sprintf("%d changes were", s.Since)
		}
		return fmt.Sprintf("%s written after %s signed version %d off on %s (%s). It has to be signed anew.",
			changes, s.Who, s.Version, s.At.Format("2 January 2006"), s.For)
	}
	return fmt.Sprintf("Lead, %s. Version %d, %s.", s.At.Format("2 January 2006 15:04"), s.Version,
		s.For)
}

// Seal is a sign-off as page and paper show it.
func Seal(s handover.SignOff) document.Seal {
	return document.Seal{Signed: s.Holds(), Who: s.Who, Words: signedWords(s)}
}
