package job

import (
	"context"
	"slices"
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
)

// follow brings a unit's parts to what its family is for it now; was is what the
// family was for it before. Without a rule it is the one that tells the variant.
func (w *writing) follow(u *unit.Unit, was *family.Family, from, rule string) error {
	c := w.catalog
	is := c.familyOf(u)
	if is == was {
		return nil
	}
	if rule == "" {
		st, err := w.state(u.Number)
		if err != nil {
			return err
		}
		rule = st.VariantRule()
	}
	before := map[string]unit.Part{}
	for _, p := range u.Parts {
		before[p.Code] = *p
	}
	u.Follow(c.Plain[u.Family], was, is, from, rule)
	if words := differences(before, u); words != "" {
		w.did("the parts followed: " + words)
	}
	return nil
}

// differences says in words what became another way.
func differences(before map[string]unit.Part, u *unit.Unit) string {
	var out []string
	there := map[string]bool{}
	for _, p := range u.Parts {
		there[p.Code] = true
		switch old, known := before[p.Code]; {
		case !known:
			out = append(out, "added "+p.Name)
		case old.OnUnit() != p.OnUnit():
			words := map[bool]string{true: "on the unit again: ", false: "not on this unit: "}[p.OnUnit()]
			out = append(out, words+p.Name)
		case old.Expected != p.Expected:
			out = append(out, p.Name+": "+strconv.Itoa(p.Expected)+" in place of "+strconv.Itoa(old.Expected))
		}
	}
	var gone []string
	for code, p := range before {
		if !there[code] {
			gone = append(gone, "taken out "+p.Name)
		}
	}
	slices.Sort(gone)
	return strings.Join(append(out, gone...), "; ")
}

// AddAssembly puts one more of an assembly into the unit: a third pocket, a second shaft seal, a relief valve
// where its family has none. It comes with its parts, its leaks and what is asked of it on the stand.
func (s *Service) AddAssembly(
	ctx context.Context,
	who people.Actor,
	tag string,
	number int,
	assembly, why string,
) error {
	why, err := short("why", why, "say in a line how it is known")
	if err != nil {
		return err
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			name, parts := assemblyOf(st.Family, assembly)
			if name == "" {
				return "", field.Errorf("assembly", "is not an assembly of the library")
			}
			if len(u.Parts)+parts > MostParts {
				return "", field.Errorf("assembly", "a unit holds at most %d lines", MostParts)
			}
			more := u.MoreOf()[assembly] + 1
			if more >= family.MostTimes {
				return "", field.Errorf("assembly", "stands %d times in it already", more)
			}
			u.More[assembly] = strconv.Itoa(more)
			return "one more " + name + ": " + why,
				w.follow(u, st.Family, unit.CountCounted, why)
		},
	)
}

// assemblyOf is the name and the number of parts of an assembly that can stand once more in a unit: one that it
// has, or any other of the library.
func assemblyOf(f *family.Family, code string) (name string, parts int) {
	for _, in := range f.Instances {
		if in.Base == code {
			return in.Name, len(in.Parts)
		}
	}
	all, err := family.Assemblies()
	if err != nil || all[code] == nil {
		return "", 0
	}
	return all[code].Name, len(all[code].Parts)
}

// LeaveOutAssembly says of an assembly with all its parts that it is not on this unit.
func (s *Service) LeaveOutAssembly(ctx context.Context, who people.Actor, tag string, number int, instance,
	why string) error {
	why, err := short("why", why, "say in a line why it is not there")
	if err != nil {
		return err
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			at := slices.IndexFunc(st.Family.Instances, func(i family.Instance) bool { return i.Code == instance })
			if at < 0 {
				return "", field.Errorf("assembly", "is not an assembly of this unit")
			}
			in := st.Family.Instances[at]
			for _, code := range in.Parts {
				if p := u.Part(code); p != nil && p.OnUnit() && p.Handled() {
					return "", field.Errorf(
						"assembly",
						"%s was taken off, counted or measured here; take that back first",
						p.Name,
					)
				}
			}
			last := ""
			for _, i := range st.Family.Instances {
				if i.Base == in.Base {
					last = i.Code
				}
			}
			if n := u.MoreOf()[in.Base]; n > 0 && in.Code == last {
				// The last one that was put in here goes as it came.
				if u.More[in.Base] = strconv.Itoa(n - 1); n == 1 {
					delete(u.More, in.Base)
				}
				return "no longer on this unit: " + in.Name + ": " + why, w.follow(u, st.Family, unit.CountCounted, why)
			}
			for _, code := range in.Parts {
				if p := u.Part(code); p != nil && p.OnUnit() {
					p.Absent = why
				}
			}
			return "not on this unit: " + in.Name + ": " + why, nil
		},
	)
}
