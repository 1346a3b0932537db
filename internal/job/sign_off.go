package job

import (
	"context"
	"corvek/core/handover"

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

// unsigned says what a lead has to sign before the job can be handed over, "" where nothing is left or
// the shop asks for none, with the version of the job that this is true of.
func (s *Service) unsigned(ctx context.Context, tag string) (version int64, why string, err error) {
	if err := s.Refresh(ctx); err != nil {
		return 0, "", err
	}
	j, err := s.Store.Job(ctx, tag)
	if err != nil {
		return 0, "", err
	}
	if !s.catalog().Head.LeadSigns {
		return j.Version, "", nil
	}
	for _, u := range j.Units {
		signed, err := handover.SignedOff(j, u.Number, s.Store.Lines(ctx, tag))
		if err != nil {
			return 0, "", err
		}
		if !signed.Holds() {
			return j.Version, "a lead has to sign the papers of " + u.Name + " off first", nil
		}
	}
	return j.Version, "", nil
}
