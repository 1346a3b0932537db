package site

import ()

// Named is something to choose, with what it is called.
type Named struct{ Code, Name string }

// Families lists the kinds of units to choose from.
func (s *Site) Families() []Named {
	var out []Named
	for _, f := range s.Jobs.Families().List() {
		out = append(out, Named{f.Code, f.Name})
	}
	return out
}
