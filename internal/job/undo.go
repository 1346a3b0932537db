package job

import (
	"context"
	"errors"

	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// Undo takes back what a person did last on a job, while it stands as he left it and
// nothing rests on it. The record keeps both. What went out with a hand-over stays.
func (s *Service) Undo(ctx context.Context, who people.Actor, tag string, version int64) error {
	return s.change(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		act, err := w.history.LastAct(who.Name)
		if err != nil {
			return err
		}
		if act == nil || act.Version != version {
			return field.Errorf("undo", "was taken back already; look again at what you did last")
		}
		without, err := w.history.Without(w.Job, act)
		if errors.Is(err, store.ErrRestsOn) {
			return field.Errorf("undo", "cannot be taken back: %s", err)
		}
		if err != nil {
			return err
		}
		*w.Job = *without
		w.final = true
		for _, l := range act.Lines {
			e := unit.Entry{Action: "undo", Field: l.Field, Before: l.After, After: l.Before}
			if l.Field == "" {
				e = unit.Entry{Action: "taken back: " + l.Action}
			}
			w.record(e)
		}
		return w.history.Undone(act)
	})
}
