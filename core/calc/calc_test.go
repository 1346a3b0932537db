package calc_test

import (
	"encoding/json"
	"math"
	"strings"
	"testing"

	"corvek/core/calc"
	"corvek/core/field"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// figures checks named numbers of one run; hand-worked unless a source is named.
type figures map[string]float64

// hold requires each figure to be there, within a share of itself.
func (f figures) hold(t *testing.T, out *calc.Output, tolerance float64) {
	t.Helper()
	for key, want := range f {
		got, ok := out.Value(key)
		require.True(t, ok, "%s is missing", key)
		assert.InDelta(t, want, got, math.Abs(want)*tolerance+1e-15, key)
	}
}

func TestCalculatorsByHand(t *testing.T) {
	cases := []struct {
		name, calc, in string
		want           figures
		words          map[string]any
	}{
		// π/4·63² = 3117.25 mm²; 36 mm rod takes 1017.88; 210 bar pushes 65 462 N.
		{"cylinder", "cylinder", `{"bore":"63 mm","rod":"36 mm","pressure":"210 bar","flow":"30 L/min",` +
			`"stroke":"400 mm"}`,
			figures{"cap_area": 3.117245e-3, "annulus_area": 2.099369e-3, "area_ratio": 1.484849,
				"push_force": 65462.1, "pull_force": 44086.7,
				"extend_speed": 0.160398, "extend_time": 2.493796, "blocked_rod_pressure": 31181824}, nil},
		{"cylinder with back pressure", "cylinder", `{"bore":"50 mm","rod":"25 mm","pressure":"100 bar",` +
			`"return_pressure":"10 bar","force_efficiency":0.9}`,
			figures{"push_force": 16345.9, "pull_force": 11486.3}, nil},
		// 32 cc × 1450/min = 46.4 L/min; 175 bar·32 cc/2π = 89.13 N·m.
		{"pump", "pump", `{"displacement":"32 cc/rev","speed":"1450 rpm","pressure":"175 bar","flow":"42 L/min",` +
			`"torque":"97 N·m"}`,
			figures{"theoretical_flow": 46.4e-3 / 60, "slip": 4.4e-3 / 60, "volumetric_efficiency": 0.905172,
				"theoretical_torque": 89.1268,
				"hydraulic_power":    12250, "shaft_power": 14728.9, "overall_efficiency": 0.831695,
				"hydromechanical_efficiency": 0.918833, "heat": 2478.93}, nil},
		// 175 bar × 7 L/min = 2041.7 W into 120 L of oil: 0.010293 K/s.
		{"heat", "heat", `{"pressure_drop":"175 bar","flow":"7 L/min","volume":"120 L"}`,
			figures{"power": 2041.667, "temperature_rate": 0.0102927, "time_per_10K": 971.56}, nil},
		{"annular leak", "annular_leak", `{"diameter":"20 mm","clearance":"0.04 mm","length":"25 mm",` +
			`"pressure_drop":"100 bar","dynamic_viscosity":"40 mPa·s","eccentricity":1}`,
			figures{"radial_clearance": 20e-6, "concentric_flow": 4.18879e-7, "flow": 1.0471976e-6,
				"reynolds": 36.25 * 2 * 20e-6 / (math.Pi * 20e-3 * 20e-6) * 1.0471976e-6 / (0.04 / 870) / 36.25}, nil},
		{"plane leak", "plane_leak", `{"width":"25 mm","length":"10 mm","gap":"0.1 mm","pressure_drop":"100 bar",` +
			`"dynamic_viscosity":"0.04 Pa·s"}`,
			figures{"flow": 5.2083333e-5}, nil},
		{"gap ratio", "gap_ratio", `{"before":"5 thou","after":"10 thou"}`, figures{"flow_ratio": 8}, nil},
		{"readings", "readings", `{"readings":["2 mm","4 mm","4 mm","4 mm","5 mm","5 mm","7 mm","9 mm"]}`,
			figures{"mean": 5e-3, "range": 7e-3, "standard_deviation": 2.13809e-3}, nil}, // the textbook set of eight
		{"grid", "readings", `{"grid":[["50.01 mm","50.02 mm"],["50.03 mm","50.03 mm"],["50.05 mm","50.02 mm"]],` +
			`"nominal":"50 mm","kind":"bore"}`,
			figures{"out_of_round": 0.03e-3, "taper": 0.04e-3, "wear": 0.05e-3}, nil},
		{"judge in", "judge", `{"value":"5 thou","lower":"3 thou","upper":"7 thou","resolution":"0.01 mm"}`,
			figures{"margin_lower": 50.8e-6, "margin_upper": 50.8e-6, "band": 101.6e-6},
			map[string]any{"verdict": "in"}},
		{"judge undecided", "judge", `{"value":"6.9 thou","upper":"7 thou","resolution":"0.01 mm"}`, nil,
			map[string]any{"verdict": "undecided"}},
		{"judge exactly on the limit with U", "judge", `{"value":"0.9 mm","upper":"1 mm","uncertainty":"0.1 mm"}`,
			nil, map[string]any{"verdict": "in"}},
		{"judge simple", "judge", `{"value":"6.9 thou","upper":"7 thou","resolution":"0.01 mm","rule":"simple"}`,
			nil, map[string]any{"verdict": "in"}},
		{"feeler", "feeler", `{"goes":["3 thou","5 thou","7 thou"],"drags":["8 thou"],"stops":["9 thou"],` +
			`"lower":"3 thou","upper":"7 thou"}`,
			figures{"at_least": 203.2e-6, "less_than": 228.6e-6, "midpoint": 215.9e-6},
			map[string]any{"verdict": "out"}},
		{"feeler open", "feeler", `{"goes":["3 thou"],"stops":["9 thou"],"upper":"7 thou"}`,
			figures{"next_leaf": 177.8e-6}, map[string]any{"verdict": "undecided"}},
		{"feeler exactly the band", "feeler", `{"goes":["3 thou"],"stops":["0.007 in"],"lower":"0.003 in",` +
			`"upper":"7 thou"}`, nil, map[string]any{"verdict": "in"}},
		{"feeler total against each", "feeler", `{"goes":["6 thou"],"stops":["8 thou"],"upper":"4 thou",` +
			`"measured":"total","limit_for":"each"}`, nil, map[string]any{"verdict": "in"}},
		{"feeler nothing stops", "feeler", `{"goes":["5 thou"],"stops":[],"upper":"7 thou"}`,
			figures{"next_leaf": 177.8e-6}, map[string]any{"verdict": "undecided"}},
		{"feeler drags at the limit", "feeler", `{"goes":["5 thou"],"drags":["7 thou"],"stops":["8 thou"],` +
			`"upper":"7 thou"}`, nil, map[string]any{"verdict": "in"}},
		{"feeler goes at the limit", "feeler", `{"goes":["7 thou"],"stops":["8 thou"],"upper":"7 thou"}`, nil,
			map[string]any{"verdict": "undecided"}},
		{"clearance", "clearance", `{"hole":"20.045 mm","shaft":"19.995 mm"}`,
			figures{"diametral": 50e-6, "radial": 25e-6}, nil},
		{"clearance range", "clearance", `{"hole_min":"20 mm","hole_max":"20.03 mm","shaft_min":"19.96 mm",` +
			`"shaft_max":"19.98 mm"}`,
			figures{"diametral_min": 20e-6, "diametral_max": 70e-6, "radial_max": 35e-6}, nil},
		// 9 thou = 0.2286; middle 0.127; take 0.1016 away from a pack of 0.15: 0.05 is nearest.
		{"shims", "shims", `{"measured_clearance":"9 thou","lower":"3 thou","upper":"7 thou","fitted":["0.10 mm",` +
			`"0.05 mm"],"available":[{"thickness":"0.02 mm","count":2}]}`,
			figures{"predicted_clearance": 228.6e-6, "change_needed": -101.6e-6, "resulting_clearance": 128.6e-6},
			map[string]any{"possible": true}},
		{"shims after grinding", "shims", `{"measured_clearance":"0.10 mm","lower":"0.08 mm","upper":"0.12 mm",` +
			`"removed_from_body":"0.05 mm","available":[{"thickness":"0.05 mm","count":1}]}`,
			figures{"predicted_clearance": 50e-6, "change_needed": 50e-6, "resulting_clearance": 100e-6},
			map[string]any{"possible": true}},
		{"wear life", "wear_life", `{"nominal":"20 mm","limit":"19.95 mm","measured":"19.98 mm","hours":4000}`,
			figures{"rate": 5e-9, "used": 0.4, "hours_left": 6000}, nil},
		{"wear life past", "wear_life", `{"nominal":"20 mm","limit":"19.95 mm","measured":"19.90 mm",` +
			`"hours":"4000 h"}`, figures{"used": 2, "hours_left": 0}, nil},
		// Six equal circles round one: the needle as thick as the shaft.
		{"needles six", "needle_complement", `{"shaft":"10 mm","needle":"10 mm"}`,
			figures{"most": 6, "circumferential_gap": 0}, nil},
		{"needles", "needle_complement", `{"shaft":"20 mm","needle":"3.5 mm"}`, figures{"most": 21}, nil},
		// 79.3e9·2⁴/(8·16³·6) in mm: 6.4535 N/mm.
		{"coil spring", "coil_spring", `{"free_length":"42 mm","wire":"2 mm","mean_diameter":"16 mm",` +
			`"active_coils":6,"installed_length":"32 mm","seat_diameter":"6 mm"}`,
			figures{"rate": 6453.45, "force": 64.5345, "cracking_pressure": 2282429, "pressure_per_mm": 228242.9}, nil},
		{"coil spring shim", "coil_spring", `{"free_length":"41 mm","rate":"28 N/mm","installed_length":"33 mm",` +
			`"seat_diameter":"4 mm","target_pressure":"180 bar"}`,
			figures{"force": 224, "shim_for_target": 0.0783811e-3}, nil},
		{"spring check", "spring_check", `{"measured":"40.8 mm","nominal":"42 mm","tolerance":"0.5 mm"}`,
			figures{"deviation": -1.2e-3}, map[string]any{"verdict": "out", "variant_suspected": false}},
		{"spring of another variant", "spring_check", `{"measured":"36 mm","nominal":"42 mm"}`, nil,
			map[string]any{"verdict": "undecided", "variant_suspected": true}},
		// ISO 898-1 gives 84.3 mm² and 48.9 kN for M12 8.8.
		{"bolt M12", "bolt_torque", `{"thread":"M12","class":"8.8"}`,
			figures{"stress_area": 84.27e-6, "proof_load": 48875, "torque": 87.97, "proof_share": 0.75}, nil},
		// ASME B1.1 gives 0.1419 in² for 1/2-13 UNC; grade 5 proof 12 060 lbf.
		{"bolt half inch", "bolt_torque", `{"thread":"1/2-13 unc","class":"Grade 5","k":0.15}`,
			figures{"stress_area": 91.55e-6, "proof_load": 53652, "torque": 76.65}, nil},
		{"bolt inverse", "bolt_torque", `{"thread":"M10","class":"8.8","torque":"49 N·m"}`,
			figures{"preload": 24500, "proof_share": 0.7284}, nil},
		{"rebuild", "rebuild_or_replace", `{"parts":310,"labour_hours":6,"rate":72,"outside_work":58,` +
			`"rebuild_days":3,"new_price":1600,"new_days":21,"downtime_cost_per_day":400,"life_fraction":0.8}`,
			figures{"rebuild_cost": 800, "ratio": 0.625, "rebuild_total": 2000, "new_total": 10000,
				"cost_per_life": 1000, "break_even_new_price": 1538.46}, map[string]any{"advice": "rebuild"}},
		{"replace", "rebuild_or_replace", `{"parts":900,"labour_hours":"6 h","rate":72,"rebuild_days":3,` +
			`"new_price":1600}`, figures{"ratio": 0.8325}, map[string]any{"advice": "replace"}},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			out, err := calc.Run(c.calc, []byte(c.in))
			require.NoError(t, err)
			c.want.hold(t, out, 1e-4)
			for key, want := range c.words {
				assert.Equal(t, want, out.Get(key), key)
			}
			assert.NotEmpty(t, out.Steps, "the working is shown")
		})
	}
}

func TestCalculatorsRefuseByFieldName(t *testing.T) {
	cases := []struct{ calc, in, field string }{
		{"cylinder", `{"bore":"63 mm","rod":"63 mm","pressure":"1 bar"}`, "rod"},
		{"cylinder", `{"bore":"63 mm","pressure":"1 bar","return_pressure":"1 bar"}`, "return_pressure"},
		{"cylinder", `{"bore":"63","pressure":"1 bar"}`, "bore"},
		{"cylinder", `{"bore":"-63 mm","pressure":"1 bar"}`, "bore"},
		{"cylinder", `{"bore":"63 mm","pressure":"3000 lb"}`, "pressure"},
		{"cylinder", `{"bore":"63 mm","pressure":"1 bar","colour":"red"}`, "colour"},
		{"cylinder", `{"bore":"63 mm","pressure":"1 bar","flow":"0 L/min","stroke":"1 m"}`, "flow"},
		{"cylinder", `{"bore":"63 mm"}`, "pressure"},
		{"cylinder", `{"bore":"63 mm"`, ""},
		{"cylinder", `[]`, ""},
		{"nonesuch", `{}`, "name"},
		{"readings", `{"readings":["50 mm","fifty"]}`, "readings[1]"},
		{"readings", `{"readings":[]}`, "readings"},
		{"readings", `{"readings":["50 mm"],"nominal":"50 mm"}`, "kind"},
		{"readings", `{"grid":[["1 mm","2 mm"],["1 mm"]]}`, "grid[1]"},
		{"judge", `{"value":"5 mm"}`, "upper"},
		{"judge", `{"value":"5 mm","upper":"5 bar"}`, "upper"},
		{"feeler", `{"goes":["9 thou"],"stops":["7 thou"]}`, "stops"},
		{"feeler", `{"goes":["7 thou"],"stops":["0.007 in"]}`, "stops"},
		{"feeler", `{"goes":["5 thou"],"drags":["8 thou"],"stops":["7 thou"]}`, "drags"},
		{"feeler", `{"goes":[],"stops":[]}`, "goes"},
		{"shims", `{"measured_clearance":"5 thou","lower":"3 thou","upper":"7 thou","fitted":["?"]}`, "fitted[0]"},
		{"wear_life", `{"nominal":"5 mm","limit":"5 mm","measured":"5 mm","hours":5}`, "limit"},
		{"wear_life", `{"nominal":"5 mm","limit":"4 mm","measured":"4.5 mm","hours":0}`, "hours"},
		{"coil_spring", `{"free_length":"40 mm","rate":"1 N/mm","installed_length":"41 mm"}`, "installed_length"},
		{"coil_spring", `{"free_length":"40 mm","rate":"1 N/mm","wire":"1 mm","installed_length":"31 mm"}`, "wire"},
		{"bolt_torque", `{"thread":"M12","class":"grade 5"}`, "class"},
		{"bolt_torque", `{"thread":"M13","class":"8.8"}`, "thread"},
		{"bolt_torque", `{"thread":"1/2","class":"grade 5"}`, "thread"},
		{"bolt_pattern", `{"count":2.5,"torque":"5 N·m"}`, "count"},
		{"annular_leak", `{"diameter":"2 mm","clearance":"0.1 mm","length":"5 mm","pressure_drop":"1 bar",` +
			`"kinematic_viscosity":"46 cSt"}`, "density"},
		{"annular_leak", `{"diameter":"2 mm","clearance":"0.1 mm","length":"0 mm","pressure_drop":"1 bar",` +
			`"dynamic_viscosity":"46 cP"}`, "length"},
		{"clearance", `{"hole":"2 mm","hole_max":"3 mm","shaft":"1 mm"}`, "hole_max"},
		{"rebuild_or_replace", `{"parts":1,"labour_hours":1,"rate":1,"rebuild_days":1,"life_fraction":0}`,
			"life_fraction"},
	}
	for _, c := range cases {
		t.Run(c.calc+" "+c.field, func(t *testing.T) {
			_, err := calc.Run(c.calc, []byte(c.in))
			var fe *field.Error
			require.ErrorAs(t, err, &fe)
			assert.Equal(t, c.field, fe.Field)
			assert.NotEmpty(t, fe.Text)
		})
	}
}

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

func TestLeakGrowsWithClearance(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		gap := rapid.Float64Range(0.001, 0.5).Draw(t, "gap")
		more := gap * rapid.Float64Range(1.01, 3).Draw(t, "times")
		flow := func(g float64) float64 {
			body, _ := json.Marshal(map[string]any{"width": "25 mm", "length": "10 mm", "gap": jsonLength(g),
				"pressure_drop": "100 bar", "dynamic_viscosity": "40 cP"})
			out, err := calc.Run("plane_leak", body)
			if err != nil {
				t.Fatal(err)
			}
			v, _ := out.Value("flow")
			return v
		}
		if flow(more) <= flow(gap) {
			t.Fatalf("a wider gap leaked less: %v, %v", gap, more)
		}
	})
}

func jsonLength(mm float64) string {
	b, _ := json.Marshal(mm)
	return string(b) + " mm"
}

func TestUnknownBoltClassCallsNothingSafe(t *testing.T) {
	out, err := calc.Run("bolt_torque", []byte(`{"thread":"M10","class":"unknown"}`))
	require.NoError(t, err)
	_, has := out.Value("torque")
	assert.False(t, has)
	require.NotEmpty(t, out.Warnings)
	assert.Equal(t, "class_unknown", out.Warnings[0].Code)
}

func FuzzRun(f *testing.F) {
	for _, d := range calc.All() {
		f.Add(d.Name, d.Example)
	}
	f.Fuzz(func(t *testing.T, name, in string) {
		out, err := calc.Run(name, []byte(in))
		if err != nil {
			var fe *field.Error
			if !asField(err, &fe) || strings.TrimSpace(fe.Text) == "" {
				t.Fatalf("%v is no field error", err)
			}
			return
		}
		if _, err := json.Marshal(out); err != nil {
			t.Fatal(err)
		}
	})
}

func asField(err error, fe **field.Error) bool {
	e, ok := err.(*field.Error)
	*fe = e
	return ok
}

func BenchmarkCalculators(b *testing.B) {
	for _, d := range calc.All() {
		body := []byte(d.Example)
		b.Run(d.Name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if _, err := calc.Run(d.Name, body); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
