package practice_test

import (
	"testing"

	"corvek/core/explain"
	"corvek/core/hidden"
	"corvek/core/practice"

	"github.com/stretchr/testify/assert"
)

// What somebody tends to is told in the trade's words, what weighs most first, and the next case asks for it; who has
// no habits goes on to the next kind that is harder, and to a family that he worked on least.
func TestWhatSomebodyTendsTo(t *testing.T) {
	families := []string{"check_valve", "relief_valve"}
	right := func(kind string) practice.Done { return practice.Done{Family: "check_valve", Kind: kind, Right: true} }
	early := right(hidden.Own)
	early.Early, early.Right = true, false
	outside := right(hidden.Own)
	outside.Missed = []explain.Reach{explain.Asked}
	old := make([]practice.Done, 12)
	for i := range old {
		old[i] = right(hidden.Own)
	}
	for _, c := range []struct {
		name string
		done []practice.Done
		kind string
		says string
	}{
		{"nothing done yet", nil, hidden.Own, ""},
		{"one is no habit", []practice.Done{early}, hidden.Own, ""},
		{"two rightly", []practice.Done{right(hidden.Own), right(hidden.Own)}, hidden.Astray, ""},
		{"the last of them not", []practice.Done{{Kind: hidden.Own}, right(hidden.Own), right(hidden.Own)}, hidden.Own,
			""},
		{"jumps", []practice.Done{early, early, right(hidden.Own)}, hidden.Astray, "in 2 of the last 3"},
		{"does not ask", []practice.Done{outside, outside, early}, hidden.Away, "before those at its machine"},
		{"long ago", append(old, early, early, early, early, early, early), hidden.Astray, ""},
	} {
		h := practice.HabitsOf(c.done, families)
		assert.Equal(t, c.kind, h.Kind, c.name)
		assert.Equal(t, len(c.done), h.Cases)
		if c.says == "" {
			assert.Empty(t, h.Says, c.name)
		} else if assert.NotEmpty(t, h.Says, c.name) {
			assert.Contains(t, h.Says[0], c.says, c.name)
		}
	}
	assert.Equal(t, "relief_valve", practice.HabitsOf([]practice.Done{right(hidden.Own)}, families).Family)
}
