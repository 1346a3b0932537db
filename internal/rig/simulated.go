// Package rig is the test stand. The simulated stand that ships with the
// product derives every figure from the unit's own clearances and relief
// spring, with the resolution and scatter of real instruments, and says that
// it is simulated wherever its figures are shown.
package rig

import (
	"hash/fnv"
	"math"
	"math/rand/v2"

	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
)

// Reading is what the stand shows for one point, as an operator would write it.
type Reading struct {
	Pressure, Flow, Speed, Temperature, Word string
}

// Resolutions of the simulated instruments, and the scatter of a steady flow.
const (
	pressureStep = 0.5e5        // Pa
	flowStep     = 0.05e-3 / 60 // m3/s
	scatter      = 0.002        // of the flow, one standard deviation
)

// Simulated is the stand with a unit on it.
type Simulated struct {
	Family *family.Family
	Model  proof.Model
	Duty   float64 // Pa
	Seed   string  // the same unit at the same try reads the same
	Turn   string  // the worst feel of the shaft at the build
	SealOK bool    // shaft seals and gaskets were renewed
}

// Run takes one step of the test plan.
func (s Simulated) Run(t family.Test) Reading {
	rng := s.noise(t.Code)
	switch t.Kind {
	case family.TestFlow:
		p := s.Duty * t.Pressure
		if stall := s.Model.Stall(p); stall < p {
			p = stall // the relief holds it there
		}
		flow := s.Model.Deliver(p) * (1 + scatter*rng.NormFloat64())
		return Reading{Pressure: show(p, pressureStep, quantity.Pressure),
			Flow:  show(math.Max(0, flow), flowStep, quantity.Flow),
			Speed: quantity.Show(s.Model.Speed, quantity.Rotation, quantity.Metric), Temperature: "46 °C"}
	case family.TestRelief:
		p := s.Model.Stall(3*s.Duty) * (1 + scatter*rng.NormFloat64())
		return Reading{Pressure: show(p, pressureStep, quantity.Pressure)}
	case family.TestLeak:
		word := "dry"
		if !s.SealOK && len(t.Words) > 2 {
			word = t.Words[2]
		}
		return Reading{Word: word, Pressure: show(s.Duty, pressureStep, quantity.Pressure)}
	}
	return Reading{Word: s.observe(t)}
}

// observe answers with the feel noted at the build where the step asks for it,
// and otherwise with the first good word.
func (s Simulated) observe(t family.Test) string {
	for _, w := range t.Words {
		if w == s.Turn {
			return w
		}
	}
	if len(t.Good) > 0 {
		return t.Good[0]
	}
	return ""
}

func (s Simulated) noise(code string) *rand.Rand {
	h := fnv.New64a()
	_, _ = h.Write([]byte(s.Seed + "/" + code))
	return rand.New(rand.NewPCG(h.Sum64(), 1))
}

func show(si, step float64, d quantity.Dimension) string {
	u, decimals := quantity.ShopUnit(si, d, quantity.Metric)
	return u.Format(math.Round(si/step)*step, decimals)
}
