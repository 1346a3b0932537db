package quantity_test

import (
	"math"
	"strings"
	"testing"

	"corvek/core/quantity"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestParseAccepts(t *testing.T) {
	cases := []struct {
		in   string
		dim  quantity.Dimension
		want float64
	}{
		{"63 mm", quantity.Length, 0.063},
		{"63mm", quantity.Length, 0.063},
		{"1/8 in", quantity.Length, 0.003175},
		{"1-1/8 in", quantity.Length, 0.028575},
		{"1 1/8\"", quantity.Length, 0.028575},
		{"-1-1/8 in", quantity.Length, -0.028575},
		{"½ in", quantity.Length, 0.0127},
		{"1½ in", quantity.Length, 0.0381},
		{"1 ½\"", quantity.Length, 0.0381},
		{"1-⅛ in", quantity.Length, 0.028575},
		{"-2¾ in", quantity.Length, -0.06985},
		{"3 thou", quantity.Length, 76.2e-6},
		{"3 mil", quantity.Length, 76.2e-6},
		{"2,5 bar", quantity.Pressure, 250000},
		{"0,125 mm", quantity.Length, 0.000125},
		{"1e-3 m", quantity.Length, 0.001},
		{".5 mm", quantity.Length, 0.0005},
		{"5 µm", quantity.Length, 5e-6},
		{"5 um", quantity.Length, 5e-6},
		{"1 gal", quantity.Volume, 0.003785411784},
		{"1 floz", quantity.Volume, 0.003785411784 / 128},
		{"3000 psi", quantity.Pressure, 20684271.879},
		{"3000 PSI", quantity.Pressure, 20684271.879},
		{"1 kgf/cm2", quantity.Pressure, 98066.5},
		{"1 lbf·ft", quantity.Torque, 1.3558179483},
		{"1 ft-lb", quantity.Torque, 1.3558179483},
		{"1 lb-ft", quantity.Torque, 1.3558179483},
		{"12 lbf·in", quantity.Torque, 1.3558179483},
		{"10 N m", quantity.Torque, 10},
		{"10 N.m", quantity.Torque, 10},
		{"20 drops/min", quantity.Flow, 1e-6 / 60},
		{"1 gpm", quantity.Flow, 0.003785411784 / 60},
		{"32 cc/rev", quantity.Displacement, 32e-6},
		{"1450 rpm", quantity.Rotation, 1450},
		{"50 °C", quantity.Temperature, 50},
		{"122 °F", quantity.Temperature, 50},
		{"323.15 K", quantity.Temperature, 50},
		{"18 delta °F", quantity.TemperatureDifference, 10},
		{"10 K", quantity.TemperatureDifference, 10},
		{"46 cSt", quantity.KinematicViscosity, 46e-6},
		{"40 mPa·s", quantity.DynamicViscosity, 0.040},
		{"1 hp", quantity.Power, 745.6998715823},
		{"1 short ton-force", quantity.Force, 8896.443230521},
		{"1 long ton-force", quantity.Force, 9964.01641818},
		{"1 tonne-force", quantity.Force, 9806.65},
		{"100 lbf/in", quantity.SpringRate, 17512.683524},
		{"93 %", quantity.Number, 0.93},
		{"0.93", quantity.Number, 0.93},
		{"180 deg", quantity.Angle, math.Pi},
		{"2 h", quantity.Time, 7200},
	}
	for _, c := range cases {
		t.Run(c.in, func(t *testing.T) {
			q, err := quantity.Parse(c.in, c.dim)
			require.NoError(t, err)
			assert.InEpsilon(t, c.want, q.SI, 1e-9)
			assert.Equal(t, c.in, q.Typed, "what was typed is kept")
		})
	}
}

func TestParseRefusesWithAHint(t *testing.T) {
	cases := []struct {
		in   string
		dim  quantity.Dimension
		says string
	}{
		{"", quantity.Length, "empty"},
		{"mm", quantity.Length, "start with a number"},
		{"63", quantity.Length, "needs a unit"},
		{"63 bar", quantity.Length, "is a pressure"},
		{"63 furlong", quantity.Length, "not known"},
		{"3000 lb", quantity.Pressure, "psi?"},
		{"240 thou", quantity.Volume, "0.240 in3?"},
		{"1,250 mm", quantity.Length, "thousands"},
		{"1,250.5 mm", quantity.Length, "thousands"},
		{"inf mm", quantity.Length, "not finite"},
		{"NaN", quantity.Number, "not finite"},
		{"1e400 mm", quantity.Length, "not finite"},
		{"1e308 m", quantity.Length, "more than anything"},
		{"-1e300 in", quantity.Length, "more than anything"},
		{"1/0 in", quantity.Length, "zero below"},
		{"1.5-1/8 in", quantity.Length, "whole number"},
		{"1.5½ in", quantity.Length, "whole number"},
		{"½½ in", quantity.Length, "more than one number"},
		{"3-7 thou", quantity.Length, "more than one number"},
		{"5 ton", quantity.Force, "tonne-force"},
		{"10 °C", quantity.TemperatureDifference, "10 K"},
		{"-300 °C", quantity.Temperature, "absolute zero"},
		{"21 mPa", quantity.Pressure, "MPa or mbar"},
		{"60 L", quantity.Flow, "L/min?"},
		{"12 cSt", quantity.DynamicViscosity, "kinematic"},
		{"5 mm", quantity.Number, "plain number"},
	}
	for _, c := range cases {
		t.Run(c.in, func(t *testing.T) {
			_, err := quantity.Parse(c.in, c.dim)
			require.Error(t, err)
			assert.Contains(t, err.Error(), c.says)
		})
	}
}

func TestShowAndOther(t *testing.T) {
	q, err := quantity.Parse("7 thou", quantity.Length)
	require.NoError(t, err)
	assert.Equal(t, "0.178 mm", q.Other())
	q, err = quantity.Parse("0.05 mm", quantity.Length)
	require.NoError(t, err)
	assert.Equal(t, "2.0 thou", q.Other())
	q, err = quantity.Parse("1450 rpm", quantity.Rotation)
	require.NoError(t, err)
	assert.Empty(t, q.Other(), "rpm is rpm to everybody")
	assert.Equal(t, "175.0 bar", quantity.Show(175e5, quantity.Pressure, quantity.Metric))
	assert.Equal(t, "0.00 L/min", quantity.Unit{Name: "L/min", Factor: 1}.Format(-0.0001, 2), "no minus zero")
	assert.Equal(t, "0.0123", quantity.Figures(0.01234, 3))
	assert.Equal(t, "1234", quantity.Figures(1234.4, 3))
}

// Any length written in any unit of any system comes back the same.
func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		name := rapid.SampledFrom([]string{"mm", "in", "thou", "µm", "cm", "m", "ft"}).Draw(t, "unit")
		v := rapid.Float64Range(-1e6, 1e6).Draw(t, "value")
		u, ok := quantity.UnitByName(name, quantity.Length)
		if !ok {
			t.Fatalf("unit %q is missing", name)
		}
		q, err := quantity.Parse(u.Format(v*u.Factor, 9), quantity.Length)
		if err != nil {
			t.Fatal(err)
		}
		if math.Abs(u.In(q.SI)-v) > 1e-8 {
			t.Fatalf("%v %s came back as %v", v, name, u.In(q.SI))
		}
	})
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"1-1/8 in", "2,5 bar", "1e-3", "½ in", "1/8/2 mm", "-", "1 -1/8", "1-", "1e", ",5",
		"9\" ", "5 N·m"} {
		f.Add(s, uint8(1))
	}
	f.Fuzz(func(t *testing.T, s string, d uint8) {
		dim := quantity.Dimension(int(d) % (int(quantity.Resistance) + 1))
		q, err := quantity.Parse(s, dim)
		if err != nil {
			if strings.TrimSpace(err.Error()) == "" {
				t.Fatal("a refusal must say why")
			}
			return
		}
		if math.IsNaN(q.SI) || math.IsInf(q.SI, 0) {
			t.Fatalf("%q gave %v", s, q.SI)
		}
	})
}

func BenchmarkParse(b *testing.B) {
	for _, s := range []string{"63 mm", "1-1/8 in", "175 BAR"} {
		dim := quantity.Length
		if strings.HasSuffix(s, "BAR") {
			dim = quantity.Pressure
		}
		b.Run(s, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if _, err := quantity.Parse(s, dim); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

func TestSmallVolumes(t *testing.T) {
	const floz = 3.785411784e-3 / 128
	for si, want := range map[float64][2]string{floz: {"29.6 ml", "1.00 floz"}, 12.9 * floz: {"0.38 L", "0.10 gal"},
		0.05e-3: {"50.0 ml", "1.69 floz"}, 2e-3: {"2.00 L", "0.53 gal"}} {
		assert.Equal(t, want[0], quantity.Show(si, quantity.Volume, quantity.Metric))
		assert.Equal(t, want[1], quantity.Show(si, quantity.Volume, quantity.Inch))
	}
}

// Small lengths keep figures enough, and an inch shop speaks of thou only where
// it would.
func TestLengthsAsAShopWritesThem(t *testing.T) {
	for si, want := range map[float64]string{1e-6: "0.04 thou", 0.0254e-3: "1.0 thou", 50e-6: "2.0 thou",
		2.5e-3: "98.4 thou", 2.6e-3: "0.1024 in", 20e-3: "0.7874 in"} {
		assert.Equal(t, want, quantity.Show(si, quantity.Length, quantity.Inch))
	}
}

// A complaint of ten years is hours run too: a year is a year of 365.25 days.
func TestYearsAreATime(t *testing.T) {
	q, err := quantity.ParseDefault("10 years", quantity.Time, "h")
	require.NoError(t, err)
	assert.InDelta(t, 87660*3600, q.SI, 1)
}

func TestRoundAlsoBeforeThePoint(t *testing.T) {
	for want, v := range map[string]float64{"48000": 47613, "95": 95.2, "0": 0, "1.2": 1.23, "100": 99.6,
		"-48000": -47613} {
		assert.Equal(t, want, quantity.Round(v, 2))
	}
}
