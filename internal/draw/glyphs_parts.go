package draw

import (
	"math"

	"corvek/core/family"
)

// Glyphs of vane and gerotor sets, cams, packs and small parts.

// drawBackup shows a cut ring of square section, darker than a seal's rubber is round.
func drawBackup(p pen, s family.Shape, _, on []float64, _ int) {
	p.ring("h2", on[0], 0, s.W, s.OD, s.ID)
	p.line("thin", 0, on[0]+s.ID/2, 0, on[0]-s.ID/2)
}

func drawBush(p pen, s family.Shape, _, on []float64, _ int) {
	for _, a := range on {
		p.ring("h2", a, 0, s.W, s.OD, s.ID)
		if s.Step > 0 { // a collar at the working face
			p.ring("h2", a, s.W-s.Step, s.Step, s.OD*1.25, s.ID)
		}
		p.line("thin", 0, a+s.ID/2, 0, a-s.ID/2)
		p.line("thin", s.W, a+s.ID/2, s.W, a-s.ID/2)
	}
}

// drawCam is a shaft with eccentric lobes in turn above and below.
func drawCam(p pen, s family.Shape, _, on []float64, count int) {
	a, n := on[0], max(2, min(count+1, 4))
	p.rect("o", 0, a+s.ID/2, s.W, s.ID)
	lobe := s.W / float64(2*n)
	off := (s.OD - s.ID) / 4
	for i := range n {
		m := 1.0
		if i%2 == 1 {
			m = -1
		}
		x := lobe * (.5 + 2*float64(i))
		p.rect("o", x, a+m*off+(s.OD-2*off)/2, lobe, s.OD-2*off)
		p.line("face", x, a+m*off+m*(s.OD-2*off)/2, x+lobe, a+m*off+m*(s.OD-2*off)/2)
	}
	p.line("cl", -4, a, s.W+4, a)
}

// drawCamRing is a ring whose bore is an oval: the two cut halves differ.
func drawCamRing(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.rect("h", 0, a+s.OD/2, s.W, (s.OD-s.ID)/2)
	p.rect("h", 0, a-s.ID/2*.86, s.W, s.OD/2-s.ID/2*.86)
	p.line("face", 0, a+s.ID/2, s.W, a+s.ID/2)
	p.line("face", 0, a-s.ID/2*.86, s.W, a-s.ID/2*.86)
	p.line("thin", 0, a+s.ID/2, 0, a-s.ID/2*.86)
	p.line("thin", s.W, a+s.ID/2, s.W, a-s.ID/2*.86)
}

// drawDiscSprings shows the stack opposed, disc by disc; the stack sheet has
// the facings as they really lay.
func drawDiscSprings(p pen, s family.Shape, _, on []float64, count int) {
	a, n := on[0], max(2, min(count, 8))
	pitch := s.W / float64(n)
	thick := math.Min(pitch*.55, 3)
	ro, ri := s.OD/2, s.ID/2
	for i := range n {
		edge, bore := float64(i)*pitch, float64(i)*pitch+pitch-thick
		if i%2 == 1 {
			edge, bore = bore, edge
		}
		for _, m := range []float64{1, -1} {
			p.poly("h", edge, a+m*ro, bore, a+m*ri, bore+thick, a+m*ri, edge+thick, a+m*ro)
		}
	}
}

// drawDiscValve is a thin disc over its seat with a light spring behind.
func drawDiscValve(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	seat := s.W * .5
	p.ring("h", a, 0, seat, s.OD, s.ID)
	p.rect("d", seat, a+s.OD*.42, math.Max(1.2, s.W*.12), s.OD*.84)
	p.line("thin", seat+s.W*.14, a+s.OD*.2, s.W*.8, a-s.OD*.2, s.W*.8, a+s.OD*.2, s.W, a-s.OD*.2)
	p.line("face", seat, a+s.OD/2, seat, a+s.ID/2)
	p.line("face", seat, a-s.ID/2, seat, a-s.OD/2)
}

// drawFitting is a union with its cone to the right and its thread to the left.
func drawFitting(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.rect("o", s.W*.4, a+s.OD/2, s.W*.3, s.OD, 1)
	p.line("thin", s.W*.4, a+s.OD*.22, s.W*.7, a+s.OD*.22)
	p.line("thin", s.W*.4, a-s.OD*.22, s.W*.7, a-s.OD*.22)
	p.rect("o", 0, a+s.OD*.34, s.W*.4, s.OD*.68)
	p.poly("o", s.W*.7, a+s.OD*.36, s.W, a+s.OD*.24, s.W, a-s.OD*.24, s.W*.7, a-s.OD*.36)
	for t := 1.5; t < s.W*.4-2; t += 2 {
		p.line("thin", t, a+s.OD*.34, t+.9, a-s.OD*.34)
	}
	p.line("cl", -3, a, s.W+3, a)
}

// drawGerotor shows inner and outer rotor cut together, the inner below the middle.
func drawGerotor(p pen, s family.Shape, _, on []float64, _ int) {
	a, off := on[0], s.OD*.05
	p.ring("h", a, 0, s.W, s.OD, s.OD*.78)
	p.ring("h2", a-off, 0, s.W, s.OD*.66, s.ID)
	p.rect("far", 0, a+s.OD*.39, s.W, s.OD*.39-s.OD*.33+off)
	p.line("tooth", 0, a+s.OD*.33-off, s.W, a+s.OD*.33-off)
	p.line("tooth", 0, a-s.OD*.33-off, s.W, a-s.OD*.33-off)
}

func drawPin(p pen, s family.Shape, _, on []float64, _ int) {
	a, c := on[0], math.Min(1.2, s.OD/5)
	p.poly("o", 0, a+s.OD/2-c, c, a+s.OD/2, s.W-c, a+s.OD/2, s.W, a+s.OD/2-c, s.W, a-s.OD/2+c, s.W-c, a-s.OD/2, c,
		a-s.OD/2, 0, a-s.OD/2+c)
	p.line("cl", -3, a, s.W+3, a)
}

// drawPlatePack shows friction plates with their linings between separators.
func drawPlatePack(p pen, s family.Shape, _, on []float64, count int) {
	a, n := on[0], max(3, min(count, 11))
	w := s.W / float64(n)
	h := (s.OD - s.ID) / 2
	for i := range n {
		x := float64(i) * w
		for _, y := range []float64{a + s.OD/2, a - s.ID/2} {
			if i%2 == 0 {
				p.rect("h", x+w*.18, y+h*.06, w*.64, h)
				continue
			}
			p.rect("o", x+w*.36, y-h*.04, w*.28, h*.98)
			p.rect("rub", x+w*.1, y-h*.1, w*.24, h*.72)
			p.rect("rub", x+w*.66, y-h*.1, w*.24, h*.72)
		}
	}
}

// drawRingGear is an inside-toothed ring with its crescent.
func drawRingGear(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.ring("h", a, 0, s.W, s.OD, s.OD*.8)
	p.ring("o", a, 0, s.W, s.OD*.8, s.OD*.72)
	p.line("tooth", 0, a+s.OD*.36, s.W, a+s.OD*.36)
	p.line("tooth", 0, a-s.OD*.36, s.W, a-s.OD*.36)
	p.rect("h2", s.W*.06, a+s.OD*.33, s.W*.88, s.OD*.12)
}

// drawRotor is a slotted rotor: the slots run its whole width.
func drawRotor(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.ring("h", a, 0, s.W, s.OD, s.ID)
	for _, m := range []float64{1, -1} {
		r := (s.OD + s.ID) / 4
		p.rect("k", 0, a+m*r+s.OD*.16, s.W, s.OD*.05)
		p.rect("k", 0, a+m*r-s.OD*.05, s.W, s.OD*.04)
	}
	p.line("thin", 0, a+s.ID/2, 0, a-s.ID/2)
}

// drawVanes shows the upper and lower vane, rounded at the edge that runs.
func drawVanes(p pen, s family.Shape, _, on []float64, _ int) {
	a, h := on[0], (s.OD-s.ID)/2
	for _, m := range []float64{1, -1} {
		tip, root := a+m*s.OD/2, a+m*s.ID/2
		c := math.Min(s.W*.3, h*.25)
		p.poly("o", 0, root, s.W, root, s.W, tip-m*c, s.W-c*.6, tip, c*.2, tip-m*c*.25, 0, tip-m*c)
		p.line("face", c*.2, tip-m*c*.2, s.W-c*.6, tip)
	}
}
