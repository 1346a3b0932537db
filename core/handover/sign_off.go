package handover

import (
	"iter"
	"time"

	"corvek/core/entry"
	"corvek/core/unit"
	"corvek/core/wording"
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
		case e.Is(unit.EventSignedOff) && e.Event.Unit == number && !e.Brought && e.Role == unit.RoleLead:
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
