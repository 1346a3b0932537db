package handover

import (
	"strings"
	"testing"

	"corvek/core/family"

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
			var out []string
			for _, step := range f.StartUp {
				if step = (Circuit{fluid, filtration}).Fit(step); step != "" {
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

// A new spring runs against nothing, so it asks for no running in; a pump's new plate does.
func TestOnlyRunningPartsAreRunIn(t *testing.T) {
	assert.False(t, Runs("spring"))
	assert.True(t, Runs("plate"))
	for _, c := range []struct {
		renewed Renewed
		action  string
		begins  []string
	}{
		{Renewed{Soft: true}, "pump", []string{"New seals", "Level"}},
		{Renewed{Soft: true, Running: true}, "motor", []string{"New seals", "New running parts"}},
		{Renewed{Running: true}, "cylinder", []string{"Level"}},
		{Renewed{}, "valve", nil},
	} {
		asks := c.renewed.Asks(c.action)
		require.Len(t, asks, len(c.begins))
		for i, begins := range c.begins {
			assert.True(t, strings.HasPrefix(asks[i], begins), asks[i])
		}
	}
}

func TestEverythingAskedHasItsDay(t *testing.T) {
	for _, ask := range Asks {
		days, ok := UsualDays(ask)
		assert.True(t, ok)
		assert.Positive(t, days)
	}
	_, ok := UsualDays("weather")
	assert.False(t, ok)
}

// The kinds that run are kinds that there are.
func TestRunningKindsExist(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	there := map[string]bool{}
	for _, f := range lib {
		for i := range f.Parts {
			there[f.Parts[i].Kind] = true
		}
	}
	for _, kind := range running {
		assert.True(t, there[kind], kind)
	}
}
