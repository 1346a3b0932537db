package web

// Named is something to choose, with what it is called.
type Named struct{ Code, Name string }

// families lists the kinds of units to choose from.
func (s *Server) families() []Named {
	var out []Named
	for _, f := range s.jobs.Families().List() {
		out = append(out, Named{f.Code, f.Name})
	}
	return out
}
