package seal_test

import (
	"testing"

	"corvek/core/seal"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The rules of AS568: five sections from dash 004 on, inside diameter growing
// within each, and known rows.
func TestAS568(t *testing.T) {
	rows := map[string]seal.Ring{}
	last := map[float64]float64{}
	for _, r := range seal.Rings {
		if r.Standard != "AS568" {
			continue
		}
		_, twice := rows[r.Code]
		assert.False(t, twice, r.Code)
		rows[r.Code] = r
		assert.Greater(t, r.Inside, last[r.Section], "%s does not grow", r.Code)
		last[r.Section] = r.Inside
	}
	assert.Len(t, rows, 349)
	assert.Len(t, last, 8, "three small ones and five sections")
	for code, in := range map[string][2]float64{"-001": {.029, .040}, "-010": {.239, .070}, "-050": {5.239, .070},
		"-110": {.362, .103}, "-178": {9.737, .103}, "-210": {.734, .139}, "-222": {1.484, .139},
		"-284": {17.955, .139}, "-309": {.412, .210}, "-325": {1.475, .210}, "-395": {25.940, .210},
		"-425": {4.475, .275}, "-475": {25.940, .275}} {
		assert.InDelta(t, in[0]*.0254, rows[code].Inside, 1e-9, code)
		assert.InDelta(t, in[1]*.0254, rows[code].Section, 1e-9, code)
	}
}

// Tolerances of AS568: one a section, and for the inside never narrower than
// for a smaller ring of the same section; two doubtful rows hold none.
func TestAS568Tolerances(t *testing.T) {
	sections := map[float64]float64{.040: .003, .050: .003, .060: .003, .070: .003, .103: .003, .139: .004,
		.210: .005, .275: .006}
	rows, last := map[string]seal.Ring{}, map[float64]float64{}
	for _, r := range seal.Rings {
		if r.Standard != "AS568" {
			assert.Positive(t, r.SectionTolerance, r.Code)
			continue
		}
		rows[r.Code] = r
		for section, tol := range sections {
			if r.Section > (section-.0005)*.0254 && r.Section < (section+.0005)*.0254 {
				assert.InDelta(t, tol*.0254, r.SectionTolerance, 1e-9, r.Code)
			}
		}
		if r.InsideTolerance == 0 {
			assert.Contains(t, []string{"-209", "-225"}, r.Code)
			continue
		}
		assert.GreaterOrEqual(t, r.InsideTolerance, last[r.Section]-1e-12, r.Code)
		last[r.Section] = r.InsideTolerance
	}
	for code, tol := range map[string]float64{"-010": .005, "-024": .010, "-050": .037, "-114": .009, "-151": .024,
		"-178": .055, "-210": .010, "-222": .015, "-284": .085, "-325": .015, "-395": .120, "-425": .033,
		"-475": .120} {
		assert.InDelta(t, tol*.0254, rows[code].InsideTolerance, 1e-9, code)
	}
}

func TestMetricRingsAndLips(t *testing.T) {
	sections := map[float64]int{}
	for _, r := range seal.Rings {
		if r.Standard != "AS568" {
			sections[r.Section]++
		}
	}
	assert.Len(t, sections, 5)
	for _, l := range seal.Lips {
		assert.Less(t, l.Shaft, l.Bore)
		assert.Less(t, l.Width, l.Bore)
	}
}

func TestPressDepths(t *testing.T) {
	assert.Empty(t, seal.PressDepths(.004, .002, .007, .004, .007, .001), "flush only, and the lip runs in the groove")
	got := seal.PressDepths(.005, .0008, .007, .004, .012, .0005)
	require.Len(t, got, 2)
	assert.InDelta(t, .0023, got[1].From, 1e-12)
	assert.InDelta(t, .005, got[1].To, 1e-12)
}

func TestCompatibilityTableIsWhole(t *testing.T) {
	assert.Len(t, seal.Elastomers(), 10)
	assert.Len(t, seal.Fluids(), 15)
	for _, e := range seal.Elastomers() {
		for _, f := range []string{"dry nitrogen", "air", "mineral oil"} {
			v, r, known, ok := seal.Bears(e, f)
			assert.True(t, known && ok, "%s in %s", e, f)
			assert.NotEmpty(t, v)
			assert.Less(t, r.Low, r.High)
		}
	}
}

func FuzzParseCure(f *testing.F) {
	f.Add("2017-Q3")
	f.Add("2017-08-21")
	f.Fuzz(func(t *testing.T, s string) { _, _ = seal.ParseCure(s) })
}
