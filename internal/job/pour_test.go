package job_test

import (
	"testing"

	"corvek/core/bench"
	"corvek/core/unit"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Oil goes in by portions with a full stroke after each: no length passes for a volume, nothing beyond
// what the book lets in, and each portion is held against the stroke that it explains.
func TestOilGoesInByPortions(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := jobtest.Built(t, s, "intensifier_ram")
	put(t, s, tag, "u1/need_fill", "60 ml")
	require.NoError(t, s.NextAttempt(t.Context(), iva, tag, 1, bench.Change{}))
	pour := func(volume, stroke string) error { return s.Pour(t.Context(), iva, tag, 1, "fill", volume, stroke) }
	assert.ErrorContains(t, pour("15 mm", "40 mm"), "pour_volume: is a volume")
	assert.ErrorContains(t, pour("-1 ml", "40 mm"), "pour_volume")
	assert.ErrorContains(t, pour("15 ml", ""), "pour_stroke: read the full stroke")
	assert.ErrorContains(t, s.Pour(t.Context(), iva, tag, 1, "ratio", "15 ml", "40 mm"), "takes oil by portions")

	// A ram of 40 mm has 1257 mm²: 15 ml push it 11.9 mm.
	require.NoError(t, pour("15 ml", "40 mm"))
	require.NoError(t, pour("15 ml", "52 mm"))
	require.NoError(t, pour("15 ml", "55 mm"))
	st := load(t, s, tag)
	step, _ := st.Step("fill")
	p := st.Attempt().Attempt.Point("fill")
	got := st.Pours(step, p)
	require.Len(t, got, 3)
	assert.InDelta(t, 11.94e-3, got[1].Explains, 0.05e-3)
	assert.InDelta(t, 12e-3, got[1].Gained, 1e-9)
	assert.Empty(t, got[0].Says(), "nothing is before it")
	assert.Empty(t, got[1].Says())
	assert.Contains(t, got[2].Says(), "less than this oil explains")
	assert.InDelta(t, 45e-6, p.Figure("volume").SI, 1e-12, "all that went in")
	assert.InDelta(t, 55e-3, p.Figure("stroke").SI, 1e-12, "the last stroke")
	assert.Equal(t, unit.SourceTyped, p.Taking("stroke").From)

	assert.ErrorContains(t, pour("20 ml", "56 mm"), "the book lets in 60 ml; with this it would be 65.00 ml")
	require.NoError(t, pour("15 ml", "67 mm"), "to the last drop of it")
	require.NoError(t, s.CloseAttempt(t.Context(), iva, tag, 1))
	assert.ErrorContains(t, pour("1 ml", "68 mm"), "start an attempt first")
}
