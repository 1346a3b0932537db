package report_test

import (
	"bytes"
	"strings"
	"testing"

	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/document"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/report"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Each way a job ends has its own paper; none of a unit that was not rebuilt reads
// like a start-up card for it.
func TestEachEndingHasItsOwnNote(t *testing.T) {
	s := service(t)
	d := data(t, s, "T-0417")
	st := d.S
	storetest.Bend(s.Store) // endings are tried out on what was read
	st.Unit.EndingNote = "see the shelf"
	for _, c := range []struct {
		ending, title string
		says, never   []string
	}{
		{unit.EndRebuilt, "Not to be run", []string{"was not tested", "No start-up card"}, []string{"Jog the drive"}},
		{unit.EndReplaced, "For the unit that replaces it", []string{"was not rebuilt", "see the shelf",
			"new unit's own manual"}, nil},
		{unit.EndCondemned, "Condemned", []string{"Not to be run again", "beyond"}, []string{"Jog the drive"}},
		{unit.EndReturned, "Returned unopened", []string{"What was told:", "Pictures from before cleaning",
			"It was opened here"}, []string{"Jog the drive", "Nothing was taken off"}},
		{unit.EndFindings, "Opened for findings only", []string{"Not rebuilt, not tested"}, []string{"Jog the drive"}},
		{unit.EndNoFault, "No fault found", []string{"nothing was found wrong", "complaint stands"},
			[]string{"Jog the drive"}},
	} {
		st.Unit.Ending = c.ending
		d.Note = report.NoteOf(st, quantity.Metric)
		assert.Equal(t, c.title, d.Note.Title)
		var b bytes.Buffer
		require.NoError(t, document.HTML(&b, report.Card(d)))
		for _, words := range c.says {
			assert.Contains(t, strings.ReplaceAll(b.String(), "&#39;", "'"), words, c.title)
		}
		for _, words := range c.never {
			assert.NotContains(t, b.String(), words, c.title)
		}
	}
}

// What was proved goes with its card; what was tested and not proved goes with a card that says up to
// what, and what was not shown.
func TestTheCardSaysUpToWhat(t *testing.T) {
	s := service(t)
	d := data(t, s, "T-0388")
	assert.Equal(t, "Start-up card", d.Note.Title)
	assert.NotContains(t, d.Note.Lead, "NOT PROVED")
	assert.Contains(t, strings.Join(d.Note.Lines, "\n"), "Jog the drive twice")

	odd := people.Actor{Name: "Odd", Role: people.RoleLead}
	require.NoError(t, s.Reopen(t.Context(), odd, "T-0388", "the seal was looked at once more", unit.TouchesPapers))
	base := d.S.Unit.Serial
	_, err := s.Set(t.Context(), odd, "T-0388", job.Edit{Field: "u1/part/key/absent", Value: "a spline instead"})
	require.Error(t, err, "it was counted here")
	_, err = s.Set(t.Context(), odd, "T-0388", job.Edit{Field: "u1/serial", Base: base, Value: "22-0999"})
	require.NoError(t, err)
	d = data(t, s, "T-0388")
	assert.Equal(t, "Start-up card", d.Note.Title)
	assert.Contains(
		t,
		d.Note.Lead,
		"TESTED, NOT PROVED: no pressure was read of it as it is now; not shown: turns freely",
	)
	assert.Contains(t, strings.Join(d.Stands.Missing, "; "), "since then: Serial 22-0916, now 22-0999")
}

// After a failed test no start-up card is printed as if nothing had been.
func TestNoStartUpCardAfterAFailedTest(t *testing.T) {
	d := data(t, service(t), "T-0398")
	require.NotEmpty(t, d.S.Failed())
	d.Note = report.NoteOf(d.S, quantity.Metric)
	assert.Equal(t, "Not to be run", d.Note.Title)
	var b bytes.Buffer
	require.NoError(t, document.HTML(&b, report.Card(d)))
	assert.Contains(t, b.String(), "did not pass its test")
	assert.Contains(t, b.String(), d.S.Failed()[0])
}
