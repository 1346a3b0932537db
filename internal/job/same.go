package job

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// mostBefore are the other jobs of a unit that are shown.
const mostBefore = 5

// Before is an earlier job of the very same unit: what was found and done last time.
type Before struct {
	Tag, Title string
	Unit       int
	At         time.Time // handed over
	Cause      string
	Statement  string
	Renewed    []string
	Ending     string // code, "" where it was rebuilt
}

// Same are the other jobs of the same maker, model and serial number.
type Same struct {
	Open   []store.Same // on the bench just now
	Before []Before     // newest first
	// Of the same customer and model where a serial is missing: perhaps the same
	Perhaps []store.Same
}

// SameUnit looks up the other jobs of a unit.
func (s *Service) SameUnit(ctx context.Context, st *bench.State) (Same, error) {
	u := st.Unit
	serial, model := strings.TrimSpace(u.Serial), strings.TrimSpace(u.Model)
	if model == "" {
		return Same{}, nil
	}
	perhaps, err := s.Store.PerhapsUnit(ctx, st.Job.Tag, strings.TrimSpace(u.Maker), model, serial, mostBefore)
	if err != nil || serial == "" {
		return Same{Perhaps: perhaps}, err
	}
	rows, err := s.Store.SameUnit(ctx, st.Job.Tag, strings.TrimSpace(u.Maker), model, serial, mostBefore)
	if err != nil {
		return Same{}, err
	}
	same := Same{Perhaps: perhaps}
	for _, row := range rows {
		if row.HandedOverAt == nil {
			same.Open = append(same.Open, row)
			continue
		}
		other, err := s.Load(ofNoJob(ctx), row.Tag, row.Unit)
		if err != nil {
			return Same{}, err
		}
		same.Before = append(same.Before, before(other, *row.HandedOverAt))
	}
	return same, nil
}

// before sums up what was found and done on the unit of a job that is over.
func before(st *bench.State, at time.Time) Before {
	b := Before{Tag: st.Job.Tag, Title: st.Job.Title, Unit: st.Unit.Number, At: at, Statement: st.Conclude.Statement,
		Ending: st.Unit.Ending}
	if st.Cause != nil {
		b.Cause = st.Cause.Name
	}
	for _, p := range st.Parts {
		if p.Choice() == decide.Replace && p.Step.Done {
			b.Renewed = append(b.Renewed, p.Name)
		}
	}
	return b
}

// JoinAsAccount hands what was told on a job over to another open job of the same
// unit, as a second account, and withdraws this one: one unit lies on the bench once.
func (s *Service) JoinAsAccount(ctx context.Context, who people.Actor, tag, to string) error {
	ctx = ofNoJob(ctx)
	st, err := s.Load(ctx, tag, 1)
	if err != nil {
		return err
	}
	same, err := s.SameUnit(ctx, st)
	if err != nil {
		return err
	}
	at := slices.IndexFunc(same.Open, func(o store.Same) bool { return o.Tag == to })
	switch {
	case at < 0:
		return field.Errorf("to", "is no open job of the same unit")
	case len(st.Job.Units) > 1:
		return field.Errorf("to", "this job has several units; only a job of one can be joined to another")
	case st.Unit.Opened():
		return field.Errorf("to", "this unit was opened here; its record stays a job of its own")
	}
	told := toldOf(st)
	err = s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		to,
		same.Open[at].Unit,
		func(w *writing, u *unit.Unit, other *bench.State) (string, error) {
			for _, a := range told {
				known := slices.ContainsFunc(u.Accounts, func(b *unit.Account) bool {
					return b.Teller == a.Teller && b.Words == a.Words
				})
				if !known {
					u.AddAccount(a.Teller, a.Words)
				}
			}
			if len(u.Accounts) > MostAccounts {
				return "", field.Errorf("to", "there would be more than %d accounts", MostAccounts)
			}
			return fmt.Sprintf("took over the account of %s, the same unit", tag), nil
		},
	)
	if err != nil {
		return err
	}
	// The form's own token was used up by the account.
	return s.changeAny(store.WithOnce(ctx, ""), who, people.RoleTechnician, tag, func(w *writing) error {
		w.withdraw(who.Name, "the same unit as "+to+"; what was told was handed over to it")
		return nil
	})
}

// toldOf is what was told of the unit: the complaint of the job and every account.
func toldOf(st *bench.State) []unit.Account {
	var out []unit.Account
	if words := strings.TrimSpace(st.Job.Complaint); words != "" {
		teller := strings.TrimSpace(st.Job.Caller)
		if teller == "" {
			teller = st.Job.Customer.Name
		}
		out = append(out, unit.Account{Teller: teller, Words: words})
	}
	for _, a := range st.Unit.Accounts {
		out = append(out, *a)
	}
	return out
}
