package job

import (
	"context"
	"slices"
	"strings"

	"corvek/core/explain"
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
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number, func(_ *writing, st *State) (string, error) {
		name := words
		if code != "" {
			c, known := st.Known.CauseByCode(code)
			if !known {
				return "", field.Errorf("code", "is not a cause of this kind of unit")
			}
			name = c.Name
		}
		if len(st.Unit.Causes) >= MostCauses {
			return "", field.Errorf("words", "there are %d causes already", MostCauses)
		}
		st.Unit.AddCause(role, code, words)
		return "named " + strings.ReplaceAll(role, "_", " ") + ": " + name, nil
	})
}

// RemoveCause takes one of the further causes back.
func (s *Service) RemoveCause(ctx context.Context, who people.Actor, tag string, number, cause int) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number, func(_ *writing, st *State) (string, error) {
		c := st.Unit.Cause(cause)
		if c == nil {
			return "", field.Errorf("cause", "is not there any more")
		}
		st.Unit.Causes = slices.DeleteFunc(st.Unit.Causes, func(x *unit.NamedCause) bool { return x == c })
		return "taken back: " + strings.ReplaceAll(c.Role, "_", " ") + " " + st.nameOf(c), nil
	})
}

// Named is one of the causes of a failure, as it is told.
type Named struct {
	Number                    int // 0 of a root that was concluded
	Round                     int
	Role                      string
	Code, Name, Words, Lies   string
	Action, Owner             string
	Remedy, Prevention, Wants string // of the list; Wants is the action the list proposes
	Outside                   bool
}

// Causes are all causes that were named, roots first: those concluded, newest first,
// then the others in the order of the story. A new root does not put an old one away.
func (st *State) Causes() (out []Named) {
	for _, r := range st.Unit.Roots() {
		n := Named{Round: r.Round, Role: unit.RoleRoot, Code: r.Cause, Action: r.Action, Owner: r.Owner}
		st.ofList(&n)
		out = append(out, n)
	}
	further := slices.Clone(st.Unit.Causes)
	slices.SortStableFunc(further, func(a, b *unit.NamedCause) int {
		return slices.Index(unit.CauseRoles, a.Role) - slices.Index(unit.CauseRoles, b.Role)
	})
	for _, c := range further {
		n := Named{Number: c.Number, Round: c.Round, Role: c.Role, Code: c.Code, Name: c.Words, Action: c.Action,
			Owner: c.Owner}
		st.ofList(&n)
		if c.Code != "" {
			n.Words = c.Words
		}
		if c.Lies != "" {
			n.Outside = c.Lies == "outside"
			n.Lies = explain.Lies(c.Lies)
		}
		out = append(out, n)
	}
	return out
}

// ofList fills in what the list says of a cause.
func (st *State) ofList(n *Named) {
	c, known := st.Known.CauseByCode(n.Code)
	if !known {
		return
	}
	n.Name, n.Lies, n.Outside = c.Name, c.Lies(), c.Where == "outside"
	n.Remedy, n.Prevention, n.Wants = c.Remedy, c.Prevention, c.Action
}

func (st *State) nameOf(c *unit.NamedCause) string {
	if listed, known := st.Known.CauseByCode(c.Code); known {
		return listed.Name
	}
	return c.Words
}
