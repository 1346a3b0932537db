package bench

import (
	"slices"

	"corvek/core/explain"
	"corvek/core/unit"
)

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
func (st *Given) Causes() (out []Named) {
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

// Uncured are the causes that lie outside the unit and of which nobody wrote what was done before
// another one runs there.
func (st *Given) Uncured() (out []Named) {
	if st.Unit.Conclusion().Cured != "" {
		return nil
	}
	for _, n := range st.Causes() {
		if n.Outside {
			out = append(out, n)
		}
	}
	return out
}

// ofList fills in what the list says of a cause.
func (st *Given) ofList(n *Named) {
	c, known := st.Known.CauseByCode(n.Code)
	if !known {
		return
	}
	n.Name, n.Lies, n.Outside = c.Name, c.Lies(), c.Where == "outside"
	n.Remedy, n.Prevention, n.Wants = c.Remedy, c.Prevention, c.Action
}

// NameOf is a further cause by its name in the list, else in the words it was named by.
func (st *Given) NameOf(c *unit.NamedCause) string {
	if listed, known := st.Known.CauseByCode(c.Code); known {
		return listed.Name
	}
	return c.Words
}
