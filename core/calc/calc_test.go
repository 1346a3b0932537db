package calc_test

import (
	"encoding/json"
	"testing"

	"corvek/core/calc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Each Def's own example must run and answer only with declared results.
func TestExamplesAndDeclarations(t *testing.T) {
	for _, d := range calc.All() {
		t.Run(d.Name, func(t *testing.T) {
			assert.NotEmpty(t, d.Formula)
			assert.NotEmpty(t, d.Source)
			assert.NotEmpty(t, d.Assumptions)
			out, err := calc.Run(d.Name, []byte(d.Example))
			require.NoError(t, err)
			declared := map[string]bool{}
			for _, r := range d.Results {
				declared[r.Name] = true
			}
			for _, e := range out.Results {
				assert.True(t, declared[e.Name], "%s is not declared", e.Name)
			}
			body, err := json.Marshal(out)
			require.NoError(t, err)
			var back struct {
				Name     string
				Results  map[string]any
				Steps    []string
				Warnings []calc.Warning
			}
			require.NoError(t, json.Unmarshal(body, &back))
			assert.Equal(t, d.Name, back.Name)
			assert.Len(t, back.Results, len(out.Results))
		})
	}
}

func TestUnknownBoltClassCallsNothingSafe(t *testing.T) {
	out, err := calc.Run("bolt_torque", []byte(`{"thread":"M10","class":"unknown"}`))
	require.NoError(t, err)
	_, has := out.Value("torque")
	assert.False(t, has)
	require.NotEmpty(t, out.Warnings)
	assert.Equal(t, "class_unknown", out.Warnings[0].Code)
}

func TestEveryPromisedCalculatorIsThere(t *testing.T) {
	for _, name := range []string{"cylinder", "intensifier", "ejection", "stored_energy", "pump", "motor", "heat",
		"piston_ripple", "flow_divider", "rod_bow",
		"annular_leak", "plane_leak", "orifice", "readings", "judge", "feeler", "clearance", "shims", "wear_life",
		"coil_spring", "spring_check", "disc_stack", "bolt_torque", "bolt_pattern",
		"oring_find", "oring_gland", "lip_seal_find", "lip_offset", "shelf_life", "compatible", "viscosity",
		"cleanliness", "fluid_balance", "residual", "fill_plan",
		"pressure_decay", "creep_leak", "standby", "rebuild_or_replace", "friction_pack", "line_pull",
		"needle_complement", "proud", "retainer_lift", "gap_ratio", "mesh", "runout"} {
		_, err := calc.Find(name)
		assert.NoError(t, err, name)
	}
}
