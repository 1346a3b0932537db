package job

import (
	"context"
	"fmt"
	"strings"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/metrology"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// NewJob is what is known when a unit comes in.
type NewJob struct {
	Customer, Place, Title, Complaint, Caller, Family, Maker, Model, Serial string

	Site string // of several shops, where it is done
	Rate string // money an hour by the shop's price list
}

// Create opens a job with one unit of a family, its parts and features laid out.
func (s *Service) Create(ctx context.Context, who people.Actor, n NewJob) (tag string, err error) {
	if !who.May(people.RoleTechnician) {
		return "", people.ErrForbidden
	}
	if err := s.Refresh(ctx); err != nil {
		return "", err
	}
	if err := s.mayHave(ctx, who.Name, "practice"); err != nil {
		return "", err
	}
	f := s.Families()[n.Family]
	customer, err := short("customer", n.Customer, "say whose unit it is")
	if err != nil {
		return "", err
	}
	now := s.moment()
	j := &unit.Job{
		Customer: unit.Customer{Name: customer, Place: strings.TrimSpace(n.Place)},
		Policy:   string(decide.OnCondition), Waiting: entry.WaitTechnician, ReceivedOn: unit.DateOf(now),
	}
	if title := strings.TrimSpace(n.Title); title == "" {
		return "", field.Errorf("title", "give it a name the shop will know it by")
	}
	if f == nil {
		return "", field.Errorf("family", "choose what kind of unit it is")
	}
	j.Units = []*unit.Unit{unit.New(f, 1, who.Name, now)}
	w := s.writing(ctx, who.Name, who.Role)
	w.Job = j
	for _, set := range []struct {
		name, value string
		ref         unit.Ref
	}{
		{"title", n.Title, unit.JobRef("title")},
		{"site", n.Site, unit.JobRef("site")},
		{"rate", n.Rate, unit.JobRef("labour_rate")},
		{"complaint", n.Complaint, unit.JobRef("complaint")},
		{"caller", n.Caller, unit.JobRef("caller")},
		{"maker", n.Maker, j.Units[0].Ref("maker")},
		{"model", n.Model, j.Units[0].Ref("model")},
		{"serial", n.Serial, j.Units[0].Ref("serial")},
	} {
		if err := w.put(set.name, set.ref, set.value); err != nil {
			return "", err
		}
	}
	w.happened(unit.Event{Kind: unit.EventReceived})
	if err := w.useSure(j.Units[0]); err != nil {
		return "", err
	}
	return j.Tag, s.keep(ctx, w)
}

// put writes a first value; an error names the field of the form.
func (w *writing) put(name string, ref unit.Ref, value string) error {
	place, f, err := entry.Resolve(w.Job, ref, w.shop)
	if err != nil {
		return err
	}
	if err := f.Set(place, strings.TrimSpace(value)); err != nil {
		return field.Errorf(name, "%s", err)
	}
	return nil
}

// keep stores a new job.
func (s *Service) keep(ctx context.Context, w *writing) error {
	c, err := w.finish()
	if err != nil {
		return err
	}
	return s.Store.Create(ctx, c)
}

// PracticePrefix begins the tags of units of practice.
const PracticePrefix = "P-"

// BringIn stores a job that was laid out by an importer, with its record, in one
// go. The pictures' contents are by their numbers.
func (s *Service) BringIn(ctx context.Context, who string, j *unit.Job, record []unit.Entry,
	contents map[int]store.Content) error {
	if s.of == nil && strings.HasPrefix(j.Tag, PracticePrefix) {
		return field.Errorf("tag", "%s is a unit of practice; it stays there", j.Tag)
	}
	for i := range record {
		record[i].Brought = true // it is another store's word
	}
	w := s.writing(ctx, who, "")
	w.Job, w.entries, w.contents = j, record, contents
	if err := w.judgeAnew(); err != nil {
		return err
	}
	if j.HandedOver() {
		w.freezes = later
	}
	w.record(unit.Entry{Action: "imported", After: j.Tag, Event: &unit.Event{Kind: unit.EventReceived}})
	return s.keep(ctx, w)
}

// LayOut stores a job that was made up for practice.
func (s *Service) LayOut(ctx context.Context, who people.Actor, j *unit.Job) error {
	if err := s.Refresh(ctx); err != nil {
		return err
	}
	w := s.writing(ctx, who.Name, who.Role)
	w.Job = j
	w.happened(unit.Event{Kind: unit.EventReceived})
	return s.keep(ctx, w)
}

// judgeAnew holds the verdicts of attempts that came from elsewhere against their
// own figures: what a file claims counts for nothing here.
func (w *writing) judgeAnew() error {
	for i := range w.Job.Units {
		st, err := w.state(i + 1)
		if err != nil {
			return err
		}
		for _, a := range st.Attempts {
			verdict := string(a.Sum)
			if verdict == "" {
				verdict = string(metrology.Undecided)
			}
			if !a.Closed || a.Verdict == verdict {
				continue
			}
			w.record(
				unit.Entry{Action: fmt.Sprintf("worked out anew on import: attempt %d of unit %d", a.Number, i+1),
					Before: a.Verdict, After: verdict},
			)
			w.Job.Unit(i + 1).Attempt(a.Number).Verdict = verdict
		}
	}
	return nil
}

// Shop is what an importer needs to know of the shop to read a job in.
func (s *Service) Shop(ctx context.Context, who string) (*entry.Shop, error) {
	if err := s.Refresh(ctx); err != nil {
		return nil, err
	}
	return s.shop(s.catalog(), who), nil
}

// MostUnits that one job holds.
const MostUnits = 12

// AddUnit puts a further unit on the job: the feed pump behind the main pump.
func (s *Service) AddUnit(ctx context.Context, who people.Actor, tag, code, name string) (number int, err error) {
	if err := s.Refresh(ctx); err != nil {
		return 0, err
	}
	f := s.Families()[code]
	if f == nil {
		return 0, field.Errorf("family", "choose what kind of unit it is")
	}
	if name, err = short("name", name, ""); err != nil {
		return 0, err
	}
	err = s.change(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		if len(w.Job.Units) >= MostUnits {
			return field.Errorf("family", "a job holds at most %d units", MostUnits)
		}
		number = len(w.Job.Units) + 1
		u := unit.New(f, number, who.Name, s.moment())
		if name != "" {
			u.Name = name
		}
		w.Job.Units = append(w.Job.Units, u)
		w.did("added the unit " + u.Name)
		return nil
	})
	return number, err
}

// MostAccounts are kept of one unit.
const MostAccounts = 50

// AddAccount writes down what one person told of the unit.
func (s *Service) AddAccount(
	ctx context.Context,
	who people.Actor,
	tag string,
	number int,
	teller, told string,
) error {
	teller, err := short("teller", teller, "say who told it")
	if err != nil {
		return err
	}
	told = strings.TrimSpace(told)
	switch {
	case told == "":
		return field.Errorf("words", "write down what was told")
	case len([]rune(told)) > entry.MostArea:
		return field.Errorf("words", "is longer than %d letters", entry.MostArea)
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			if len(u.Accounts) >= MostAccounts {
				return "", field.Errorf("words", "there are %d accounts already", MostAccounts)
			}
			u.AddAccount(teller, told)
			return "account of " + teller, nil
		},
	)
}
