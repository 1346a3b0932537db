package job_test

import (
	"strings"
	"testing"

	"corvek/core/invented"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is offered as the one thing changed fits the unit: no relief on a cylinder, no bleeding
// of a pump, and the part that the causes point at before all others.
func TestChangesFitTheUnit(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	offered := func(family string) string {
		var words []string
		for _, c := range load(t, s, newUnit(t, s, family)).Changes() {
			words = append(words, c.Words)
		}
		return strings.Join(words, "; ")
	}
	assert.Contains(t, offered("external_gear_pump"), "relief shimmed")
	assert.NotContains(t, offered("external_gear_pump"), "bled")
	cylinder := offered("double_acting_cylinder")
	assert.Contains(t, cylinder, "bled again")
	assert.NotContains(t, cylinder, "relief")
	assert.Contains(t, offered("directional_spool_valve"), "spool washed")
	for _, f := range s.Families().List() {
		assert.LessOrEqual(t, len(load(t, s, newUnit(t, s, f.Code)).Changes()), 5, f.Code)
	}
}

// A clearance of which no leaf has stopped is no figure: nothing is reckoned with it.
func TestAnOpenGapIsNoFigure(t *testing.T) {
	t.Parallel()
	open := measure.Result{HasValue: true, IsLeaves: true, Interval: metrology.Interval{AtLeast: 0.127e-3}}
	assert.False(t, open.Figure())
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	jobtest.OwnSizes(t, s, tag, invented.Sizes{})
	put(t, s, tag, "u1/duty_pressure", "175 bar")
	put(t, s, tag, "u1/viscosity", "46 cSt")
	put(t, s, tag, "u1/part/body/feature/tip_clearance/found/leaf:5 thou", "goes")
	st := load(t, s, tag)
	require.True(t, st.ByCode["body"].Features[0].Found.HasValue)
	for _, g := range st.Gaps {
		assert.False(t, g.Found.Known, g.Name)
	}
	_, lost := st.LostBy(st.ByCode["body"])
	assert.False(t, lost)
	put(t, s, tag, "u1/part/body/feature/tip_clearance/found/leaf:6 thou", "stops")
	_, lost = load(t, s, tag).LostBy(load(t, s, tag).ByCode["body"])
	assert.True(t, lost)
}
