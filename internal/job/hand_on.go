package job

import (
	"context"

	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// HandOn is a job on its way from one to the next.
type HandOn struct {
	From     string // who had it when the writer looked
	To       string
	HalfDone string // in the words of the one who gives it, "" where he who takes it has read them
	Site     string // of several shops, where it is done from then on
}

// HandOn gives a job to another one, with what is half done. Where somebody else was quicker a *Conflict tells who
// has it.
func (s *Service) HandOn(ctx context.Context, who people.Actor, tag string, h HandOn) error {
	held := Edit{Field: unit.JobRef("held_by").String(), Value: h.To, Base: h.From}
	if err := s.mayHold(ctx, held); err != nil {
		return err
	}
	return s.change(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		changed := false
		for _, e := range []Edit{
			held,
			{Field: unit.JobRef("half_done").String(), Value: h.HalfDone, Base: w.Job.HalfDone},
			{Field: unit.JobRef("site").String(), Value: h.Site, Base: w.Job.Site},
		} {
			_, wrote, err := w.set(e)
			if err != nil {
				return err
			}
			changed = changed || wrote
		}
		if !changed {
			return store.ErrUnchanged
		}
		return nil
	})
}
