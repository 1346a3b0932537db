package bench_test

import (
	"testing"

	"corvek/core/bench"
	"corvek/core/bench/benchtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is begun and not finished is counted, and what comes next is named; what was not begun is no matter of the one
// who takes the job over.
func TestWhatIsHalfDone(t *testing.T) {
	j := worn(t)
	stations := func() (out []string) {
		for _, w := range benchtest.State(t, j).UnderWay() {
			out = append(out, w.Station)
		}
		return out
	}
	assert.NotContains(t, stations(), "strip")
	u := j.Units[0]
	u.Parts[0].Off, u.Parts[1].Off = true, true
	var strip bench.UnderWay
	for _, w := range benchtest.State(t, j).UnderWay() {
		if w.Station == "strip" {
			strip = w
		}
	}
	require.NotEmpty(t, strip.Station)
	assert.Regexp(t, `^2 of \d+ parts are off$`, strip.Words)
	assert.NotContains(t, stations(), "build")
}
