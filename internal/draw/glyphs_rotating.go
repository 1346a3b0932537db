package draw

import (
	"math"

	"corvek/core/family"
)

// Glyphs of rotating groups and of spool valves.

func drawSwash(p pen, s family.Shape, _, on []float64, _ int) {
	a, ro, ri := on[0], s.OD/2, s.ID/2
	lean := s.W * .55
	p.poly("h", lean, a+ro, s.W, a+ro, s.W*.7, a+ri, lean*.7, a+ri)
	p.poly("h", lean*.35, a-ri, s.W*.45, a-ri, s.W*.25, a-ro, 0, a-ro)
	p.line("face", s.W, a+ro, s.W*.25, a-ro)
}

func drawRetainer(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.ring("h", a, 0, s.W, s.OD, s.OD*.84)
	p.ring("h", a, 0, s.W, s.OD*.58, s.ID)
	p.line("thin", s.W/2, a+s.OD*.42, s.W/2, a+s.OD*.29)
	p.line("thin", s.W/2, a-s.OD*.42, s.W/2, a-s.OD*.29)
}

// drawPistonSet shows the upper and the lower piston with their slippers.
func drawPistonSet(p pen, s family.Shape, _, on []float64, _ int) {
	a, d := on[0], s.ID
	for _, y := range []float64{a + (s.OD-d)/2, a - (s.OD-d)/2} {
		p.rect("o", s.W*.3, y+d/2, s.W*.7, d, 1)
		p.rect("far", s.W*.62, y+d*.22, s.W*.38, d*.44)
		p.circle("o", s.W*.22, y, d*.34)
		p.rect("h", 0, y+d*.7, s.W*.12, d*1.4)
		p.line("face", 0, y+d*.7, 0, y-d*.7)
		p.line("thin", s.W*.42, y+d/2, s.W*.42, y-d/2)
		p.line("thin", s.W*.5, y+d/2, s.W*.5, y-d/2)
	}
}

func drawBarrel(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.ring("h", a, 0, s.W, s.OD, s.ID)
	bore := (s.OD - s.ID) / 2 * .62
	r := (s.OD + s.ID) / 4
	for _, m := range []float64{1, -1} {
		p.rect("k", 0, a+m*r+bore/2, s.W*.8, bore)
		p.rect("k", s.W*.8, a+m*r+bore*.25, s.W*.2, bore*.5)
	}
	p.line("face", s.W, a+s.OD/2, s.W, a+s.ID/2)
	p.line("face", s.W, a-s.ID/2, s.W, a-s.OD/2)
}

func drawValvePlate(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.ring("h", a, 0, s.W, s.OD, s.ID)
	r, k := (s.OD+s.ID)/4, (s.OD-s.ID)/2*.36
	p.rect("k", 0, a+r+k/2, s.W, k)
	p.rect("k", 0, a-r+k/2, s.W, k)
	x := 0.0
	if s.Face == "right" {
		x = s.W
	}
	p.line("face", x, a+s.OD/2, x, a+r+k/2)
	p.line("face", x, a-r-k/2, x, a-s.OD/2)
}

func drawBearing(p pen, s family.Shape, _, on []float64, _ int) {
	a, h := on[0], (s.OD-s.ID)/2
	p.ring("h", a, 0, s.W, s.OD, s.OD-h*.6)
	p.ring("h2", a, 0, s.W, s.ID+h*.6, s.ID)
	r := (s.OD + s.ID) / 4
	ball := math.Min(h*.3, s.W*.36)
	p.circle("o", s.W/2, a+r, ball)
	p.circle("o", s.W/2, a-r, ball)
	for _, m := range []float64{1, -1} {
		p.line("thin", 0, a+m*s.ID/2, 0, a+m*s.OD/2)
		p.line("thin", s.W, a+m*s.ID/2, s.W, a+m*s.OD/2)
	}
}

func drawSpool(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	lands := 4
	if s.W < 70 {
		lands = 3
	}
	step := s.W / float64(2*lands-1)
	for i := range 2*lands - 1 {
		d := s.OD
		if i%2 == 1 {
			d = s.ID
		}
		x := float64(i) * step
		p.rect("o", x, a+d/2, step, d)
		if i%2 == 0 {
			p.line("thin", x+step*.35, a+d/2, x+step*.35, a-d/2)
			p.line("thin", x+step*.65, a+d/2, x+step*.65, a-d/2)
		}
	}
	p.line("cl", -3, a, s.W+3, a)
}
