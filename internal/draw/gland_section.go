package draw

import "math"

// GlandSection is an O-ring squeezed in its groove. Lengths in m. Depth is from
// the groove's bottom to the mating face; Gap is the clearance beside the ring
// on the side the oil pushes it to.
type GlandSection struct {
	Section, Depth, Width, Gap float64
	HasGap, Backup             bool
	FromAbove                  bool // rod gland: the groove lies in the upper part
	Squeeze, Fill, GapWord     string
	Pressure                   string
	Tone                       string // petrol, ochre
}

// SVG draws the section, 560 wide and 250 high, with the free ring beside it.
func (g GlandSection) SVG() string {
	if g.Section <= 0 || g.Depth <= 0 || g.Width <= 0 {
		return ""
	}
	s := newSheet("plot", 560, 250, "O-ring in its groove: squeeze "+g.Squeeze+", fill "+g.Fill)
	scale := math.Min(150/math.Max(g.Section, g.Depth), 260/g.Width)
	w, d, o := g.Width*scale, g.Depth*scale, g.Section*scale
	const left, face = 36.0, 70.0 // face: the mating surface
	x := left + 60
	gap := 0.0
	if g.HasGap {
		gap = math.Min(14, math.Max(2, g.Gap/2*scale))
	}
	end := x + w + 60
	// The mating part above, the grooved part below the face; a rod gland is the
	// same drawing upside down.
	if g.FromAbove {
		s.b.WriteString(`<g transform="translate(0 250) scale(1 -1)">`)
	}
	s.rect("h", left, face-34, end-left, 34)
	s.path("h2", "M%v %v H%v V%v H%v V%v H%v V%v H%vZ", left, face+gap, x, face+d, x+w, face+gap, end, face+d+34, left)
	s.rect("oil-a", left, face, x-left, gap)
	// Squeezed, the ring keeps its area: flat where it touches, round at the sides.
	h := math.Min(o, d)
	area := math.Pi / 4 * o * o
	across := math.Max(h, (area-math.Pi/4*h*h)/h+h)
	over := across > w
	if over {
		across = w
	}
	rx := x + w - across
	back := 0.0
	if g.Backup && !over {
		back = math.Min(w*.16, 18)
		s.rect("bk", x+w-back, face+gap*.1, back, d-gap*.1)
		rx = math.Max(x, rx-back)
	}
	s.b.WriteString(`<rect class="ring-s ` + g.Tone + `" x="` + num(rx) + `" y="` + num(face+d-h) + `" width="` +
		num(across) + `" height="` + num(h) + `" rx="` + num(math.Min(h, across)/2) + `"/>`)
	if rx > x {
		s.rect("oil-a", x, face, rx-x, d)
	}
	if g.FromAbove {
		s.b.WriteString(`</g>`)
	}
	flip := func(y float64) float64 {
		if g.FromAbove {
			return 250 - y
		}
		return y
	}
	// Free ring, dashed, beside the groove.
	fo := math.Min(o, 110)
	fx := math.Min(490, math.Max(end+90, 470))
	s.circle("ring-f", fx, 150, fo/2)
	s.text("dm-t", fx, 150+fo/2+20, "middle", "free ring")
	s.text("ar-n", (x+x+w)/2, flip(face+d)+map[bool]float64{true: -12, false: 28}[g.FromAbove], "middle",
		"squeeze "+g.Squeeze)
	s.text("ar-t", (x+x+w)/2, flip(face)+map[bool]float64{true: 29, false: -14}[g.FromAbove], "middle", "fill "+g.Fill)
	s.arrow("fo push", left-30, left-2, flip(face+gap/2), 8)
	s.text("ar-q", 2, flip(face-42)+map[bool]float64{true: 14, false: 0}[g.FromAbove], "start", g.Pressure)
	if g.HasGap {
		s.path("dm", "M%v %v H%v", end, flip(face+gap/2), end+14)
		s.text("ar-t", end+18, flip(face+gap/2)+5, "start", "gap "+g.GapWord)
	}
	if g.Backup {
		s.text("st-t look", 556, 20, "end", "back-up ring away from the pressure")
	}
	return s.svg()
}

// LipOffset is a shaft with a worn track and the housing bore a seal is pressed
// into. Lengths in m from the housing's outer face.
type LipOffset struct {
	Groove, GrooveWidth, Seal, Lip, Bottom float64
	Depth                                  float64 // chosen press depth of the seal's outer face
	HasDepth                               bool
	Word                                   string
}

// SVG draws the upper half of the section, 560 wide and 256 high.
func (l LipOffset) SVG() string {
	long := math.Max(l.Bottom, l.Groove+l.GrooveWidth) * 1.15
	if long <= 0 || l.Seal <= 0 {
		return ""
	}
	scale := 420 / long
	const left, bore, shaft = 60.0, 88.0, 194.0
	px := func(v float64) float64 { return left + v*scale }
	s := newSheet("plot", 560, 256, "seal beside the worn track")
	s.rect("h", left, bore-40, px(l.Bottom)-left, 40)
	s.rect("h", px(l.Bottom), bore-40, 500-px(l.Bottom), shaft-bore-8+40)
	s.rect("o", 20, shaft, 520, 44)
	s.rect("groove", px(l.Groove), shaft, math.Max(3, l.GrooveWidth*scale), 7)
	s.text("st-t stop", px(l.Groove+l.GrooveWidth/2), shaft+28, "middle", "worn track")
	s.path("cl", "M14 %v H548", shaft+44)
	if l.HasDepth {
		x, w, lip := px(l.Depth), l.Seal*scale, px(l.Depth+l.Lip)
		s.path("h2", "M%v %v H%v V%v H%v V%v H%vZ", x, bore, x+w, bore+12, x+10, shaft-34, x)
		s.path("rub", "M%v %v L%v %v L%v %v L%v %v L%v %vZ", x, shaft-36, x+10, shaft-40, lip+9, shaft-24, lip,
			shaft, lip-10, shaft-14)
		s.circle("o", lip+1, shaft-26, 5)
		s.path("dm", "M%v %v V%v", x, bore-44, bore-54)
		s.width(left, x, bore-46, "")
		s.text("ar-n", math.Max(x, left+60), bore-52, "middle", l.Word)
	} else {
		s.text("st-t stop", 280, bore+50, "middle", "no depth keeps the lip off the track")
	}
	return s.svg()
}
