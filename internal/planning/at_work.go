package planning

import (
	"context"

	"corvek/core/unit"
	"corvek/core/workshop"
)

// run tells the plan what was begun at the bench, by what was written last.
func (s *Service) run(ctx context.Context, p *Planned) error {
	last, err := s.Jobs.Store.AtWork(ctx, p.From.Add(-workshop.AtWorkFor))
	if err != nil {
		return err
	}
	var now []workshop.AtWork
	for _, t := range last {
		ref, err := unit.ParseRef(t.Field)
		if err != nil || ref.Unit == 0 {
			continue
		}
		now = append(now, workshop.AtWork{Person: t.Who, Tag: t.Tag, Unit: ref.Unit, Stand: t.Stand})
	}
	p.Laid.Run(now)
	return nil
}
