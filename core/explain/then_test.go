package explain_test

import (
	"testing"

	"corvek/core/explain"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What an answer would do is what it does: each answer that is told of is given, and the ranking is as it was said.
func TestWhatAnAnswerWouldDoItDoes(t *testing.T) {
	for family, told := range map[string][]string{
		"axial_piston_pump":      {"on_stroke", "case_hot"},
		"external_gear_pump":     {"weak_hot", "plate_scored", "hours_full"},
		"double_acting_cylinder": {"drifts"},
		"winch_brake_pack":       {"pays_out", "blue_plates"},
	} {
		k := base(t).For(family)
		x := k.Explain(seen(told...))
		answers := 0
		for _, check := range k.Next(seen(told...)) {
			for _, then := range check.Then {
				strength := explain.Absent
				if then.Seen {
					strength = explain.Seen
				}
				after := k.Explain(
					append(seen(told...), explain.Finding{Code: then.Evidence.Code, Strength: strength}),
				)
				answers++
				first := explain.Alone(after.Ranking)[0]
				require.Equal(t, first.Cause.Code, then.Lead.Code, "%s: %s", family, then.Evidence.Code)
				assert.InDelta(t, first.Alone, then.P, 1e-9)
				assert.Equal(t, explain.Alone(x.Ranking)[0].Cause.Code, then.Was.Code)
				for _, r := range after.Ranking {
					if r.Cause == then.Was {
						assert.InDelta(t, r.Alone, then.Left, 1e-9)
					}
				}
			}
		}
		assert.GreaterOrEqual(t, answers, 8, family)
	}
}

// What lies at the machine is not asked for where nobody can be asked there, and costs a way more once the unit
// lies open on a bench.
func TestALookIsPricedWhereTheUnitIs(t *testing.T) {
	k := base(t).For("external_gear_pump")
	minutes := func(s explain.Situation) map[string]float64 {
		out := map[string]float64{}
		for _, c := range k.In(s).Next(seen("weak_hot", "plate_scored")) {
			out[c.Evidence.Code] = c.Minutes
		}
		return out
	}
	machine := minutes(explain.Situation{Reached: explain.Outside, MayRun: true})
	open := minutes(explain.Situation{Reached: explain.Stripped})
	alone := minutes(explain.Situation{Reached: explain.Outside, MayRun: true, Alone: true})
	assert.InDelta(t, 10, open["filter_bypass"]-machine["filter_bypass"], 1e-9, "somebody goes there")
	assert.InDelta(t, 60, machine["embedded_grit"]-open["embedded_grit"], 1e-9, "it is stripped for it")
	assert.Contains(t, machine, "low_efficiency")
	assert.NotContains(t, open, "low_efficiency", "it runs no more")
	for _, code := range []string{"filter_bypass", "new_pump_same", "pressure_full"} {
		assert.Contains(t, machine, code)
		assert.NotContains(t, alone, code)
	}
	assert.Contains(t, alone, "recent_work", "who sent it can be asked")
}
