package job_test

import (
	"testing"

	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

// What moves and came off stuck is felt by hand once it is fitted again, unless a new
// one goes in; bolts and covers are not.
func TestWhatWasStuckIsFeltAgain(t *testing.T) {
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
