package report

import (
	"fmt"
	"iter"
	"time"

	"corvek/core/unit"
	"corvek/internal/document"
)

// SignOff is who answers for the papers of a unit, and for which record.
type SignOff struct {
	Who     string
	At      time.Time
	Version int    // how many times the papers of the unit were signed off
	For     string // the record as it stood then, in words
	Since   int    // changes that came after it
}

// SignedOff finds the last sign-off of a unit in a record, oldest first.
func SignedOff(number int, record iter.Seq2[unit.Entry, error]) (s SignOff, err error) {
	for e, err := range record {
		if err != nil {
			return s, err
		}
		signed, is := unit.SignedFor(number, e.Action)
		switch {
		case is && !e.Brought: // one that came from another store is not this shop's
			s = SignOff{Who: e.Who, At: e.At, Version: s.Version + 1, For: signed}
		case s.Version > 0 && unit.ChangesPapers(e):
			s.Since++
		}
	}
	return s, nil
}

// Holds reports that a lead signed what the papers say now.
func (s SignOff) Holds() bool { return s.Version > 0 && s.Since == 0 }

// Words say when it was signed, and for what; or why it is not.
func (s SignOff) Words() string {
	switch {
	case s.Version == 0:
		return "No lead has signed these papers off. What they say is what stands in the record so far."
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

// Seal is the sign-off as page and paper show it.
func (s SignOff) Seal() document.Seal {
	return document.Seal{Signed: s.Holds(), Who: s.Who, Words: s.Words()}
}
