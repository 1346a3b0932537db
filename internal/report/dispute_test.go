package report_test

import (
	"bytes"
	"context"
	"strings"
	"testing"

	"corvek/internal/document"
	"corvek/internal/job"
	"corvek/internal/report"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// neutral prints the paper that both sides of a dispute read.
func neutral(t *testing.T, s *job.Service, tag string) string {
	t.Helper()
	var b bytes.Buffer
	paper, err := report.Dispute(data(t, s, tag), s.Store.Lines(context.Background(), tag))
	require.NoError(t, err)
	require.NoError(t, document.HTML(&b, paper))
	return b.String()
}

// part gives the paper between two of its headings.
func part(t *testing.T, paper, from, to string) string {
	t.Helper()
	_, rest, ok := strings.Cut(paper, ">"+from+"<")
	require.True(t, ok, from)
	text, _, ok := strings.Cut(rest, ">"+to+"<")
	require.True(t, ok, to)
	return text
}

// The first part taken off opens the unit, by name and time; the many after it
// are no further openings, and who put it on hold stands before them.
func TestWhoOpenedItIsTold(t *testing.T) {
	s := service(t)
	assert.NotContains(t, neutral(t, s, "T-0421"), "opened: a part taken off")
	parts := data(t, s, "T-0417").S.Unit.Parts
	for _, p := range parts[:3] {
		ref := data(t, s, "T-0417").S.Unit.PartRef(p.Code, "off").String()
		edit(t, s, ref, "", "yes")
	}
	for _, p := range parts[:3] {
		edit(t, s, data(t, s, "T-0417").S.Unit.PartRef(p.Code, "off").String(), "yes", "")
	}
	paper := part(t, neutral(t, s, "T-0417"), "Who handled it, and when", "What was seen")
	assert.Equal(t, 1, strings.Count(paper, "opened: a part taken off"))
	assert.Contains(t, paper, "Iva")
	assert.NotContains(t, paper, "rest taken off")
}

// A mark the bench made itself stands apart from what was found, one of unknown
// origin is named as such, and one that was looked for and absent is told.
func TestMarksStandWhereTheyBelong(t *testing.T) {
	s := service(t)
	mark := func(code, name, value, base string) {
		edit(t, s, data(t, s, "T-0417").S.Unit.EvidenceRef(code, name).String(), value, base)
	}
	mark("embedded_grit", "state", "seen", data(t, s, "T-0417").S.Unit.LastSaid("embedded_grit").State)
	mark("embedded_grit", "origin", "made_by_us", "found_so")
	mark("varnish", "state", "seen", data(t, s, "T-0417").S.Unit.LastSaid("varnish").State)
	mark("varnish", "origin", "unknown", "found_so")
	mark("varnish", "age", "old", "")
	mark("milky_oil", "state", "absent", data(t, s, "T-0417").S.Unit.LastSaid("milky_oil").State)
	paper := part(t, neutral(t, s, "T-0417"), "What was seen", "What the evidence supports")
	table, after, ok := strings.Cut(paper, "</table>")
	require.True(t, ok)
	assert.NotContains(t, table, "Grit pressed into the soft faces")
	assert.Contains(t, table, "Brown varnish")
	assert.Contains(t, table, "old, dull")
	assert.Contains(t, after, "left out of the reasoning:</b> Grit pressed into the soft faces.")
	assert.Contains(t, after, "counted for less:</b> Brown varnish on the body and plates.")
	absent, _, _ := strings.Cut(after, "</p>")
	assert.Contains(t, absent, "Oil milky or water at the drain")
}

// It weighs in words: a reader could take a percentage for something measured.
func TestThePaperGivesNoPercentages(t *testing.T) {
	s := service(t)
	leads := "strongly supported by the evidence|supported more than any other cause|possible on this evidence"
	for tag, says := range map[string]string{"T-0417": leads, "T-0405": leads,
		// Its own conclusion, which closed jobs are counted by, makes it no surer.
		"T-0388": "Worn out in fair service: (possible on this evidence|supported more than any other cause)"} {
		paper := neutral(t, s, tag)
		weighed := part(t, paper, "What the evidence supports", "What it does not support")
		assert.NotContains(t, weighed, "%", tag)
		assert.Regexp(t, says, weighed, tag)
		assert.Contains(t, paper, "It takes no side", tag)
	}
}

// Whoever decides on a warranty is told who holds what, as far as it was written down.
func TestThePaperSaysWhoHoldsWhat(t *testing.T) {
	s := service(t)
	held := func(tag string) string { return part(t, neutral(t, s, tag), "Who holds what", "What was told") }
	open := held("T-0417")
	assert.Contains(t, open, "The unit: here.")
	assert.Contains(t, open, "The old parts: here.")
	closed := held("T-0388")
	assert.Contains(t, closed, "The unit: collected by Hanna Ode.")
	assert.Regexp(t, `Pictures: \d+ in this job's record, of them \d+ from before cleaning`,
		strings.ReplaceAll(closed, "&#39;", "'"))
}
