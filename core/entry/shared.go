package entry

import (
	"strings"

	"corvek/core/family"
	"corvek/core/unit"
)

// ofMachine are the values of a unit that several units of one machine share: what runs in it and what happened to
// it.
const ofMachine = `machine asset fluid viscosity density temperature filtration hours changed not_asked
	need_cold need_hot need_standing`

// Shared is a value of one unit that another of the same job has not.
type Shared struct {
	Ref   unit.Ref // of the other's
	Label string
	Text  string
}

// SharedBy is what a unit of a job tells that others of its units do not know yet, in the order of the fields; a
// value that a unit has of its own stays. asks tells whether a question is asked of a unit at its machine.
func SharedBy(j *unit.Job, number int, asks func(u *unit.Unit, question string) bool) (out []Shared) {
	from := j.Unit(number)
	if from == nil {
		return nil
	}
	for _, name := range strings.Fields(ofMachine) {
		f, known := Find(unit.ScopeUnit, name)
		if !known {
			continue
		}
		text := f.Get(&Place{Job: j, Unit: from})
		for _, u := range j.Units {
			if u != from && text != "" && f.Get(&Place{Job: j, Unit: u}) == "" {
				out = append(out, Shared{u.Ref(name), f.Label, text})
			}
		}
	}
	for _, q := range family.Questions() {
		said := from.Gauge[q.Code]
		if !q.OfMachine || said == "" {
			continue
		}
		for _, u := range j.Units {
			if u != from && u.Gauge[q.Code] == "" && asks(u, q.Code) {
				out = append(out, Shared{u.GaugeRef(q.Code), q.Ask, said})
			}
		}
	}
	return out
}

// SharedLabels are the names of what is shared, each once.
func SharedLabels(all []Shared) (names []string) {
	for _, s := range all {
		if n := len(names); n == 0 || names[n-1] != s.Label {
			names = append(names, s.Label)
		}
	}
	return names
}
