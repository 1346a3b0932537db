package instrument

import (
	"math"

	"corvek/core/practice"
)

// caliper draws beam and slide where they meet: the lines of the main scale stand on the edge, those of the vernier
// hang from it.
func caliper(s *sheet, c *practice.Caliper) {
	const width, edge = 1180.0, 118.0
	span := float64(c.Over) * c.Main // that the vernier is long
	before, behind := span*0.24, span*0.07
	k := width / (before + span + behind) // pixels a unit
	x := func(v float64) float64 { return (v - c.Value + before) * k }
	s.size(width, 236)
	s.rect("in-body", 0, 8, width, edge-8)
	s.rect("in-slide", x(c.Value-c.Edge), edge, width-x(c.Value-c.Edge), 92)
	first := int(math.Ceil((c.Value-before)/c.Main - 1e-9))
	last := int(math.Floor((c.Value+span+behind)/c.Main + 1e-9))
	for n := max(0, first); n <= last; n++ {
		long := 34.0
		switch {
		case n%c.Numbers == 0:
			long = 62
			s.text("in-num", x(float64(n)*c.Main), edge-72, "middle", plain(float64(n/c.Numbers)*c.Each))
		case n%5 == 0 && c.Numbers == 10:
			long = 48
		}
		s.line("in-main", x(float64(n)*c.Main), edge-long, x(float64(n)*c.Main), edge)
	}
	each := span / float64(c.Lines)
	for n := range c.Lines + 1 {
		at := x(c.Value + float64(n)*each)
		long := 30.0
		switch {
		case c.Lines == 20 && n%2 == 0:
			long = 42
			s.text("in-num in-v", at, edge+66, "middle", plain(float64(n)*c.Step*10))
		case c.Lines == 25 && n%5 == 0:
			long = 42
			s.text("in-num in-v", at, edge+66, "middle", plain(float64(n)))
		}
		s.line("in-vernier", at, edge, at, edge+long)
	}
	s.line("in-edge", 0, edge, width, edge)
}

// barrel draws sleeve and thimble of a micrometer, rolled out flat: the sleeve's lines hang from the long line, and
// the vernier's lie above it, beside the thimble.
func barrel(s *sheet, e *practice.Exercise) {
	b := e.Barrel
	const left, k, pitch, mid, wide = 40.0, 640.0, 19.0, 214.0, 330.0
	in := b.Value - b.Base
	x := func(v float64) float64 { return left + v/b.Span*k }
	edge := x(in)
	if b.Covered {
		x = func(v float64) float64 { return left + (b.Span-v)/b.Span*k }
		edge = x(in)
	}
	s.size(left+k+wide-100, 340)
	s.rect("in-body", left-30, mid-60, edge-left+30, 120)
	if b.Vernier > 0 {
		s.rect("in-body", edge-70, mid-float64(b.Vernier)*0.9*pitch-16, 70, float64(b.Vernier)*0.9*pitch)
	}
	s.line("in-datum", left-10, mid, edge, mid)
	per := int(math.Round(b.Span / b.Turn)) // lines of the sleeve
	for n := range per + 1 {
		at := x(float64(n) * b.Turn)
		if at > edge+1e-9 {
			continue // under the thimble
		}
		long, every := 18.0, 10 // 5 mm, or with 40 lines to the inch a tenth
		if e.Inch {
			every = 4
		} else if n%2 == 0 {
			long = 28
		}
		if n%every == 0 {
			long = 38
			s.text("in-num", at, mid+56, "middle", plain(numberOf(n, every, e.Inch)))
		}
		s.line("in-main", at, mid, at, mid+long)
	}
	thimble(s, b, edge, mid, pitch)
	base := "0"
	if b.Base > 0 {
		base = plain(b.Base)
	}
	says := "frame " + base + " to " + plain(b.Base+b.Span) + " " + e.Unit
	if b.Covered {
		says = "rod " + base + " " + e.Unit
	}
	s.text("in-word", left-10, 30, "start", says)
}

// numberOf is what stands at a numbered line of a sleeve: millimetres, or tenths of an inch.
func numberOf(n, every int, inch bool) float64 {
	if inch {
		return float64(n / every)
	}
	return float64(n) / 2
}

// thimble draws its lines beside its edge, and the vernier's on the sleeve.
func thimble(s *sheet, b *practice.Barrel, edge, mid, pitch float64) {
	in := b.Value - b.Base
	turned := math.Mod(in/b.Turn+1e-9, 1) * float64(b.Lines) // where it stands, in its lines
	up, down := 10.4, 5.4
	way := 1.0 // numbers grow upwards
	if b.Covered {
		way, up, down = -1, 6.4, 6.4
	}
	s.rect("in-slide", edge, mid-up*pitch, 190, (up+down)*pitch)
	for n := -b.Lines; n < 2*b.Lines; n++ {
		y := mid - way*(float64(n)-turned)*pitch
		if y < mid-up*pitch || y > mid+down*pitch {
			continue
		}
		j := (n + b.Lines) % b.Lines
		long := 40.0
		if j%5 == 0 {
			long = 62
			s.text("in-num in-v", edge+74, y+7, "start", plain(float64(j)))
		}
		s.line("in-thimble", edge, y, edge+long, y)
	}
	for n := range b.Vernier + 1 {
		if b.Vernier == 0 {
			break
		}
		y := mid - float64(n)*0.9*pitch
		s.line("in-vernier", edge-42, y, edge, y)
		if n%2 == 0 && n > 0 {
			s.text("in-num in-v in-small", edge-50, y+5, "end", plain(float64(n)))
		}
	}
}

// tube draws a flow meter: the float hangs in a tube that widens upwards.
func tube(s *sheet, e *practice.Exercise) {
	t := e.Tube
	const top, base, mid = 40.0, 520.0, 170.0
	y := func(v float64) float64 { return base - v/t.Full*(base-top) }
	s.size(360, 570)
	s.poly("in-body", mid-64, top-20, mid+64, top-20, mid+46, base+20, mid-46, base+20)
	lines := int(math.Round(t.Full / t.Minor))
	for n := range lines + 1 {
		v := float64(n) * t.Minor
		long := 24.0
		if n%t.Major == 0 {
			long = 44
			s.text("in-num", mid+130, y(v)+7, "start", plain(v))
		}
		s.line("in-main", mid+76, y(v), mid+76+long, y(v))
	}
	edge, tip := y(t.Value), y(t.Value-t.Float)
	s.poly("in-float", mid-42, edge, mid+42, edge, mid+42, edge+8, mid+8, tip, mid-8, tip, mid-42, edge+8)
	s.line("in-float-edge", mid-42, edge, mid+42, edge)
	s.text("in-word", mid+76, 556, "start", e.Unit)
}
