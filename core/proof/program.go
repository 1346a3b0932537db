package proof

import (
	"fmt"
	"math"
	"time"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
)

// Program is what the drive of a stand does at a step: it starts, raises the pressure over
// the ramp, holds it, and lets go.
type Program struct {
	From     float64 // Pa, gauge, at which it stood when it began
	Pressure float64 // Pa, gauge
	Speed    float64 // rev/min
	Ramp     time.Duration
	Hold     time.Duration
	Guard    Guard
}

// Guard is what a figure may be while the drive runs; what goes past it stops the drive. A
// figure without a bound has 0.
type Guard struct {
	Pressure    float64 // Pa, most
	Torque      float64 // N·m, most
	Temperature float64 // °C, most
	Jump        float64 // Pa that the pressure may change from one reading to the next
}

// What a program is guarded by where nothing else is given: a step may overshoot its
// pressure by a fifth, the oil stays below the warmest that the common seals bear for long,
// and no pressure of a closed line moves by a quarter of duty in a tenth of a second without
// the cause being a burst, a jammed relief or a broken wire.
const (
	overshoot  = 1.2
	hottest    = 80.0
	jumpShare  = 0.25
	leastGuard = 20e5 // Pa
)

// GuardFor are the bounds of a step at a duty.
func GuardFor(d Duty, pressure float64) Guard {
	g := Guard{Pressure: math.Max(leastGuard, overshoot*math.Max(pressure, d.Pressure)), Temperature: hottest}
	if d.HasPressure {
		g.Jump = math.Max(leastGuard, jumpShare*d.Pressure)
	}
	return g
}

// RampRate is how fast the pressure is raised and lowered, Pa/s: slow enough that a relief or
// a burst seal can still be answered.
const RampRate = 20e5

// Begin is the program from where the pressure stands.
func (p Program) Begin(from float64) Program {
	p.From = from
	p.Ramp = max(p.Ramp, time.Duration(math.Abs(p.Pressure-from)/RampRate*float64(time.Second)))
	return p
}

// How a step is driven: without a speed or a pressure of its own the stand idles, and after
// its hold there is a while to take its point.
const (
	leastRamp = 3 * time.Second
	idling    = 5e5 // Pa
	usualHold = 10 * time.Minute
	afterHold = time.Minute
)

// ProgramFor is how the stand is driven at a step: to its share of the pressure in Pa that it is run
// at, past the band of a relief that is to open, slowly where a displacement is read.
func ProgramFor(t *family.Test, level float64, d Duty, relief metrology.Limits) Program {
	p := Program{Pressure: t.Pressure * level, Speed: d.Speed, Ramp: leastRamp, Hold: usualHold}
	if t.Judges(family.BySetting) {
		p.Pressure = max(pastRelief*relief.Upper, relief.Lower, d.Pressure)
	}
	if t.Judges(family.ByDisplacement) {
		p.Speed *= slowly
	}
	p.Pressure = max(p.Pressure, idling)
	if q, err := quantity.Parse(t.Hold, quantity.Time); err == nil {
		p.Hold = time.Duration(q.SI*float64(time.Second)) + afterHold
	}
	p.Guard = GuardFor(d, p.Pressure)
	return p
}

// Shares of the band of a relief and of the speed at duty.
const (
	pastRelief = 1.15
	slowly     = 0.25
)

// At is what the stand is set to at a time from the start; done is true when it is over.
func (p Program) At(t time.Duration) (pressure, speed float64, done bool) {
	switch {
	case t < 0:
		return 0, 0, false
	case t < p.Ramp:
		return p.From + (p.Pressure-p.From)*float64(t)/float64(p.Ramp), p.Speed, false
	case t < p.Ramp+p.Hold:
		return p.Pressure, p.Speed, false
	}
	return 0, 0, true
}

// Holding reports that the ramp is over and the hold is not.
func (p Program) Holding(t time.Duration) bool { return t >= p.Ramp && t < p.Ramp+p.Hold }

// Watch says why the drive must stop, "" for no reason. now and before give a figure of this
// and of the reading before; ok is false where it was not read.
func (g Guard) Watch(now, before func(figure string) (float64, bool)) string {
	show := func(v float64, d quantity.Dimension) string { return quantity.Show(v, d, quantity.Metric) }
	pressure, read := now("pressure")
	if last, was := before("pressure"); read && was && g.Jump > 0 && math.Abs(pressure-last) > g.Jump {
		return fmt.Sprintf("pressure jumped from %s to %s", show(last, quantity.Pressure),
			show(pressure, quantity.Pressure))
	}
	if read && g.Pressure > 0 && pressure > g.Pressure {
		return fmt.Sprintf("pressure %s is past its limit of %s", show(pressure, quantity.Pressure),
			show(g.Pressure, quantity.Pressure))
	}
	if v, read := now("torque"); read && g.Torque > 0 && v > g.Torque {
		return fmt.Sprintf("torque %s is past its limit of %s", show(v, quantity.Torque),
			show(g.Torque, quantity.Torque))
	}
	if v, read := now("temperature"); read && g.Temperature > 0 && v > g.Temperature {
		return fmt.Sprintf("temperature %s is past its limit of %s", show(v, quantity.Temperature),
			show(g.Temperature, quantity.Temperature))
	}
	return ""
}
