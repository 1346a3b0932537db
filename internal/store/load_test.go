package store_test

import (
	"testing"

	"corvek/demo/demotest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Jobs that are read in one go are what each is when it is read alone.
func TestJobsReadInOneGo(t *testing.T) {
	jobs, ctx := demotest.Jobs(t), t.Context()
	tags, versions, err := jobs.Store.InHandTags(ctx, 100)
	require.NoError(t, err)
	require.Greater(t, len(tags), 5)
	many, err := jobs.Store.JobsAt(ctx, append([]string{"T-9999"}, tags...), append([]int64{1}, versions...))
	require.NoError(t, err)
	assert.Len(t, many, len(tags), "one that is not there does not come")
	for _, tag := range tags {
		alone, err := jobs.Store.Read(ctx, tag)
		require.NoError(t, err)
		assert.Equal(t, alone, many[tag], tag)
	}
}
