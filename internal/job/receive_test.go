package job_test

import (
	"context"
	"slices"
	"testing"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/machine"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestGaugeAnswersAndVariantOnAJob(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "cam_piston_pump")
	put(t, s, tag, "u1/gauge/new_unit", "same")
	put(t, s, tag, "u1/gauge/inlet", "good")
	st := load(t, s, tag)
	assert.Equal(t, machine.Cleared, st.Gauge.Verdict)
	assert.Contains(t, stops(st, "strip"), "The unit is cleared")
	put(t, s, tag, "u1/gauge/new_unit", "")
	assert.NotContains(t, stops(load(t, s, tag), "strip"), "cleared")
	var fe *field.Error
	require.ErrorAs(t, edit(s, context.Background(), iva, tag, "u1/gauge/inlet", "maybe", "good"), &fe)

	put(t, s, tag, "u1/serial", "C-20400")
	put(t, s, tag, "u1/identity/bleed_top", "yes")
	st = load(t, s, tag)
	require.NotNil(t, st.Variant.Chosen)
	assert.Equal(t, "late", st.Variant.Chosen.Variant.Code)
}

func TestFluidBalanceOnAJob(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "axial_piston_pump")
	for field, v := range map[string]string{"capacity": "120 L", "drained": "96 L", "vessel": "20 L"} {
		put(t, s, tag, "u1/"+field, v)
	}
	out := load(t, s, tag).Balance
	require.NotNil(t, out)
	assert.Equal(t, "undecided", out.Get("verdict"), "without the level before nothing is known to be missing")
	put(t, s, tag, "u1/level_before", "110 L")
	assert.Equal(t, "short", load(t, s, tag).Balance.Get("verdict"))
	put(t, s, tag, "u1/gained_elsewhere", "12 L")
	assert.Equal(t, "balanced", load(t, s, tag).Balance.Get("verdict"))
}

func TestUnitsAccountsAndUnknownParts(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "axial_piston_pump")
	n, err := s.AddUnit(ctx, iva, tag, "internal_gear_pump", "Feed pump")
	require.NoError(t, err)
	assert.Equal(t, 2, n)
	require.NoError(t, s.AddAccount(ctx, iva, tag, 2, "Mate", "It whined for a week"))
	require.NoError(t, s.AddAccount(ctx, iva, tag, 2, "Skipper", "The mate says it whined"))
	second, err := s.Load(ctx, tag, 2)
	require.NoError(t, err)
	assert.Equal(t, "Feed pump", second.Unit.Name)
	assert.Len(t, second.Unit.Accounts, 2)
	assert.Empty(t, load(t, s, tag).Unit.Accounts, "an account belongs to its unit")

	behind := second.Parts[2]
	id, err := s.AddPart(ctx, iva, tag, 2, behind.Code, "Home-made ring", "spacer", 2)
	require.NoError(t, err)
	second, err = s.Load(ctx, tag, 2)
	require.NoError(t, err)
	at := slices.IndexFunc(second.Parts, func(p *bench.Part) bool { return p.Code == id })
	assert.Equal(t, 3, at)
	assert.Equal(t, "spacer", second.Parts[at].Def.Kind)
	var fe *field.Error
	_, err = s.AddPart(ctx, iva, tag, 2, behind.Code, "Thing", "dragon", 1)
	require.ErrorAs(t, err, &fe)
	assert.Equal(t, "kind", fe.Field)

	// Every unit must be settled before the job goes out.
	err = s.HandOver(ctx, iva, tag)
	require.ErrorAs(t, err, &fe)
}

// A unit that cannot be run as it came says why, and that is no stop and no waiver; the paper says that there is no
// before.
func TestAUnitWithoutABefore(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	require.Contains(t, stops(load(t, s, tag), "receive"), "No as-received figures")
	put(t, s, tag, "u1/no_before", "shaft broken")
	st := load(t, s, tag)
	assert.NotContains(t, stops(st, "receive"), "No as-received figures")
	assert.Empty(t, st.Job.Waivers)
}
