package job_test

import (
	"testing"

	"corvek/core/proof"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A step given to one unit is owed by it, goes with the sheet of its model, and comes out while nothing was read.
func TestAStepOfOneUnitIsOwed(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	now := time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return now }
	tag := jobtest.Built(t, s, "relief_valve")
	put(t, s, tag, "u1/model", "RV 10")
	require.ErrorContains(t, s.AddStep(t.Context(), iva, tag, 1, "", " ", nil), "few words")
	require.ErrorContains(t, s.AddStep(t.Context(), iva, tag, 1, "hammer_it", "", nil), "choose a step")
	require.NoError(t, s.AddStep(t.Context(), iva, tag, 1, "", "Rings a bell", nil))
	require.ErrorContains(t, s.AddStep(t.Context(), iva, tag, 1, "", "rings a BELL", nil), "already")
	require.NoError(t, s.AddStep(t.Context(), iva, tag, 1, "prime", "", nil))
	require.NoError(t, s.RemoveStep(t.Context(), iva, tag, 1, "step:prime"))
	_, there := load(t, s, tag).Step("prime")
	assert.False(t, there)
	jobtest.Test(t, s, tag, &now)
	claim, missing := load(t, s, tag).Claim()
	require.Equal(t, proof.Proved, claim, missing)
	require.ErrorContains(t, s.RemoveStep(t.Context(), iva, tag, 1, "step:own:rings_a_bell"), "read in a test")
	require.NoError(t, s.AddStep(t.Context(), iva, tag, 1, "", "Rings it twice", []string{"time"}))
	claim, _ = load(t, s, tag).Claim()
	assert.NotEqual(t, proof.Proved, claim, "it is owed")

	keepAll(t, s, tag)
	next, err := s.Create(t.Context(), iva, job.NewJob{Customer: "Mill", Title: "Next", Complaint: "weak",
		Family: "relief_valve", Model: "RV-10"})
	require.NoError(t, err)
	_, there = load(t, s, next).Step("own_rings_a_bell")
	assert.True(t, there, "the next of its model is asked it too")
}
