package job

import (
	"context"
	"slices"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/handover"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// AskBack notes something to be asked back of a unit, on an open and on a closed job alike.
// An empty day takes the usual one.
func (s *Service) AskBack(ctx context.Context, who people.Actor, tag string, number int, kind, day string) error {
	days, asked := handover.UsualDays(kind)
	if !asked {
		return field.Errorf("kind", "choose what is asked back")
	}
	on := unit.DateOf(s.moment().AddDate(0, 0, days))
	if day = strings.TrimSpace(day); day != "" {
		d, ok := unit.ParseDate(day)
		if !ok {
			return field.Errorf("due_on", "is a date like 2031-05-27")
		}
		on = d
	}
	return s.changeAny(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		if number < 1 || number > len(w.Job.Units) {
			return store.ErrNotFound
		}
		return w.askBack(number, kind, on)
	})
}

func (w *writing) askBack(number int, kind string, on unit.Date) error {
	if len(w.Job.FollowUps) >= unit.MostFollowUps {
		return field.Errorf("kind", "is too much: %d things are asked already", unit.MostFollowUps)
	}
	w.Job.FollowUps = append(w.Job.FollowUps, &unit.FollowUp{Number: len(w.Job.FollowUps) + 1, Unit: number,
		Kind: kind, DueOn: on, AskedBy: w.shop.Who})
	w.happened(unit.Event{Kind: unit.EventAskedBack, Unit: number, Asked: kind, Due: on})
	return nil
}

// AnswerBack writes what came back, on an open and on a closed job alike.
func (s *Service) AnswerBack(ctx context.Context, who people.Actor, tag string, number int, result, note string) error {
	if !handover.Answers(result) {
		return field.Errorf("result", "choose what came back")
	}
	note, err := short("note", note, "")
	if err != nil {
		return err
	}
	return s.changeAny(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		at := slices.IndexFunc(w.Job.FollowUps, func(f *unit.FollowUp) bool { return f.Number == number })
		if at < 0 {
			return store.ErrNotFound
		}
		f := w.Job.FollowUps[at]
		if f.Answered() {
			return field.Errorf("result", "has its answer already")
		}
		f.Result, f.Note, f.AnsweredBy, f.AnsweredAt = result, note, w.shop.Who, s.moment().Truncate(time.Second)
		w.happened(unit.Event{Kind: unit.EventCameBack, Unit: f.Unit, Asked: f.Kind, Result: result, Words: note})
		return nil
	})
}

// reminded asks back what goes without saying at a hand-over: the complaint, where it was not
// repeated at the stand.
func (w *writing) reminded(st *bench.State) error {
	if err := w.watched(st); err != nil {
		return err
	}
	if st.ComplaintRepeated() || !st.Unit.Owes("prove") || len(st.Job.Symptoms) == 0 && st.Job.Complaint == "" {
		return nil
	}
	return w.askOnce(st.Unit.Number, handover.AskComplaint)
}

// watched asks back, where something runs in the unit's place, whether what lies outside it was cured,
// and whether a sump that had gained gains again.
func (w *writing) watched(st *bench.State) error {
	if st.Unit.Ending != unit.EndRebuilt && st.Unit.Ending != unit.EndReplaced {
		return nil
	}
	if len(st.Uncured()) > 0 {
		if err := w.askOnce(st.Unit.Number, handover.AskCause); err != nil {
			return err
		}
	}
	if st.Unit.GainedElsewhere.IsZero() {
		return nil
	}
	return w.askOnce(st.Unit.Number, handover.AskSump)
}

// askOnce asks something back on its usual day, where it is not asked already.
func (w *writing) askOnce(number int, kind string) error {
	if slices.ContainsFunc(w.Job.FollowUps, func(f *unit.FollowUp) bool {
		return f.Kind == kind && f.Unit == number && !f.Answered()
	}) {
		return nil
	}
	days, _ := handover.UsualDays(kind)
	return w.askBack(number, kind, unit.DateOf(w.service.moment().AddDate(0, 0, days)))
}
