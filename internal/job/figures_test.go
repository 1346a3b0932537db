package job_test

import (
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/origin"
	"corvek/core/unit"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What was read at a test says with what, its limits say whence, and what an exercise showed is no figure of the
// unit.
func TestFiguresOfATestSayWhereTheyAreFrom(t *testing.T) {
	s := press(t)
	of := func(tag string) map[string]origin.Figure {
		out := map[string]origin.Figure{}
		for _, f := range load(t, s, tag).Figures() {
			out[f.Name] = f
		}
		return out
	}
	done := load(t, s, "T-0388")
	read, held := 0, 0
	for name, f := range of("T-0388") {
		assert.NotEmpty(t, f.Origin, name)
		assert.NotEqual(t, origin.Simulated, f.Origin, name)
	}
	for _, p := range done.Counts().Points {
		for i := range p.Figures {
			f := &p.Figures[i]
			name := p.Test.Name + ": "
			if f.Q.IsZero() {
				continue
			}
			read++
			got, there := of("T-0388")[name+strings.ToLower(f.Name)]
			require.True(t, there, name+f.Name)
			assert.Equal(t, origin.Read, got.Origin)
			assert.NotEmpty(t, got.Words, name+f.Name)
			if f.Limits.HasLower {
				held++
				assert.NotEmpty(t, of("T-0388")[name+strings.ToLower(f.Name)+", at least"].Origin)
			}
		}
	}
	assert.Positive(t, read)
	assert.Positive(t, held)

	tag := jobtest.Built(t, s, "check_valve")
	require.NoError(t, s.NextAttempt(t.Context(), iva, tag, 1, bench.Change{}))
	jobtest.Exercise(t, s, tag, false)
	simulated := 0
	for name, f := range of(tag) {
		if f.Origin == origin.Simulated {
			simulated++
			assert.NotEqual(t, unit.SourceTyped, load(t, s, tag).Attempt().Source, name)
		}
	}
	assert.Positive(t, simulated)
}
