package explain_test

import (
	"slices"
	"strings"
	"testing"

	"corvek/core/explain"
	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// With nothing but the complaint, on a unit that is still whole, the first three things
// to look at are those a master would ask for: the question that parts the field comes
// among them, and nothing is asked for that says nothing of this complaint.
func TestFirstChecksAreAMasters(t *testing.T) {
	const lately = " recent_work piped_lately stood_long came_slowly" // since when, and what was done then
	for _, c := range []struct{ family, told, first, among string }{
		{"intensifier_ram", "symptom:springy", "ran_low", "foam_outlet needs_bleeding suction_wet" + lately},
		{"double_acting_cylinder", "symptom:springy", "foam_in_cap", "ran_low firm_after_bleed holds_blocked " +
			"work_dusty" + lately},
		{"intensifier_ram", "symptom:one_stroke", "stops_midway", "fitting_bright slow_cycle" + lately},
		{"gas_booster", "symptom:one_stroke", "stops_midway", "fitting_bright slow_cycle" + lately},
		{"master_cylinder", "symptom:first_stroke_dead", "firm_second", "stood_long fluid_brown boils_low" + lately},
		{"slave_cylinder", "symptom:first_stroke_dead", "firm_second", "stood_long fluid_brown boils_low" + lately},
		{"winch_brake_pack", "symptom:creeps", "pays_out", "turns_hand_released smoke_told" + lately},
		{"axial_piston_pump", "symptom:pressure_low", "", "adjuster_backed pressure_full cutoff_low " +
			"feed_low gauge_differs sister_fault" + lately},
		{"split_flow_piston_pump", "symptom:no_pressure", "", "pressure_full feed_low drive_idle " +
			"gauge_differs on_stroke sister_fault" + lately},
		{"axial_piston_pump", "gauge:on_stroke=yes", "signal_up", "case_hot valve_elsewhere_stuck" + lately},
		{"external_gear_pump", "symptom:sump_rises", "level_up_alone", "sump_rises oil_next_room fuel_smell"},
		{"gear_pump_with_valve", "symptom:sump_rises", "level_up_alone", "sump_rises oil_next_room fuel_smell"},
		{"external_gear_pump", "gauge:pressure_builds=full symptom:slow", "new_pump_same",
			"load_blocked_good" + lately},
		{"axial_piston_pump", "gauge:pressure_builds=full symptom:slow", "sister_fault",
			"on_a_guess on_stroke" + lately},
		{"double_acting_cylinder", "symptom:drifts", "holds_blocked", "still_with_ports_shut work_dusty" + lately},
		{"telescopic_cylinder", "symptom:drifts", "holds_blocked", "still_with_ports_shut work_dusty" + lately},
		{"directional_spool_valve", "symptom:drifts", "shut_drifts", "sister_fault leaks_at_seat" + lately},
	} {
		t.Run(c.family+" "+c.told, func(t *testing.T) {
			next := complained(t, c.family, c.told).Next
			require.GreaterOrEqual(t, len(next), 3)
			if c.first != "" {
				assert.Equal(t, c.first, next[0].Evidence.Code)
			}
			for _, check := range next[:3] {
				assert.Contains(t, strings.Fields(c.first+" "+c.among), check.Evidence.Code, check.Evidence.Text)
			}
		})
	}
}

// complained explains a whole unit of a family of which only symptoms and answers from
// the machine are told: "symptom:slow gauge:on_stroke=yes".
func complained(t *testing.T, code, told string) explain.Explanation {
	t.Helper()
	lib, err := family.Shipped()
	require.NoError(t, err)
	k := base(t).For(code).Of(lib[code].Has()).In(explain.Situation{Reached: explain.Outside, MayRun: true})
	var findings []explain.Finding
	for i := range k.Evidence {
		e := &k.Evidence[i]
		for _, word := range strings.Fields(told) {
			if "symptom:"+e.From.Symptom == word || "gauge:"+e.From.Gauge.String() == word {
				findings = append(findings, explain.Finding{Code: e.Code, Strength: explain.Seen})
			}
		}
	}
	require.Len(t, findings, len(strings.Fields(told)))
	return k.Explain(findings)
}

// Where the control rests, venting its signal tells nothing, and is not asked for.
func TestTheVentIsAskedOnlyOnStroke(t *testing.T) {
	asks := func(told string) bool {
		for _, check := range complained(t, "axial_piston_pump", told).Next {
			if check.Evidence.Code == "signal_up" || check.Evidence.Code == "signal_stays" {
				return true
			}
		}
		return false
	}
	assert.False(t, asks("symptom:no_pressure"))
	assert.True(t, asks("gauge:on_stroke=yes"))
}

// What is seen only before a joint is parted, or as it comes apart, is not asked for once
// it is too late.
func TestWhatIsTooLateIsNotAskedFor(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	k := base(t).For("external_gear_pump").Of(lib["external_gear_pump"].Has())
	asks := func(reached explain.Reach, code string) bool {
		for _, check := range k.In(explain.Situation{Reached: reached}).Next(notes("recent_work fine_lines")) {
			if check.Evidence.Code == code {
				return true
			}
		}
		return false
	}
	assert.True(t, asks(explain.Outside, "witness_off"))
	assert.False(t, asks(explain.Opened, "witness_off"))
	assert.True(t, asks(explain.Opened, "part_turned"))
	assert.False(t, asks(explain.Stripped, "part_turned"))
	for code, k := range base(t) {
		for _, e := range k.Evidence {
			assert.True(t, e.Before == "" || slices.Contains(explain.Places, e.Before), "%s: %s", code, e.Code)
		}
	}
}

// Fair wear is what is left over when no other root explains a unit: no mark speaks
// against it by itself, and it has marks of its own that tell nobody's else.
func TestFairWearHasNoContraryMarks(t *testing.T) {
	for code, k := range base(t) {
		c, ok := k.CauseByCode("fair_wear")
		if !ok {
			continue
		}
		assert.True(t, c.LeftOver, code)
		for mark, word := range c.Points {
			e, _ := k.EvidenceByCode(mark)
			assert.GreaterOrEqual(t, word.P(), e.Background.P(), "%s: %s", code, mark)
		}
		for _, own := range []string{"hours_full", "even_wear", "serviced"} {
			assert.Contains(t, c.Points, own, code)
		}
	}
}
