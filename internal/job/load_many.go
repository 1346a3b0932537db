package job

import (
	"context"
	"fmt"
	"runtime"

	"corvek/core/bench"
	"corvek/core/unit"

	"golang.org/x/sync/errgroup"
)

// LoadMany works the states of all units of many jobs out, of versions that were just asked for, and gives them to
// each with the number of the job in the list, from several goroutines at once. Of a job that cannot be worked out it
// gets the fault; one that is gone meanwhile does not come. The states are held nowhere.
func (s *Service) LoadMany(ctx context.Context, tags []string, versions []int64,
	each func(i int, states []*bench.State, fault error)) error {
	if err := s.Refresh(ofNoJob(ctx)); err != nil {
		return err
	}
	jobs, err := s.Store.JobsAt(ctx, tags, versions)
	if err != nil {
		return err
	}
	c := s.shelf.now.Load()
	var work errgroup.Group
	work.SetLimit(runtime.GOMAXPROCS(0))
	for i, tag := range tags {
		j := jobs[tag]
		if j == nil {
			continue
		}
		work.Go(func() error {
			if err := ctx.Err(); err != nil {
				return err
			}
			states, fault := s.statesOf(ctx, c, j)
			each(i, states, fault)
			return nil
		})
	}
	return work.Wait()
}

// statesOf works all units of a job out. What makes the program panic is the fault of this job alone.
func (s *Service) statesOf(ctx context.Context, c *catalog, j *unit.Job) (states []*bench.State, err error) {
	defer func() {
		if fault := recover(); fault != nil {
			err = fmt.Errorf("%s cannot be worked out: %v", j.Tag, fault)
		}
	}()
	for i := range j.Units {
		st, err := s.stateOf(ctx, c, j, i+1)
		if err != nil {
			return nil, err
		}
		states = append(states, st)
	}
	return states, nil
}
