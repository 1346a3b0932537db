package draw

import (
	"fmt"
	"strings"
)

// sheet is a drawing in plain pixels, for the views that are not made of a
// unit's parts.
type sheet struct {
	b strings.Builder
}

func newSheet(class string, w, h float64, said string) *sheet {
	s := &sheet{}
	fmt.Fprintf(&s.b, `<svg class="%s" viewBox="0 0 %s %s" role="img" aria-label="%s">`, class, num(w), num(h),
		text(said))
	return s
}

func (s *sheet) svg() string { return s.b.String() + `</svg>` }

func (s *sheet) rect(class string, x, y, w, h float64) {
	if w <= 0 || h <= 0 {
		return
	}
	fmt.Fprintf(&s.b, `<rect class="%s" x="%s" y="%s" width="%s" height="%s"/>`, class, num(x), num(y), num(w), num(h))
}

func (s *sheet) circle(class string, x, y, r float64) {
	fmt.Fprintf(&s.b, `<circle class="%s" cx="%s" cy="%s" r="%s"/>`, class, num(x), num(y), num(r))
}

// path draws a path whose %v places take figures.
func (s *sheet) path(class, d string, at ...float64) {
	args := make([]any, len(at))
	for i, v := range at {
		args[i] = num(v)
	}
	fmt.Fprintf(&s.b, `<path class="%s" d="`+d+`"/>`, append([]any{class}, args...)...)
}

// text writes at a place; the anchor is start, middle or end.
func (s *sheet) text(class string, x, y float64, anchor, what string) {
	if what != "" {
		fmt.Fprintf(&s.b, `<text class="%s" x="%s" y="%s" text-anchor="%s">%s</text>`, class, num(x), num(y),
			anchor, text(what))
	}
}

// arrow draws a block arrow from x1 to x2 at a height.
func (s *sheet) arrow(class string, x1, x2, y, thick float64) {
	head := thick * 1.1
	m := 1.0
	if x2 < x1 {
		m = -1
	}
	neck := x2 - m*head
	s.path(class, "M%v %v H%v V%v L%v %v L%v %v V%v H%vZ", x1, y-thick/2, neck, y-thick, x2, y, neck, y+thick,
		y+thick/2, x1)
}

// height is a dimension line between two heights at x, with its figure beside it.
func (s *sheet) height(x, top, base float64, what string) {
	s.path("dm", "M%v %v V%v m-3 -7 l3 7 l3 -7 M%v %v m-3 7 l3 -7 l3 7", x, top, base, x, top)
	s.text("dm-t", x-7, (top+base)/2+5, "end", what)
}

// width is a dimension line between two places at y.
func (s *sheet) width(x1, x2, y float64, what string) {
	s.path("dm", "M%v %v H%v m-7 -3 l7 3 l-7 3 M%v %v m7 -3 l-7 3 l7 3", x1, y, x2, x1, y)
	s.text("dm-t", (x1+x2)/2, y-6, "middle", what)
}
