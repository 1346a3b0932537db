package search

import (
	"testing"

	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every kind of part of every shipped family is spoken of: none is suspected by chance.
func TestEveryKindHasItsManner(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, f := range lib.List() {
		for i := range f.Parts {
			assert.Contains(t, often, f.Parts[i].Kind, "%s: %s", f.Code, f.Parts[i].Code)
		}
	}
}

// How a step shows that it is out, by what is out: a shaft that is stiff binds, a flow too low leaks inside, a
// pressure beside its setting is set, a wet joint weeps, and what follows slowly answers.
func TestHowAStepShows(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, c := range []struct {
		family, step, figure string
		want                 Manner
	}{
		{"external_gear_pump", "hand_turn", "", Binds}, {"external_gear_pump", "hand_turn", "torque", Binds},
		{"external_gear_pump", "run_in", "temperature", Binds}, {"external_gear_pump", "p100", "flow", Leaks},
		{"external_gear_pump", "p100", "torque", Binds}, {"external_gear_pump", "relief", "pressure", Sets},
		{"external_gear_pump", "leak_watch", "", Weeps}, {"axial_piston_pump", "case_flow", "case_flow", Leaks},
		{"axial_piston_pump", "standby", "standby", Sets}, {"axial_piston_pump", "compensator", "", Answers},
		{"double_acting_cylinder", "drift", "drift", Leaks},
		{"double_acting_cylinder", "breakaway", "breakaway", Binds},
		{"winch_brake_pack", "drag", "drag_torque", Binds}, {"relief_valve", "reseat", "", Leaks},
		{"directional_spool_valve", "shift", "", Answers}, {"gas_booster", "hold", "pressure_end", Leaks},
	} {
		step, known := lib[c.family].TestByCode(c.step)
		require.True(t, known, "%s %s", c.family, c.step)
		assert.Equal(t, c.want, MannerOf(step, c.figure), "%s %s %s", c.family, c.step, c.figure)
	}
}
