package rig_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/internal/rig"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func stand(t *testing.T, side, spring float64) rig.Simulated {
	lib, err := family.Shipped()
	require.NoError(t, err)
	f := lib["external_gear_pump"]
	duty := proof.Duty{Pressure: 175e5, HasPressure: true, Speed: 1450, HasSpeed: true, Displacement: 32e-6,
		HasDisplacement: true}
	return rig.Simulated{
		Family: f, Duty: duty, Seed: "T-1/1", SealOK: true,
		Model: proof.Model{Displacement: 32e-6, Speed: 1450, Viscosity: 0.04, Relief: proof.ReliefFor(f, spring, 0),
			Paths: proof.Paths(f, func(s string) (float64, bool) { return side, s == "rear_plate.side_clearance" })},
	}
}

func flow(t *testing.T, s rig.Simulated, code string) float64 {
	test, ok := s.Family.TestByCode(code)
	require.True(t, ok)
	q, err := quantity.Parse(s.Run(*test).Figures["flow"], quantity.Flow)
	require.NoError(t, err)
	return q.SI * 6e4
}

func TestStandFollowsTheClearance(t *testing.T) {
	good, worn := stand(t, 127e-6, 0.042), stand(t, 230e-6, 0.042)
	assert.InDelta(t, 45.0, flow(t, good, "p100"), 0.5)
	assert.InDelta(t, 46.4-8.47, flow(t, worn, "p100"), 0.5)
	assert.Equal(t, flow(t, good, "p100"), flow(t, good, "p100"), "the same try reads the same")
}

func TestStandIsHeldByAWeakRelief(t *testing.T) {
	s := stand(t, 127e-6, 0.0408)
	test, _ := s.Family.TestByCode("p100")
	p, err := quantity.Parse(s.Run(*test).Figures["pressure"], quantity.Pressure)
	require.NoError(t, err)
	assert.Less(t, p.SI, 174e5, "the relief opens before duty pressure is reached")
}

func TestStandRepeatsAStiffShaftAndAnOldSeal(t *testing.T) {
	s := stand(t, 127e-6, 0.042)
	s.Turn, s.SealOK = "stiff", false
	turn, _ := s.Family.TestByCode("hand_turn")
	leak, _ := s.Family.TestByCode("leak_watch")
	assert.Equal(t, "stiff", s.Run(*turn).Word)
	assert.Equal(t, "drips", s.Run(*leak).Word)
}
