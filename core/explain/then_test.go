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
		for _, check := range x.Next {
			for _, then := range check.Then {
				strength := explain.Absent
				if then.Seen {
					strength = explain.Seen
				}
				after := k.Explain(append(seen(told...), explain.Finding{Code: then.Evidence.Code, Strength: strength}))
				answers++
				require.Equal(t, after.Ranking[0].Cause.Code, then.Lead.Code, "%s: %s", family, then.Evidence.Code)
				assert.InDelta(t, after.Ranking[0].Posterior, then.P, 1e-9)
				assert.Equal(t, x.Ranking[0].Cause.Code, then.Was.Code)
				for _, r := range after.Ranking {
					if r.Cause == then.Was {
						assert.InDelta(t, r.Posterior, then.Left, 1e-9)
					}
				}
			}
		}
		assert.GreaterOrEqual(t, answers, 8, family)
	}
}
