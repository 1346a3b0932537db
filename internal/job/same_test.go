package job_test

import (
	"context"
	"corvek/internal/job/jobtest"
	"testing"

	"corvek/core/unit"
	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// plated is a new job of a unit with its plate read.
func plated(t *testing.T, s *job.Service, maker, model, serial string) string {
	t.Helper()
	tag := newUnit(t, s, "check_valve")
	put(t, s, tag, "u1/maker", maker)
	put(t, s, tag, "u1/model", model)
	put(t, s, tag, "u1/serial", serial)
	return tag
}

func same(t *testing.T, s *job.Service, tag string) job.Same {
	t.Helper()
	found, err := s.SameUnit(context.Background(), load(t, s, tag))
	require.NoError(t, err)
	return found
}

// The same unit on the bench twice is offered for joining; what was told is then a
// second account of the one job.
func TestTheSameUnitOnTheBench(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	first := plated(t, s, "Harrow", "CV-3", "K-77")
	second := plated(t, s, "", "cv-3", "k-77")
	other := plated(t, s, "Selden", "CV-3", "K-77")
	none := plated(t, s, "Harrow", "CV-3", "")
	assert.Empty(t, same(t, s, none).Open, "without a serial nothing is the same")
	assert.Len(t, same(t, s, other).Open, 1, "another maker's is another unit")
	open := same(t, s, second).Open
	require.Len(t, open, 2)
	perhaps := same(t, s, none).Perhaps
	require.Len(t, perhaps, 2, "of this customer, written alike: perhaps the same")
	assert.ElementsMatch(t, []string{first, second}, []string{perhaps[0].Tag, perhaps[1].Tag})
	assert.Len(t, same(t, s, first).Perhaps, 1, "the one without a serial")

	assert.ErrorContains(t, s.JoinAsAccount(ctx, iva, second, none), "no open job of the same unit")
	require.NoError(t, s.AddAccount(ctx, iva, second, 1, "Mate", "it hissed all night"))
	require.NoError(t, s.JoinAsAccount(ctx, iva, second, first))
	st := load(t, s, first)
	require.Len(t, st.Unit.Accounts, 2)
	assert.Equal(t, "It is weak", st.Unit.Accounts[0].Words)
	assert.Equal(t, "Mate", st.Unit.Accounts[1].Teller)
	gone := load(t, s, second)
	assert.True(t, gone.Job.Withdrawn())
	assert.Contains(t, gone.Job.WithdrawnReason, first)
	assert.Empty(t, same(t, s, first).Open)

	third := plated(t, s, "Harrow", "CV-3", "K-77")
	put(t, s, third, "u1/part/"+load(t, s, third).Parts[0].Code+"/off", "yes")
	assert.ErrorContains(t, s.JoinAsAccount(ctx, iva, third, first), "was opened here")
}

// A closed job of the unit is its history: what was found and done last time.
func TestTheUnitWasHereBefore(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	old := plated(t, s, "Harrow", "CV-3", "K-78")
	put(t, s, old, "u1/ending", unit.EndReturned)
	put(t, s, old, "u1/ending_note", "to its maker")
	put(t, s, old, "u1/conclusion/cause", unit.CauseNotFound)
	put(t, s, old, "u1/conclusion/statement", "sent on unopened")
	for station, list := range load(t, s, old).Stops {
		for _, stop := range list {
			t.Log(station, stop.Text)
			require.NoError(t, s.WaiveStop(ctx, odd, old, 1, stop.StopCode.String(), "as agreed"))
		}
	}
	jobtest.HandOver(t, s, old)
	again := plated(t, s, "Harrow", "CV-3", "K-78")
	before := same(t, s, again).Before
	require.Len(t, before, 1)
	assert.Equal(t, old, before[0].Tag)
	assert.Equal(t, unit.EndReturned, before[0].Ending)
	assert.Equal(t, "sent on unopened", before[0].Statement)
	assert.Empty(t, same(t, s, again).Open)
}
