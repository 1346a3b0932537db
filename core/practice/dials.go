package practice

import (
	"fmt"
	"math"
	"math/rand/v2"

	"corvek/core/metrology"
)

// Bore is a bore gauge: its dial in the setting ring and in the bore, in divisions clockwise from zero.
type Bore struct {
	Ring, Nominal  float64 // the size that the ring has, and what it is called by
	AtRing, InBore int
	Division       float64
	Around         int // divisions once round
}

// boreGauge is one, and how finely its rings are certified.
func boreGauge(inch bool) (b *Bore, ring float64) {
	if inch {
		return &Bore{Division: 0.0005, Around: 100}, 0.0001
	}
	return &Bore{Division: 0.01, Around: 100}, 0.001
}

func setBore(e *Exercise, r *rand.Rand) {
	b, ring := boreGauge(e.Inch)
	b.Nominal = float64(pick(r, 25, 32, 40, 50, 63, 80))
	if e.Inch {
		b.Nominal = pick(r, 1.0, 1.25, 1.5, 2, 2.5)
	}
	// A ring is as large as its certificate says, which is not what it is called by.
	b.Ring = b.Nominal + float64(pick(r, -1, 1)*between(r, 3, 9))*ring
	if r.IntN(2) == 0 {
		b.AtRing = pick(r, -1, 1) * between(r, 1, 6)
	}
	for b.InBore = b.AtRing; b.InBore == b.AtRing; {
		b.InBore = b.AtRing + pick(r, -1, 1)*between(r, 2, 30)
	}
	e.bore(b, ring)
}

func (e *Exercise) bore(b *Bore, ring float64) {
	moved := float64(b.InBore-b.AtRing) * b.Division
	want := b.Ring - moved
	e.Bore = b
	e.Asks = []Ask{{Name: "The bore is", Want: want, Step: ring, Within: b.Division / 2, slips: []slip{
		{b.Ring + moved, "The wrong way: clockwise the contact is pressed in, so that the bore is smaller."},
		{b.Nominal - moved, "Take the size that the ring's certificate gives, not the one it is called by."},
		{b.Ring - float64(b.InBore)*b.Division, "The pointer did not stand at zero in the ring: what counts is " +
			"how far it moved."},
		{b.Ring, "That is the ring: the bore differs from it by what the pointer moved."},
		{math.Abs(moved), "That is only the difference: the ring is added."},
	}}}
	if math.Abs(b.Ring-b.Nominal) < b.Division/2 { // the two cannot be told apart on this dial
		e.Asks[0].Within = math.Abs(b.Ring-b.Nominal) / 2
	}
}

// Dial is a dial indicator on a shaft that is turned: the lowest and the highest that its pointer stood at, in
// divisions clockwise from zero.
type Dial struct {
	Low, High int
	Division  float64
	Around    int
}

func setDial(e *Exercise, r *rand.Rand) {
	d := &Dial{Division: 0.01, Around: 100}
	if e.Inch {
		d = &Dial{Division: 0.001, Around: 100}
	}
	swing := between(r, 3, 40)
	d.Low = between(r, -swing-4, 8)
	d.High = d.Low + swing
	e.dial(d)
}

func (e *Exercise) dial(d *Dial) {
	swing := d.High - d.Low
	whole := float64(swing) * d.Division
	e.Dial = d
	through := math.Abs(math.Abs(float64(d.High))-math.Abs(float64(d.Low))) * d.Division
	e.Asks = []Ask{
		{Name: "The whole swing is", Want: whole, Step: d.Division, Within: d.Division / 2, slips: []slip{
			{through, "The pointer went through zero: what lies on both sides is added."},
			{whole / 2, "That is the bow; the whole swing is from the lowest to the highest."},
			{math.Abs(float64(d.High)) * d.Division, "That is where it stood highest; take the lowest from it."},
		}},
		{Name: "The bow is", Want: whole / 2, Step: d.Division / 2, Within: d.Division / 4, slips: []slip{
			{whole, "That is the whole swing. The shaft lies bowed by half of it, to each side."},
			{through / 2, "Half, rightly, and of too little: the pointer went through zero."},
		}},
	}
}

// Leaves are feeler leaves that were tried in a gap.
type Leaves struct {
	Gap   float64
	Tried []Leaf // by thickness
}

// Leaf is one of them, with how it went.
type Leaf struct {
	Thick float64
	Went  string // one of the Leaf constants
}

// How a leaf goes into a gap.
const (
	LeafGoes  = "goes"
	LeafDrags = "drags"
	LeafStops = "stops"
)

func setFeeler(e *Exercise, r *rand.Rand) {
	thick := []float64{0.05, 0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5}
	drag, step := 0.01, 0.01
	if e.Inch {
		thick = []float64{0.002, 0.003, 0.004, 0.006, 0.008, 0.01, 0.012, 0.015}
		drag, step = 0.0004, 0.001
	}
	k := between(r, 1, len(thick)-2)
	l := &Leaves{Gap: thick[k] + (0.05+0.9*r.Float64())*(thick[k+1]-thick[k])}
	var tried metrology.Leaves
	for i, t := range thick {
		if i != k && i != k+1 && r.IntN(4) == 0 {
			continue // not every leaf was at hand
		}
		went, list := LeafGoes, &tried.Goes
		switch {
		case t > l.Gap:
			went, list = LeafStops, &tried.Stops
		case t > l.Gap-drag:
			went, list = LeafDrags, &tried.Drags
		}
		l.Tried, *list = append(l.Tried, Leaf{t, went}), append(*list, t)
	}
	e.Leaves = l
	gap, err := tried.Interval()
	if err != nil {
		panic(err) // thicker ones stop, thinner ones go
	}
	least, most := gap.AtLeast, gap.LessThan
	e.Asks = []Ask{
		{Name: "The gap is at least", Want: least, Step: step, Within: step / 4, slips: []slip{
			{most, "That leaf stops: the gap is smaller."},
			{(least + most) / 2, "Leaves give no figure between them: only the two ends are known."},
			{thick[max(0, k-1)], "A thicker one went too: take the thickest that goes, or drags."},
		}},
		{Name: "And less than", Want: most, Step: step, Within: step / 4, slips: []slip{
			{least, "That one went in: the gap is at least that."},
			{(least + most) / 2, "Leaves give no figure between them: only the two ends are known."},
			{thick[min(len(thick)-1, k+2)], "A thinner one stopped already: take the thinnest that stops."},
		}},
	}
}

// Gauge is a pressure gauge with a mirror behind its pointer, seen from the side.
type Gauge struct {
	Value, Full, Minor float64
	Major              int     // minor lines from one number to the next
	Class              float64 // percent of the full scale
	// how far along the scale the pointer seems to stand beside where it is; its image as far on the other side
	Shift float64
}

func setGauge(e *Exercise, r *rand.Rand) {
	g := pick(r, Gauge{Full: 100, Minor: 2, Major: 10}, Gauge{Full: 160, Minor: 5, Major: 4},
		Gauge{Full: 250, Minor: 5, Major: 10}, Gauge{Full: 400, Minor: 10, Major: 5})
	e.Unit = "bar"
	if e.Inch {
		g = pick(r, Gauge{Full: 1500, Minor: 50, Major: 5}, Gauge{Full: 3000, Minor: 50, Major: 10},
			Gauge{Full: 6000, Minor: 100, Major: 10})
		e.Unit = "psi"
	}
	g.Class = pick(r, 1.0, 1.6, 2.5)
	lines := int(math.Round(g.Full / g.Minor))
	g.Value = float64(between(r, lines/5*2, lines*2-6)) * g.Minor / 2
	g.Shift = float64(pick(r, -1, 1)) * (0.7 + 0.8*r.Float64()) * g.Minor
	e.Gauge = &g
	may := g.Class / 100 * g.Full
	e.Asks = []Ask{
		{Name: "The gauge shows", Want: g.Value, Step: g.Minor / 10, Within: g.Minor * 0.35, slips: []slip{
			{g.Value + g.Shift, "You read beside the pointer: the eye must stand where it covers its image."},
			{g.Value - g.Shift, "That is the image in the mirror; the pressure lies between it and the pointer."},
		}},
		{Name: "And may be off by", Want: may, Step: may / 100, Within: may / 20, slips: []slip{
			{g.Class / 100 * g.Value, "The class counts of the full scale, wherever the pointer stands."},
			{g.Class, fmt.Sprintf("%g is percent: of %g %s that is more.", g.Class, g.Full, e.Unit)},
		}},
	}
}
