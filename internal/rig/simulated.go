// Package rig is the test stand: the link to any stand over OPC UA, a run of it that is
// watched, driven and recorded, and the simulated stand that ships with the product. That one
// derives its figures from the unit's own clearances, settings and faults, and says of itself
// what it is.
package rig

import (
	"math"
	"math/rand/v2"
	"slices"

	"corvek/core/family"
	"corvek/core/fluidpower"
	"corvek/core/mount"
	"corvek/core/proof"
)

// How the simulated stand behaves.
const (
	deadOf          = 9
	scatter         = 0.002 // of a steady reading, one standard deviation as a share of it
	ambient         = 22.0  // °C
	oilAtDuty       = 46.0  // °C at which the model's viscosity is taken
	thinning        = 0.035
	dragOfStiff     = 2.5
	pressureSettles = 0.4 // s
	speedSettles    = 0.6 // s
	warmsOver       = 90.0
)

// Controls are what the stand is set to.
type Controls struct {
	Drive    bool
	Pressure float64 // Pa
	Speed    float64 // rev/min
}

// Simulated is the simulated stand at work with a unit on it. It is moved on by Step.
type Simulated struct {
	Unit     mount.Mounted
	Controls Controls

	pressure, speed, temperature float64
	turned                       float64 // rev
	flow                         float64
	rng                          *rand.Rand
}

// NewSimulated gives a stand with nothing on it.
func NewSimulated(seed uint64) *Simulated {
	return &Simulated{temperature: ambient, rng: rand.New(rand.NewPCG(seed, 7))}
}

func (b *Simulated) has(fault string) bool { return slices.Contains(b.Unit.Faults, fault) }

// model is the unit's with its faults, at the temperature of the oil and the speed it has.
func (b *Simulated) model() proof.Model {
	m := b.Unit.Model
	m.Speed = b.speed
	m.Viscosity *= math.Exp(-thinning * (b.temperature - oilAtDuty))
	if b.has(mount.FaultPoppet) {
		m.Relief = proof.Relief{Cracking: 0.2 * math.Max(b.Unit.Duty.Pressure, 10e5), Override: 5e5}
	}
	return m
}

// Step moves the stand on by some seconds.
func (b *Simulated) Step(dt float64) {
	c := b.Controls
	want, turns := 0.0, 0.0
	if c.Drive {
		want, turns = c.Pressure, c.Speed
	}
	b.speed = toward(b.speed, turns, dt, speedSettles)
	m := b.model()
	if b.Unit.Action == "pump" && m.Theoretical() > 0 {
		want = math.Min(want, m.Stall(math.Max(want, 1)))
	}
	if b.has(mount.FaultRunaway) && c.Drive {
		want = b.pressure + 40e5
	}
	b.pressure = toward(b.pressure, want, dt, pressureSettles)
	b.turned += b.speed / 60 * dt
	load := 0.0
	if b.Unit.Duty.Pressure > 0 {
		load = b.pressure / b.Unit.Duty.Pressure
	}
	warm := ambient
	if c.Drive {
		warm += 6 + 20*load
	}
	if asked, set := b.Unit.Rest["temperature"]; set && c.Drive {
		warm = asked // its oil is heated to what the step asks for
	}
	b.temperature = toward(b.temperature, warm, dt, warmsOver)
	b.flow = b.delivers(m)
}

func (b *Simulated) delivers(m proof.Model) float64 {
	theory := m.Theoretical()
	switch {
	case b.Unit.Action == "motor":
		return theory + m.Leak(b.pressure)
	case theory == 0:
		return b.Unit.Rest["flow"] * b.share()
	}
	flow := m.Deliver(b.pressure)
	if b.has(mount.FaultPiston) {
		flow -= theory / deadOf
	}
	if b.has(mount.FaultRing) {
		flow -= 0.5 * m.Leak(b.pressure)
	}
	return math.Max(0, flow)
}

// share is how far the stand has come to what it is set to.
func (b *Simulated) share() float64 {
	if b.Controls.Pressure <= 0 || !b.Controls.Drive {
		return 0
	}
	return math.Min(1, b.pressure/b.Controls.Pressure)
}

// Read is what the instruments show now, by figure, in base units. What no instrument of
// the stand reads is not there.
func (b *Simulated) Read() map[string]float64 {
	noisy := func(v, share float64) float64 { return v * (1 + share*b.rng.NormFloat64()) }
	m := b.model()
	hunting := 0.001
	if b.has(mount.FaultAir) {
		hunting = 0.06
	}
	out := map[string]float64{
		"pressure":    math.Max(0, noisy(b.pressure, hunting)),
		"speed":       math.Max(0, noisy(b.speed, 0.0005)),
		"temperature": b.temperature + 0.05*b.rng.NormFloat64(),
	}
	if m.Theoretical() > 0 || b.Unit.Rest["flow"] > 0 {
		flow := noisy(b.flow, math.Max(scatter, hunting/2))
		if b.has(mount.FaultPiston) { // once a turn one stroke is missing
			flow += m.Theoretical() / deadOf * math.Sin(2*math.Pi*b.turned)
		}
		out["flow"] = math.Max(0, flow)
	}
	if b.Unit.Duty.HasDisplacement {
		out["case_flow"] = math.Max(0, noisy(m.Leak(b.pressure), 0.01))
		torque := fluidpower.TheoreticalTorque(b.pressure, b.Unit.Duty.Displacement)
		if b.Unit.Action == "motor" {
			torque *= mount.Mechanical
		} else {
			torque /= mount.Mechanical
		}
		if b.speed > 1 {
			torque += 1.5
		}
		if b.Unit.Stiff || b.has(mount.FaultStiff) {
			torque = dragOfStiff*torque + 8
		}
		out["torque"] = noisy(torque, 0.005)
		if theory := m.Theoretical(); theory > 0 {
			out["outlet_a"], out["outlet_b"] = noisy(b.flow/2, scatter), noisy(b.flow/2, scatter)
		}
	}
	if b.has(mount.FaultJump) && b.rng.Float64() < 0.1 {
		out["pressure"] += 0.5 * math.Max(b.Unit.Duty.Pressure, 100e5)
	}
	for figure, v := range b.Unit.Rest {
		_, own := out[figure]
		if !own && figure != "flow" || slices.Contains(b.Unit.Needed, figure) {
			out[figure] = math.Max(0, noisy(v*b.share(), scatter))
		}
	}
	return out
}

func toward(v, to, dt, tau float64) float64 { return to + (v-to)*math.Exp(-dt/tau) }

// channels are the figures that the simulated stand has instruments for.
var channels = readByItself()

func readByItself() (out []string) {
	for _, f := range family.Figures {
		switch f.Code {
		case "pressure_end", "temperature_end", "coil", "current", "suction_lift": // read by hand, or at another moment
		default:
			out = append(out, f.Code)
		}
	}
	return out
}
