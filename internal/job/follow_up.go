package job

import (
	"context"
	"slices"
	"strings"

	"corvek/core/field"
	"corvek/core/handover"
	"corvek/core/unit"
	"corvek/internal/store"
)

// AskBack notes something to be asked back of a unit. An empty day takes the usual one.
func (s *Service) AskBack(ctx context.Context, who Actor, tag string, number int, kind, day string) error {
	if !who.May(RoleTechnician) {
		return ErrForbidden
	}
	days, asked := handover.UsualDays(kind)
	if !asked {
		return field.Errorf("kind", "choose what is asked back")
	}
	on := s.moment().AddDate(0, 0, days)
	if day = strings.TrimSpace(day); day != "" {
		d, ok := unit.ParseDate(day)
		if !ok {
			return field.Errorf("due_on", "is a date like 2031-05-27")
		}
		on = d.Time()
	}
	return s.Store.AddFollowUp(ctx, tag, store.FollowUp{Unit: number, Kind: kind, DueOn: on, AskedBy: who.Name})
}

// AnswerBack writes what came back, on an open and on a closed job alike.
func (s *Service) AnswerBack(ctx context.Context, who Actor, tag string, id int64, result, note string) error {
	if !who.May(RoleTechnician) {
		return ErrForbidden
	}
	if !handover.Answers(result) {
		return field.Errorf("result", "choose what came back")
	}
	note, err := short("note", note, "")
	if err != nil {
		return err
	}
	now := s.moment()
	ok, err := s.Store.AnswerFollowUp(ctx, tag, store.FollowUp{ID: id, Result: result, Note: note,
		AnsweredBy: who.Name, AnsweredAt: &now})
	if err == nil && !ok {
		err = field.Errorf("result", "has its answer already")
	}
	return err
}

// reminded are follow-ups that go without saying at a hand-over: the complaint, where it was
// not repeated at the stand.
func (s *Service) reminded(ctx context.Context, who Actor, st *State) error {
	if st.ComplaintRepeated() || !st.Unit.Owes("prove") || len(st.Job.Symptoms) == 0 && st.Job.Complaint == "" {
		return nil
	}
	list, err := s.Store.FollowUps(ctx, st.Job.Tag)
	if err != nil {
		return err
	}
	if slices.ContainsFunc(list, func(f store.FollowUp) bool {
		return f.Kind == handover.AskComplaint && f.Unit == st.Unit.Number && f.AnsweredAt == nil
	}) {
		return nil
	}
	return s.AskBack(ctx, who, st.Job.Tag, st.Unit.Number, handover.AskComplaint, "")
}

// ComplaintRepeated reports that the complaint's own condition was tried on this unit at the
// stand, not on a simulated one.
func (st *State) ComplaintRepeated() bool {
	a := st.Counts()
	if a == nil || a.Source == unit.SourceSimulated {
		return false
	}
	p := a.Attempt.Point("complaint")
	return p != nil && p.Word != "" && p.Skipped == ""
}

// Lessons are what earlier jobs of this variant left for a station, the newest first.
func (st *State) Lessons(station string) (out []store.Lesson) {
	for _, l := range st.lessons {
		at := l.Station
		if at == "" {
			at = "receive"
		}
		if at == station && len(out) < mostShownLessons {
			out = append(out, l)
		}
	}
	return out
}

// mostShownLessons at one station.
const mostShownLessons = 3

// lessonsFor picks those of the same family whose model or variant is that of a unit.
func lessonsFor(all []store.Lesson, tag string, u *unit.Unit) (out []store.Lesson) {
	same := func(a, b string) bool {
		return strings.TrimSpace(a) != "" && strings.EqualFold(strings.TrimSpace(a), strings.TrimSpace(b))
	}
	for _, l := range all {
		if l.Tag != tag && l.Family == u.Family && (same(l.Variant, u.Variant) || same(l.Model, u.Model)) {
			out = append(out, l)
		}
	}
	return out
}
