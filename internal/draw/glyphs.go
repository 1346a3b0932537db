package draw

import (
	"math"

	"corvek/core/family"
)

// glyph draws one kind of part. axes are the heights of the family's axes in
// mm, on those the part sits on.
type glyph func(p pen, s family.Shape, axes, on []float64, count int)

var glyphs map[string]glyph

func init() {
	glyphs = map[string]glyph{
		"key": drawKey, "retaining_ring": drawRetaining, "lip_seal": drawLipSeal, "spacer": drawSpacer,
		"bolts": drawBolts,
		"cover": drawCover, "dowels": drawDowels, "gasket": drawGasket, "plate": drawPlate, "needles": drawNeedles,
		"gear_shaft": drawGearShaft, "body": drawBody, "shims": drawShims, "plug": drawPlug, "spring": drawSpring,
		"poppet": drawPoppet, "ball": drawBall, "rod": drawRod, "gland": drawGland, "piston": drawPiston,
		"piston_seal": drawPistonSeal,
		"o_ring":      drawORing, "tube": drawTube, "swash": drawSwash, "retainer": drawRetainer,
		"piston_set": drawPistonSet,
		"barrel":     drawBarrel, "valve_plate": drawValvePlate, "bearing": drawBearing, "spool": drawSpool,
		"backup_ring": drawBackup, "bush": drawBush, "cam": drawCam, "cam_ring": drawCamRing,
		"disc_springs": drawDiscSprings, "disc_valve": drawDiscValve,
		"fitting": drawFitting, "gerotor": drawGerotor, "pin": drawPin, "plate_pack": drawPlatePack,
		"ring_gear": drawRingGear, "rotor": drawRotor, "vanes": drawVanes,
	}
}

// extent gives how far a part reaches above and below the first axis, in mm.
func extent(s family.Shape, on []float64) (top, base float64) {
	if s.Top != 0 || s.Base != 0 {
		return s.Top, s.Base
	}
	top, base = math.Inf(-1), math.Inf(1)
	for _, a := range on {
		top, base = math.Max(top, a+s.OD/2), math.Min(base, a-s.OD/2)
	}
	return top, base
}

func drawKey(p pen, s family.Shape, _, on []float64, _ int) {
	h := s.OD - s.ID
	p.rect("h", 0, on[0]+h/2, s.W, h, h/2)
	p.line("thin", 2, on[0]+h/2-1.4, s.W-2, on[0]+h/2-1.4)
}

func drawRetaining(p pen, s family.Shape, _, on []float64, _ int) {
	p.ring("d", on[0], 0, s.W, s.OD, s.ID)
	p.line("thin", s.W/2, on[0]+s.ID/2, s.W/2, on[0]-s.ID/2)
}

// drawLipSeal shows case, lip and garter spring; the lip leans to s.Face.
func drawLipSeal(p pen, s family.Shape, _, on []float64, _ int) {
	p.flip = p.flip != (s.Face == "left")
	a, ro, ri, w := on[0], s.OD/2, s.ID/2, s.W
	h := ro - ri
	for _, m := range []float64{1, -1} {
		y := func(r float64) float64 { return a + m*r }
		p.poly("h", 0, y(ro), w, y(ro), w, y(ro-.15*h), .22*w, y(ro-.15*h), .22*w, y(ri+.42*h), 0, y(ri+.42*h))
		p.poly("rub", 0, y(ri+.46*h), .34*w, y(ri+.46*h), .72*w, y(ri+.34*h), .98*w, y(ri+.36*h), w, y(ri+.2*h),
			.84*w, y(ri-.04*h), .6*w, y(ri+.14*h), .1*w, y(ri+.26*h), 0, y(ri+.3*h))
		p.circle("o", .84*w, y(ri+.46*h), .1*h)
	}
}

func drawSpacer(p pen, s family.Shape, _, on []float64, _ int) {
	p.ring("h", on[0], 0, s.W, s.OD, s.ID)
	p.ring("k", on[0], s.W*.55, s.W*.45, s.ID+4, s.ID)
}

// drawBolts shows one bolt above and one below; the count stands underneath.
func drawBolts(p pen, s family.Shape, _, _ []float64, _ int) {
	for _, y := range []float64{s.Top, s.Base} {
		bolt(p, y, s.W, s.OD, s.Step)
	}
}

func bolt(p pen, y, w, d, head float64) {
	p.rect("o", 0, y+d*.8, head, d*1.6, 1)
	p.line("thin", 0, y+d*.32, head, y+d*.32)
	p.line("thin", 0, y-d*.32, head, y-d*.32)
	p.rect("o", head, y+d/2, w-head, d)
	start := head + (w-head)*.45
	p.line("thin", start, y+d/2, start, y-d/2)
	p.line("thin", start, y+d*.36, w, y+d*.36)
	p.line("thin", start, y-d*.36, w, y-d*.36)
	p.line("cl", -3, y, w+3, y)
}

// drawCover is a cut block with a stepped bore at the first axis, blind bores
// at the others and a boss on its outer face.
func drawCover(p pen, s family.Shape, axes, _ []float64, _ int) {
	left := s.Face == "left"
	x := 0.0
	if s.Step > 0 && left {
		x = s.Step
		p.ring("h", 0, 0, s.Step, s.ID+20, s.ID)
	}
	p.rect("h", x, s.Top, s.W, s.Top-s.Base)
	p.rect("k", x, s.ID/2, s.W, s.ID)
	for _, a := range axes[1:] {
		bore := 27.0
		depth := s.W * .7
		bx := x + s.W - depth
		if !left {
			bx = x
		}
		p.rect("k", bx, a+bore/2, depth, bore)
	}
	if left {
		p.rect("k", x+s.W*.45, 13.5, s.W*.55, 27)
	} else {
		p.rect("h", x+s.W*.7, s.ID/2, s.W*.3, s.ID)
	}
}

func drawDowels(p pen, s family.Shape, _, _ []float64, _ int) {
	for _, y := range []float64{s.Top, s.Base} {
		p.rect("h", 0, y+s.OD/2, s.W, s.OD, 1.6)
		p.line("cl", -3, y, s.W+3, y)
	}
}

// walls are the pieces of a plate between its bores, top first.
func walls(s family.Shape, axes []float64) [][2]float64 {
	var out [][2]float64
	top := s.Top
	for _, a := range axes {
		if top > a+s.ID/2 {
			out = append(out, [2]float64{top, a + s.ID/2})
		}
		top = math.Min(top, a-s.ID/2)
	}
	if top > s.Base {
		out = append(out, [2]float64{top, s.Base})
	}
	return out
}

func drawGasket(p pen, s family.Shape, axes, _ []float64, _ int) {
	for _, w := range walls(s, axes) {
		p.rect("d", 0, w[0], s.W, w[0]-w[1])
	}
}

// drawPlate marks its working face by a heavy line.
func drawPlate(p pen, s family.Shape, axes, _ []float64, _ int) {
	face := s.W
	if s.Face == "left" {
		face = 0
	}
	for _, w := range walls(s, axes) {
		p.rect("h", 0, w[0], s.W, w[0]-w[1])
		p.line("face", face, w[0], face, w[1])
	}
}

// drawNeedles shows the rollers of a full complement as they lie round the track.
func drawNeedles(p pen, s family.Shape, _, on []float64, _ int) {
	d, r := (s.OD-s.ID)/2, (s.OD+s.ID)/4
	for _, a := range on {
		for _, turn := range []float64{60, 28} {
			y := r * math.Sin(turn*math.Pi/180)
			t := d * math.Sin(turn*math.Pi/180) * .8
			p.rect("far", 0, a+y+t/2, s.W, t, t/2)
			p.rect("far", 0, a-y+t/2, s.W, t, t/2)
		}
		p.rect("o", 0, a+r+d/2, s.W, d, d/2)
		p.rect("o", 0, a-r+d/2, s.W, d, d/2)
	}
}

// drawGearShaft turns a stepped shaft; the segment of full diameter is the
// gear, drawn with its teeth in true projection.
func drawGearShaft(p pen, s family.Shape, _, on []float64, _ int) {
	a, x := on[0], 0.0
	for i, seg := range s.Shaft {
		if seg.D == s.OD {
			p.rect("o", x, a+seg.D/2, seg.L, seg.D)
			root := seg.D/2 - 6.5
			for k := 1; k < 12; k++ {
				y := seg.D / 2 * math.Cos(float64(k)*math.Pi/12)
				class := "thin"
				if k%2 == 1 {
					class = "tooth"
				}
				p.line(class, x, a+y, x+seg.L, a+y)
			}
			p.line("root", x, a+root, x+seg.L, a+root)
			p.line("root", x, a-root, x+seg.L, a-root)
		} else {
			c := math.Min(1.5, seg.L/4)
			switch i {
			case 0:
				p.poly("o", x, a+seg.D/2-c, x+c, a+seg.D/2, x+seg.L, a+seg.D/2, x+seg.L, a-seg.D/2, x+c, a-seg.D/2,
					x, a-seg.D/2+c)
			case len(s.Shaft) - 1:
				p.poly("o", x, a+seg.D/2, x+seg.L-c, a+seg.D/2, x+seg.L, a+seg.D/2-c, x+seg.L, a-seg.D/2+c,
					x+seg.L-c, a-seg.D/2, x, a-seg.D/2)
			default:
				p.rect("o", x, a+seg.D/2, seg.L, seg.D)
			}
			if i == 0 && len(s.Shaft) > 4 {
				p.rect("far", x+2, a+3, seg.L-6, 6, 3)
			}
		}
		x += seg.L
	}
}

// gearStart is where the gear begins along a shaft, for lining pairs up.
func gearStart(s family.Shape) float64 {
	x := 0.0
	for _, seg := range s.Shaft {
		if seg.D == s.OD {
			return x
		}
		x += seg.L
	}
	return 0
}

func drawBody(p pen, s family.Shape, _, on []float64, _ int) {
	first, last := on[0], on[len(on)-1]
	p.rect("o", 0, s.Top, s.W, s.Top-s.Base)
	p.rect("h", 0, s.Top, s.W, s.Top-(first+s.OD/2))
	p.rect("h", 0, last-s.OD/2, s.W, (last-s.OD/2)-s.Base)
	if len(on) > 1 {
		mid := (first + last) / 2
		p.line("thin", 0, mid, s.W, mid)
		r := math.Min(s.W*.3, 10)
		p.circle("port", s.W/2, mid, r)
		p.circle("thin0", s.W/2, mid, r*.72)
		return
	}
	for _, x := range []float64{.22, .5, .78} {
		p.rect("k", s.W*x-4, s.Top-.1, 8, s.Top-(first+s.OD/2))
	}
}

// drawShims draws the pack as a stack of single plates.
func drawShims(p pen, s family.Shape, axes, on []float64, count int) {
	n := max(1, min(count, 4))
	step := math.Max(s.W/float64(n), 3.2)
	for i := range n {
		x := float64(i) * step
		if s.Top == 0 && s.Base == 0 {
			p.ring("d", on[0], x, 1, s.OD, s.ID)
			continue
		}
		for _, w := range walls(s, axes) {
			p.rect("d", x, w[0], 1, w[0]-w[1])
		}
	}
}

func drawPlug(p pen, s family.Shape, _, on []float64, _ int) {
	a, head := on[0], s.W*.38
	// The head shows its hexagon; the thread enters to the left.
	x := s.W - head
	p.rect("o", x, a+s.OD/2, head, s.OD, 1)
	p.line("thin", x, a+s.OD*.24, s.W, a+s.OD*.24)
	p.line("thin", x, a-s.OD*.24, s.W, a-s.OD*.24)
	p.rect("o", 0, a+s.ID/2, x, s.ID)
	for t := 1.5; t < x-3; t += 2 {
		p.line("thin", t, a+s.ID/2, t+.9, a-s.ID/2)
	}
	p.ring("d", a, x-2.4, 2.4, s.ID+5, s.ID)
	p.line("cl", -4, a, s.W+4, a)
}

// drawSpring draws the coils as tubes with their cut ends.
func drawSpring(p pen, s family.Shape, _, on []float64, _ int) {
	a, wire := on[0], s.ID
	r := (s.OD - wire) / 2
	coils := max(4, min(9, int(s.W/(wire*2.2))))
	pitch := (s.W - wire) / float64(coils)
	thick := math.Max(wire*p.s, 3)
	for i := range coils {
		x := wire/2 + float64(i)*pitch
		pts := []float64{x, a - r, x + pitch/2, a + r}
		p.b.WriteString(`<g stroke-width="` + num(thick) + `">`)
		p.line("coil", pts...)
		p.b.WriteString(`</g><g stroke-width="` + num(math.Max(thick-2.2, .8)) + `">`)
		p.line("coil-in", pts...)
		p.b.WriteString(`</g>`)
	}
	for i := 0; i <= coils; i++ {
		x := wire/2 + float64(i)*pitch
		p.circle("o", x, a-r, wire/2)
		if i < coils {
			p.circle("o", x+pitch/2, a+r, wire/2)
		}
	}
	p.line("cl", -3, a, s.W+3, a)
}

func drawPoppet(p pen, s family.Shape, _, on []float64, _ int) {
	a, r := on[0], s.OD/2
	p.poly("o", 0, a+r*.25, s.W*.38, a+r, s.W*.6, a+r, s.W*.6, a+r*.5, s.W, a+r*.5, s.W, a-r*.5, s.W*.6, a-r*.5,
		s.W*.6, a-r, s.W*.38, a-r, 0, a-r*.25)
	p.line("thin", s.W*.38, a+r, s.W*.38, a-r)
	p.line("face", s.W*.1, a+r*.45, s.W*.24, a+r*.72)
	p.line("face", s.W*.1, a-r*.45, s.W*.24, a-r*.72)
	p.line("cl", -3, a, s.W+3, a)
}

func drawBall(p pen, s family.Shape, _, on []float64, _ int) {
	p.circle("o", s.W/2, on[0], s.OD/2)
	p.circle("far", s.W/2-s.OD*.14, on[0]+s.OD*.14, s.OD*.12)
	p.line("cl", -3, on[0], s.W+3, on[0])
}

func drawRod(p pen, s family.Shape, _, on []float64, _ int) {
	a, r, c := on[0], s.OD/2, math.Min(2, s.OD/8)
	p.poly("o", 0, a+r-c, c, a+r, s.W-c, a+r, s.W, a+r-c, s.W, a-r+c, s.W-c, a-r, c, a-r, 0, a-r+c)
	p.line("thin", c, a+r, c, a-r)
	p.line("thin", s.W-c, a+r, s.W-c, a-r)
	p.line("far", c*2, a+r*.72, s.W-c*2, a+r*.72)
}

func drawGland(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.ring("h", a, 0, s.W-s.Step, s.OD, s.ID)
	p.ring("h", a, s.W-s.Step, s.Step, s.OD*.8, s.ID)
	p.ring("k", a, s.W*.2, s.W*.14, s.ID+12, s.ID)
	p.ring("d", a, s.W-s.Step*.5, s.Step*.16, s.OD*.8, s.OD*.8-6)
}

func drawPiston(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.ring("h", a, 0, s.W, s.OD, s.ID)
	for _, x := range []float64{.14, .42, .72} {
		p.ring("k", a, s.W*x, s.W*.14, s.OD, s.OD*.88)
	}
}

func drawPistonSeal(p pen, s family.Shape, _, on []float64, count int) {
	a, n := on[0], max(1, min(count, 3))
	step := s.W / float64(n)
	for i := range n {
		x := float64(i) * step
		p.ring("d", a, x, step*.8, s.OD, s.OD-(s.OD-s.ID)*.5)
		d := (s.OD - s.ID) * .24
		p.circle("o", x+step*.4, a+s.ID/2+d/2, d/2)
		p.circle("o", x+step*.4, a-s.ID/2-d/2, d/2)
	}
}

func drawORing(p pen, s family.Shape, _, on []float64, _ int) {
	a, d := on[0], (s.OD-s.ID)/2
	p.circle("d", s.W/2, a+(s.OD-d)/2, d/2)
	p.circle("d", s.W/2, a-(s.OD-d)/2, d/2)
	p.line("thin", s.W/2, a+s.ID/2, s.W/2, a-s.ID/2)
}

func drawTube(p pen, s family.Shape, _, on []float64, _ int) {
	a := on[0]
	p.ring("h", a, 0, s.W, s.OD, s.ID)
	p.line("thin", 0, a+s.ID/2, 0, a-s.ID/2)
	p.line("thin", s.W, a+s.ID/2, s.W, a-s.ID/2)
	for _, x := range []float64{.08, .86} {
		p.rect("h", s.W*x, a+s.OD/2+9, 18, 9)
		p.rect("k", s.W*x+5, a+s.OD/2+9, 8, 9+(s.OD-s.ID)/2)
	}
}

// Kinds lists the kinds of parts that can be drawn.
func Kinds() []string {
	out := make([]string, 0, len(glyphs))
	for k := range glyphs {
		out = append(out, k)
	}
	return out
}
