package proof_test

import (
	"testing"
	"time"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"

	"github.com/stretchr/testify/assert"
)

func TestProgramRampsHoldsAndLetsGo(t *testing.T) {
	p := proof.Program{Pressure: 100e5, Speed: 1450, Ramp: 10 * time.Second, Hold: time.Minute}
	for _, c := range []struct {
		at       time.Duration
		pressure float64
		done     bool
	}{{0, 0, false}, {5 * time.Second, 50e5, false}, {10 * time.Second, 100e5, false}, {69 * time.Second, 100e5, false},
		{70 * time.Second, 0, true}, {time.Hour, 0, true}} {
		pressure, _, done := p.At(c.at)
		assert.InDelta(t, c.pressure, pressure, 1, c.at)
		assert.Equal(t, c.done, done, c.at)
	}
	pressure, _, _ := p.Begin(300e5).At(5 * time.Second)
	assert.InDelta(t, 200e5, pressure, 1, "from where it stands, 20 bar a second")
	assert.False(t, p.Holding(9*time.Second))
	assert.True(t, p.Holding(11*time.Second))
}

func TestGuardStopsTheDrive(t *testing.T) {
	g := proof.GuardFor(proof.Duty{Pressure: 175e5, HasPressure: true}, 175e5)
	g.Torque = 120
	figures := func(m map[string]float64) func(string) (float64, bool) {
		return func(f string) (float64, bool) { v, ok := m[f]; return v, ok }
	}
	none := figures(nil)
	for _, c := range []struct {
		now, before map[string]float64
		says        string
	}{
		{map[string]float64{"pressure": 180e5, "torque": 90, "temperature": 60},
			map[string]float64{"pressure": 179e5}, ""},
		{map[string]float64{"pressure": 211e5}, map[string]float64{"pressure": 209e5}, "past its limit of 210.0 bar"},
		{map[string]float64{"pressure": 60e5}, map[string]float64{"pressure": 175e5},
			"jumped from 175.0 bar to 60.0 bar"},
		{map[string]float64{"torque": 130}, nil, "torque"},
		{map[string]float64{"temperature": 81}, nil, "temperature 81 °C is past its limit of 80 °C"},
		{nil, map[string]float64{"pressure": 175e5}, ""},
	} {
		why := g.Watch(figures(c.now), figures(c.before))
		if c.says == "" {
			assert.Empty(t, why)
		} else {
			assert.Contains(t, why, c.says)
		}
	}
	assert.Empty(t, proof.Guard{}.Watch(figures(map[string]float64{"pressure": 1e9}), none), "no bound, no stop")
}

// A relief is driven past its band, a displacement slowly, a step of no pressure idles, and
// what is held has a minute more.
func TestProgramOfAStep(t *testing.T) {
	d := proof.Duty{Pressure: 175e5, Speed: 1450, HasPressure: true, HasSpeed: true}
	relief := proof.ProgramFor(
		&family.Test{Reads: []family.Read{{Figure: "pressure", By: family.BySetting}}},
		d.Pressure,
		d,
		metrology.Between(184e5, 210e5),
	)
	assert.InDelta(t, 241.5e5, relief.Pressure, 1)
	assert.Greater(t, relief.Guard.Pressure, relief.Pressure)
	slow := proof.ProgramFor(
		&family.Test{Reads: []family.Read{{Figure: "flow", By: family.ByDisplacement}}},
		d.Pressure,
		d,
		metrology.Limits{},
	)
	assert.InDelta(t, 362.5, slow.Speed, 1e-9)
	assert.InDelta(t, 5e5, slow.Pressure, 1)
	held := proof.ProgramFor(&family.Test{Pressure: 1, Hold: "5 min"}, d.Pressure, d, metrology.Limits{})
	assert.InDelta(t, 175e5, held.Pressure, 1)
	assert.Equal(t, 6*time.Minute, held.Hold)
}
