package report

import (
	"fmt"
	"iter"
	"time"

	"corvek/core/entry"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/document"
	"corvek/internal/people"
)

// SignOff is who answers for the papers of a unit, and for which record.
type SignOff struct {
	Who     string
	At      time.Time
	Version int    // how many times the papers of the unit were signed off
	For     string // the record as it stood then, in words
	Since   int    // changes that came after it
	Beside  bool   // what he signed for is another now, and no line of the record tells of it
}

// SignedOff finds the last sign-off of a unit of a job in its record, oldest first: a lead's, of
// this shop. It holds while all that the papers rest on is as it was.
func SignedOff(j *unit.Job, number int, record iter.Seq2[unit.Entry, error]) (s SignOff, err error) {
	state := ""
	for e, err := range record {
		if err != nil {
			return s, err
		}
		switch {
		case e.Is(unit.EventSignedOff) && e.Event.Unit == number && !e.Brought && e.Role == people.RoleLead:
			s = SignOff{Who: e.Who, At: e.At, Version: s.Version + 1, For: wording.SignedFor(*e.Event)}
			if !e.Event.On.IsZero() {
				s.At = e.Event.On
			}
			state = e.Event.State
		case s.Version > 0 && entry.MovesPapers(e):
			s.Since++
		}
	}
	if state == "" { // none, or one of an earlier version
		return s, nil
	}
	now, err := entry.PapersState(j)
	switch {
	case err != nil:
		return s, err
	case now == state:
		s.Since = 0 // what was changed was changed back
	case s.Since == 0:
		s.Beside = true
	}
	return s, nil
}

// Holds reports that a lead signed what the papers say now.
func (s SignOff) Holds() bool { return s.Version > 0 && s.Since == 0 && !s.Beside }

// Words say when it was signed, and for what; or why it is not.
func (s SignOff) Words() string {
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

// Seal is the sign-off as page and paper show it.
func (s SignOff) Seal() document.Seal {
	return document.Seal{Signed: s.Holds(), Who: s.Who, Words: s.Words()}
}
