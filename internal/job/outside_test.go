package job_test

import (
	"context"
	"testing"

	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What lies outside the unit is asked for piece by piece, and an answer to one
// question settles no other.
func TestEachItsOwnAnswer(t *testing.T) {
	s := press(t)
	tag := "T-0417"
	put(t, s, tag, "u1/conclusion/cause", "contamination")
	put(t, s, tag, "u1/ending", unit.EndReplaced)
	put(t, s, tag, "u1/ending_note", "new unit, serial 88-1")
	put(t, s, tag, "u1/gained_elsewhere", "4 L")
	put(t, s, tag, "u1/conclusion/blamed", "drive pulley")
	for _, place := range []string{"tank", "cooler_and_lines", "filters", "feed_side"} {
		put(t, s, tag, "u1/flush/"+place, "done")
	}
	put(t, s, tag, "u1/flushed_by", "our field crew")
	open := func() []string { return codes(load(t, s, tag).Stops["handover"]) }
	assert.Equal(t, []string{"u1/handover/blamed", "u1/handover/uncured", "u1/handover/sump"}, open())

	put(t, s, tag, "u1/conclusion/statement", "All is well and everything was measured.")
	assert.Len(t, open(), 3, "words about something else settle none of them")
	put(t, s, tag, "u1/conclusion/blamed_found", "bore 0.08 mm over, runout 0.4 mm")
	assert.Equal(t, []string{"u1/handover/uncured", "u1/handover/sump"}, open())
	put(t, s, tag, "u1/conclusion/cured", "tank and filters cleaned, tried for a shift")
	assert.Equal(t, []string{"u1/handover/sump"}, open())
	put(t, s, tag, "u1/other_sump", "drained, flushed and refilled")
	assert.Empty(t, open())
}

// A break-up is settled place by place and by name, never by a few words.
func TestFlushedPlaceByPlace(t *testing.T) {
	s := press(t)
	tag := "T-0417" // a needle of it is missing
	require.True(t, load(t, s, tag).BrokenUp())
	put(t, s, tag, "u1/flushed", "ok")
	put(t, s, tag, "u1/flush/tank", "done")
	put(t, s, tag, "u1/flush/filters", "done")
	assert.Contains(t, stops(load(t, s, tag), "handover"), "cooler and lines, feed side")
	put(t, s, tag, "u1/flush/cooler_and_lines", "none")
	put(t, s, tag, "u1/flush/feed_side", "done")
	assert.Contains(t, stops(load(t, s, tag), "handover"), "who flushed it")
	put(t, s, tag, "u1/flushed_by", "the customer")
	assert.NotContains(t, stops(load(t, s, tag), "handover"), "Debris")
	assert.Error(t, edit(s, context.Background(), iva, tag, "u1/flush/attic", "done", ""))
}
