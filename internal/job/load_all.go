package job

import (
	"context"

	"corvek/core/bench"
)

// LoadAll gives the states of all units of a job.
func (s *Service) LoadAll(ctx context.Context, tag string) (states []*bench.State, err error) {
	st, err := s.Load(ctx, tag, 1)
	if err != nil {
		return nil, err
	}
	states = append(states, st)
	for i := 2; i <= len(states[0].Job.Units); i++ {
		if st, err = s.Load(ctx, tag, i); err != nil {
			return nil, err
		}
		states = append(states, st)
	}
	return states, nil
}
