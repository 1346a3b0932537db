package job

import (
	"context"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
)

// AddStep gives the test of a unit a further step: a shared one by its code, or one in the shop's own words with the
// figures that are read. It is owed from then on, and its figures take limits with their source as any others.
func (s *Service) AddStep(ctx context.Context, who people.Actor, tag string, number int, shared, name string,
	figures []string) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			code := family.SharedStepCode(shared)
			if shared == "" {
				var err error
				if code, err = family.OwnStepCode(name, figures); err != nil {
					return "", field.Errorf("name", "%s", err)
				}
			}
			step, known := family.StepOfCode(code)
			if !known {
				return "", field.Errorf("step", "choose a step, or say in your own words what it shows")
			}
			if _, there := st.Step(step.Code); there {
				return "", field.Errorf("step", "%s is asked of this unit already", step.Name)
			}
			own := func(code string) bool { _, is := family.StepOfCode(code); return is }
			if count(u, own) >= family.MostOwnSteps {
				return "", field.Errorf("step", "a unit has at most %d steps of its own", family.MostOwnSteps)
			}
			return "the test has a step more: " + step.Name, w.has(u, st, code, "a step of its test")
		})
}

// RemoveStep takes a step out again that was given to this unit, while nothing was read at it.
func (s *Service) RemoveStep(ctx context.Context, who people.Actor, tag string, number int, code string) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			step, own := family.StepOfCode(code)
			if _, there := u.More[code]; !own || !there {
				return "", field.Errorf("step", "is no step that was given to this unit")
			}
			for _, a := range u.Attempts {
				if p := a.Point(step.Code); p != nil && (len(p.Figures) > 0 || p.Word != "") {
					return "", field.Errorf("step", "was read in a test already; it stays")
				}
			}
			delete(u.More, code)
			return "taken out of the test again: " + step.Name,
				w.follow(u, st.Family, unit.CountCounted, "a step of its test")
		})
}

// has gives a unit something more, by its code, and lays the unit out anew.
func (w *writing) has(u *unit.Unit, st *bench.State, code, why string) error {
	if u.More == nil {
		u.More = map[string]string{}
	}
	u.More[code] = "1"
	return w.follow(u, st.Family, unit.CountCounted, why)
}

// count is how many things of a kind a unit has more.
func count(u *unit.Unit, kind func(code string) bool) (n int) {
	for code := range u.More {
		if kind(code) {
			n++
		}
	}
	return n
}
