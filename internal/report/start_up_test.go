package report

import (
	"strings"
	"testing"

	"corvek/core/family"
	"corvek/core/unit"
	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// No step of any family speaks of oil on a coolant pump, or of a filter where there is none;
// on an oil circuit with a filter every word of it stands.
func TestTheCardSaysNothingAgainstTheJob(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for code, f := range lib {
		of := func(fluid, filtration string) string {
			st := &job.State{Family: f, Unit: &unit.Unit{Fluid: fluid, Filtration: filtration}, Job: &unit.Job{}}
			var out []string
			for _, step := range f.StartUp {
				if step = fits(st, step); step != "" {
					assert.True(t, strings.HasSuffix(step, "."), "%s: %q", code, step)
					out = append(out, step)
				}
			}
			return strings.ToLower(strings.Join(out, "\n"))
		}
		coolant := of("coolant 95/5", "none")
		assert.NotContains(t, coolant, "clean oil", code)
		assert.NotContains(t, coolant, "filter", code)
		assert.Equal(t, strings.ToLower(strings.Join(f.StartUp, "\n")), of("mineral oil VG 46", "return 10 µm"), code)
		if unknown := of("mineral oil VG 46", ""); strings.Contains(unknown, "change the return filter") {
			assert.Contains(t, unknown, "where there is one", code)
		}
	}
}

func TestWithoutAClause(t *testing.T) {
	assert.Equal(t, "Level and noise after the first hour.",
		without("Level and noise after the first hour; change the return filter after fifty hours.", "filter"))
	assert.Empty(t, without("Change the return filter after fifty hours.", "filter"))
}
