package web

import (
	"context"
	"corvek/internal/job/jobtest"
	"net/http"
	"regexp"
	"strings"
	"testing"
	"time"

	"corvek/core/explain"
	"corvek/core/shop"
	"corvek/core/unit"
	"corvek/internal/papers"
	"corvek/internal/people"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A job that was handed over shows and prints what it did then, whatever is learned, written
// anew or measured with later. What today makes of it is told beside, with the difference.
func TestAHandedOverJobStaysAsItWas(t *testing.T) {
	t.Parallel()
	s := serve(t)
	jobs, ctx := s.server.Jobs, context.Background()
	lead := people.Actor{Name: "Odd Renfeld", Initials: "OR", Role: people.RoleLead}
	// Handed over anew, so that it is frozen on the day.
	require.NoError(t, jobs.Reopen(ctx, lead, "T-0388", "to be handed over here", unit.TouchesPapers))
	jobtest.HandOver(t, jobs, "T-0388")
	require.NoError(t, papers.Keep(ctx, jobs, lead, "T-0388", s.URL))
	b := s.as("odd")
	shown := func() map[string]string {
		out := map[string]string{}
		for _, path := range append(append([]string{}, unit.Stations...), "report", "certificate", "start-up-card",
			"build-sheet", "dispute", "quote", "parts-list", "tag") {
			_, body := b.get("/jobs/T-0388/" + path)
			out[path] = stamps.ReplaceAllString(body, "")
		}
		return out
	}
	before := shown()
	require.Contains(t, before["report"], "relief spring")
	_, today := b.get("/jobs/T-0388/today")
	assert.NotContains(t, today, "Duty pressure", "what its own conclusion adds to the counts of causes is all")

	st := b.state("T-0388", 1)
	require.NotNil(t, st.Cause)
	// The cause is not known any more, a limit is another, the gauges have no class and are overdue.
	known := *jobs.Knowledge[st.Family.Code]
	known.Causes = nil
	for _, c := range jobs.Knowledge[st.Family.Code].Causes {
		if c.Code != st.Cause.Code {
			known.Causes = append(known.Causes, c)
		}
	}
	base := explain.Base{}
	for code, k := range jobs.Knowledge {
		base[code] = k
	}
	base[st.Family.Code] = &known
	jobs.Knowledge = base
	text, err := jobs.FamilyText(ctx, st.Family.Code)
	require.NoError(t, err)
	other := strings.ReplaceAll(text, "efficiency_duty: 0.90", "efficiency_duty: 0.96")
	require.NotEqual(t, text, other)
	require.NoError(t, jobs.SaveFamily(ctx, lead, st.Family.Code, other, "more is asked"))
	old := time.Date(2020, 1, 1, 0, 0, 0, 0, time.UTC)
	for _, i := range st.Tools {
		require.NoError(t, s.server.Store.SaveInstrument(ctx, &shop.Instrument{Name: i.Name, Kind: i.Kind,
			Resolution: "1 mm", Class: "40", FullScale: "1000 bar", DueOn: &old}))
	}
	require.NoError(t, jobs.Refresh(ctx))

	after := shown()
	for path, was := range before {
		assert.Equal(t, was, after[path], "the page %s is another", path)
	}
	res, today := b.get("/jobs/T-0388/today")
	require.Equal(t, http.StatusOK, res.StatusCode)
	assert.NotContains(t, today, "By other rules of the program")
	for _, words := range []string{"as received: Duty pressure", "at least 90.0 % of theory",
		"at least 96.0 % of theory",
		"due for calibration on 1 Jan 2020", "Worn out in fair service"} {
		assert.Contains(t, today, words)
	}
	pump, err := jobs.Load(ctx, "T-0417", 1)
	require.NoError(t, err)
	assert.NotEqual(t, st.Family, pump.Family, "an open job of the family goes by the new one")

	// Opened again, it is worked out by what is known now.
	require.NoError(t, jobs.Reopen(ctx, lead, "T-0388", "look again", unit.TouchesPapers))
	assert.Nil(t, b.state("T-0388", 1).Cause)
}

// stamps are what is another at each look: tokens, times of the clock, sums of scripts.
var stamps = regexp.MustCompile(`name="(csrf|once)" (value|content)="[^"]*"|data-sum="[^"]*"`)

// What an earlier version handed over is frozen when the program runs, says so, and stays.
func TestAnEarlierHandOverIsFrozenLater(t *testing.T) {
	t.Parallel()
	s := serve(t)
	f, err := s.server.Jobs.Frozen(context.Background(), s.as("odd").state("T-0388", 1).Job)
	require.NoError(t, err)
	require.NotNil(t, f, "it was handed over elsewhere, and frozen as it came in")
	assert.True(t, f.Later)
	_, today := s.as("odd").get("/jobs/T-0388/today")
	assert.Contains(t, today, "was not kept on that day")
	res, _ := s.as("odd").get("/jobs/T-0417/today")
	assert.Equal(t, http.StatusNotFound, res.StatusCode, "of an open job there is no such page")
}
