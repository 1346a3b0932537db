package job_test

import (
	"testing"

	"corvek/core/decide"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A new cartridge goes in on the pins that the old one had: they are listed beside it until somebody renews them too.
func TestWhatIsNotRenewedBesideWhatIsStandsInAList(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "vane_pump")
	for _, code := range []string{"rotor", "vanes", "cam_ring", "front_plate", "rear_plate", "dowels"} {
		put(t, s, tag, "u1/part/"+code+"/off", "yes")
	}
	assert.Empty(t, load(t, s, tag).Besides())
	put(t, s, tag, "u1/part/rotor/decision/choice", "replace")
	besides := load(t, s, tag).Besides()
	require.Len(t, besides, 1)
	assert.Equal(t, []string{"cartridge pins"}, besides[0].Old, "ring, vanes and plates go with their set")
	assert.Contains(t, besides[0].New, "cam ring")
	put(t, s, tag, "u1/part/dowels/decision/choice", "replace")
	assert.Empty(t, load(t, s, tag).Besides())
}

// The barrel of a gas stage is scored: it is renewed, and no way saves it.
func TestAScoredGasBarrelIsNotHoned(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "gas_booster")
	put(t, s, tag, "u1/part/gas_barrel/off", "yes")
	put(t, s, tag, "u1/part/gas_barrel/mark/scored/state", unit.MarkSeen)
	barrel := load(t, s, tag).ByCode["gas_barrel"]
	assert.Equal(t, decide.Replace, barrel.Choice(), barrel.Proposal.Reason)
	assert.Empty(t, barrel.Ways())
}

// A key carries the load: off and not looked at it is open, and one word settles it.
func TestAKeyIsLookedAtBeforeItGoesBack(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/part/key/off", "yes")
	assert.Equal(t, decide.Open, load(t, s, tag).ByCode["key"].Choice())
	put(t, s, tag, "u1/part/key/sound", "yes")
	assert.Equal(t, decide.Keep, load(t, s, tag).ByCode["key"].Choice())
}

// What the root renews is proposed, where it lies outside once somebody acts on it; what only contributed renews no
// part that bears no mark.
func TestAContributingCauseRenewsNothingOnAGuess(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	st := load(t, s, tag)
	var cause, part string
	for i := range st.Known.Causes {
		c := &st.Known.Causes[i]
		for _, p := range st.Parts {
			if c.Where == "outside" && c.RenewsPart(p.Code, p.Def.Kind) && !p.Def.Renew {
				cause, part = c.Code, p.Code
			}
		}
	}
	require.NotEmpty(t, cause)
	renewed := func() bool { return load(t, s, tag).ByCode[part].Choice() == decide.Replace }
	require.NoError(t, s.AddCause(t.Context(), iva, tag, 1, unit.RoleContributing, cause, ""))
	assert.False(t, renewed(), "%s renews %s on a guess", cause, part)
	require.NoError(t, s.AddCause(t.Context(), iva, tag, 1, unit.RoleRoot, cause, ""))
	assert.False(t, renewed(), "%s lies outside and nobody acts on it", cause)
	number := load(t, s, tag).Unit.Causes[1].Number
	put(t, s, tag, u1("cause", number, "action"), "pressure limiter set at the drive")
	assert.True(t, renewed(), "%s is named and renews %s", cause, part)
}
