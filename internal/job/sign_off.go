package job

import (
	"context"

	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
)

// SignOff lets a lead answer for the papers of a unit as its record stands: the number of its
// lines and the fingerprint of the last are written with his name.
func (s *Service) SignOff(ctx context.Context, who people.Actor, tag string, number int) error {
	if !who.May(people.RoleLead) {
		return people.ErrForbidden
	}
	st, err := s.Load(ctx, tag, number)
	if err != nil {
		return err
	}
	holds, err := s.Store.VerifyJob(ctx, tag)
	if err != nil {
		return err
	}
	if !holds.Holds() {
		return field.Errorf("sign", "the record does not hold: %s", holds.Fault())
	}
	return s.changeAny(ctx, who, people.RoleLead, tag, func(w *writing) error {
		if w.Job.Version != st.Job.Version+1 { // the version of this very change
			return field.Errorf("sign", "the job was changed just now; look at its papers again")
		}
		state, err := entry.PapersState(w.Job)
		if err != nil {
			return err
		}
		w.happened(unit.Event{Kind: unit.EventSignedOff, Unit: number, Lines: holds.Lines, Head: holds.Head,
			State: state})
		return nil
	})
}
