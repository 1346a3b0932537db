package bench

import (
	"slices"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/stops"
	"corvek/core/unit"
)

// Shut says why the unit is not opened yet: the gauges hold it and no lead opened
// it all the same. It is "" where it may be opened.
func (st *Rated) Shut() string {
	code, why := stops.GaugeHold(st.Gauge, st.Unit)
	if why == "" || st.Job.Waiver(code.String()) != nil {
		return ""
	}
	return why + ". A lead can open it all the same, with a reason"
}

// identify finds the variant.
func (st *Rated) identify() {
	id := family.Identity{Model: st.Unit.Model, Serial: st.Unit.Serial, Marks: map[string]bool{},
		Measured: map[string]float64{}}
	for code, said := range st.Unit.Identity {
		id.Marks[code] = said == entry.Yes
	}
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if f.Found.HasValue {
				id.Measured[f.Path()] = f.Found.Value
			}
		}
	}
	st.Variant = st.Family.Resolve(id)
}

// VariantRule says by which rule the unit is of its variant.
func (st *Rated) VariantRule() string {
	name := st.Unit.Variant
	switch m := st.Variant.Chosen; {
	case name == "":
		return "no variant"
	case m != nil && (m.Variant.Name == name || m.Variant.Code == name):
		return name + ": " + st.Variant.Why
	}
	return name + ": entered by hand"
}

// Asks reports that a question is asked of a unit of the job at its machine.
func (st *Given) Asks(u *unit.Unit, question string) bool {
	f := st.Families(u)
	return f != nil && slices.Contains(f.Gauge, question)
}
