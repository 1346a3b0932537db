package bench

import (
	"corvek/core/calc"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/fluid"
	"corvek/core/machine"
	"corvek/core/proof"
)

// Duty is the unit's duty in base units; the Has flags tell what is known.
type Duty struct {
	proof.Duty
	Density float64 // kg/m3
}

// Theory reports whether a theoretical flow can be given.
func (d Duty) Theory() bool { return d.HasDisplacement && d.HasSpeed }

// Rated is the unit with what it is made for and filled with, and what there is to know of one
// that has what it has.
type Rated struct {
	*Stripped
	Duty         Duty
	Gauge        machine.Gauge
	Variant      family.Resolution
	Balance      *calc.Output // of the oil, nil until enough is known
	BalanceFault string
	Knowledge    *explain.Knowledge // of what is on this unit, as far as it is open
}

func rated(s *Stripped) *Rated {
	st := &Rated{Stripped: s}
	st.readDuty()
	st.Knowledge = s.memo.knowledge(s)
	st.Gauge = machine.Conclude(st.Family, st.Knowledge, st.Unit.Gauge, st.Job.Symptoms)
	st.identify()
	st.balance()
	return st
}

func (st *Rated) readDuty() {
	d, u := &st.Duty, st.Unit
	d.Displacement, d.HasDisplacement = u.Displacement.Known()
	d.Speed, d.HasSpeed = u.Speed.Known()
	d.Pressure, d.HasPressure = u.DutyPressure.Known()
	d.Density = fluid.DensityOf(u.Fluid)
	if rho, ok := u.Density.Known(); ok {
		d.Density = rho
	}
	if nu, ok := u.Viscosity.Known(); ok {
		d.Viscosity, d.HasViscosity = nu*d.Density, true
	}
}
