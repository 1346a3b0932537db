package family_test

import (
	"strings"
	"testing"

	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Any unit can be given a step more: a shared one, or one in own words. It is owed from then on.
func TestAUnitIsGivenAStepMore(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	own, err := family.OwnStepCode("Bleeds itself, twice", []string{"time", "pressure"})
	require.NoError(t, err)
	assert.Equal(t, "step:own:bleeds_itself_twice:time:pressure", own)
	f, err := lib["relief_valve"].As("", map[string]int{own: 1, family.SharedStepCode("hand_turn"): 1})
	require.NoError(t, err)
	step, known := f.TestByCode("own_bleeds_itself_twice")
	require.True(t, known)
	assert.Equal(t, "Bleeds itself twice", step.Name)
	assert.Len(t, step.Reads, 2)
	_, known = f.TestByCode("hand_turn")
	assert.True(t, known)
	for _, code := range []string{"own_bleeds_itself_twice", "hand_turn"} {
		owed, there := f.OwedByCode(code)
		require.True(t, there)
		assert.Equal(t, []string{code}, owed.By)
	}
	_, known = lib["relief_valve"].TestByCode("hand_turn")
	assert.False(t, known, "the family itself stays")
	for _, bad := range []string{"step:", "step:own:", "step:no_such", "step:own:x:no_figure", "relief_valve",
		"step:own:a:time:time:time:time:time"} {
		_, is := family.StepOfCode(bad)
		assert.False(t, is, bad)
	}
	_, err = family.OwnStepCode(" , ", nil)
	assert.Error(t, err)
	_, err = family.OwnStepCode(strings.Repeat("long ", 40), nil)
	assert.Error(t, err)
}

// What a step's own code says is what its words were, whatever was typed.
func FuzzOwnStepCode(f *testing.F) {
	f.Add("Bleeds itself")
	f.Add("ÄÖ 90 % :/=")
	f.Fuzz(func(t *testing.T, name string) {
		code, err := family.OwnStepCode(name, []string{"time"})
		if err != nil {
			return
		}
		if strings.ContainsAny(code, " =/") {
			t.Fatalf("%q cannot stand in an address", code)
		}
		if _, is := family.StepOfCode(code); !is {
			t.Fatalf("%q is not read again", code)
		}
	})
}
