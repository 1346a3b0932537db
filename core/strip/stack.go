package strip

import (
	"fmt"
	"strings"

	"corvek/core/family"
	"corvek/core/friction"
	"corvek/core/quantity"
	"corvek/core/spring"
)

// Difference is a place where a stack is not as it should be.
type Difference struct {
	At   int // place, counted from 1; 0 for the whole stack
	Text string
}

// CompareStacks tells in what a stack differs from the right one: a piece too
// many or too few, another piece, a facing turned over. Pieces are matched in
// order by the longest run they share, so that one extra shim is told as one.
func CompareStacks(got, want []family.Piece) []Difference {
	same := func(i, j int) bool { return got[i].Def.Code == want[j].Def.Code }
	n, m := len(got), len(want)
	run := make([][]int, n+1)
	for i := range run {
		run[i] = make([]int, m+1)
	}
	// A turned piece is a worse match than a true one, but better than none.
	score := func(i, j int) int {
		if got[i].Facing == want[j].Facing {
			return 3
		}
		return 2
	}
	for i := n - 1; i >= 0; i-- {
		for j := m - 1; j >= 0; j-- {
			run[i][j] = max(run[i+1][j], run[i][j+1])
			if same(i, j) {
				run[i][j] = max(run[i][j], run[i+1][j+1]+score(i, j))
			}
		}
	}
	var out []Difference
	i, j := 0, 0
	for i < n || j < m {
		switch {
		case i < n && j < m && same(i, j) && run[i][j] == run[i+1][j+1]+score(i, j):
			if got[i].Facing != want[j].Facing {
				how := "is turned over"
				if got[i].Facing == 0 {
					how = "has no facing noted"
				}
				out = append(out, Difference{i + 1, fmt.Sprintf("%s at place %d %s",
					strings.ToLower(got[i].Def.Name), i+1, how)})
			}
			i, j = i+1, j+1
		case i < n && (j == m || run[i+1][j] >= run[i][j+1]):
			out = append(out, Difference{i + 1, fmt.Sprintf("one %s too many at place %d",
				strings.ToLower(got[i].Def.Name), i+1)})
			i++
		default:
			out = append(out, Difference{i + 1, fmt.Sprintf("a %s is missing before place %d",
				strings.ToLower(want[j].Def.Name), i+1)})
			j++
		}
	}
	return out
}

// Delivery is what a stack does in its place. Fields are 0 where the family
// tells too little; Fault says what cannot be worked out.
type Delivery struct {
	Thickness  float64 // of all pieces whose thickness is known, m
	Unknown    int     // pieces of unknown thickness
	Faces      int     // working friction faces
	Force      float64 // of the dished springs at the installed height, N
	FreeLength float64 // of the dished springs, m
	Flat       float64 // share of flat the discs are pressed to
	HasForce   bool
	Needed     float64
	Fault      string
}

// Enough reports that the springs deliver what is asked of them.
func (d Delivery) Enough() bool { return d.HasForce && (d.Needed == 0 || d.Force >= d.Needed*(1-1e-9)) }

func si(text string, dim quantity.Dimension) float64 {
	q, err := quantity.Parse(text, dim)
	if err != nil {
		return 0
	}
	return q.SI
}

// Deliver works out what a stack delivers: at equal deflection nested springs
// add force and opposed ones add travel, but what counts is the height the
// stack is held at.
func Deliver(def *family.StackDef, pieces []family.Piece) Delivery {
	var d Delivery
	facing := ""
	last := ""
	for _, p := range pieces {
		if p.Thickness == 0 && p.Def.Kind != "disc" {
			d.Unknown++
		}
		d.Thickness += p.Thickness
		switch {
		case p.Def.Kind == "disc" && p.Facing == 0:
			d.Fault = "a dished spring has no facing noted"
		case p.Def.Kind == "disc":
			facing += string(p.Facing)
		}
		if last == "friction" && p.Def.Kind == "separator" || last == "separator" && p.Def.Kind == "friction" {
			d.Faces++
		}
		last = p.Def.Kind
	}
	d.Needed = si(def.Needed, quantity.Force)
	if def.Spring != nil && facing != "" && d.Fault == "" {
		d.springs(def, facing)
	}
	return d
}

// Carries is the torque in N·m that a friction pack holds before it slips
// under the springs that press it: faces x coefficient x force x mean radius
// at even pressure. It is false where the springs are at fault or their force
// is not known, or the pack has no working face.
func Carries(f Rubbing, pack, springs Delivery) (float64, bool) {
	if !springs.HasForce || springs.Fault != "" || pack.Faces == 0 || !(f.Outer > f.Inner && f.Inner > 0) {
		return 0, false
	}
	return friction.Torque(pack.Faces, f.Friction, springs.Force, friction.MeanRadius(f.Outer/2, f.Inner/2)), true
}

// Rubbing is what a pack carries torque by: the diameters of its rubbing face in m, and its friction.
type Rubbing struct{ Outer, Inner, Friction float64 }

func (d *Delivery) springs(def *family.StackDef, facing string) {
	s := def.Spring
	nests, err := spring.Nests(facing)
	if err != nil {
		d.Fault = err.Error()
		return
	}
	stack := spring.Stack{Disc: spring.Disc{Outside: si(s.Outside, quantity.Length),
		Inside: si(s.Inside, quantity.Length), Thickness: si(s.Thickness, quantity.Length),
		Cone: si(s.Cone, quantity.Length), Youngs: spring.SteelYoungs, Poisson: spring.SteelPoisson}, Nests: nests}
	d.FreeLength = stack.FreeLength()
	installed := si(def.Installed, quantity.Length)
	if installed == 0 {
		return
	}
	travel := d.FreeLength - installed
	switch {
	case travel <= 0:
		d.HasForce, d.Force = true, 0
		d.Fault = "the stack is shorter than its space: it does not preload at all"
	case travel > stack.Solid()*(1+1e-9):
		d.Fault = "the stack is flat before it fits its space"
	default:
		force, most, _ := stack.ForceAt(travel)
		d.Force, d.Flat, d.HasForce = force, most/stack.Disc.Cone, true
	}
}
