package job_test

import (
	"context"
	"testing"
	"time"

	"corvek/core/unit"
	"corvek/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A part that the conclusion blames and that nobody measured is a stop.
func TestBlamedPartIsMeasured(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "double_acting_cylinder")
	require.NoError(t, s.TakeOffRest(context.Background(), iva, tag, 1))
	st := load(t, s, tag)
	put(t, s, tag, "u1/evidence/drifts/state", "seen")
	put(t, s, tag, "u1/conclusion/cause", "bent_rod")
	assert.Contains(t, stops(load(t, s, tag), "measure"),
		"Rod: blamed by “rod bent by overload” and never measured")
	for _, x := range st.ByCode["rod"].Features {
		if x.Code == "runout" {
			put(t, s, tag, of(x, "found/v1"), "0.60 mm")
		}
	}
	assert.NotContains(t, stops(load(t, s, tag), "measure"), "blamed")
}

// What the shop's own closed jobs ended with moves the ranking of the next one;
// so does what Build and Prove show of this one.
func TestClosedJobsAndWorkAreEvidence(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	share := func(tag, cause string) float64 {
		for _, r := range load(t, s, tag).Explained().Ranking {
			if r.Cause.Code == cause {
				return r.Posterior
			}
		}
		return 0
	}
	tag := newUnit(t, s, "double_acting_cylinder")
	put(t, s, tag, "u1/evidence/drifts/state", "seen")
	before := share(tag, "pressure_spike")
	for range 6 {
		old := newUnit(t, s, "double_acting_cylinder")
		put(t, s, old, "u1/conclusion/cause", "pressure_spike")
		require.NoError(t, s.Store.Update(ctx, old, func(j *unit.Job, _ store.History) (*store.Change, error) {
			j.HandedOverAt = s.Now().Truncate(time.Second) // as a hand-over has it
			return &store.Change{Job: j,
				Entries: []unit.Entry{{Who: "x", At: s.Now(), Action: "set"}}}, nil
		}))
	}
	assert.Greater(t, share(tag, "pressure_spike"), before)

	valve := newUnit(t, s, "directional_spool_valve")
	st := load(t, s, valve)
	put(t, s, valve, "u1/evidence/recent_work/state", "seen")
	calm := share(valve, "misassembly")
	put(t, s, valve, at(st.Parts[0], "step/done"), "yes")
	put(t, s, valve, at(st.Parts[0], "step/turn"), "stiff")
	assert.Greater(t, share(valve, "misassembly"), calm)
	assert.Contains(t, load(t, s, valve).Sources["stiff_built"], "at Build: stiff")
}
