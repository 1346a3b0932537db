// Package draw makes the SVG views from plain view data: the line of parts,
// tolerance bars, test plots, bolt circles. Colours come from CSS custom
// properties, so that one drawing serves the light and the dark theme and print.
package draw

import (
	"fmt"
	"html"
	"math"
	"strings"
)

// pen writes shapes in millimetres at a place on the sheet. x grows to the
// right from the left edge of the part, y upwards from the first axis.
type pen struct {
	b     *strings.Builder
	x, y0 float64 // px
	s     float64 // px a mm
	w     float64 // mm, width of the part; for mirroring
	flip  bool    // mirrored left to right
}

func num(v float64) string {
	s := fmt.Sprintf("%.1f", v)
	return strings.TrimSuffix(s, ".0")
}

func (p pen) px(mm float64) float64 {
	if p.flip {
		mm = p.w - mm
	}
	return p.x + mm*p.s
}

func (p pen) py(mm float64) float64 { return p.y0 - mm*p.s }

// rect draws from (x, top) with width w and height h, all mm.
func (p pen) rect(class string, x, top, w, h float64, round ...float64) {
	x1, x2 := p.px(x), p.px(x+w)
	if x1 > x2 {
		x1, x2 = x2, x1
	}
	r := 0.0
	if len(round) > 0 {
		r = round[0] * p.s
	}
	fmt.Fprintf(p.b, `<rect class="%s" x="%s" y="%s" width="%s" height="%s"`, class, num(x1), num(p.py(top)),
		num(math.Max(x2-x1, 1.6)), num(math.Max(h*p.s, 1.2)))
	if r > 0 {
		fmt.Fprintf(p.b, ` rx="%s"`, num(r))
	}
	p.b.WriteString("/>")
}

// poly draws a closed shape through x,y pairs in mm.
func (p pen) poly(class string, xy ...float64) {
	fmt.Fprintf(p.b, `<path class="%s" d="`, class)
	for i := 0; i+1 < len(xy); i += 2 {
		cmd := "L"
		if i == 0 {
			cmd = "M"
		}
		fmt.Fprintf(p.b, "%s%s %s", cmd, num(p.px(xy[i])), num(p.py(xy[i+1])))
	}
	p.b.WriteString(`Z"/>`)
}

// line draws an open line through x,y pairs in mm.
func (p pen) line(class string, xy ...float64) {
	fmt.Fprintf(p.b, `<path class="%s" fill="none" d="`, class)
	for i := 0; i+1 < len(xy); i += 2 {
		cmd := "L"
		if i == 0 {
			cmd = "M"
		}
		fmt.Fprintf(p.b, "%s%s %s", cmd, num(p.px(xy[i])), num(p.py(xy[i+1])))
	}
	p.b.WriteString(`"/>`)
}

func (p pen) circle(class string, x, y, r float64) {
	fmt.Fprintf(p.b, `<circle class="%s" cx="%s" cy="%s" r="%s"/>`, class, num(p.px(x)), num(p.py(y)), num(r*p.s))
}

// ring draws the cut halves of a turned ring round an axis.
func (p pen) ring(class string, axis, x, w, outer, inner float64) {
	p.rect(class, x, axis+outer/2, w, (outer-inner)/2)
	p.rect(class, x, axis-inner/2, w, (outer-inner)/2)
}

// text escapes a label for SVG.
func text(s string) string { return html.EscapeString(s) }

// Defs holds the patterns that the drawings of a page share; it stands once in
// a page, before the first drawing.
const Defs = `<svg width="0" height="0" aria-hidden="true" class="defs"><defs>` +
	`<pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><rect ` +
	`width="6" height="6" class="hatch-bg"/><line x1="0" y1="0" x2="0" y2="6" class="hatch-ln"/></pattern>` +
	`<pattern id="hatch2" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)"><rect ` +
	`width="6" height="6" class="hatch-bg"/><line x1="0" y1="0" x2="0" y2="6" class="hatch-ln"/></pattern>` +
	`<pattern id="soft" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><rect ` +
	`width="4" height="4" class="soft-bg"/><line x1="0" y1="0" x2="0" y2="4" class="soft-ln"/></pattern>` +
	`</defs></svg>`
