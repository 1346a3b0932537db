package instrument

import (
	"fmt"
	"math"

	"corvek/core/practice"
)

// face is a round dial: its middle, and how it counts.
type face struct {
	s      *sheet
	x, y   float64
	r      float64
	from   float64 // degrees clockwise from the top at which its scale begins
	degree float64 // degrees a unit
}

func (f *face) angle(v float64) float64 { return (f.from + v*f.degree) * math.Pi / 180 }

// on is a place of the face at a value, so far from the middle as a part of its radius.
func (f *face) on(v, part float64) (x, y float64) {
	a := f.angle(v)
	return f.x + math.Sin(a)*f.r*part, f.y - math.Cos(a)*f.r*part
}

func (f *face) mark(class string, v, inner, outer float64) {
	x1, y1 := f.on(v, inner)
	x2, y2 := f.on(v, outer)
	f.s.line(class, x1, y1, x2, y2)
}

func (f *face) number(v, part float64, what string) {
	x, y := f.on(v, part)
	f.s.text("in-num", x, y+8, "middle", what)
}

// comparator draws the dial of an indicator, with numbers to both sides of zero.
func comparator(s *sheet, x, y float64, around int) *face {
	f := &face{s: s, x: x, y: y, r: 190, degree: 360 / float64(around)}
	s.circle("in-body", x, y, f.r)
	for n := range around {
		inner := 0.91
		switch {
		case n%10 == 0:
			inner = 0.82
			f.number(float64(n), 0.68, plain(float64(min(n, around-n))))
		case n%5 == 0:
			inner = 0.87
		}
		f.mark("in-main", float64(n), inner, 0.98)
	}
	return f
}

func (f *face) pointer(class string, v float64) {
	f.mark(class, v, -0.2, 0.93)
	f.s.circle("in-hub", f.x, f.y, 9)
}

func bore(s *sheet, e *practice.Exercise) {
	b := e.Bore
	s.size(900, 520)
	for i, d := range []struct {
		words string
		at    int
	}{{"in the ring", b.AtRing}, {"in the bore", b.InBore}} {
		f := comparator(s, 220+float64(i)*450, 240, b.Around)
		f.pointer("in-pointer", float64(d.at))
		s.text("in-word", f.x, 30, "middle", d.words)
		s.text("in-word in-small", f.x, f.y+70, "middle", plain(b.Division)+" "+e.Unit)
	}
	places := 3
	if e.Inch {
		places = 4
	}
	s.text("in-word", 445, 480, "middle", fmt.Sprintf("ring %s, by its certificate %.*f %s", plain(b.Nominal), places,
		b.Ring, e.Unit))
	s.text("in-word in-small", 445, 508, "middle", "clockwise the contact is pressed in")
}

func swing(s *sheet, e *practice.Exercise) {
	d := e.Dial
	s.size(620, 500)
	f := comparator(s, 310, 250, d.Around)
	f.pointer("in-pointer in-low", float64(d.Low))
	f.pointer("in-pointer", float64(d.High))
	for _, p := range []struct {
		at    int
		words string
	}{{d.Low, "lowest"}, {d.High, "highest"}} {
		x, y := f.on(float64(p.at), 1.13)
		anchor := "start"
		if x < f.x {
			anchor = "end"
		}
		s.text("in-word in-small", x, y, anchor, p.words)
	}
	s.text("in-word in-small", f.x, f.y+70, "middle", plain(d.Division)+" "+e.Unit)
}

// gauge draws a pressure gauge as an eye beside its middle sees it: the pointer stands off the scale and seems shifted
// along it, and its image in the mirror behind it as far to the other side.
func gauge(s *sheet, e *practice.Exercise) {
	g := e.Gauge
	s.size(560, 540)
	f := &face{s: s, x: 280, y: 270, r: 230, from: -135, degree: 270 / g.Full}
	s.circle("in-body", f.x, f.y, f.r+14)
	s.circle("in-mirror", f.x, f.y, f.r*0.62)
	s.circle("in-body", f.x, f.y, f.r*0.5)
	lines := int(math.Round(g.Full / g.Minor))
	for n := range lines + 1 {
		v, inner := float64(n)*g.Minor, 0.91
		if n%g.Major == 0 {
			inner = 0.84
			f.number(v, 0.73, plain(v))
		}
		f.mark("in-main", v, inner, 0.98)
	}
	f.mark("in-image", g.Value-g.Shift, 0.5, 0.62)
	f.mark("in-pointer", g.Value+g.Shift, -0.18, 0.95)
	s.circle("in-hub", f.x, f.y, 11)
	s.text("in-word", f.x, f.y+64, "middle", e.Unit)
	s.text("in-word in-small", f.x, f.y+92, "middle", fmt.Sprintf("class %g", g.Class))
}

// leaves draws feeler leaves beside the gap: through it, held in it, or before it.
func leaves(s *sheet, e *practice.Exercise) {
	const left, gap, right, row = 150.0, 430.0, 640.0, 54.0
	h := 40 + row*float64(len(e.Leaves.Tried))
	s.size(900, h+10)
	s.rect("in-slide", gap, 10, right-gap, h-10)
	for i, l := range e.Leaves.Tried {
		y := 40 + row*float64(i)
		s.rect("in-gap", gap, y-12, right-gap, 24)
		end := gap - 6
		switch l.Went {
		case practice.LeafGoes:
			end = right + 60
		case practice.LeafDrags:
			end = (gap + right) / 2
		}
		s.rect("in-leaf", left, y-6, end-left, 12)
		s.text("in-num", left-12, y+8, "end", e.Shown(l.Thick, leafStep(e.Inch)))
		s.text("in-word", right+80, y+7, "start", l.Went)
	}
}

func leafStep(inch bool) float64 {
	if inch {
		return 0.001
	}
	return 0.01
}
