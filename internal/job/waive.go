package job

import (
	"context"
	"slices"
	"time"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/people"
)

// Acknowledge notes that a caution was read.
func (s *Service) Acknowledge(ctx context.Context, who people.Actor, tag string, number int, caution string) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			if _, ok := family.CautionByCode(caution); !ok {
				return "", field.Errorf("caution", "is not known")
			}
			if w.Job.Acknowledged(caution) != nil {
				return "read again: " + caution, nil
			}
			w.Job.Acknowledgements = append(w.Job.Acknowledgements,
				&unit.Acknowledgement{Caution: caution, By: who.Name, At: s.moment()})
			return "read the caution " + caution, nil
		},
	)
}

// WaiveStop lets an open stop pass, with a lead's reason that the report prints.
func (s *Service) WaiveStop(ctx context.Context, who people.Actor, tag string, number int, code, reason string) error {
	reason, err := short("reason", reason, "")
	if err != nil {
		return err
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleLead,
		tag,
		number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			if len(reason) < 4 {
				return "", field.Errorf("reason", "write down why this may be waived; it is printed in the report")
			}
			for _, list := range st.Stops {
				for _, stop := range list {
					if stop.String() == code && stop.Waived == nil {
						w.Job.Waivers = append(w.Job.Waivers,
							&unit.Waiver{Code: code, Text: stop.Text, Reason: reason, By: who.Name, At: s.moment()})
						return "waived a stop: " + stop.Text, nil
					}
				}
			}
			return "", field.Errorf("code", "this stop is no longer open")
		},
	)
}

// MostReopenings of one job.
const MostReopenings = 50

// closed refuses what is written on a job that was handed over.
func closed(j *unit.Job) error {
	switch {
	case j.Withdrawn():
		return field.Errorf("job", "%s was withdrawn on %s: %s; a lead can take that back", j.Tag,
			j.WithdrawnAt.Format("2 Jan 2006"), j.WithdrawnReason)
	case !j.HandedOver():
		return nil
	}
	return field.Errorf("job", "%s was handed over on %s; a lead can open it again with a reason", j.Tag,
		j.HandedOverAt.Format("2 Jan 2006"))
}

// Reopen takes a hand-over back. Every later paper prints the reason. What touches says whether the
// unit itself is touched by it, so that what was shown of it holds no more, or its papers alone.
func (s *Service) Reopen(ctx context.Context, who people.Actor, tag, reason, touches string) error {
	reason, err := short("reason", reason, "")
	if err != nil {
		return err
	}
	return s.changeAny(ctx, who, people.RoleLead, tag, func(w *writing) error {
		switch {
		case !w.Job.Closed():
			return field.Errorf("reason", "the job is not handed over")
		case len(reason) < 4:
			return field.Errorf("reason", "write down why it is opened again; every later paper prints it")
		case len(w.Job.Reopenings) >= MostReopenings:
			return field.Errorf("reason", "the job was opened again %d times already", MostReopenings)
		}
		if w.Job.Withdrawn() {
			w.Job.WithdrawnAt, w.Job.WithdrawnBy, w.Job.WithdrawnReason = time.Time{}, "", ""
			w.happened(unit.Event{Kind: unit.EventPutBack, Words: reason})
			return nil
		}
		if touches != unit.TouchesUnit && touches != unit.TouchesPapers {
			return field.Errorf("reason", "say whether the unit itself is touched by it, or its papers alone")
		}
		w.final = true
		w.Job.Reopen(who.Name, reason, touches, s.moment())
		w.happened(unit.Event{Kind: unit.EventOpenedAgain, HandOver: w.Job.HandOver(), Words: reason})
		return nil
	})
}

// Withdraw takes a job off the board that should not be there, entered twice or
// for the wrong customer. It is kept, marked, and found by its words.
func (s *Service) Withdraw(ctx context.Context, who people.Actor, tag, reason string) error {
	reason, err := short("withdraw_reason", reason, "")
	if err != nil {
		return err
	}
	return s.changeAny(ctx, who, people.RoleLead, tag, func(w *writing) error {
		switch {
		case w.Job.Withdrawn():
			return field.Errorf("withdraw_reason", "the job is withdrawn already")
		case len(reason) < 4:
			return field.Errorf("withdraw_reason", "write down why; it stays with the job")
		}
		w.withdraw(who.Name, reason)
		return nil
	})
}

// withdraw takes the job off the board; it is kept, marked, with the reason.
func (w *writing) withdraw(by, reason string) {
	w.Job.WithdrawnAt = w.service.moment().Truncate(time.Second)
	w.Job.WithdrawnBy, w.Job.WithdrawnReason = by, reason
	w.final = true
	w.happened(unit.Event{Kind: unit.EventWithdrawn, Words: reason})
}

// HandOver closes the job. Every stop must be settled or waived.
func (s *Service) HandOver(ctx context.Context, who people.Actor, tag string) error {
	version, unsigned, err := s.unsigned(ctx, tag)
	if err != nil {
		return err
	}
	return s.change(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		var states []*bench.State
		for i := range w.Job.Units {
			st, err := w.state(i + 1)
			if err != nil {
				return err
			}
			if stop := st.First("receive"); stop != nil {
				return field.Errorf("handover", "still open at %s: %s", wording.Stations[stop.Station], stop.Text)
			}
			states = append(states, st)
		}
		if w.Job.CollectedBy == "" && slices.ContainsFunc(w.Job.Units, (*unit.Unit).GoesBack) {
			return field.Errorf("handover", "write who collects it, or who carries it there")
		}
		if unsigned != "" {
			return field.Errorf("handover", "%s", unsigned)
		}
		if w.Job.Version != version+1 {
			return field.Errorf("handover", "the job was changed just now; look at it again")
		}
		w.final = true
		w.Job.HandedOverAt, w.Job.Waiting = s.moment().Truncate(time.Second), entry.WaitReady
		for _, st := range states {
			if err := w.reminded(st); err != nil {
				return err
			}
		}
		w.happened(unit.Event{Kind: unit.EventHandedOver, HandOver: w.Job.HandOver()})
		w.freezes = then
		return nil
	})
}
