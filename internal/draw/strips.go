package draw

import (
	"fmt"
	"html"
	"math"
	"strings"
	"time"

	"corvek/core/trace"
)

// Strips are a recording as strips under one another over one time: each channel between its
// least and its most.
type Strips struct {
	Names    []string  // of the channels, with their units
	Factor   []float64 // base unit to the shown one
	Offset   []float64
	Outlines []trace.Outline
	Notes    []StripNote
}

// StripNote is something that happened at a moment.
type StripNote struct {
	At   time.Time
	Text string
}

// Sizes of a strip in the units of its drawing.
const (
	stripWidth  = 900.0
	stripHeight = 110.0
	stripLeft   = 160.0
	stripGap    = 18.0
)

// SVG draws the strips; channels of which nothing was read are left out.
func (s Strips) SVG() string {
	if len(s.Outlines) == 0 {
		return ""
	}
	from, to := s.Outlines[0].From, s.Outlines[len(s.Outlines)-1].To
	span := max(to.Sub(from).Seconds(), 1)
	px := func(at time.Time) float64 {
		return stripLeft + at.Sub(from).Seconds()/span*(stripWidth-stripLeft-10)
	}
	var body strings.Builder
	y := 10.0
	for i, name := range s.Names {
		low, high, read := s.span(i)
		if !read {
			continue
		}
		s.channel(&body, i, name, low, high, y, px)
		y += stripHeight + stripGap
	}
	for _, n := range s.Notes {
		if n.At.Before(from) || n.At.After(to) {
			continue
		}
		fmt.Fprintf(&body, `<path class="st-note" d="M%.1f 10V%.1f"><title>%s</title></path>`, px(n.At), y-stripGap,
			html.EscapeString(n.Text))
	}
	for _, t := range ticks(0, span, 8) {
		at := stripLeft + t/span*(stripWidth-stripLeft-10)
		fmt.Fprintf(&body, `<text class="st-t" x="%.1f" y="%.1f" text-anchor="middle">%s</text>`, at, y+2, clock(t))
	}
	return fmt.Sprintf(`<svg class="strips" viewBox="0 0 %.0f %.0f" role="img" aria-label="what the stand showed `+
		`over time">%s</svg>`, stripWidth, y+12, body.String())
}

// clock writes seconds as a time from the start.
func clock(s float64) string {
	n := int(math.Round(s))
	if n >= 3600 {
		return fmt.Sprintf("%d:%02d:%02d", n/3600, n/60%60, n%60)
	}
	return fmt.Sprintf("%d:%02d", n/60, n%60)
}

// span is the least and the most of a channel in its shown unit.
func (s Strips) span(i int) (low, high float64, read bool) {
	low, high = math.Inf(1), math.Inf(-1)
	for _, o := range s.Outlines {
		if i < len(o.Low) && !math.IsNaN(o.Low[i]) {
			low, high, read = math.Min(low, s.shown(i, o.Low[i])), math.Max(high, s.shown(i, o.High[i])), true
		}
	}
	read = read && (low != 0 || high != 0)
	if low > 0 && low < 0.6*high {
		low = 0
	}
	if high-low < 1e-9*math.Max(1, math.Abs(high)) {
		high = low + 1
	}
	return low, high, read
}

func (s Strips) shown(i int, si float64) float64 { return (si - s.Offset[i]) / s.Factor[i] }

func (s Strips) channel(b *strings.Builder, i int, name string, low, high, top float64, px func(time.Time) float64) {
	py := func(v float64) float64 { return top + stripHeight*(1-(v-low)/(high-low)) }
	fmt.Fprintf(b, `<path class="st-ax" d="M%.1f %.1fV%.1fH%.1f"/>`, stripLeft, top, top+stripHeight, stripWidth-10)
	fmt.Fprintf(b, `<text class="st-n" x="4" y="%.1f">%s</text>`, top+14, html.EscapeString(name))
	for _, t := range ticks(low, high, 3) {
		fmt.Fprintf(b, `<path class="st-g" d="M%.1f %.1fH%.1f"/><text class="st-t" x="%.1f" y="%.1f" `+
			`text-anchor="end">%s</text>`, stripLeft, py(t), stripWidth-10, stripLeft-5, py(t)+4, tickText(t))
	}
	var up, down strings.Builder
	flush := func() {
		if up.Len() > 0 {
			fmt.Fprintf(b, `<path class="st-b" d="M%s%sZ"/>`, strings.TrimPrefix(up.String(), "L"), down.String())
		}
		up.Reset()
		down.Reset()
	}
	for _, o := range s.Outlines {
		if i >= len(o.Low) || math.IsNaN(o.Low[i]) {
			flush()
			continue
		}
		x0, x1 := px(o.From), px(o.To)
		h, l := py(s.shown(i, o.High[i])), py(s.shown(i, o.Low[i]))
		if l-h < 1 { // a line that can be seen
			h, l = h-0.5, l+0.5
		}
		fmt.Fprintf(&up, "L%.1f %.1fL%.1f %.1f", x0, h, x1, h)
		back := fmt.Sprintf("L%.1f %.1fL%.1f %.1f", x1, l, x0, l)
		rest := down.String()
		down.Reset()
		down.WriteString(back + rest)
	}
	flush()
}
