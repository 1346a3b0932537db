package job_test

import (
	"testing"

	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a unit is asked stands beside what it is rated for: more of it is a stop, far less is said.
func TestDutyStandsAgainstTheRating(t *testing.T) {
	s := press(t)
	const tag = "T-0417"
	duty := load(t, s, tag).Unit.DutyPressure.Typed
	put(t, s, tag, "u1/duty_pressure", "175 bar")
	_, told := load(t, s, tag).Rating()
	assert.False(t, told, "the rating is not known")
	for _, c := range []struct {
		rated       string
		over, spare bool
		share       string
	}{{"250 bar", false, true, "70 %"}, {"210 bar", false, false, "83 %"}, {"160 bar", true, false, "109 %"}} {
		put(t, s, tag, "u1/rated_pressure", c.rated)
		st := load(t, s, tag)
		r, told := st.Rating()
		require.True(t, told)
		assert.Equal(t, c.over, r.Over, c.rated)
		assert.Equal(t, c.spare, r.Spare, c.rated)
		assert.Contains(t, r.Words, c.share)
		has := false
		for _, stop := range st.Stops["receive"] {
			has = has || stop.Kind == unit.StopRating
		}
		assert.Equal(t, c.over, has, c.rated)
	}
	put(t, s, tag, "u1/duty_pressure", duty)
}

// A spring goes back measured, or it is renewed.
func TestASpringGoesBackMeasured(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "relief_valve")
	st := load(t, s, tag)
	for _, p := range st.Parts {
		if p.Def.Springs() {
			assert.NotEmpty(t, p.Features, p.Code)
		}
	}
	tag = newUnit(t, s, "check_valve")
	has := func() bool {
		for _, stop := range load(t, s, tag).Stops["measure"] {
			if stop.Kind == unit.StopSpring && stop.Part == "spring" {
				return true
			}
		}
		return false
	}
	assert.True(t, has())
	put(t, s, tag, "u1/part/spring/decision/choice", "replace")
	assert.False(t, has(), "renewed")
	put(t, s, tag, "u1/part/spring/decision/choice", "")
	require.True(t, has())
	put(t, s, tag, "u1/part/spring/feature/free_length/found/v1", "31.4 mm")
	assert.False(t, has(), "measured")
}
