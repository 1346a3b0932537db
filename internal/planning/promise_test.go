package planning_test

import (
	"testing"

	"corvek/demo/demotest"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/planning"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A day that is promised as firm holds as often as it was said to when the shop is planned anew with it, and when all
// jobs are promised so, one after the other, their days still hold on the mean.
func TestAFirmPromiseHoldsOnceItIsGiven(t *testing.T) {
	jobs := demotest.Jobs(t)
	plans := planning.New(jobs)
	now := func() *planning.Planned {
		p, err := plans.Now(t.Context())
		require.NoError(t, err)
		return p
	}
	holds := func(p *planning.Planned, tag string) float64 {
		promise, err := p.Promise(p.Job(tag))
		require.NoError(t, err)
		require.True(t, promise.Due)
		return promise.Holds
	}
	lead := people.Actor{ID: 1, Name: "Odd Renfeld", Role: people.RoleLead}
	var tags []string
	for _, j := range now().Laid.Jobs {
		before := now()
		firm, ok, err := before.Firm(before.Job(j.Tag))
		require.NoError(t, err)
		if !ok {
			continue
		}
		assert.GreaterOrEqual(t, firm.Holds, planning.FirmShare, j.Tag)
		_, err = jobs.Set(t.Context(), lead, j.Tag, job.Edit{Field: "job/promised_on", Value: string(firm.Day),
			Base: string(j.Promised)})
		require.NoError(t, err)
		assert.InDelta(t, firm.Holds, holds(now(), j.Tag), 1e-9, j.Tag)
		tags = append(tags, j.Tag)
	}
	require.NotEmpty(t, tags)
	sum, last := 0.0, now()
	for _, tag := range tags {
		h := holds(last, tag)
		t.Logf("at last %s: %.2f", tag, h)
		sum += h
	}
	assert.GreaterOrEqual(t, sum/float64(len(tags)), 0.75)
}
