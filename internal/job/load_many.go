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
// each, from several goroutines at once. One that is gone meanwhile does not come; of those that cannot be worked out
// it gives the tags. The states are held nowhere.
func (s *Service) LoadMany(ctx context.Context, tags []string, versions []int64, each func(states []*bench.State)) (
	faulty []string, err error) {
	if err := s.Refresh(ofNoJob(ctx)); err != nil {
		return nil, err
	}
	jobs, err := s.Store.JobsAt(ctx, tags, versions)
	if err != nil {
		return nil, err
	}
	c := s.catalog()
	faults := make([]error, len(tags))
	var work errgroup.Group
	work.SetLimit(runtime.GOMAXPROCS(0))
	for i, tag := range tags {
		if j := jobs[tag]; j != nil {
			work.Go(func() error {
				faults[i] = s.workOut(ctx, c, j, each)
				return ctx.Err()
			})
		}
	}
	err = work.Wait()
	for i, fault := range faults {
		if fault != nil {
			faulty = append(faulty, tags[i])
		}
	}
	return faulty, err
}

// workOut works all units of a job out. What makes the program panic is the fault of this job alone.
func (s *Service) workOut(ctx context.Context, c *catalog, j *unit.Job, each func([]*bench.State)) (err error) {
	defer func() {
		if fault := recover(); fault != nil {
			err = fmt.Errorf("%s cannot be worked out: %v", j.Tag, fault)
		}
	}()
	states := make([]*bench.State, len(j.Units))
	for i := range j.Units {
		if states[i], err = s.stateOf(ctx, c, j, i+1); err != nil {
			return err
		}
	}
	each(states)
	return nil
}
