package planning

import (
	"context"
	"time"

	"corvek/core/unit"
	"corvek/core/workshop"
)

// atWork is for how long somebody counts as being at a job after he wrote in it.
const atWork = 45 * time.Minute

// run tells the plan what was begun at the bench, by what was written last.
func (s *Service) run(ctx context.Context, p *Planned) error {
	last, err := s.Jobs.Store.AtWork(ctx, p.From.Add(-atWork))
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
