package draw

import "fmt"

// PicMark is a numbered mark on a picture; X and Y are shares of its size.
type PicMark struct {
	Number int
	X, Y   float64
	Label  string
}

// Picture lays numbered marks over a picture. width and height are its pixels;
// zero where they are not known. Edit makes it a place to tap.
func Picture(url string, width, height int, marks []PicMark, said string, edit bool) string {
	if width <= 0 || height <= 0 {
		width, height = 1200, 900
	}
	w, h := float64(width), float64(height)
	r := max(w, h) / 42
	s := &sheet{}
	extra := ""
	if edit {
		extra = ` data-shot tabindex="0"`
	}
	fmt.Fprintf(&s.b, `<svg class="shot" viewBox="0 0 %s %s" role="img" aria-label="%s"%s><image href="%s" `+
		`width="%s" height="%s"/>`, num(w), num(h), text(said), extra, text(url), num(w), num(h))
	for _, m := range marks {
		x, y := m.X*w, m.Y*h
		fmt.Fprintf(&s.b, `<g><title>%d %s</title><circle class="shot-u" cx="%s" cy="%s" r="%s" `+
			`stroke-width="%s"/><circle class="shot-o" cx="%s" cy="%s" r="%s" stroke-width="%s"/><circle `+
			`class="shot-c" cx="%s" cy="%s" r="%s"/><text class="shot-t" x="%s" y="%s" font-size="%s">%d</text></g>`,
			m.Number, text(m.Label), num(x), num(y), num(r*1.9), num(r*.5), num(x), num(y), num(r*1.9), num(r*.22),
			num(x+r*1.5), num(y-r*1.5), num(r), num(x+r*1.5), num(y-r*1.5+r*.42), num(r*1.25), m.Number)
	}
	if edit {
		fmt.Fprintf(&s.b, `<circle class="shot-n" cx="-999" cy="-999" r="%s" stroke-width="%s"/>`, num(r*1.9),
			num(r*.3))
	}
	return s.svg()
}
