package papers_test

import (
	"bytes"
	"context"
	"corvek/internal/job/jobtest"
	"testing"
	"time"

	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/demo/demotest"
	"corvek/internal/document"
	"corvek/internal/job"
	"corvek/internal/papers"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A job that was handed over by a version of the program that kept PDFs alone is frozen once the
// program runs, says so on its papers, and its PDFs stay.
func TestHandOversOfBeforeAreFrozen(t *testing.T) {
	jobs, ctx := demotest.Jobs(t), t.Context()
	const tag = "T-0388"
	require.NoError(t, jobs.Reopen(ctx, odd, tag, "to be handed over here", unit.TouchesPapers))
	jobtest.HandOver(t, jobs, tag)
	require.NoError(t, papers.Keep(ctx, jobs, odd, tag, ""))
	owner := storetest.Owner(t, jobs.Store)
	_, err := owner.Exec(ctx, "DELETE FROM papers WHERE media_type = 'application/gzip'")
	require.NoError(t, err)
	before, err := jobs.Store.Papers(ctx, tag)
	require.NoError(t, err)
	require.Len(t, before, 4)

	jobs, err = job.New(jobs.Store) // the program starts
	require.NoError(t, err)
	running, stop := context.WithCancel(ctx)
	ended := make(chan struct{})
	go func() { papers.Run(running, jobs); close(ended) }()
	require.Eventually(t, func() bool {
		left, err := jobs.Store.HandedOverWithoutPapers(ctx, papers.GivenName, nil, 5)
		return err == nil && len(left) == 0
	}, time.Minute, 20*time.Millisecond)
	stop()
	<-ended
	after, err := jobs.Store.Papers(ctx, tag)
	require.NoError(t, err)
	assert.Subset(t, after, before, "what was given out stays")
	require.Len(t, after, 6)
	j, err := jobs.Store.Job(ctx, tag)
	require.NoError(t, err)
	f, err := jobs.Frozen(ctx, j)
	require.NoError(t, err)
	require.NotNil(t, f)
	assert.True(t, f.Later)
	for _, units := range []quantity.System{quantity.Metric, quantity.Inch} {
		d, ok, err := papers.Of(ctx, jobs, j, 1, "report", units)
		require.NoError(t, err)
		require.True(t, ok)
		var b bytes.Buffer
		require.NoError(t, document.HTML(&b, d))
		assert.Contains(t, b.String(), "after the hand-over, by what was known on that day")
	}
}
