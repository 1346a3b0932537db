package draw

import (
	"fmt"
	"math"
	"strings"

	"corvek/core/family"
)

// Glyph draws one kind of part by itself in a square of so many px.
func Glyph(kind string, s family.Shape, size float64) string {
	draw := glyphs[kind]
	if draw == nil {
		return ""
	}
	if kind == "bolts" {
		// By itself one bolt stands for all: what is between two of them is the unit.
		draw = func(p pen, s family.Shape, _, _ []float64, _ int) { bolt(p, 0, s.W, s.OD, s.Step) }
	}
	width := partWidth(LinePart{Kind: kind, Shape: s, Count: 2})
	top, base := extent(s, []float64{0})
	if kind == "bolts" {
		top, base = s.OD, -s.OD
	}
	if kind == "tube" {
		top += 10
	}
	const rim = 6
	scale := math.Min((size-2*rim)/width, (size-2*rim)/(top-base))
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="line glyph" width="%s" height="%s" viewBox="0 0 %s %s" aria-hidden="true">`, num(size),
		num(size), num(size), num(size))
	p := pen{b: &b, x: (size - width*scale) / 2, y0: size/2 + (top+base)/2*scale, s: scale, w: width}
	draw(p, s, []float64{0}, []float64{0}, 2)
	b.WriteString(`</svg>`)
	return b.String()
}
