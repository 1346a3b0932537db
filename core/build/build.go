// Package build puts a unit together from its strip record: the reverse order,
// the torque of every fastener with where it comes from, and what the turn of
// the shaft after each step tells.
package build

import (
	"fmt"
)

// Turn is how the shaft turned by hand after a step.
type Turn string

// The feels of a shaft.
const (
	Free  Turn = "free"
	Drag  Turn = "uniform_drag"
	Tight Turn = "tight_spot"
	Stiff Turn = "stiff"
)

// Turns are the feels offered, best first.
var Turns = []Turn{Free, Drag, Tight, Stiff}

// Bad reports a feel that must be cleared before the next step.
func (t Turn) Bad() bool { return t == Tight || t == Stiff }

// Reverse gives the indices 0..n−1 in fitting order: last off, first on.
func Reverse(n int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = n - 1 - i
	}
	return out
}

// Step is the state of one fitting step.
type Step struct {
	Name string
	Done bool
	Turn Turn // empty: not asked
	Asks bool // a turn check is due after it
}

// Suspect names the first step after which the shaft went stiff: whatever went
// in there is the place to look. Empty when it never did.
func Suspect(steps []Step) string {
	for _, s := range steps {
		if s.Turn.Bad() {
			return fmt.Sprintf("%s since %s went in", s.Turn, s.Name)
		}
	}
	return ""
}

// Next is the index of the first step not done, −1 when all are.
func Next(steps []Step) int {
	for i, s := range steps {
		if !s.Done {
			return i
		}
	}
	return -1
}
