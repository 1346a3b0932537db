package practicepages

import (
	"context"
	"net/http"
	"time"

	"corvek/core/explain"
	"corvek/core/practice"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// OwnRecord is what somebody tends to, for himself and for nobody whom he does not show it to, with what he reads and
// answers for sure, and the case that is chosen for him next.
type OwnRecord struct {
	practice.Habits
	FamilyName, KindName string
	Sure, Unsure         []string // instruments and drills that were tried
	Shown                bool     // to leads
}

// ShownRecord is one that somebody shows to a lead.
type ShownRecord struct {
	Name string
	*OwnRecord
}

// record is what somebody tends to by the cases that he named, and his cases, the newest first.
func (s *Pages) record(ctx context.Context, person uint) (*OwnRecord, []store.PracticeCase, error) {
	p, err := s.Store.Person(ctx, person)
	if err != nil {
		return nil, nil, err
	}
	rows, err := s.Store.PracticeCases(ctx, person)
	if err != nil {
		return nil, nil, err
	}
	var done []practice.Done
	for i := range rows {
		if rows[i].NamedAt != nil {
			done = append(done, doneOf(&rows[i]))
		}
	}
	var families []string
	for _, f := range s.Families() {
		families = append(families, f.Code)
	}
	own := &OwnRecord{Habits: practice.HabitsOf(done, families), Shown: p.PracticeShown != nil}
	own.FamilyName, own.KindName = s.names(own.Family, own.Kind)
	own.Sure, own.Unsure, err = s.tried(ctx, person)
	return own, rows, err
}

func doneOf(row *store.PracticeCase) practice.Done {
	d := practice.Done{Family: row.Family, Kind: row.Kind, Right: row.Right(),
		Early: row.Early, Late: row.Late, Unsaid: row.Unsaid}
	for _, at := range row.Missed {
		d.Missed = append(d.Missed, explain.Reach(at))
	}
	return d
}

// latelyTried is how far back it counts what somebody can.
const latelyTried = 90 * 24 * time.Hour

// tried are the instruments and drills that a person, or with 0 anybody, tried: those that are done for sure and those
// that are not.
func (s *Pages) tried(ctx context.Context, person uint) (sure, unsure []string, err error) {
	can, err := s.Store.Mastered(ctx, person, s.Jobs.Now().Add(-latelyTried))
	sort := func(code, name string) {
		switch does, tried := can[code]; {
		case does:
			sure = append(sure, name)
		case tried:
			unsure = append(unsure, name)
		}
	}
	for _, k := range practice.Kinds() {
		sort(k.Code, k.Name)
	}
	for _, d := range practice.Drills() {
		sort(d.Code, d.Name)
	}
	return sure, unsure, err
}

// share shows the reader's own record to leads from now on, or no more.
func (s *Pages) share(c *echo.Context) error {
	var since *time.Time
	if c.FormValue("show") == "yes" {
		now := s.Jobs.Now()
		since = &now
	}
	if err := s.Store.ShowPractice(c.Request().Context(), site.Who(c).ID, since); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/practice")
}

// shown are the records of those who show them, for a lead.
func (s *Pages) shown(ctx context.Context) (out []ShownRecord, err error) {
	who, err := s.Store.PeopleWhoShow(ctx)
	if err != nil {
		return nil, err
	}
	for i := range who {
		own, _, err := s.record(ctx, who[i].ID)
		if err != nil {
			return nil, err
		}
		out = append(out, ShownRecord{who[i].Name, own})
	}
	return out, nil
}
