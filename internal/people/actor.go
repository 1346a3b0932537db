package people

import (
	"errors"

	"corvek/core/unit"
)

// The roles of people.
const (
	RoleViewer     = "viewer"
	RoleTechnician = "technician"
	RoleLead       = unit.RoleLead
)

// Actor is who does something.
type Actor struct {
	ID       uint
	Name     string
	Initials string
	Role     string
}

// May reports that the actor's role reaches at least the given one.
func (a Actor) May(role string) bool {
	rank := map[string]int{RoleViewer: 1, RoleTechnician: 2, RoleLead: 3}
	return rank[a.Role] >= rank[role]
}

// ErrForbidden says that the role does not allow it.
var ErrForbidden = errors.New("your role does not allow this")
