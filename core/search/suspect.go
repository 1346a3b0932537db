package search

// Against is what speaks against a part while a fault is searched.
type Against struct {
	Cause float64 // probability of the causes that its renewal or its fitting would cure, shared with others
	Named float64 // share of the causes named by the bench that lie in it
	Stiff bool    // the unit turns stiff since it went in
	Marks int     // seen on it
}

// Guidance of ours for how much each counts beside the probability of a cause: a cause that
// somebody named as much as a certain one, stiffness half of that, a mark a tenth.
const (
	namedWeight = 1.0
	stiffWeight = 0.5
	markWeight  = 0.1
)

// Weight is how much speaks against the part, from nought on.
func (a Against) Weight() float64 {
	w := a.Cause + namedWeight*a.Named + markWeight*float64(a.Marks)
	if a.Stiff {
		w += stiffWeight
	}
	return w
}
