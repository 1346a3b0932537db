package bench

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/search"
	"corvek/core/unit"
)

// thicker is from which share on an oil is thick enough to make a leak look small.
const thicker = 1.1

// Masks name what made a figure good besides the repair: a setting that was raised, a stiffer spring, an
// oil thicker than at duty or than in the test that failed. None of it keeps a claim from being shown;
// it is said wherever the claim is.
func (st *Tested) Masks() (out []string) {
	add := func(words string) {
		if !slices.Contains(out, words) {
			out = append(out, words)
		}
	}
	for _, step := range st.Plan() {
		s := st.Shown[step.Code]
		if s == nil || s.NotHere != "" || !s.Read || s.Judged.Verdict != metrology.In {
			continue
		}
		now := st.Unit.Attempt(s.Attempt)
		if words := st.thickAtDuty(now, &step.Test); words != "" {
			add(words)
		}
		if bad := st.outBefore(now, step.Code); bad != nil {
			for _, words := range st.madeGood(bad, now, &step.Test) {
				add(step.Name + " was out in attempt " + fmt.Sprint(bad.Number) + " and is good now: " + words)
			}
		}
	}
	return out
}

// outBefore is the last test of this unit before another in which a step was out, nil for none.
func (st *Tested) outBefore(now *unit.Attempt, step string) *unit.Attempt {
	for _, a := range slices.Backward(st.Attempts) {
		if a.Number >= now.Number || a.Source == unit.SourceSimulated {
			continue
		}
		for i := range a.Points {
			if p := &a.Points[i]; p.Test.Code == step && p.Verdict == metrology.Out {
				return a.Attempt
			}
		}
	}
	return nil
}

// madeGood names what hides a fault and was done between a test in which a step was out and the one in
// which it is good.
func (st *Tested) madeGood(bad, now *unit.Attempt, t *family.Test) (out []string) {
	for _, a := range st.Attempts {
		if a.Number <= bad.Number || a.Number > now.Number {
			continue
		}
		for _, m := range []struct{ kind, words string }{{a.ChangeKind, a.OneChange}, {a.SecondKind, a.SecondChange}} {
			switch search.Kind(m.kind) {
			case search.Mask:
				out = append(out, m.words+", which hides a fault and finds none")
			case search.Adjust:
				out = append(out, m.words+", a setting and no repair")
			}
		}
	}
	then, is := st.RanOn(bad, bad.Point(t.Code)), st.RanOn(now, now.Point(t.Code))
	if thins(t) && then.Known && is.Known && is.Viscosity > thicker*then.Viscosity {
		out = append(out, "run on thicker oil, "+showOil(is)+", then "+showOil(then))
	}
	was, stands := groundOf(st.Unit, bad, t.Code), groundOf(st.Unit, now, t.Code)
	if was == nil || stands == nil {
		return out
	}
	for _, key := range differ(was.Stood, stands.Stood) {
		if s := entry.StandingOf(key); hides(t, key) {
			out = append(out, st.movedWords(s, was.Stood[key], stands.Stood[key]))
		}
	}
	return out
}

// hides reports that a value is one that makes a step good without a repair: what a relief is set to,
// where the step reads it, and a stack of shims or springs.
func hides(t *family.Test, key string) bool {
	return strings.HasPrefix(key, "unit/setting_") && t.Judges(family.BySetting) ||
		strings.HasPrefix(key, "part/") && strings.HasSuffix(key, "/stack_fit")
}

// groundOf is what stood when a step of an attempt was read, nil where nobody kept it.
func groundOf(u *unit.Unit, a *unit.Attempt, step string) *unit.Ground {
	p := a.Point(step)
	if p == nil {
		return nil
	}
	for _, n := range slices.Backward(grounds(&family.Test{}, p)) {
		if g := u.Ground(n); g != nil {
			return g
		}
	}
	return nil
}

// thins reports that a step reads what is another on thinner oil and is not brought to duty.
func thins(t *family.Test) bool {
	return slices.ContainsFunc(t.Reads, func(r family.Read) bool {
		f, _ := family.FigureByCode(r.Figure)
		return f.Thins && r.By != family.ByEfficiency
	})
}

// thickAtDuty says that leak was read on an oil thicker than the unit sees at duty, "" where it was not.
func (st *Tested) thickAtDuty(now *unit.Attempt, t *family.Test) string {
	o := st.RanOn(now, now.Point(t.Code))
	duty, told := st.Unit.Viscosity.Known()
	if !thins(t) || !told || !o.Known || o.Viscosity <= thicker*duty {
		return ""
	}
	return "Leak was read on oil thicker than at duty, " + showOil(o) + ", duty " +
		quantity.Show(duty, quantity.KinematicViscosity, quantity.Metric)
}

func showOil(o Oil) string {
	return quantity.Show(o.Viscosity, quantity.KinematicViscosity, quantity.Metric)
}
