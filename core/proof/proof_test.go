package proof_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/leakage"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func gearPump(t testing.TB) *family.Family {
	lib, err := family.Shipped()
	require.NoError(t, err)
	return lib["external_gear_pump"]
}

func model(t testing.TB, side, tip float64) proof.Model {
	f := gearPump(t)
	gaps := map[string]float64{"rear_plate.side_clearance": side, "body.tip_clearance": tip}
	paths, lacks := proof.Paths(f, func(s string) (float64, bool) { g, ok := gaps[s]; return g, ok }, sizes)
	require.Empty(t, lacks)
	return proof.Model{
		Displacement: 32e-6, Speed: 1450, Viscosity: 46e-6 * 870, Paths: paths,
		Relief: proof.ReliefOf(0.042, 33e3, 34.2e-3, 4.1e-3),
	}
}

// sizes are those of one gear pump: tips of 45 mm on journals of 17 mm leave sides 14 mm wide.
func sizes(path string) (float64, bool) {
	v, ok := map[string]float64{"drive_gear.tip": 45e-3, "drive_gear.journal": 17e-3, "drive_gear.width": 35e-3,
		"drive_gear.side_land": 22e-3, "drive_gear.tip_land": 16e-3}[path]
	return v, ok
}

// Four side gaps of half 0.2159 mm, 14 wide and 22 long, at 175 bar and 40.02 mPa·s:
// 4 · 0.014 · (0.10795e-3)³ · 175e5 / (12 · 0.04002 · 0.022) = 1.1668e-4 m³/s = 7.00 L/min.
func TestLeakByHand(t *testing.T) {
	m := model(t, 0.2159e-3, 0)
	assert.InDelta(t, 7.00, m.Leak(175e5)*6e4, 0.01)
	assert.InDelta(t, 46.4, m.Theoretical()*6e4, 1e-9)
	assert.InDelta(t, (46.4-7.00)/46.4, m.Efficiency(175e5), 1e-4)
}

// 33 N/mm over 7.8 mm on a 4.1 mm seat opens at 194.97 bar.
func TestReliefByHand(t *testing.T) {
	r := proof.ReliefOf(0.042, 33e3, 34.2e-3, 4.1e-3)
	assert.InDelta(t, 194.97e5, r.Cracking, 0.02e5)
	m := model(t, 0.1e-3, 0.1e-3)
	held := m.Stall(400e5)
	assert.InDelta(t, r.Cracking, held, 1e3)
	worn := proof.ReliefOf(0.0408, 33e3, 34.2e-3, 4.1e-3)
	assert.Less(t, worn.Cracking, 175e5, "a spring 1.2 mm short opens below duty")
}

func TestNoReliefStallsAtTheCeiling(t *testing.T) {
	m := proof.Model{Displacement: 1e-6, Speed: 1000, Viscosity: 0.04}
	assert.Equal(t, 300e5, m.Stall(300e5))
}

func TestDeliveryFallsWithPressureAndClearance(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		gap := rapid.Float64Range(20e-6, 400e-6).Draw(rt, "gap")
		p := rapid.Float64Range(1e5, 180e5).Draw(rt, "pressure")
		a, b := model(t, gap, 100e-6), model(t, gap*1.1, 100e-6)
		if b.Deliver(p) > a.Deliver(p) || a.Deliver(p*1.05) > a.Deliver(p) {
			rt.Fatal("more gap or more pressure delivered more")
		}
	})
}

func TestVerdicts(t *testing.T) {
	a := family.Accept{EfficiencyFree: 0.97, EfficiencyDuty: 0.90, ReliefLow: 1.05, ReliefHigh: 1.2}
	assert.InDelta(t, 0.935, proof.Band(a, 0.5), 1e-12)
	assert.InDelta(t, 0.90, proof.Band(a, 1.3), 1e-12, "level beyond duty")
	assert.True(t, proof.Reached(170e5, 175e5))
	assert.False(t, proof.Reached(169e5, 175e5))
	mid, ok := proof.Renewed(metrology.Between(76e-6, 178e-6))
	assert.True(t, ok)
	assert.InDelta(t, 127e-6, mid, 1e-12)
	half, ok := proof.Renewed(metrology.AtMost(152e-6))
	assert.True(t, ok)
	assert.InDelta(t, 76e-6, half, 1e-12)
	_, ok = proof.Renewed(metrology.AtLeast(1e-6))
	assert.False(t, ok, "a lower limit alone has no middle")
	usual := proof.ReliefBand(a, unit.Setting{}, 175e5)
	assert.Equal(t, metrology.Between(1.05*175e5, 1.2*175e5), usual)
	low, err := quantity.Parse("160 bar", quantity.Pressure)
	require.NoError(t, err)
	own := proof.ReliefBand(a, unit.Setting{Low: low}, 175e5)
	assert.Equal(t, metrology.AtLeast(160e5), own, "the unit's own setting wins")
	none := proof.ReliefBand(family.Accept{}, unit.Setting{}, 175e5)
	assert.True(t, none.Empty(), "without a limit there is a figure and no verdict")
	test := family.Test{Good: []string{"dry"}}
	assert.Equal(t, metrology.Out, proof.JudgeWord(test, "drips"))
	assert.Equal(t, metrology.Verdict(""), proof.JudgeWord(test, ""))
	assert.Equal(t, metrology.Undecided, proof.Sum([]metrology.Verdict{"in", ""}))
	assert.Equal(t, metrology.Out, proof.Sum([]metrology.Verdict{"in", "", "out"}))
	assert.Equal(t, metrology.In, proof.Sum([]metrology.Verdict{"in", "in"}))
}

func TestPathsLeaveOutWhatIsUnknown(t *testing.T) {
	tips := func(s string) (float64, bool) { return 1e-4, s == "body.tip_clearance" }
	paths, _ := proof.Paths(gearPump(t), tips, sizes)
	require.Len(t, paths, 1)
	none, lacks := proof.Paths(gearPump(t), tips, func(string) (float64, bool) { return 0, false })
	assert.Empty(t, none, "no proportion of a drawing stands in for a size")
	assert.Equal(t, []string{"drive_gear.width", "drive_gear.tip_land"}, lacks)
	assert.Zero(t, proof.ReliefOf(0.042, 0, 34e-3, 4e-3), "without its rate a spring is no relief")
	assert.Equal(t, leakage.ShapePlane, paths[0].Shape)
}
