package report_test

import (
	"slices"
	"strings"
	"testing"

	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/report"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// lines are the card's of a unit in one text.
func lines(t *testing.T, change func(*unit.Unit)) string {
	t.Helper()
	s := service(t)
	storetest.Bend(s.Store) // what is written on the unit is tried out on what was read
	st := data(t, s, "T-0388").S
	change(st.Unit)
	return strings.Join(report.NoteOf(st, quantity.Metric).Lines, "\n")
}

// The card tells whoever mounts and runs it what is normal, what he never does, and what is looked at in
// the first hours, by what was found and by the machine.
func TestTheCardIsOfThisMachine(t *testing.T) {
	card := lines(t, func(u *unit.Unit) { u.Filtration = "return 10 µm" })
	assert.Contains(t, card, "Normal: it growls until the air is out")
	assert.Contains(t, card, "Never try it against a closed line")
	assert.Contains(t, card, "Mounting bolts and unions")
	assert.NotContains(t, card, "No filter in this circuit")
	assert.NotContains(t, card, "other sump")

	card = lines(t, func(u *unit.Unit) {
		u.Filtration = "none"
		u.GainedElsewhere = quantity.Kept("4 L", quantity.Volume, "")
	})
	assert.Contains(t, card, "No filter in this circuit: change the oil")
	assert.Contains(t, card, "The other sump had gained 4 L: mark its level")
}

// A unit that runs in place of another has what the other had: its variant, what was changed in the
// field, and what ended it, where nobody cured that.
func TestTheCardOfAReplacement(t *testing.T) {
	replaced := func(u *unit.Unit) {
		u.Ending, u.EndingNote = unit.EndReplaced, "a new one of the same maker"
		u.Rotation, u.Modification, u.Changed = "right", "a longer shaft key", "the coupling in spring"
		u.Conclusions = []*unit.Conclusion{{Round: 1, Cause: "contamination"}}
	}
	card := lines(t, replaced)
	assert.Contains(t, card, "It must be the same variant: GX-32 R, shaft 20, right-hand rotation")
	assert.Contains(t, card, "The old one was modified in the field: a longer shaft key; carry it over, or ask")
	assert.Contains(t, card, "Changed on the machine lately: the coupling in spring.")
	assert.Contains(t, card, "Not cured, as far as we know: ")
	assert.Contains(t, card, "call before it runs")

	card = lines(t, func(u *unit.Unit) {
		replaced(u)
		u.ModificationKept = "carried over to the new one"
		u.Conclusions[0].Cured = "suction hose renewed, breather cleaned"
	})
	assert.Contains(t, card, "modified in the field: a longer shaft key; carried over to the new one.")
	assert.NotContains(t, card, "Not cured")
}

// Nobody who runs a machine is asked to try it against a closed line, whatever was complained of.
func TestNobodyTriesItAgainstAClosedLine(t *testing.T) {
	for _, s := range family.Symptoms {
		words := family.AtWork([]string{s.Code})
		require.NotEmpty(t, words, s.Code)
		assert.NotContains(t, words, "closed line", s.Code)
	}
	assert.True(t, slices.ContainsFunc(family.Symptoms, func(s family.Symptom) bool {
		return strings.Contains(s.Again, "closed line")
	}), "at a stand with its relief it is")
}
