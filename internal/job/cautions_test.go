package job_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/unit"
	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A caution stands at the step at which it bites: what holds a spring, what slides out, what is under pressure,
// what a thread of cloth holds open, named from the thing itself and not from the file.
func TestCautionsStandAtTheirStep(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	for _, c := range []struct{ family, station, part, caution string }{
		{"winch_brake_pack", "strip", "cover_bolts", "strong_spring"},
		{"winch_brake_pack", "build", "cover", "strong_spring"},
		{"winch_brake_pack", "strip", "plates", "lining_dust"},
		{"winch_brake_pack", "strip", "cover_bolts", "own_hoist"},
		{"external_gear_pump", "strip", "relief_cap", "spring_load"},
		{"external_gear_pump", "strip", "relief_cap", "crack_first"},
		{"slave_cylinder", "strip", "circlip", "spring_load"},
		{"relief_valve", "strip", "adjuster", "spring_load"},
		{"vane_pump", "strip", "fc_cap", "spring_load"},
		{"axial_piston_pump", "strip", "barrel_spring", "strong_spring"},
		{"axial_piston_pump", "build", "control_cap", "spring_load"},
		{"telescopic_cylinder", "strip", "stop_1", "own_weight"},
		{"double_acting_cylinder", "strip", "gland", "own_weight"},
		{"double_acting_cylinder", "strip", "tube", "lifting"},
		{"double_acting_cylinder", "strip", "piston", "air_ejection"},
		{"intensifier_ram", "strip", "reservoir", "reservoir"},
		{"gear_pump_with_valve", "strip", "valve_cap", "spring_load"},
		{"injector_lubricator", "build", "bleed_screw", "bleeding_jet"},
		{"directional_spool_valve", "strip", "spool", "impact"},
	} {
		tag := newUnit(t, s, c.family)
		st := load(t, s, tag)
		p := st.ByCode[c.part]
		require.NotNil(t, p, "%s: %s", c.family, c.part)
		assert.True(
			t,
			says(st.CautionsOf(p.AsFound, c.station), c.caution),
			"%s: %s at %s",
			c.family,
			c.part,
			c.station,
		)
	}
	st := load(t, s, newUnit(t, s, "external_gear_pump"))
	assert.False(t, says(st.CautionsOf(st.ByCode["key"].AsFound, "strip"), "spring_load"), "a key holds no spring")
	st = load(t, s, newUnit(t, s, "relief_valve"))
	assert.False(t, says(st.CautionsOf(st.ByCode["cap_nut"].AsFound, "strip"), "spring_load"),
		"the spring is let go by the adjuster, not by its cap nut")
}

func says(list []family.Caution, code string) bool {
	for _, c := range list {
		if c.Code == code {
			return true
		}
	}
	return false
}

// What can hurt badly is read at its row before the row is done, once on a job; nothing is kept before that.
func TestASeriousCautionIsReadAtItsStep(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "winch_brake_pack")
	read := func(code string) { require.NoError(t, s.Acknowledge(t.Context(), iva, tag, 1, code)) }
	off := func(part string) error {
		return s.DoRow(t.Context(), iva, tag, 1, job.Row{Station: "strip", Part: part})
	}
	assert.ErrorContains(t, off("cover_bolts"), "this machine's own hoist")
	read("own_hoist")
	assert.ErrorContains(t, off("cover_bolts"), "Pressure may still be shut in")
	read("stored_pressure")
	assert.ErrorContains(t, off("cover_bolts"), "strong spring")
	assert.False(t, load(t, s, tag).ByCode["cover_bolts"].Off)
	read("strong_spring")
	require.NoError(t, off("cover_bolts"))
	require.NoError(t, off("cover"), "read once on a job")
	assert.Contains(t, stopsOf(load(t, s, tag), "lining_dust"), unit.StopCaution, "the linings come later")
}
