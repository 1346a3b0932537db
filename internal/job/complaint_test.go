package job_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/internal/job/jobtest"
	"corvek/internal/report"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The complaint's own condition is a step like any other: still there it fails, and only on the
// machine it is said so, and not shown.
func TestTheComplaintIsCalledUpAgain(t *testing.T) {
	s, ctx := press(t), context.Background()
	now := time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return now }
	jobtest.ToTheStand(t, s, "T-0417")
	require.NoError(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{}))
	step := func(name string) string { return u1("attempt", 1, "point/complaint/"+name) }
	state := func() metrology.Verdict { return load(t, s, "T-0417").Attempt().Sum }
	last := func() (name, how string) {
		points := load(t, s, "T-0417").Attempt().Points
		p := points[len(points)-1]
		require.Equal(t, family.ComplaintTest, p.Test.Code)
		return p.Test.Name, p.Test.How
	}
	name, how := last()
	assert.Contains(t, name, "weak when hot")
	assert.Contains(t, how, "as hot as on the machine")

	put(t, s, "T-0417", step("word"), family.ComplaintStill)
	assert.Equal(t, metrology.Out, state(), "the complaint came again: that is no pass")
	put(t, s, "T-0417", step("word"), "")
	put(t, s, "T-0417", step("not_applicable"), "only on the machine")
	runTest(t, s, "T-0417", &now)
	st := load(t, s, "T-0417")
	assert.Equal(t, metrology.In, st.Attempt().Sum)
	_, missing := st.Claim()
	assert.Contains(t, strings.Join(missing, "; "), "what was complained of is gone in its own condition",
		"said why it was not possible, and so not shown")
	card := strings.Join(report.StartUp(st), "\n")
	assert.Contains(t, card, "Not repeated at our stand, so try it here: weak when hot")
	sister := load(t, s, "T-0388")
	assert.NotContains(t, strings.Join(report.StartUp(sister), "\n"), "Not repeated")
	assert.Contains(t, fmt.Sprint(report.New(sister, quantity.Metric, now).Tests),
		"gone, pressure 175.0 bar, temperature 58 °C")
}
