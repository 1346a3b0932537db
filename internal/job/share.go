package job

import (
	"context"
	"strings"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
)

// ofMachine are the values of a unit that several units of one machine share: what runs in it and what happened to it.
const ofMachine = `machine asset fluid viscosity density temperature filtration hours changed not_asked
	need_cold need_hot need_standing`

// Shared are the names of what a unit of a job tells that another of its units does not know yet, in the order of the
// fields; none where the job has one unit.
func Shared(j *unit.Job, number int) (names []string) {
	_ = eachShared(j, number, func(f *entry.Field, _ *unit.Unit, _ string) error { // fails nowhere
		if n := len(names); n == 0 || names[n-1] != f.Label {
			names = append(names, f.Label)
		}
		return nil
	})
	return names
}

// eachShared visits what can be said of the other units, field by field; a value that a unit has of its own stays.
func eachShared(j *unit.Job, number int, visit func(f *entry.Field, to *unit.Unit, text string) error) error {
	from := j.Unit(number)
	if from == nil {
		return nil
	}
	for _, name := range strings.Fields(ofMachine) {
		f, known := entry.Find(unit.ScopeUnit, name)
		if !known {
			continue
		}
		text := f.Get(&entry.Place{Job: j, Unit: from})
		for _, u := range j.Units {
			if u == from || text == "" || f.Get(&entry.Place{Job: j, Unit: u}) != "" {
				continue
			}
			if err := visit(f, u, text); err != nil {
				return err
			}
		}
	}
	return nil
}

// SayOfAll says of the other units of a job what is known of one and belongs to their machine: once said, heard by all.
func (s *Service) SayOfAll(ctx context.Context, who people.Actor, tag string, number int) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number,
		func(w *writing, u *unit.Unit, _ *bench.State) (string, error) {
			names := Shared(w.Job, number)
			if len(names) == 0 {
				return "", field.Errorf("share", "there is nothing that the other units do not know")
			}
			err := eachShared(w.Job, number, func(f *entry.Field, to *unit.Unit, text string) error {
				place, f, err := entry.Resolve(w.Job, to.Ref(f.Name), w.shop)
				if err != nil {
					return err
				}
				return place.Write(f, text)
			})
			return "said of all units as of " + u.Name + ": " + strings.ToLower(strings.Join(names, ", ")), err
		})
}
