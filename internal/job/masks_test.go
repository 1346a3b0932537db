package job_test

import (
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What made a figure good besides the repair is named: a change that hides a fault, thicker oil, and
// another setting. A sound unit that was never out has none of it.
func TestWhatMadeAFigureGoodIsNamed(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	now := time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return now }
	tag := jobtest.Built(t, s, "axial_piston_pump")
	at := func(name string) string {
		st := load(t, s, tag)
		return st.Unit.AttemptRef(st.Attempt().Number, name).String()
	}
	put(t, s, tag, "u1/viscosity", "46 cSt")
	next := func(words string) {
		require.NoError(t, s.NextAttempt(t.Context(), iva, tag, 1, bench.Change{Words: words}))
		jobtest.RunsOn(t, s, tag)
	}
	next("")
	st := load(t, s, tag)
	put(t, s, tag, st.Unit.PointRef(1, "case_flow", "pressure").String(), "175 bar")
	put(t, s, tag, st.Unit.PointRef(1, "case_flow", "case_flow").String(), "9 L/min")
	require.NoError(t, s.CloseAttempt(t.Context(), iva, tag, 1))
	assert.Empty(t, load(t, s, tag).Masks(), "it is not good yet")

	next("heavier oil in the stand")
	put(t, s, tag, at("ran_on_oil"), "mineral oil VG 100")
	put(t, s, tag, st.Unit.PointRef(2, "case_flow", "pressure").String(), "175 bar")
	put(t, s, tag, st.Unit.PointRef(2, "case_flow", "case_flow").String(), "1 L/min")
	require.NoError(t, s.CloseAttempt(t.Context(), iva, tag, 1))
	masks := strings.Join(load(t, s, tag).Masks(), "\n")
	assert.Contains(t, masks, "Leak was read on oil thicker than at duty")
	assert.Contains(t, masks, "heavier oil in the stand, which hides a fault and finds none")
	assert.Contains(t, masks, "run on thicker oil")

	next("case gasket renewed")
	put(t, s, tag, st.Unit.PointRef(3, "case_flow", "pressure").String(), "175 bar")
	put(t, s, tag, st.Unit.PointRef(3, "case_flow", "case_flow").String(), "9 L/min")
	require.NoError(t, s.CloseAttempt(t.Context(), iva, tag, 1))
	next("pistons renewed")
	put(t, s, tag, st.Unit.PointRef(4, "case_flow", "pressure").String(), "175 bar")
	put(t, s, tag, st.Unit.PointRef(4, "case_flow", "case_flow").String(), "1 L/min")
	require.NoError(t, s.CloseAttempt(t.Context(), iva, tag, 1))
	assert.Empty(t, load(t, s, tag).Masks(), "on the same oil, by a part")
}
