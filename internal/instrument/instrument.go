// Package instrument draws working instruments at a setting, as practice in reading shows them. A drawing holds
// nothing that tells the reading but the instrument itself: lines, numbers and pointers where they stand.
package instrument

import (
	"fmt"
	"html"
	"math"
	"strconv"
	"strings"

	"corvek/core/practice"
)

// Draw gives the drawing of an exercise, in pixels of its view box.
func Draw(e *practice.Exercise) string {
	s := &sheet{}
	switch {
	case e.Caliper != nil:
		caliper(s, e.Caliper)
	case e.Barrel != nil:
		barrel(s, e)
	case e.Bore != nil:
		bore(s, e)
	case e.Dial != nil:
		swing(s, e)
	case e.Leaves != nil:
		leaves(s, e)
	case e.Gauge != nil:
		gauge(s, e)
	case e.Tube != nil:
		tube(s, e)
	}
	return s.svg(e.Kind.Name)
}

// sheet is a drawing. Lines of scales are put to thousandths of a pixel: which of them meet is what is read.
type sheet struct {
	b    strings.Builder
	w, h float64
}

func (s *sheet) size(w, h float64) { s.w, s.h = w, h }

func (s *sheet) svg(said string) string {
	return fmt.Sprintf(`<svg class="instrument" viewBox="0 0 %s %s" role="img" aria-label="%s">%s</svg>`,
		at(s.w), at(s.h),
		html.EscapeString(said), s.b.String())
}

func at(v float64) string { return strconv.FormatFloat(math.Round(v*1000)/1000, 'f', -1, 64) }

func (s *sheet) line(class string, x1, y1, x2, y2 float64) {
	fmt.Fprintf(&s.b, `<line class="%s" x1="%s" y1="%s" x2="%s" y2="%s"/>`, class, at(x1), at(y1), at(x2), at(y2))
}

func (s *sheet) rect(class string, x, y, w, h float64) {
	fmt.Fprintf(&s.b, `<rect class="%s" x="%s" y="%s" width="%s" height="%s"/>`, class, at(x), at(y), at(w), at(h))
}

func (s *sheet) circle(class string, x, y, r float64) {
	fmt.Fprintf(&s.b, `<circle class="%s" cx="%s" cy="%s" r="%s"/>`, class, at(x), at(y), at(r))
}

func (s *sheet) poly(class string, xy ...float64) {
	fmt.Fprintf(&s.b, `<path class="%s" d="`, class)
	for i := 0; i+1 < len(xy); i += 2 {
		cmd := "L"
		if i == 0 {
			cmd = "M"
		}
		s.b.WriteString(cmd + at(xy[i]) + " " + at(xy[i+1]))
	}
	s.b.WriteString(`Z"/>`)
}

func (s *sheet) text(class string, x, y float64, anchor, what string) {
	fmt.Fprintf(&s.b, `<text class="%s" x="%s" y="%s" text-anchor="%s">%s</text>`, class, at(x), at(y), anchor,
		html.EscapeString(what))
}

// plain writes a number of a scale as it is engraved.
func plain(v float64) string { return strconv.FormatFloat(math.Round(v*1e4)/1e4, 'f', -1, 64) }
