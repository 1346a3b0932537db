package report

import (
	"testing"
	"time"

	"corvek/core/bench/benchtest"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestChangedSinceNamesWhatCameAfter(t *testing.T) {
	day := time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC)
	j := benchtest.Job(t, "external_gear_pump")
	j.Reopenings = []*unit.Reopening{{Number: 1, HandedOver: day}}
	d := Data{S: benchtest.State(t, j)}
	entry := func(minutes int, action, field, before, after string) unit.Entry {
		at := day.Add(time.Duration(minutes) * time.Minute)
		return unit.Entry{Who: "Odd", At: at, Action: action, Field: field, Before: before, After: after}
	}
	happened := func(minutes int, e unit.Event) unit.Entry {
		line := entry(minutes, wording.Event(e), "", "", "")
		line.Event = &e
		return line
	}
	record := []unit.Entry{ // oldest first
		entry(-5, "set", "job/title", "a", "b"),
		happened(0, unit.Event{Kind: unit.EventHandedOver, HandOver: 1}),
		happened(1, unit.Event{Kind: unit.EventPaperKept, HandOver: 1, Name: "report.pdf", Sum: "ab"}),
		happened(20, unit.Event{Kind: unit.EventOpenedAgain, Words: "seal wept"}),
		entry(30, "set", "u1/speed", "", "1450 rpm"),
	}
	lines := func(yield func(unit.Entry, error) bool) {
		for _, e := range record {
			if !yield(e, nil) {
				return
			}
		}
	}
	kept := []store.Paper{{HandOver: 1, Name: "report.pdf", SHA256: "ab"}, {HandOver: 2, Name: "later"}}
	require.NoError(t, d.Changed(day, kept, lines))
	assert.Equal(t, []string{"report.pdf, SHA-256 ab"}, d.Since.Papers)
	assert.Equal(t, []string{"14 May 2031 09:20 Odd: opened again: seal wept",
		"14 May 2031 09:30 Odd: Speed, from nothing to 1450 rpm"}, d.Since.Lines)
	for i := range 100 {
		record = append(record, entry(40+i, "set", "u1/speed", "1", "2"))
	}
	require.NoError(t, d.Changed(day, nil, lines))
	assert.Len(t, d.Since.Lines, mostChanges)
	assert.Equal(t, 102-mostChanges, d.Since.More)
}
