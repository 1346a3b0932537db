package job

import (
	"context"
	"slices"
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/people"
	"corvek/internal/store"
)

// Offered notes that the customer was given the offer today; he is waited for then.
func (s *Service) Offered(ctx context.Context, who people.Actor, tag string) error {
	return s.change(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		if w.Job.Quote.GivenOn != "" && w.Job.Quote.Answer == "" {
			return store.ErrUnchanged
		}
		w.Job.Quote = unit.Quote{GivenOn: unit.DateOf(s.moment())}
		w.did("offer given to the customer")
		return nil
	})
}

// Answered keeps what the customer said to the offer, and lets it rule: the policy
// follows it, and units that are not rebuilt end here.
func (s *Service) Answered(ctx context.Context, who people.Actor, tag, answer, by, note string) error {
	if !slices.Contains(unit.Answers, answer) {
		return field.Errorf("answer", "say which of the offers he takes")
	}
	by, err := short("answer_by", by, "say who of the customer's said so")
	if err != nil {
		return err
	}
	if note, err = short("answer_note", note, ""); err != nil {
		return err
	}
	return s.change(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		states, err := w.mayTake(answer, note)
		if err != nil {
			return err
		}
		q := &w.Job.Quote
		today := unit.DateOf(s.moment())
		if q.GivenOn == "" {
			q.GivenOn = today
		}
		q.Answer, q.Person, q.Note, q.AnsweredOn = answer, by, note, today
		q.Agreed = quantity.Quantity{}
		if sum, ok := bench.AgreedTo(states, answer); ok {
			if q.Agreed, err = quantity.Parse(strconv.FormatFloat(sum, 'f', 2, 64), quantity.Number); err != nil {
				return err
			}
		}
		ending := unit.EndRebuilt
		switch answer {
		case unit.AnswerRebuild:
			w.Job.Policy = string(decide.OnCondition)
		case unit.AnswerOverhaul:
			w.Job.Policy = string(decide.FullOverhaul)
		case unit.AnswerReplace:
			ending = unit.EndReplaced
		case unit.AnswerReturn:
			ending = unit.EndFindings
		}
		for _, u := range w.Job.Units {
			if own := u.Ending == unit.EndReplaced || u.Ending == unit.EndFindings || u.Ending == unit.EndRebuilt; own {
				u.Ending = ending
			}
		}
		w.did(
			"customer's answer by " + by + ": " + answerWords[answer] + wording.Behind(": ", strings.TrimSpace(note)),
		)
		return nil
	})
}

// mayTake gives the units as they stand, and wants to know why an offer is taken that is advised against.
func (w *writing) mayTake(answer, note string) (states []*bench.State, err error) {
	for _, u := range w.Job.Units {
		st, err := w.before(u.Number)
		if err != nil {
			return nil, err
		}
		states = append(states, st)
	}
	offers := bench.OffersOf(states)
	taken := offers.Taken(answer)
	if taken == nil || taken.Against() == "" || strings.TrimSpace(note) != "" {
		return states, nil
	}
	return nil, field.Errorf("answer_note", "advised against: %s. Why all the same?", taken.Against())
}

// answerWords are the answers as the record tells them.
var answerWords = map[string]string{unit.AnswerRebuild: "rebuild what is worn", unit.AnswerOverhaul: "full overhaul",
	unit.AnswerReplace: "another unit", unit.AnswerReturn: "back as it is"}

// waits is what a job waits for by itself, "" where nothing says so: the customer's word
// while an offer is open, work that is out of the house, pieces that were ordered.
func waits(j *unit.Job) string {
	if j.Quote.Open() {
		return entry.WaitCustomer
	}
	for _, u := range j.Units {
		for _, p := range u.Parts {
			if slices.ContainsFunc(p.Reworks, (*unit.Rework).Out) {
				return entry.WaitOutside
			}
		}
	}
	if slices.ContainsFunc(j.Units, awaited) {
		return entry.WaitParts
	}
	return ""
}

// awaited reports that an ordered piece of the unit is not here yet.
func awaited(u *unit.Unit) bool {
	have := map[string]int{}
	for _, k := range u.Kit {
		have[k.Part] += k.Count
	}
	return slices.ContainsFunc(u.Parts, func(p *unit.Part) bool {
		return p.OnUnit() && p.Order.Awaited() && have[p.Code] < p.Expected
	})
}

// waitAnew lets the job wait for what it waits for by itself now, where that is another
// thing than before. What somebody chose by hand stays as long as nothing changes.
func waitAnew(j *unit.Job, before string) (changed bool) {
	was, now := j.Waiting, waits(j)
	switch {
	case now == before || j.Closed():
	case now != "":
		j.Waiting = now
	case j.Waiting == before:
		j.Waiting = entry.WaitTechnician
	}
	return j.Waiting != was
}
