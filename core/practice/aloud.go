package practice

import (
	"fmt"
	"math"
)

// Aloud says in words what the eye sees on the instrument, for one who cannot read the drawing: where its lines and
// pointers stand, and not what that comes to.
func (e *Exercise) Aloud() (out []string) {
	say := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	switch {
	case e.Caliper != nil:
		c := e.Caliper
		whole := math.Floor(c.Value/c.Main+1e-9) * c.Main
		say("The last line of the main scale left of the vernier's zero stands for %s.", e.Shown(whole, c.Main))
		n := int(math.Round((c.Value - whole) / c.Step))
		say("Of the vernier, the line number %d after its zero meets one of the main scale; each stands for %s.", n,
			e.Shown(c.Step, c.Step))
	case e.Barrel != nil:
		e.aloudBarrel(say)
	case e.Bore != nil:
		say("The certificate of the ring says %s.", e.Shown(e.Bore.Ring, e.Asks[0].Step))
		say("In the ring the pointer stands at %s.", stands(e.Bore.AtRing))
		say("In the bore it stands at %s. A division is %s.", stands(e.Bore.InBore), e.Shown(e.Bore.Division,
			e.Bore.Division))
	case e.Dial != nil:
		say("Lowest, the pointer stands at %s; highest, at %s. A division is %s.", stands(e.Dial.Low),
			stands(e.Dial.High),
			e.Shown(e.Dial.Division, e.Dial.Division))
	case e.Leaves != nil:
		for _, l := range e.Leaves.Tried {
			say("The leaf of %s %s.", e.Shown(l.Thick, e.Asks[0].Step), l.Went)
		}
	case e.Gauge != nil:
		g := e.Gauge
		say("The pointer seems to stand at %s, and its image in the mirror at %s.", e.Shown(g.Value+g.Shift,
			g.Minor/10),
			e.Shown(g.Value-g.Shift, g.Minor/10))
		say("It is of class %g, and its scale ends at %s.", g.Class, e.Shown(g.Full, 1))
	case e.Tube != nil:
		t := e.Tube
		below := math.Floor(t.Value/t.Minor+1e-9) * t.Minor
		say("The float's upper edge stands above the line of %s by %.0f fifths of the space to the next.",
			e.Shown(below, t.Minor), (t.Value-below)/t.Minor*5)
	}
	return out
}

func (e *Exercise) aloudBarrel(say func(string, ...any)) {
	b := e.Barrel
	in := b.Value - b.Base
	turns := math.Floor(in/b.Turn + 1e-9)
	which := "last line of the sleeve that is seen"
	if b.Covered {
		which = "last line of the sleeve that is covered"
	}
	say("The %s stands for %s.", which, e.Shown(turns*b.Turn, b.Turn))
	lines := (in - turns*b.Turn) / b.line()
	if b.Vernier == 0 {
		say("At the long line the thimble stands at its line %.0f; each stands for %s.", lines,
			e.Shown(b.line(), b.line()))
	} else {
		whole := math.Floor(lines + 1e-6)
		say("At the long line the thimble stands between its lines %.0f and %.0f; each stands for %s.", whole, whole+1,
			e.Shown(b.line(), b.line()))
		say("The vernier's line %.0f meets one of the thimble.", math.Round((lines-whole)*10))
	}
	say("It begins at %s.", e.Shown(b.Base, 1))
}

// stands is where a pointer stands in divisions.
func stands(n int) string {
	switch {
	case n > 0:
		return fmt.Sprintf("%d clockwise", n)
	case n < 0:
		return fmt.Sprintf("%d against the clock", -n)
	}
	return "zero"
}
