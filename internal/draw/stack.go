package draw

import (
	"fmt"
	"math"
	"strings"
)

// Disc shapes of a dished spring stack, as typed: > is dished to the right.
const (
	dishRight = '>'
	dishLeft  = '<'
)

// DiscStack draws a stack of dished springs in section, left to right, in true
// proportion of thickness, cone and diameter (any one unit). Each disc is a
// thing that can be clicked over when Edit names the input that holds the
// stack. Squash is how far the discs are pressed, 0 free to 1 flat, per nest.
type DiscStack struct {
	Stack                            string
	Outside, Inside, Thickness, Cone float64
	Squash                           []float64 // one a nest; nil for free
	Edit                             string
	Said                             string
}

// SVG draws the stack, 560 wide and 176 high.
func (d DiscStack) SVG() string {
	if d.Outside <= 0 || d.Thickness <= 0 || d.Inside >= d.Outside {
		return ""
	}
	nests := nestsOf(d.Stack)
	total := 0.0
	for i, n := range nests {
		total += d.cone(i) + float64(n)*d.Thickness
	}
	if total <= 0 {
		return ""
	}
	const wide, tall, mid = 500.0, 128.0, 82.0
	scale := math.Min(wide/total, tall/d.Outside)
	thick := scale
	if few := total * scale; few < 320 { // a flat stack is stretched along its axis, so that facings are seen
		thick = scale * math.Min(6, 320/few)
	}
	s := newSheet("plot stack", 560, 176, d.Said)
	if d.Edit != "" {
		s.text("dm-t", 280, 172, "middle", "tap a disc to turn it over")
	}
	x := 280 - total*thick/2
	s.path("cl", "M20 %v H540", mid)
	k := 0
	for i, n := range nests {
		cone := d.cone(i) * thick
		for j := range n {
			d.disc(s, k, x+float64(j)*d.Thickness*thick, cone, d.Thickness*thick, mid, scale)
			k++
		}
		x += cone + float64(n)*d.Thickness*thick
	}
	return s.svg()
}

func (d DiscStack) cone(nest int) float64 {
	if nest < len(d.Squash) {
		return d.Cone * math.Max(0, 1-d.Squash[nest])
	}
	return d.Cone
}

// disc draws disc k between x and x + cone + thickness: two slanted halves.
func (d DiscStack) disc(s *sheet, k int, x, cone, thick, mid, scale float64) {
	ro, ri := d.Outside/2*scale, d.Inside/2*scale
	right := d.Stack[k] == dishRight
	edge, bore := x, x+cone // axial places of rim and bore
	if !right {
		edge, bore = x+cone, x
	}
	open, end := `<g>`, `</g>`
	if d.Edit != "" {
		word := map[bool]string{true: "right", false: "left"}[right]
		open = fmt.Sprintf(`<g class="flip" data-flip="%d" data-in="%s" tabindex="0" role="button" aria-label="disc `+
			`%d, dished to the %s; turn it over">`, k, text(d.Edit), k+1, word)
	}
	s.b.WriteString(open)
	s.rect("hit", x-2, mid-ro-6, cone+thick+4, 2*ro+12)
	class := "dish"
	if !right {
		class = "dish back"
	}
	for _, m := range []float64{1, -1} {
		s.path(class, "M%v %v L%v %v H%v L%v %vZ", edge, mid-m*ro, bore, mid-m*ri, bore+thick, edge+thick, mid-m*ro)
	}
	s.b.WriteString(end)
}

// nestsOf counts neighbours that face the same way.
func nestsOf(stack string) []int {
	var out []int
	for i := range stack {
		if i > 0 && stack[i] == stack[i-1] {
			out[len(out)-1]++
		} else {
			out = append(out, 1)
		}
	}
	return out
}

// PlateStack draws friction and separator plates in order: f with two linings,
// s bare. Each place where an f meets an s works and is marked.
func PlateStack(plates, edit string) string {
	plates = strings.ToLower(plates)
	n := len(plates)
	if n == 0 || n > 80 || strings.Trim(plates, "fs") != "" {
		return ""
	}
	const mid, ro, ri = 84.0, 66.0, 26.0
	w := math.Min(26, 500/float64(n))
	s := newSheet("plot stack", 560, 184, "friction pack, "+plates)
	x := 280 - w*float64(n)/2
	s.path("cl", "M%v %v H%v", x-24, mid, x+w*float64(n)+24)
	for i := range n {
		at := x + float64(i)*w
		open := `<g>`
		if edit != "" {
			name := map[byte]string{'f': "friction plate", 's': "separator"}[plates[i]]
			open = fmt.Sprintf(`<g class="flip" data-flip="%d" data-in="%s" tabindex="0" role="button" `+
				`aria-label="%d, %s; change it">`, i, text(edit), i+1, name)
		}
		s.b.WriteString(open)
		s.rect("hit", at, mid-ro-8, w, 2*ro+16)
		for _, m := range []float64{-ro, ri} {
			if plates[i] == 'f' {
				s.rect("k", at+w*.34, mid+m, w*.32, ro-ri)
				s.rect("lining", at+w*.08, mid+m+3, w*.26, ro-ri-6)
				s.rect("lining", at+w*.66, mid+m+3, w*.26, ro-ri-6)
				continue
			}
			s.rect("h", at+w*.2, mid+m-5, w*.6, ro-ri+10)
		}
		s.text("dm-t", at+w/2, mid+ro+22, "middle", string(plates[i]))
		s.b.WriteString(`</g>`)
		if i > 0 && plates[i] != plates[i-1] {
			s.circle("works", at, mid-ro-12, 4)
		}
	}
	s.circle("works", 430, 11, 4)
	s.text("dm-t", 440, 16, "start", "faces that work")
	if edit != "" {
		s.text("dm-t", 20, 16, "start", "tap a plate to change it")
	}
	return s.svg()
}

// EccentricRing draws the gap round a shaft in its bore, exaggerated, the shaft
// as far to one side as it is said to be (0 to 1).
func EccentricRing(eccentricity float64, radial string) string {
	const cx, cy, bore, gap = 170.0, 112.0, 92.0, 22.0
	s := newSheet("plot", 560, 224, "gap round the shaft, exaggerated: radial "+radial)
	s.circle("far", cx, cy, bore+18)
	s.circle("h", cx, cy, bore+18)
	s.circle("oil-c", cx, cy, bore)
	y := cy + gap*math.Min(1, math.Max(0, eccentricity))
	s.circle("o", cx, y, bore-gap)
	s.path("cl", "M%v %v H%v M%v %v V%v", cx-128, cy, cx+128, cx, cy-120, cy+108)
	s.path("dm", "M%v %v V%v H%v", cx, cy-bore, y-bore+gap, cx)
	s.path("dm", "M%v %v L%v %v H%v", cx+4, (cy-bore+y-bore+gap)/2, cx+120, cy-92, cx+138)
	s.text("ar-n", cx+144, cy-86, "start", radial)
	s.text("dm-t", cx+144, cy-64, "start", "radial gap when centred")
	if eccentricity > 0 {
		s.text("dm-t", cx+144, cy+84, "start", "pushed to one side by "+fmt.Sprintf("%.0f %%", 100*eccentricity))
	}
	return s.svg()
}
