package explain_test

import (
	"testing"

	"corvek/core/explain"

	"github.com/stretchr/testify/assert"
)

// Marks that need hours beside an instant break: run on afterwards, or two events.
func TestTimelineTellsWhatCannotBeSo(t *testing.T) {
	k := base(t)["axial_piston_pump"]
	fast, _ := k.CauseByCode("case_pressure_fast")
	hot, _ := k.CauseByCode("overheating")
	found := notes("retainer_broken case_gasket_split varnish slipper_edges !milky_oil")
	one := k.Timeline(explain.Story{Causes: []*explain.Cause{fast}}, found,
		map[string]string{"case_gasket_split": "old"})
	assert.Len(t, one.Sudden, 2)
	assert.Len(t, one.Hours, 1)
	assert.Len(t, one.Gradual, 1, "an absent mark is no event")
	assert.Contains(t, one.Conflicts, "Brown varnish: that needs time; it ran on afterwards, or there were two events")
	assert.Contains(t, one.Conflicts, "Case gasket split looks old: it was there before")

	two := k.Timeline(explain.Story{Causes: []*explain.Cause{fast, hot}}, found, nil)
	assert.Empty(t, two.Conflicts, "two events answer for all of it")

	slow := k.Timeline(explain.Story{Causes: []*explain.Cause{hot}}, found, nil)
	assert.Contains(t, slow.Conflicts, "Retainer plate broken or bent: that takes an instant, and nothing told here "+
		"is sudden")
}
