package unit

// What part a cause had in the failure.
const (
	RoleFirst        = "first_failure" // what gave way first: often a victim itself
	RoleRoot         = "root"          // another root cause beside the one concluded
	RoleContributing = "contributing"  // without it things would have gone otherwise
)

// CauseRoles are the parts a cause can have, in the order of the story.
var CauseRoles = []string{RoleFirst, RoleRoot, RoleContributing}

// NamedCause is one of several causes of a failure: from the list of the unit's causes,
// or in free words.
type NamedCause struct {
	OfUnit `json:"-"`

	Number int    `json:"number,omitempty" gorm:"primaryKey"`
	Round  int    `json:"round,omitempty"`  // in which it was named
	Role   string `json:"role,omitempty"`   // one of CauseRoles
	Code   string `json:"code,omitempty"`   // of the list, "" where it stands in words only
	Words  string `json:"words,omitempty"`  // what it is, or what is to be said of the listed one
	Lies   string `json:"lies,omitempty"`   // inside, outside, assembly or handling; "" as the list says
	Action string `json:"action,omitempty"` // what is done against it
	Owner  string `json:"owner,omitempty"`  // who does it
}

// Cause finds one of several causes by its number.
func (u *Unit) Cause(number int) *NamedCause {
	return find(u.Causes, func(c *NamedCause) bool { return c.Number == number })
}

// AddCause names one more cause.
func (u *Unit) AddCause(role, code, words string) *NamedCause {
	c := &NamedCause{Number: next(u.Causes, func(c *NamedCause) int { return c.Number }), Round: u.Round(),
		Role: role, Code: code, Words: words}
	u.Causes = append(u.Causes, c)
	return c
}

// CauseRef addresses a field of one of several causes.
func (u *Unit) CauseRef(number int, name string) Ref {
	return Ref{Scope: ScopeCause, Unit: u.Number, Number: number, Name: name}
}

// Roots are the conclusions that named a root cause, the newest first, each cause once:
// what a failed test brings to light joins what was found before.
func (u *Unit) Roots() (out []Conclusion) {
	seen := map[string]bool{}
	for i := len(u.Conclusions) - 1; i >= 0; i-- {
		c := u.Conclusions[i]
		if c.Cause == "" || c.Cause == CauseNotFound || c.Cause == CauseNone || seen[c.Cause] {
			continue
		}
		seen[c.Cause] = true
		out = append(out, *c)
	}
	return out
}
