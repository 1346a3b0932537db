package family_test

import (
	"testing"

	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every unit a rebuild bench meets has its family, and each tells what a bench
// needs to know of it.
func TestFamiliesAreWhole(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, code := range []string{
		"external_gear_pump", "gear_pump_with_valve", "gerotor_pump", "vane_pump", "internal_gear_pump",
		"axial_piston_pump", "split_flow_piston_pump", "piston_pump_with_cartridge",
		"axial_piston_motor", "bent_axis_unit", "radial_piston_motor", "cam_piston_pump", "double_acting_cylinder",
		"single_acting_cylinder", "telescopic_cylinder",
		"master_cylinder", "slave_cylinder", "intensifier_ram", "gas_booster", "flow_divider", "relief_valve",
		"check_valve", "priority_valve", "directional_spool_valve",
		"bent_axis_pump", "cartridge_vane_pump", "hydrostatic_axle", "side_shimmed_gear_pump",
		"lubricator_pump", "winch_brake_pack", "spool_divider", "injector_lubricator",
	} {
		f := lib[code]
		if !assert.NotNil(t, f, code) {
			continue
		}
		assert.NotEmpty(t, f.Symptoms, code)
		assert.NotEmpty(t, f.Cautions, code)
		assert.NotEmpty(t, f.Gauge, code)
		assert.NotEmpty(t, f.StartUp, code)
		assert.NotEmpty(t, f.Variants, code)
		renew, measured, must, before, after := 0, 0, 0, 0, 0
		for _, p := range f.Parts {
			if p.Renew {
				renew++
			}
			for _, ft := range p.Features {
				measured++
				if ft.MustHave {
					must++
				}
				if ft.Rule == nil && ft.Mate == nil && ft.Method != family.MethodGrade {
					assert.Equal(t, family.SourceNone, ft.LimitSource, "%s %s.%s claims a limit it has not", code,
						p.Code, ft.Code)
				}
			}
		}
		for _, x := range f.Tests {
			after++
			assert.NotZero(t, len(x.Reads)+len(x.Words), "%s %s: neither read nor seen", code, x.Code)
			if x.Received {
				before++
			}
		}
		assert.Positive(t, renew, "%s renews nothing", code)
		assert.Positive(t, measured, code)
		assert.Positive(t, must, "%s: no reading is called for", code)
		assert.Positive(t, before, "%s has no as-received test", code)
		assert.GreaterOrEqual(t, after, 3, code)
	}
}

func TestVariantResolution(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	cam := lib["cam_piston_pump"]
	late := cam.Resolve(family.Identity{Serial: "K-20417"})
	require.NotNil(t, late.Chosen)
	assert.Equal(t, "late", late.Chosen.Variant.Code)
	assert.Equal(t, "serial from 20400 on", late.Why)
	assert.Equal(t, "early", cam.Resolve(family.Identity{Serial: "K-20399"}).Chosen.Variant.Code, "the break itself")

	short := cam.Resolve(family.Identity{Serial: "K-2041"})
	assert.Nil(t, short.Chosen, "a number with a figure too few is no number")
	assert.NotEmpty(t, short.Doubts)
	assert.Nil(t, cam.Resolve(family.Identity{}).Chosen)

	relief, _, err := lib["relief_valve"].WithVariant("own.yaml", []byte("{code: own, name: Own, suffix: [A], "+
		"measured: {feature: spring.free_length, low: 49.5 mm, high: 50.5 mm}}"))
	require.NoError(t, err)
	a := relief.Resolve(family.Identity{Model: "RV-12-A", Measured: map[string]float64{"spring.free_length": .0560}})
	assert.Nil(t, a.Chosen, "two fit the number")
	for _, m := range a.Matches {
		if m.Variant.Code == "own" {
			require.NotEmpty(t, m.Weak)
			assert.Contains(t, m.Weak[0], "unlike this variant")
		}
	}
	only := relief.Resolve(family.Identity{Measured: map[string]float64{"spring.free_length": .0500}})
	assert.Nil(t, only.Chosen, "a length alone proves nothing")

	piston := lib["axial_piston_pump"]
	split := piston.Resolve(family.Identity{Model: "AP-71-P", Marks: map[string]bool{"two_adjusters": true}})
	require.NotNil(t, split.Chosen)
	assert.Equal(t, "pc", split.Chosen.Variant.Code)
	ls := piston.Resolve(family.Identity{Model: "AP-71-LS", Marks: map[string]bool{"two_adjusters": false}})
	assert.Nil(t, ls.Chosen, "number and casting disagree")
	assert.Contains(t, ls.Why, "another variant")
}

// What the gauges told, or did not, says whether a unit may be opened.
// Variants of shipped families are units of their own.
func TestShippedVariantsChangeTheirUnit(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, c := range []struct{ family, variant, has, hasNot string }{
		{"gas_booster", "two", "gas_stage_2.gas_seal", ""},
		{"gas_booster", "one", "gas_seal", "gas_stage_2.gas_seal"},
		{"double_acting_cylinder", "cushioned", "cushion_screws", ""},
		{"double_acting_cylinder", "plain", "rod", "cushion_screws"},
		{"gerotor_pump", "relief", "relief_spring", ""},
		{"gerotor_pump", "bare", "shaft_seal", "relief_spring"},
		{"axial_piston_pump", "pc", "control_spool", "flow_spool"},
		{"gear_pump_with_valve", "n", "body", "valve_spool"},
		{"injector_lubricator", "motor", "cam", "drive_seal"},
	} {
		f, err := lib[c.family].As(c.variant, nil)
		require.NoError(t, err)
		_, has := f.PartByCode(c.has)
		assert.True(t, has, "%s %s has %s", c.family, c.variant, c.has)
		_, hasNot := f.PartByCode(c.hasNot)
		assert.False(t, hasNot, "%s %s has no %s", c.family, c.variant, c.hasNot)
	}
	relief, _ := lib["gerotor_pump"].As("relief", nil)
	_, asked := relief.TestByCode("relief")
	assert.True(t, asked, "the valve brings its step of the test")
}
