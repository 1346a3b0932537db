package job

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/people"
)

// What a unit holds at most.
const (
	MostPieces   = 500
	MostAttempts = 100
	MostRounds   = 30
)

// shift is how long what was told of the stand goes for the next attempt: a day at the bench, wherever
// it begins and whatever the clock says. Over a night it is asked anew.
const shift = 12 * time.Hour

// NextAttempt starts a run of the bench test. After another of the same round the one thing that
// was changed is said, or that nothing was. What the stand runs on is asked once a shift: it is what was
// told last within one, but for how warm it is.
func (s *Service) NextAttempt(ctx context.Context, who people.Actor, tag string, number int, c bench.Change) error {
	c, err := checkedChange(c)
	if err != nil {
		return err
	}
	now := s.moment()
	told, err := s.Store.RanSince(ctx, tag, who.Name, now.Add(-shift))
	if err != nil {
		return err
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			if why := st.NotReady(); why != "" {
				return "", field.Errorf("attempt", "not yet: %s; a lead can waive it with a reason", why)
			}
			next := 1
			for _, a := range st.Attempts {
				if !a.Closed {
					return "", field.Errorf("attempt", "attempt %d is still open; close it first", a.Number)
				}
				next = max(next, a.Number+1)
			}
			if next > MostAttempts {
				return "", field.Errorf("attempt", "there are %d attempts already", MostAttempts)
			}
			if before := st.Attempt(); before != nil && c.Words == "" {
				return "", field.Errorf("one_change", "say the one thing that was changed since attempt %d, or that "+
					"nothing was; with two the cause can no longer be told", before.Number)
			}
			c, err := placedChange(st, c)
			if err != nil {
				return "", err
			}
			u.Attempts = append(u.Attempts, &unit.Attempt{
				Number: next, Round: st.Round, Source: unit.SourceTyped, OneChange: c.Words, ChangeKind: c.Kind,
				ChangePart: c.Part, SecondChange: c.Second, SecondKind: c.SecondKind, SecondPart: c.SecondPart,
				By: who.Name, At: now, RanOn: told.RanOn, PressureGauge: told.PressureGauge,
				FlowMeter: told.FlowMeter, Thermometer: told.Thermometer,
			})
			return fmt.Sprintf("test attempt %d", next), nil
		},
	)
}

// StartHold begins the hold of a step, and EndHold ends it: whatever is read meanwhile, it ran from
// the one tap to the other. Two steps are held at once only where the plan says so.
func (s *Service) StartHold(ctx context.Context, who people.Actor, tag string, number int, code string) error {
	return s.hold(ctx, who, tag, number, code, func(w *writing, at *heldStep) (string, error) {
		for _, p := range at.state.Points {
			if other := &p.Row; other.Code != code && !other.HoldFrom.IsZero() && other.HoldTo.IsZero() &&
				!slices.Contains(at.test.With, other.Code) && !slices.Contains(p.Test.With, code) {
				return "", field.Errorf("attempt", "%s is held just now; end that first", strings.ToLower(p.Test.Name))
			}
		}
		p := at.point()
		p.HoldFrom, p.HoldTo = w.shop.Now.Truncate(time.Second), time.Time{}
		if s.ForPractice() {
			p.HoldFrom = p.HoldFrom.Add(-at.long()) // nobody waits for it there
		}
		p.Take("hold_from", at.taking(w, unit.SourceTyped), true)
		p.Take("hold_to", unit.Taking{}, false)
		return "hold began: " + at.test.Name, nil
	})
}

// EndHold ends the hold of a step.
func (s *Service) EndHold(ctx context.Context, who people.Actor, tag string, number int, code string) error {
	return s.hold(ctx, who, tag, number, code, func(w *writing, at *heldStep) (string, error) {
		p := at.point()
		if p.HoldFrom.IsZero() || !p.HoldTo.IsZero() {
			return "", field.Errorf("attempt", "%s is not held just now", strings.ToLower(at.test.Name))
		}
		p.HoldTo = w.shop.Now.Truncate(time.Second)
		p.Take("hold_to", at.taking(w, unit.SourceTyped), true)
		return fmt.Sprintf("hold ended: %s, %s", at.test.Name, p.Held()), nil
	})
}

// heldStep is a step with a hold, of the open attempt.
type heldStep struct {
	test    *family.Test
	state   *bench.Attempt // as it was before the tap
	job     *unit.Job
	unit    *unit.Unit
	attempt *unit.Attempt
}

func (h *heldStep) point() *unit.Point { return pointOf(h.attempt, h.test.Code) }

// long is how long the step is to be held.
func (h *heldStep) long() time.Duration {
	q, _ := quantity.Parse(h.test.Hold, quantity.Time) // checked when its family was read
	return time.Duration(q.SI * float64(time.Second))
}

func (h *heldStep) taking(w *writing, from string) unit.Taking {
	return w.shop.Taking(h.job, h.unit, from)
}

func (s *Service) hold(ctx context.Context, who people.Actor, tag string, number int, code string,
	f func(*writing, *heldStep) (string, error)) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			a := st.Attempt()
			if a == nil || a.Closed {
				return "", field.Errorf("attempt", "start an attempt first")
			}
			t, known := st.Step(code)
			if !known || t.Hold == "" {
				return "", field.Errorf("attempt", "is not a step with a hold")
			}
			return f(w, &heldStep{t, a, w.Job, u, u.Attempt(a.Number)})
		})
}

// CloseAttempt ends an attempt, as far as it went; its figures and its verdict stay as they are.
func (s *Service) CloseAttempt(ctx context.Context, who people.Actor, tag string, number int) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			a := st.Attempt()
			if a == nil || a.Closed {
				return "", field.Errorf("attempt", "there is no open attempt")
			}
			open := u.Attempt(a.Number)
			if !slices.ContainsFunc(open.Points, func(p *unit.Point) bool { return !p.Empty() }) {
				return "", field.Errorf("attempt", "nothing was read in it yet")
			}
			open.Closed, open.Verdict = true, string(a.Sum)
			open.Ground = u.Stands(entry.Ground(w.Job, u))
			return fmt.Sprintf("closed attempt %d: %s", a.Number, a.Sum), nil
		},
	)
}

// OpenRound goes back to a station after a failed test, down to a part: what is above it on
// its branch comes out again, the rest stays built. Without a part all of it comes out where
// it is stripped anew, and nothing yet where only the build is looked at.
func (s *Service) OpenRound(ctx context.Context, who people.Actor, tag string, number int, backTo, part,
	reason string) error {
	reason, err := short("reason", reason, "say why the unit goes back")
	if err != nil {
		return err
	}
	if backTo != "strip" && backTo != "build" {
		return field.Errorf("back_to", "go back to strip or to build")
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			n := st.Round + 1
			if n > MostRounds {
				return "", field.Errorf("reason", "there are %d rounds already", MostRounds)
			}
			down := st.ByCode[part]
			if part != "" && down == nil {
				return "", field.Errorf("part", "is not a part of this unit")
			}
			u.Rounds = append(u.Rounds, &unit.Round{Number: n, Reason: reason, BackTo: backTo,
				OpenedBy: who.Name, OpenedAt: s.moment()})
			switch {
			case down != nil:
				var parts []*unit.Part
				for _, code := range bench.Apart(u, st.Family, down.Code) {
					parts = append(parts, u.Part(code))
				}
				takeOut(parts, n)
			case backTo == "strip":
				takeOut(u.Parts, n)
			}
			action := fmt.Sprintf("opened round %d, back to %s: %s", n, backTo, reason)
			if down != nil {
				action += ", down to " + strings.ToLower(down.Name)
			}
			return action, nil
		},
	)
}

// takeOut notes for a round that fitted parts came out again.
func takeOut(parts []*unit.Part, round int) {
	for _, p := range parts {
		if s := p.Built(round); s != nil && s.Done {
			again := *s
			again.Round = round
			again.TakeOut()
			p.Steps = append(p.Steps, &again)
		}
	}
}
