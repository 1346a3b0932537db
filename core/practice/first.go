package practice

import "fmt"

// First are the units of practice that somebody new is to name rightly before he has a job of his own, where a lead
// asks it of him.
type First struct {
	Owed  int // 0 where nothing is asked
	Right int // units that he named rightly, of any kind
}

// MostFirst is how many may be asked of somebody, and UsualFirst how many are asked as a rule.
const (
	MostFirst  = 50
	UsualFirst = 10
)

// Left is how many he still owes.
func (f First) Left() int { return max(0, f.Owed-f.Right) }

// Says is how far he is.
func (f First) Says() string {
	return fmt.Sprintf("%d of the %d units of practice before a first own job are named rightly",
		min(f.Right, f.Owed), f.Owed)
}
