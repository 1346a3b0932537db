package job

import (
	"context"
	"fmt"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/field"
	"corvek/core/metrology"
	"corvek/core/unit"
	"corvek/internal/people"
)

// What a unit holds at most.
const (
	MostPieces   = 500
	MostAttempts = 100
	MostRounds   = 30
)

// NextAttempt starts a run of the bench test; after a failed one the single
// thing that was changed must be said. The pressures of the plan are filled in.
func (s *Service) NextAttempt(ctx context.Context, who people.Actor, tag string, number int, c bench.Change) error {
	c, err := checkedChange(c)
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
				if a.Current && !a.Closed {
					return "", field.Errorf("one_change", "attempt %d is still open; close it first", a.Number)
				}
				next = max(next, a.Number+1)
			}
			if next > MostAttempts {
				return "", field.Errorf("one_change", "there are %d attempts already", MostAttempts)
			}
			if next > 1 && c.Words == "" {
				return "", field.Errorf("one_change", "say the one thing that was changed since attempt %d; with two "+
					"the cause can no longer be told", next-1)
			}
			c, err := placedChange(st, c)
			if err != nil {
				return "", err
			}
			u.Attempts = append(u.Attempts, &unit.Attempt{
				Number: next, Round: st.Round, Source: unit.SourceTyped, OneChange: c.Words, ChangeKind: c.Kind,
				ChangePart: c.Part, SecondChange: c.Second, SecondKind: c.SecondKind, SecondPart: c.SecondPart,
				By: who.Name, At: s.moment(),
			})
			return fmt.Sprintf("test attempt %d", next), nil
		},
	)
}

// StartHold begins the hold of a step: what is read after it tells how long it was.
func (s *Service) StartHold(ctx context.Context, who people.Actor, tag string, number int, code string) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			a := st.Attempt()
			if a == nil || a.Closed {
				return "", field.Errorf("attempt", "start an attempt first")
			}
			t, known := st.Family.TestByCode(code)
			if !known || t.Hold == "" {
				return "", field.Errorf("attempt", "is not a step with a hold")
			}
			open := u.Attempt(a.Number)
			p := open.Point(code)
			if p == nil {
				p = &unit.Point{Code: code}
				open.Points = append(open.Points, p)
			}
			p.HoldFrom, p.HoldTo = s.moment().Truncate(time.Second), time.Time{}
			return "hold began: " + t.Name, nil
		},
	)
}

// CloseAttempt ends an attempt; its figures and verdict stay as they are.
func (s *Service) CloseAttempt(ctx context.Context, who people.Actor, tag string, number int) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			a := st.Attempt()
			if a == nil || a.Closed {
				return "", field.Errorf("attempt", "there is no open attempt")
			}
			if a.Sum == metrology.Undecided {
				for _, p := range a.Points {
					if p.Verdict == "" && p.Skipped == "" {
						return "", field.Errorf("attempt", "%s: not recorded", p.Test.Name)
					}
				}
			}
			open := u.Attempt(a.Number)
			open.Closed, open.Verdict = true, string(a.Sum)
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
				for _, code := range build.Apart(bench.Placed(u, st.Family), down.Code) {
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
