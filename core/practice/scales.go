package practice

import (
	"math"
	"math/rand/v2"
)

// Caliper is a vernier caliper: lines of the main scale Main apart, and of the vernier Lines spaces that take as much
// as Over spaces of the main scale.
type Caliper struct {
	Value       float64
	Main        float64
	Lines, Over int
	Step        float64
	Edge        float64 // how far left of its zero line the slide begins
	Numbers     int     // so many lines of the main scale from one number to the next
	Each        float64 // what a number of the main scale stands for
}

// setCaliper sets 20 spaces over 39 mm, or 25 over 49 of the fortieth of an inch: the slide is drawn out, so that its
// lines can be told apart.
func setCaliper(e *Exercise, r *rand.Rand) {
	n := between(r, 100, 1700)
	if e.Inch {
		n = between(r, 150, 3500)
	}
	e.caliper(n)
}

// caliper shows so many steps on a caliper.
func (e *Exercise) caliper(n int) {
	c := &Caliper{Main: 1, Lines: 20, Over: 39, Step: 0.05, Edge: 3.4, Numbers: 10, Each: 10}
	if e.Inch {
		c = &Caliper{Main: 0.025, Lines: 25, Over: 49, Step: 0.001, Edge: 0.13, Numbers: 4, Each: 0.1}
	}
	c.Value = float64(n) * c.Step
	whole := math.Floor(c.Value/c.Main+1e-9) * c.Main
	part := c.Value - whole
	atEdge := math.Floor((c.Value-c.Edge)/c.Main+1e-9) * c.Main
	e.Caliper = c
	e.Asks = []Ask{{Name: "The caliper shows", Want: c.Value, Step: c.Step, Within: c.Step, slips: []slip{
		{whole + math.Round(part/c.Step)*0.01, "You counted the vernier's lines as 0.01; each of them is " +
			e.Shown(c.Step, c.Step) + "."},
		{atEdge + part, "You read the main scale at the edge of the slide; it is read at the vernier's zero line."},
		{c.Value + c.Main, "One line of the main scale too far: what counts is the last line left of zero."},
		{c.Value - c.Main, "One line of the main scale short: count once more from the number."},
		{whole, "The vernier is missing: find the line of it that meets one of the main scale."},
		{whole + c.Main - part, "You counted the vernier from its end; it begins at its zero."},
	}}}
	if e.Inch {
		tenths := math.Floor(c.Value*10+1e-9) / 10
		e.Asks[0].slips[0] = slip{tenths + part, "The lines between two numbers are missing: each of them is 0.025 in."}
	}
}

// Barrel is sleeve and thimble of a micrometer.
type Barrel struct {
	Value   float64
	Base    float64 // where the frame begins, or what the rod adds
	Turn    float64 // of one turn of the thimble
	Lines   int     // of the thimble
	Vernier int     // lines of the vernier on the sleeve, 0 for none
	Step    float64
	Span    float64 // that the sleeve is long
	Covered bool    // it runs the other way: the thimble covers what counts
}

func setMicrometer(e *Exercise, r *rand.Rand) {
	b := outside(e.Inch)
	b.Base = pick(r, 0.0, 1, 2) * b.Span
	b.turn(r)
	e.micrometer(b)
}

// outside is an outside micrometer.
func outside(inch bool) *Barrel {
	if inch {
		return &Barrel{Turn: 0.025, Lines: 25, Vernier: 10, Step: 0.0001, Span: 1}
	}
	return &Barrel{Turn: 0.5, Lines: 50, Vernier: 10, Step: 0.001, Span: 25}
}

func (e *Exercise) micrometer(b *Barrel) {
	b.ask(e, "The micrometer shows")
	e.Asks[0].slips = append(e.Asks[0].slips,
		slip{math.Floor(b.Value/b.line()+1e-6) * b.line(), "The vernier on the sleeve is missing: find its line " +
			"that meets " +
			"one of the thimble."})
}

func setDepth(e *Exercise, r *rand.Rand) {
	b := depth(e.Inch)
	b.Base = pick(r, 0.0, 1, 2) * b.Span
	b.turn(r)
	e.depth(b)
}

// depth is a depth micrometer.
func depth(inch bool) *Barrel {
	if inch {
		return &Barrel{Turn: 0.025, Lines: 25, Step: 0.001, Span: 1, Covered: true}
	}
	return &Barrel{Turn: 0.5, Lines: 50, Step: 0.01, Span: 25, Covered: true}
}

func (e *Exercise) depth(b *Barrel) {
	b.ask(e, "The depth is")
	in := b.Value - b.Base
	turns := math.Floor(in/b.Turn + 1e-9)
	e.Asks[0].slips = append([]slip{
		{b.Base + (turns+1)*b.Turn + (in - turns*b.Turn), "You took the first line that is seen; what counts is " +
			"the last " +
			"one that is covered."},
		{b.Base + b.Span - in, "You read it like an outside micrometer; this scale runs the other way."},
	}, e.Asks[0].slips...)
}

// line is what a line of the thimble stands for.
func (b *Barrel) line() float64 { return b.Turn / float64(b.Lines) }

// turn turns the thimble, never on a line of the sleeve, where it is a matter of taste whether that is seen yet.
func (b *Barrel) turn(r *rand.Rand) {
	turn := int(math.Round(b.Turn / b.Step))
	turns := between(r, 2, int(b.Span/b.Turn)-3)
	margin := turn / 10
	b.Value = b.Base + float64(turns*turn+between(r, margin, turn-margin))*b.Step
}

// ask asks for what it shows.
func (b *Barrel) ask(e *Exercise, name string) {
	in := b.Value - b.Base
	turns := math.Floor(in/b.Turn + 1e-9)
	part := in - turns*b.Turn
	half := "A line of the sleeve is missing: those between the numbers count too."
	e.Barrel = b
	e.Asks = []Ask{{Name: name, Want: b.Value, Step: b.Step, Within: b.Step, slips: []slip{
		{in, "The reading is right, and does not begin at nothing: add what stands on the frame or the rod."},
		{b.Value - b.Turn, half},
		{b.Value + b.Turn, "One line of the sleeve too many: it only counts once it is clear of the thimble."},
		{b.Base + turns*b.Turn + b.Turn - part, "You counted the thimble the wrong way round."},
		{b.Base + turns*b.Turn, "The thimble is missing: its line at the long line adds the parts."},
	}}}
}

// Tube is a flow meter with a float.
type Tube struct {
	Value, Full, Minor float64
	Major              int     // minor lines from one number to the next
	Float              float64 // how far below its edge the tip of the float is, on the scale
}

func setTube(e *Exercise, r *rand.Rand) {
	t := pick(r, Tube{Full: 10, Minor: 0.5, Major: 4}, Tube{Full: 25, Minor: 1, Major: 5}, Tube{Full: 60,
		Minor: 2, Major: 5})
	e.Unit = "L/min"
	if e.Inch {
		t = pick(r, Tube{Full: 5, Minor: 0.2, Major: 5}, Tube{Full: 15, Minor: 0.5, Major: 4})
		e.Unit = "gpm"
	}
	t.Float = 2.5 * t.Minor
	fifths := int(math.Round(t.Full / t.Minor * 5))
	t.Value = float64(between(r, 20, fifths-5)) * t.Minor / 5
	e.Tube = &t
	e.Asks = []Ask{{Name: "The meter shows", Want: t.Value, Step: t.Minor / 5, Within: t.Minor * 0.3, slips: []slip{
		{t.Value - t.Float, "You read at the float's tip; it is read at its widest edge, the upper one."},
		{t.Value + t.Minor, "A line too high: count once more from the number below."},
		{t.Value - t.Minor, "A line too low: count once more from the number below."},
	}}}
}
