package bench

import (
	"corvek/core/family"
	"corvek/core/fluid"
	"corvek/core/quantity"
	"corvek/core/seal"
	"corvek/core/unit"
)

// Oil is what an attempt was run on, as far as it is told.
type Oil struct {
	Name, Clean string
	Celsius     float64
	HasCelsius  bool
	Viscosity   float64 // m2/s at that temperature, or as it was told for the run
	Known       bool    // its viscosity is
	Dirty       string  // how clean guidance asks it to be, where it is not
}

// RanOn tells what an attempt was run on. The one as received was on the machine, with its own oil.
func (st *Rated) RanOn(a *unit.Attempt, p *unit.Point) (o Oil) {
	o.Name, o.Clean = a.RanOn.Oil, a.RanOn.Clean
	if a.Number == 0 {
		o.Name = st.Unit.Fluid
	}
	o.Celsius, o.HasCelsius = temperatureOf(a, p)
	if nu, told := a.RanOn.Viscosity.Known(); told {
		o.Viscosity, o.Known = nu, true
	} else if o.HasCelsius {
		o.Viscosity, o.Known = gradeAt(o.Name, o.Celsius)
	}
	most, asked := fluid.ParseCleanliness(st.Family.Run.Clean)
	if is, told := fluid.ParseCleanliness(o.Clean); asked && told && !is.Within(most) {
		o.Dirty = most.String()
	}
	return o
}

// temperatureOf is the temperature at a step: as it was read there, else as it was told for the run,
// else as it was read at another of its steps.
func temperatureOf(a *unit.Attempt, p *unit.Point) (celsius float64, ok bool) {
	places := []quantity.Quantity{a.RanOn.Temperature}
	if p != nil {
		places = []quantity.Quantity{p.Figure("temperature"), a.RanOn.Temperature}
	}
	for _, other := range a.Points {
		places = append(places, other.Figure("temperature"))
	}
	for _, q := range places {
		if !q.IsZero() {
			return q.SI, true
		}
	}
	return 0, false
}

// gradeAt is the viscosity in m2/s of an oil that is named by its grade; an ester or a glycol of the
// same grade thins in another way.
func gradeAt(name string, celsius float64) (nu float64, ok bool) {
	if named, other := seal.NamedFluid(name); other && named != "mineral oil" {
		return 0, false
	}
	return fluid.GradeAt(name, celsius)
}

// unknownOil says why a figure that goes with the thickness of the oil carries no claim, "" where
// enough is told of it.
func (st *Rated) unknownOil(a *unit.Attempt, p *unit.Point) string {
	o, medium := st.RanOn(a, p), st.Family.Run.Of()
	switch {
	case a.Number == 0:
		return ""
	case o.Name == "":
		return "nobody says which " + medium + " it was run on"
	case medium == family.MediumOil && !o.Known && !o.HasCelsius:
		return "nobody says how warm the oil was"
	case medium == family.MediumOil && !o.Known:
		return "the viscosity of the oil is not known"
	case st.Family.Run.Clean != "" && o.Clean == "":
		return "nobody says how clean the oil was"
	}
	return ""
}
