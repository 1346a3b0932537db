package calc_test

import (
	"encoding/json"
	"fmt"
	"math"
	"testing"

	"corvek/core/calc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// value runs a calculator on a property's inputs and gives one figure.
func value(t *rapid.T, name, key string, in map[string]any) float64 {
	body, err := json.Marshal(in)
	if err != nil {
		t.Fatal(err)
	}
	out, err := calc.Run(name, body)
	if err != nil {
		t.Fatalf("%s %s: %v", name, body, err)
	}
	v, ok := out.Value(key)
	if !ok {
		t.Fatalf("%s gave no %s", name, key)
	}
	return v
}

func with(v float64, unit string) string { return fmt.Sprintf("%.9g %s", v, unit) }

// More of what drives it never gives less of what it drives.
func TestMonotone(t *testing.T) {
	cases := []struct {
		calc, key, input, unit string
		lo, hi                 float64
		rest                   map[string]any
	}{
		{"cylinder", "push_force", "pressure", "bar", 1, 400, map[string]any{"bore": "63 mm", "rod": "36 mm"}},
		{"cylinder", "push_force", "bore", "mm", 40, 300, map[string]any{"pressure": "100 bar", "rod": "36 mm"}},
		{"pump", "theoretical_flow", "speed", "rpm", 100, 3000,
			map[string]any{"displacement": "32 cc/rev", "pressure": "100 bar"}},
		{"heat", "power", "flow", "L/min", .1, 100, map[string]any{"pressure_drop": "100 bar"}},
		{"annular_leak", "flow", "clearance", "mm", .005, .3,
			map[string]any{"diameter": "20 mm", "length": "20 mm", "pressure_drop": "100 bar",
				"dynamic_viscosity": "40 cP"}},
		{"annular_leak", "flow", "eccentricity", "", 0, 1,
			map[string]any{"clearance": "0.03 mm", "diameter": "20 mm", "length": "20 mm",
				"pressure_drop": "100 bar", "dynamic_viscosity": "40 cP"}},
		{"orifice", "flow", "pressure_drop", "bar", 1, 400, map[string]any{"diameter": "1 mm"}},
		{"ejection", "force", "pressure", "psi", 1, 150, map[string]any{"bore": "1 in"}},
		{"stored_energy", "isentropic_energy", "pressure", "bar", 1, 400,
			map[string]any{"volume": "2 L", "medium": "gas"}},
		{"coil_spring", "force", "rate", "N/mm", 1, 80,
			map[string]any{"free_length": "42 mm", "installed_length": "34 mm"}},
		{"bolt_torque", "torque", "preload_fraction", "", .1, 1, map[string]any{"thread": "M12", "class": "8.8"}},
		{"disc_stack", "force", "deflection", "mm", .05, 1.0,
			map[string]any{"outside": "50 mm", "inside": "25.4 mm", "thickness": "3 mm", "cone_height": "1.1 mm",
				"stack": "<"}},
		{"friction_pack", "torque", "force", "kN", .1, 50,
			map[string]any{"plates": "sfs", "friction": .1, "outer": "160 mm", "inner": "120 mm"}},
		{"creep_leak", "leak", "creep", "mm", .1, 100, map[string]any{"bore": "80 mm", "duration": "10 min"}},
		{"retainer_lift", "force_each", "case_pressure", "bar", 0, 30,
			map[string]any{"piston_diameter": "18 mm", "suction_pressure": "-0.5 bar"}},
	}
	for _, c := range cases {
		t.Run(c.calc+" with "+c.input, func(t *testing.T) {
			rapid.Check(t, func(t *rapid.T) {
				a := rapid.Float64Range(c.lo, c.hi).Draw(t, "less")
				b := rapid.Float64Range(a, c.hi).Draw(t, "more")
				at := func(v float64) float64 {
					in := map[string]any{c.input: with(v, c.unit)}
					for k, x := range c.rest {
						in[k] = x
					}
					return value(t, c.calc, c.key, in)
				}
				if at(b) < at(a)*(1-1e-9)-1e-18 {
					t.Fatalf("%v gives %v, %v gives %v", a, at(a), b, at(b))
				}
			})
		})
	}
}

// The torque of a preload, turned back, is that preload.
func TestTorqueAndPreloadAreInverse(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		share := rapid.Float64Range(.05, 1).Draw(t, "share")
		thread := rapid.SampledFrom([]string{"M6", "M10x1.25", "M24"}).Draw(t, "thread")
		torque := value(t, "bolt_torque", "torque", map[string]any{"thread": thread, "class": "10.9",
			"preload_fraction": share})
		back := value(t, "bolt_torque", "proof_share", map[string]any{"thread": thread, "class": "10.9",
			"torque": with(torque, "N·m")})
		if math.Abs(back-share) > 1e-6 {
			t.Fatalf("%v came back as %v", share, back)
		}
	})
}

// Both unit systems give the same figure.
func TestUnitsDoNotMatter(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		bore := rapid.Float64Range(10, 300).Draw(t, "bore mm")
		p := rapid.Float64Range(1, 400).Draw(t, "pressure bar")
		metric := value(t, "cylinder", "push_force", map[string]any{"bore": with(bore, "mm"),
			"pressure": with(p, "bar")})
		inch := value(t, "cylinder", "push_force", map[string]any{"bore": with(bore/25.4, "in"),
			"pressure": with(p*14.503773773, "psi")})
		if math.Abs(metric-inch) > 1e-6*metric {
			t.Fatalf("%v and %v", metric, inch)
		}
	})
}

// A divider sees A and B alike.
func TestDividerIsSymmetric(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b := rapid.Float64Range(1, 90).Draw(t, "a"), rapid.Float64Range(1, 90).Draw(t, "b")
		one := value(t, "flow_divider", "error_a", map[string]any{"flow_a": with(a, "L/min"),
			"flow_b": with(b, "L/min")})
		two := value(t, "flow_divider", "error_a", map[string]any{"flow_a": with(b, "L/min"),
			"flow_b": with(a, "L/min")})
		if math.Abs(one+two) > 1e-9 {
			t.Fatalf("%v and %v", one, two)
		}
	})
}

// A pump with a dead piston never pulses less than a whole one, and its mean is
// what the living ones give.
func TestDeadPistonsNeverSmoothTheFlow(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		z := rapid.IntRange(3, 15).Draw(t, "pistons")
		dead := rapid.IntRange(1, z-1).Draw(t, "dead")
		in := map[string]any{"pistons": z, "speed": "1500 rpm", "displacement": "60 cc/rev"}
		whole, mean := value(t, "piston_ripple", "ripple", in), value(t, "piston_ripple", "mean_flow", in)
		in["dead"] = dead
		if value(t, "piston_ripple", "ripple", in) < whole {
			t.Fatal("a dead piston smoothed the flow")
		}
		if got := value(t, "piston_ripple", "mean_flow", in); math.Abs(got-mean*float64(z-dead)/float64(z)) > 1e-12 {
			t.Fatalf("mean %v", got)
		}
	})
}

// Filling ends at the mark and the cap whatever the step, and never over.
func TestFillPlanEndsAtTheCap(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := map[string]any{"capacity": "10 L", "level": with(rapid.Float64Range(0, 9.9).Draw(t, "level"), "L"),
			"step": with(rapid.Float64Range(.1, 4).Draw(t, "step"), "L"),
			"cap":  with(rapid.Float64Range(0, 2).Draw(t, "cap"), "L")}
		body, _ := json.Marshal(in)
		out, err := calc.Run("fill_plan", body)
		if err != nil {
			t.Fatal(err)
		}
		rows := out.Get("additions").([]map[string]any)
		mark, last := false, 0.0
		for _, r := range rows {
			total := r["total"].(calc.Figure).Value
			if total <= last {
				t.Fatal("the total does not grow")
			}
			last = total
			mark = mark || math.Abs(total-.010) < 1e-9
		}
		if !mark {
			t.Fatal("the mark is passed without a stop")
		}
	})
}

// Whatever the calculator, an empty object is refused at a named input, and so
// is a figure in a unit that cannot be.
func TestEveryCalculatorRefusesNonsense(t *testing.T) {
	for _, d := range calc.All() {
		_, err := calc.Run(d.Name, []byte(`{}`))
		require.Error(t, err, d.Name)
		for _, in := range d.Inputs {
			var sample map[string]any
			require.NoError(t, json.Unmarshal([]byte(d.Example), &sample))
			for _, nonsense := range []any{"5 parsecs", "", map[string]any{"a": 1}, true, "NaN", "1e999 m"} {
				if in.Kind == calc.Text && nonsense != "" {
					continue
				}
				sample[in.Name] = nonsense
				body, err := json.Marshal(sample)
				require.NoError(t, err)
				if out, err := calc.Run(d.Name, body); err == nil {
					assert.Fail(t, "taken", "%s %s = %v gave %v", d.Name, in.Name, nonsense, out.Results)
				}
			}
		}
	}
}

// A zero is taken or refused, but never answered with an endless figure.
func TestZeroesNeverGiveEndlessFigures(t *testing.T) {
	for _, d := range calc.All() {
		for _, in := range d.Inputs {
			if in.Kind != calc.Single || in.AnyDim {
				continue
			}
			var sample map[string]any
			require.NoError(t, json.Unmarshal([]byte(d.Example), &sample))
			unit := in.Dim.Base()
			if in.Bare != "" {
				unit = in.Bare
			}
			sample[in.Name] = "0 " + map[string]string{"rev/min": "rpm", "degC": "°C", "m/m": "mm/m"}[unit]
			if sample[in.Name] == "0 " {
				sample[in.Name] = "0 " + unit
			}
			body, _ := json.Marshal(sample)
			out, err := calc.Run(d.Name, body)
			if err != nil {
				continue
			}
			text, err := json.Marshal(out)
			require.NoError(t, err, "%s with %s = 0", d.Name, in.Name)
			assert.NotContains(t, string(text), "Inf")
		}
	}
}
