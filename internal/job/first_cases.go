package job

import (
	"context"
	"strings"

	"corvek/core/field"
	"corvek/core/practice"
	"corvek/core/unit"
	"corvek/internal/store"
)

// First is what a person owes in practice before he has a job of his own.
func (s *Service) First(ctx context.Context, person uint) (practice.First, error) {
	p, err := s.Store.Person(ctx, person)
	if err != nil || p.FirstCases == 0 {
		return practice.First{}, err
	}
	return s.first(ctx, p)
}

func (s *Service) first(ctx context.Context, p *store.Person) (f practice.First, err error) {
	f.Owed = p.FirstCases
	f.Right, err = s.Store.PracticeRight(ctx, p.ID)
	return f, err
}

// mayHave refuses a job of his own to somebody who still owes units of practice.
func (s *Service) mayHave(ctx context.Context, name, at string) error {
	owing, err := s.Store.PeopleWhoPractise(ctx)
	if err != nil {
		return err
	}
	for i := range owing {
		if owing[i].Name != name {
			continue
		}
		f, err := s.first(ctx, &owing[i])
		if err != nil {
			return err
		}
		if f.Left() > 0 {
			return field.Errorf(at, "%s: %s; a lead can let them off", name, f.Says())
		}
	}
	return nil
}

// mayHold is mayHave for an act that may give a job to somebody.
func (s *Service) mayHold(ctx context.Context, edits ...Edit) error {
	for _, e := range edits {
		if e.Field != unit.JobRef("held_by").String() {
			continue
		}
		name := strings.Join(strings.Fields(e.Value), " ") // blanks make no other person
		if err := s.mayHave(ctx, name, e.Field); err != nil {
			return err
		}
	}
	return nil
}
