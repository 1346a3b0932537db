package job

import (
	"context"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
)

// MostCauses is how many causes beside the roots a unit holds.
const MostCauses = 20

// AddCause names one more cause: of the list, in words, or both.
func (s *Service) AddCause(
	ctx context.Context,
	who people.Actor,
	tag string,
	number int,
	role, code, words string,
) error {
	if !slices.Contains(unit.CauseRoles, role) {
		return field.Errorf("role", "say what part it had in the failure")
	}
	words, err := short("words", words, "")
	if err != nil {
		return err
	}
	if code == "" && words == "" {
		return field.Errorf("words", "choose a cause of the list, or say it in words")
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			name := words
			if code != "" {
				c, known := st.Known.CauseByCode(code)
				if !known {
					return "", field.Errorf("code", "is not a cause of this kind of unit")
				}
				name = c.Name
			}
			if len(u.Causes) >= MostCauses {
				return "", field.Errorf("words", "there are %d causes already", MostCauses)
			}
			u.AddCause(role, code, words)
			return "named " + strings.ReplaceAll(role, "_", " ") + ": " + name, nil
		},
	)
}

// RemoveCause takes one of the further causes back.
func (s *Service) RemoveCause(ctx context.Context, who people.Actor, tag string, number, cause int) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			c := u.Cause(cause)
			if c == nil {
				return "", field.Errorf("cause", "is not there any more")
			}
			u.Causes = slices.DeleteFunc(u.Causes, func(x *unit.NamedCause) bool { return x == c })
			return "taken back: " + strings.ReplaceAll(c.Role, "_", " ") + " " + st.NameOf(c), nil
		},
	)
}
