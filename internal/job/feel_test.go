package job_test

import (
	"slices"
	"testing"

	"corvek/core/family"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What moves and came off stuck is felt by hand once it is fitted again, unless a new
// one goes in; bolts and covers are not.
func TestWhatWasStuckIsFeltAgain(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "axial_piston_pump")
	put(t, s, tag, "u1/not_asked", "came in without its machine")
	for _, part := range []string{"control_spool", "cover"} {
		put(t, s, tag, "u1/part/"+part+"/off", "yes")
		put(t, s, tag, "u1/part/"+part+"/stuck", "seized")
		put(t, s, tag, "u1/part/"+part+"/step/done", "yes")
	}
	st := load(t, s, tag)
	assert.True(t, st.ByCode["control_spool"].AsksFeel())
	assert.False(t, st.ByCode["cover"].AsksFeel() && !st.ByCode["cover"].Def.TurnCheck)
	assert.Contains(t, stopsOf(st, "control_spool"), unit.StopTurn)
	assert.Contains(t, st.ByCode["control_spool"].Proposal.Reason, "came off seized")

	put(t, s, tag, "u1/part/control_spool/step/turn", "tight_spot")
	assert.Contains(t, stopsOf(load(t, s, tag), "control_spool"), unit.StopStiff)
	put(t, s, tag, "u1/part/control_spool/step/turn", "free")
	assert.NotContains(t, stopsOf(load(t, s, tag), "control_spool"), unit.StopTurn)
	put(t, s, tag, "u1/part/control_spool/step/turn", "")
	put(t, s, tag, "u1/part/control_spool/decision/choice", "replace")
	assert.NotContains(t, stopsOf(load(t, s, tag), "control_spool"), unit.StopTurn, "a new one was never stuck")
}

// The shaft is felt at what closes over what turns, after each round, and nowhere before; since which round it went
// stiff tells where to look.
func TestTheShaftIsFeltAtWhatClosesOverIt(t *testing.T) {
	t.Parallel()
	lib, err := family.Shipped()
	require.NoError(t, err)
	turning := []string{"gear_shaft", "rotor", "gerotor", "barrel", "cam"}
	braked := []string{"winch_brake_pack"}                      // the brake holds it
	lever := []string{"lubricator_pump", "injector_lubricator"} // nothing turns there
	s := emptyShop(t)
	for code, f := range lib {
		st := load(t, s, newUnit(t, s, code))
		turns := slices.ContainsFunc(f.Parts, func(p family.Part) bool { return slices.Contains(turning, p.Kind) })
		felt := 0
		for _, p := range st.Parts {
			if !p.Def.TurnCheck {
				continue
			}
			felt++
			assert.True(t, p.Def.Tightened(), "%s: %s is not tightened, and nothing is closed by it", code, p.Code)
		}
		asked := turns && (f.Action == "pump" || f.Action == "motor") && !slices.Contains(braked, code) &&
			!slices.Contains(lever, code)
		if asked {
			assert.Positive(t, felt, "%s turns and is nowhere felt", code)
		}
	}

	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/part/cover_bolts/step/done", "yes")
	put(t, s, tag, "u1/part/cover_bolts/step/turn", "stiff")
	put(t, s, tag, "u1/part/cover_bolts/step/turn_round", "half")
	stiff := ""
	for _, stop := range load(t, s, tag).Stops["build"] {
		if stop.Kind == unit.StopStiff {
			stiff = stop.Text
		}
	}
	assert.Contains(t, stiff, "at half the torque")
}
