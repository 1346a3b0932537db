package family_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/order"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Of a pump whose cover decides the rotation the right place of the cover follows from which way it is to turn, both
// ways round; nobody said, nothing is right.
func TestAFacingGoesByTheRotation(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	pump := lib["bent_axis_pump"]
	at := func(rotation string) string {
		p, known := pump.Turning(rotation).PartByCode("cover")
		require.True(t, known)
		return p.Facing
	}
	assert.Equal(t, "mark to the right-hand port", at("right"))
	assert.Equal(t, "mark to the left-hand port", at("left"))
	assert.Empty(t, at(""))
	assert.Empty(t, at("both"))
	p, _ := pump.PartByCode("cover")
	assert.Empty(t, p.Facing, "the family itself stays as it is")
	assert.Same(t, lib["axial_piston_motor"], lib["axial_piston_motor"].Turning("left"))
}

// A pump is tested as a pump and a motor as a motor, though they share their rotating group.
func TestABentAxisPumpIsNoMotor(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	pump, motor := lib["bent_axis_pump"], lib["bent_axis_unit"]
	for step, ofPump := range map[string]bool{"p100": true, "slip_cw": false, "start_torque": false, "p50": true} {
		_, there := pump.TestByCode(step)
		assert.Equal(t, ofPump, there, "pump: %s", step)
		_, there = motor.TestByCode(step)
		assert.Equal(t, !ofPump, there, "motor: %s", step)
	}
	bypassed, err := pump.As("bypass", nil)
	require.NoError(t, err)
	bypass, there := bypassed.TestByCode("bypass")
	require.True(t, there)
	assert.Contains(t, bypass.Name, "coil off and on")
	_, owed := bypassed.OwedByCode("bypasses")
	assert.True(t, owed)
}

// A part inside another of the family keeps it by its own code; those of one assembly are told apart by prefix.
func TestAValveInsideAnotherPart(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	f, err := lib["directional_spool_valve"].As("inner", nil)
	require.NoError(t, err)
	o := orderOf(t, f)
	assert.Equal(t, []string{"spool"}, o.InWay(order.Set{"spool": true, "inner_keeper": true}, "inner_keeper"))
	assert.Equal(t, []string{"inner_keeper"}, o.InWay(order.Set{"inner_keeper": true}, "inner_spring"))
	_, owed := f.OwedByCode("inner")
	assert.True(t, owed)
}
