package build_test

import (
	"testing"

	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSuspectIsTheStepItWentStiffAt(t *testing.T) {
	steps := []build.Step{{Name: "gears", Done: true, Turn: build.Free},
		{Name: "front cover", Done: true, Turn: build.Stiff}, {Name: "bolts"}}
	assert.Equal(t, "stiff since front cover went in", build.Suspect(steps))
	assert.Empty(t, build.Suspect(steps[:1]))
}

// The torque to turn a shaft tells the joint since which it is stiff, also where nobody called
// it stiff; friction that grows a little is none.
func TestSuspectByTurningTorque(t *testing.T) {
	steps := []build.Step{{Name: "gears", Torque: 0.6}, {Name: "dowels"}, {Name: "front cover", Torque: 0.8},
		{Name: "cover bolts", Torque: 1.9}}
	assert.Empty(t, build.Suspect(steps[:3]))
	assert.Equal(t, "harder to turn since cover bolts went in, 1.9 N·m after 0.8", build.Suspect(steps))
	assert.Equal(t, 3, build.StiffAt(steps))
	assert.Equal(t, -1, build.StiffAt(steps[:3]))
	assert.False(t, build.Rose(0.05, 0.2), "what is hardly felt is no jump")
}

// A back-up ring has a right side where its family says nothing; any other part only what its
// family says.
func TestWaysToFit(t *testing.T) {
	ways, right := build.FittingWays(&family.Part{Kind: "backup_ring"})
	assert.Len(t, ways, 3)
	assert.Equal(t, build.SideAway, right)
	_, right = build.FittingWays(&family.Part{Kind: "backup_ring", BothSides: true})
	assert.Equal(t, build.SideBoth, right)
	ways, right = build.FittingWays(&family.Part{Kind: "plug"})
	assert.Empty(t, ways)
	assert.Empty(t, right)
	assert.True(t, build.Wets(&family.Part{Kind: "o_ring"}))
	assert.False(t, build.Wets(&family.Part{Kind: "gasket"}))
	assert.Contains(t, build.ChecksOf(&family.Part{Kind: "o_ring", Checks: []string{"the thin one"}}), "the thin one")
}

// Each family is filled as it is built: pumps primed, cylinders bled, valves cracked open; no
// step that does not belong to it.
func TestFillingOfTheFamilies(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	codes := func(name string) (out []string) {
		f := lib[name]
		for _, s := range build.FillingOf(f, f.Has()) {
			assert.True(t, build.KnowsFilling(s.Code))
			out = append(out, s.Code)
		}
		return out
	}
	assert.Equal(t, []string{"primed"}, codes("external_gear_pump"))
	assert.Equal(t, []string{"case", "primed"}, codes("axial_piston_pump"))
	assert.Equal(t, []string{"case"}, codes("bent_axis_unit"))
	assert.Equal(t, []string{"bled"}, codes("double_acting_cylinder"))
	assert.Equal(t, []string{"caps"}, codes("directional_spool_valve"))
	assert.Contains(t, codes("intensifier_ram"), "reservoir")
	assert.False(t, build.KnowsFilling("tank"))
}

// The groove of 4.5 to 5.3 mm and a lip 5 mm behind the seal's face: flush it runs in the
// groove, 0.3 mm deeper it does not.
func TestLipBesideTheGroove(t *testing.T) {
	mm := func(v float64) quantity.Quantity {
		return quantity.Quantity{Typed: "x", SI: v / 1000, Dim: quantity.Length}
	}
	lip := unit.Lip{Groove: mm(4.5), Width: mm(0.8), Position: mm(5), Bore: mm(12)}
	show := func(m float64) string { return quantity.Show(m, quantity.Length, quantity.Metric) }
	run := build.LipOf(lip, mm(7), mm(0.1), show)
	assert.True(t, run.Known && run.OnOld)
	assert.NotEmpty(t, run.Spans)
	assert.False(t, build.LipOf(lip, mm(7), mm(1), show).OnOld)
	assert.False(t, build.LipOf(lip, mm(7), quantity.Quantity{}, show).OnOld, "not pressed yet")
	assert.Equal(t, "the seal's width", build.LipOf(lip, quantity.Quantity{}, mm(1), show).Needs)
	lip.Groove, lip.Width = mm(4), mm(9)
	assert.True(t, build.LipOf(lip, mm(7), mm(1), show).None)
}
