package job_test

import (
	"testing"

	"corvek/core/entry"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What two units of one machine share is said once; what the other one has of its own stays.
func TestWhatUnitsShareIsSaidOnce(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "axial_piston_pump")
	_, err := s.AddUnit(t.Context(), iva, tag, "internal_gear_pump", "Feed pump")
	require.NoError(t, err)
	put(t, s, tag, "u1/fluid", "mineral oil VG 46")
	put(t, s, tag, "u1/hours", "4000")
	put(t, s, tag, "u1/machine", "Log loader 2")
	put(t, s, tag, "u1/displacement", "71 cc/rev")
	put(t, s, tag, "u2/hours", "900")
	put(t, s, tag, "u1/gauge/known_gauge", "same")
	put(t, s, tag, "u1/gauge/drive_turns", "yes")
	put(t, s, tag, "u1/gauge/feed_pressure", "good")
	st := load(t, s, tag)
	assert.Equal(t, []string{"Machine it sits in", "Fluid", "Nobody can be asked at the machine, because",
		"Does a known-good gauge show the same?"}, entry.SharedLabels(entry.SharedBy(st.Job, 1, st.Asks)))
	require.NoError(t, s.SayOfAll(t.Context(), iva, tag, 1))
	second := load(t, s, tag).Job.Unit(2)
	assert.Equal(t, "mineral oil VG 46", second.Fluid)
	assert.Equal(t, "Log loader 2", second.Machine)
	assert.Equal(t, "900", second.Hours.String(), "its own")
	assert.Equal(
		t,
		map[string]string{"known_gauge": "same"},
		map[string]string(second.Gauge),
		"each has its own drive",
	)
	assert.True(t, second.Displacement.IsZero(), "of the first one alone")
	assert.ErrorContains(t, s.SayOfAll(t.Context(), iva, tag, 1), "nothing")
}

// A unit has a history: its sizes at each visit, oldest first, and how fast they wore.
func TestAUnitHasAHistory(t *testing.T) {
	s := press(t)
	st := load(t, s, "T-0417")
	first := load(t, s, "T-0388")
	for field, text := range map[string]string{"u1/maker": first.Unit.Maker, "u1/model": first.Unit.Model,
		"u1/serial": first.Unit.Serial} {
		put(t, s, st.Job.Tag, field, text)
	}
	h, err := s.History(t.Context(), load(t, s, "T-0417"))
	require.NoError(t, err)
	require.Len(t, h.Visits, 2)
	assert.Equal(t, "T-0388", h.Visits[0].Tag)
	assert.True(t, h.Visits[1].Here)
	found := false
	for _, l := range h.Lines {
		if l.Part == "Rear side plate" && l.Feature == "Side clearance" {
			found = true
			assert.True(t, l.Found[0].HasValue)
			assert.Len(t, l.Found, 2)
		}
	}
	assert.True(t, found)
}
