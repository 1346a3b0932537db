package job_test

import (
	"context"
	"fmt"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/invented"
	"corvek/core/proof"
	"corvek/core/unit"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A pump with eleven of its family's parts absent and three others on it goes from
// Receive to Hand over and is proved, and no lead waives anything that is true.
func TestAStrangePumpIsHandedOver(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	now := time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return now }
	tag := newUnit(t, s, "external_gear_pump")
	absent := []string{"relief_cap", "relief_shims", "relief_spring", "relief_poppet", "check_plug", "check_spring",
		"check_ball", "seal_spacer", "seal_inner", "seal_ring", "shims"}
	for _, code := range absent {
		put(t, s, tag, "u1/part/"+code+"/absent", "this casting has none")
	}
	for _, kind := range []string{"o_ring", "bush", "retaining_ring"} {
		_, err := s.AddPart(ctx, iva, tag, 1, "front_cover", "added "+kind, kind, 1)
		require.NoError(t, err)
	}
	for name, value := range map[string]string{"displacement": "32 cc/rev", "speed": "1450 rpm",
		"duty_pressure": "175 bar", "viscosity": "46 cSt"} {
		put(t, s, tag, "u1/"+name, value)
	}
	put(t, s, tag, "u1/attempt/0/point/hand_turn/word", "uniform drag")
	for _, stops := range load(t, s, tag).Stops {
		for _, stop := range stops {
			if stop.Kind == unit.StopCaution {
				require.NoError(t, s.Acknowledge(ctx, iva, tag, 1, stop.Part))
			}
		}
	}

	put(t, s, tag, "u1/rotation", "right")
	require.NoError(t, s.TakeOffRest(ctx, iva, tag, 1))
	for _, p := range load(t, s, tag).Parts {
		put(t, s, tag, "u1/part/"+p.Code+"/found", fmt.Sprint(p.Expected))
		if len(p.Def.Facings) > 0 {
			facing := p.Def.Facing
			if facing == "" {
				facing = p.Def.Facings[0]
			}
			put(t, s, tag, "u1/part/"+p.Code+"/facing", facing)
		}
	}
	fill(t, s, tag)
	put(t, s, tag, "u1/conclusion/cause", "not_found")
	put(t, s, tag, "u1/conclusion/statement", "Dirt and wear were looked for and not found.")
	for _, place := range load(t, s, tag).Places {
		require.NoError(t, s.AddPiece(ctx, iva, tag, 1, "", place.Name, place.Need, place.Part))
	}
	lookedAt(t, s, tag)
	jobtest.ToTheStand(t, s, tag)
	for _, p := range load(t, s, tag).Parts {
		for _, f := range p.Features {
			if !f.Def.Clearance {
				continue
			}
			for _, slot := range f.Spec.Slots() {
				put(t, s, tag, of(f, "built/"+slot), invented.Good(f, slot))
			}
		}
	}
	require.NoError(t, s.NextAttempt(ctx, iva, tag, 1, bench.Change{}))
	runTest(t, s, tag, &now)

	st := load(t, s, tag)
	claim, missing := st.Claim()
	assert.Equal(t, proof.Proved, claim, missing)
	assert.Empty(t, st.Job.Waivers, "nothing was waived")
	assert.ErrorContains(t, s.HandOver(ctx, iva, tag), "who collects it")
	put(t, s, tag, "job/collected_by", "the mill's driver")
	jobtest.HandOver(t, s, tag)
	assert.Len(t, st.Absent, 11)
}
