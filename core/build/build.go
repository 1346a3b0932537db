// Package build puts a unit together from its strip record: the reverse order,
// the torque of every fastener with where it comes from, and what the turn of
// the shaft after each step tells.
package build

import (
	"fmt"

	"corvek/core/fastener"
	"corvek/core/quantity"
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

// Tightening is the torque of a fastener and its standing.
type Tightening struct {
	Torque  float64 // N·m
	Source  string  // the family's figure, or table by size and class
	Order   []int
	Stages  []float64 // N·m
	Unknown bool      // no class known: no torque may be called safe
}

// Tighten works out a fastener: the family's torque where there is one, else by
// thread and class, oiled, at the usual preload.
func Tighten(thread, class, given string, circle int) (Tightening, error) {
	t := Tightening{}
	switch {
	case given != "":
		q, err := quantity.Parse(given, quantity.Torque)
		if err != nil {
			return t, err
		}
		t.Torque, t.Source = q.SI, "guidance of this family; the maker's figure wins"
	default:
		th, err := fastener.ParseThread(thread)
		if err != nil {
			return t, err
		}
		c, err := fastener.ClassByName(class)
		if err != nil {
			t.Unknown, t.Source = true, "read the head mark first: no torque is safe without its class"
			break
		}
		preload := fastener.UsualPreload * c.Proof(th.Diameter) * th.StressArea()
		t.Torque = fastener.Torque(fastener.KOiled, th.Diameter, preload)
		t.Source = fmt.Sprintf("table: %s class %s, oiled, %.0f %% of proof load", th.Name, c.Name,
			100*fastener.UsualPreload)
	}
	if circle > 1 {
		t.Order = fastener.Crosswise(circle)
		for _, s := range fastener.StageShares(3) {
			t.Stages = append(t.Stages, s*t.Torque)
		}
	}
	return t, nil
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
