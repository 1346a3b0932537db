package draw

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"corvek/core/family"
)

// Mark is the state of a part under the line: its shape says what it is before
// its colour does.
type Mark struct {
	Shape string  // dot, bar, ask, count, out, ok, flag, tag, empty, full, next
	Fill  float64 // bar: share of the allowance, 1 is the limit
	Text  string  // letter inside a tag or flag
	Tone  string  // petrol, ochre, red, quiet
	Title string  // said to a screen reader
}

// LinePart is one part of the line.
type LinePart struct {
	No        int
	Name      string
	Kind      string
	Count     int
	Branch    string
	Shape     family.Shape
	Flip      bool // faces the other way than it should
	Selected  bool
	Quiet     bool // not yet reached by the layer
	Mark      Mark
	Label     string // under the number
	LabelTone string
	Arrow     string // left, right: the facing that was noted
	URL       string
	Code      string
}

// Line is a unit with its parts pulled apart along one axis.
type Line struct {
	Parts []LinePart
	Axes  []float64
	Title string
	Width float64 // room to fill, px
}

const (
	lineHeight = 262.0
	drawTop    = 30.0
	drawBottom = 200.0
	markY      = 220.0
	numberY    = 240.0
	labelY     = 252.0
)

type column struct {
	parts []int
	w     float64 // px
	x     float64
}

// layout finds the scale at which the parts stand side by side in the room
// there is, down to what can still be touched; beyond that the line scrolls.
func (l Line) layout() (cols []column, scale, width, top, base float64) {
	top, base = 20, -20
	for _, lp := range l.Parts {
		if lp.Branch != "" {
			continue
		}
		t, b := extent(lp.Shape, l.on(lp.Shape))
		if lp.Kind == "tube" {
			t += 10
		}
		top, base = math.Max(top, t), math.Min(base, b)
	}
	full := math.Min(1.7, (drawBottom-drawTop)/(top-base))
	for _, try := range []struct{ shrink, least float64 }{{1, 44}, {1, 38}, {1, 34}, {.98, 33}, {.95, 32},
		{.92, 32}, {.88, 31}, {.84, 30}, {.8, 30}} {
		scale = full * try.shrink
		cols, width = l.columns(scale, try.least)
		if width <= l.Width {
			break
		}
	}
	return cols, scale, width, top, base
}

func (l Line) on(s family.Shape) []float64 {
	if len(s.On) == 0 {
		return l.Axes[:1]
	}
	out := make([]float64, len(s.On))
	for i, a := range s.On {
		out[i] = l.Axes[a]
	}
	return out
}

func (l Line) columns(scale, least float64) ([]column, float64) {
	var cols []column
	x := 10.0
	branch := ""
	for i, lp := range l.Parts {
		w := partWidth(lp)
		if lp.Shape.With && len(cols) > 0 {
			c := &cols[len(cols)-1]
			c.parts = append(c.parts, i)
			continue
		}
		if lp.Branch != branch {
			branch = lp.Branch
			x += 14
		}
		c := column{parts: []int{i}, x: x, w: math.Max(least, w*scale+8)}
		cols = append(cols, c)
		x += c.w
	}
	return cols, x + 10
}

func partWidth(lp LinePart) float64 {
	w := lp.Shape.W
	if lp.Kind == "cover" && lp.Shape.Face == "left" {
		w += lp.Shape.Step
	}
	if lp.Kind == "gear_shaft" {
		w = 0
		for _, s := range lp.Shape.Shaft {
			w += s.L
		}
	}
	if lp.Kind == "shims" {
		w = math.Max(w, 3.2*float64(min(lp.Count, 4)))
	}
	return w
}

// SVG draws the line.
func (l Line) SVG() string {
	if len(l.Parts) == 0 {
		return ""
	}
	if len(l.Axes) == 0 {
		l.Axes = []float64{0}
	}
	if l.Width == 0 {
		l.Width = 1150
	}
	cols, scale, width, top, base := l.layout()
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="line" width="%s" height="%s" viewBox="0 0 %s %s" role="group" aria-label="%s">`,
		num(width), num(lineHeight), num(width), num(lineHeight), text(l.Title))
	// The first axis sits so that the drawing is centred between its bounds.
	middle := (drawTop + drawBottom) / 2
	y0 := middle + (top+base)/2*scale
	l.axes(&b, cols, y0, scale)
	for _, c := range cols {
		l.column(&b, c, y0, scale)
	}
	l.branchNames(&b, cols)
	b.WriteString(`</svg>`)
	return b.String()
}

// axes draws the centre lines: every axis over the main parts, and one for
// each branch, with the break where it leaves the unit.
func (l Line) axes(b *strings.Builder, cols []column, y0, scale float64) {
	end := cols[0].x
	branch := ""
	for i, c := range cols {
		lp := l.Parts[c.parts[0]]
		if lp.Branch == "" {
			end = c.x + c.w
			continue
		}
		if lp.Branch != branch {
			branch = lp.Branch
			last := c.x + c.w
			for k := i; k < len(cols) && l.Parts[cols[k].parts[0]].Branch == branch; k++ {
				last = cols[k].x + cols[k].w
			}
			y := l.branchY(y0)
			fmt.Fprintf(b, `<path class="br" d="M%s %s V%s"/><path class="cl" d="M%s %s H%s"/>`, num(c.x-7),
				num(drawTop+4), num(drawBottom), num(c.x-7), num(y), num(last-2))
		}
	}
	for i, a := range l.Axes {
		x1, x2 := cols[0].x-6, end+4
		if i > 0 { // further axes only where parts sit on them
			x1, x2 = l.span(cols, i)
		}
		if x2 > x1 {
			fmt.Fprintf(b, `<path class="cl" d="M%s %s H%s"/>`, num(x1), num(y0-a*scale), num(x2))
		}
	}
}

// branchNames stand over everything, a chosen part's ground too.
func (l Line) branchNames(b *strings.Builder, cols []column) {
	branch := ""
	for _, c := range cols {
		if lp := l.Parts[c.parts[0]]; lp.Branch != branch {
			branch = lp.Branch
			if branch != "" {
				fmt.Fprintf(b, `<text class="br-t" x="%s" y="%s">%s</text>`, num(c.x), num(drawTop-8),
					text(strings.ToUpper(branch)))
			}
		}
	}
}

func (l Line) span(cols []column, axis int) (x1, x2 float64) {
	x1 = math.Inf(1)
	for _, c := range cols {
		for _, i := range c.parts {
			for _, a := range l.Parts[i].Shape.On {
				if a == axis {
					x1, x2 = math.Min(x1, c.x-4), math.Max(x2, c.x+c.w+4)
				}
			}
		}
	}
	return x1, x2
}

// branchY is the height of a branch's own centre line.
func (l Line) branchY(float64) float64 { return (drawTop + drawBottom) / 2 }

func (l Line) column(b *strings.Builder, c column, y0, scale float64) {
	n := float64(len(c.parts))
	chosen := slices.ContainsFunc(l.Parts, func(lp LinePart) bool { return lp.Selected })
	for k, i := range c.parts {
		lp := l.Parts[i]
		classes := "lp"
		if lp.Selected {
			classes += " sel"
		}
		if lp.Quiet {
			classes += " quiet"
		}
		said := fmt.Sprintf("%d %s", lp.No, lp.Name)
		if lp.Label != "" {
			said += ", " + lp.Label
		} else if lp.Count > 1 {
			said += fmt.Sprintf(" ×%d", lp.Count)
		}
		if lp.Mark.Title != "" {
			said += ", " + lp.Mark.Title
		}
		current := ""
		if lp.Selected {
			current = ` aria-current="true"`
		} else if chosen {
			current = ` tabindex="-1"` // the Tab key stops at the chosen part, arrows move on from there
		}
		fmt.Fprintf(b, `<a class="%s" href="%s" data-part="%s" aria-label="%s"%s><title>%s</title>`, classes,
			text(lp.URL), text(lp.Code), text(said), current, text(said))
		// Parts that share a column share its height: the upper one takes the upper half.
		hx, hw, hy, hh := c.x, c.w, 4.0, lineHeight-8
		cx := c.x + c.w/2
		if n > 1 {
			share := (y0 - (l.Axes[0]+l.Axes[len(l.Axes)-1])/2*scale)
			if k == 0 {
				hh = share - hy
			} else {
				hy, hh = share, drawBottom+8-share
			}
			cx = c.x + c.w*(float64(k)+.5)/n
		}
		fmt.Fprintf(b, `<rect class="hit" x="%s" y="%s" width="%s" height="%s" rx="6"/>`, num(hx+1), num(hy),
			num(hw-2), num(hh))
		if n > 1 {
			fmt.Fprintf(b, `<rect class="hit" x="%s" y="%s" width="%s" height="%s" rx="6"/>`,
				num(c.x+c.w*float64(k)/n+1), num(drawBottom+10), num(c.w/n-2), num(lineHeight-drawBottom-14))
		}
		l.glyph(b, c, i, y0, scale)
		drawMark(b, lp.Mark, cx)
		fmt.Fprintf(b, `<text class="no" x="%s" y="%s">%d</text>`, num(cx), num(numberY), lp.No)
		switch {
		case lp.Label != "":
			fmt.Fprintf(b, `<text class="lb %s" x="%s" y="%s">%s</text>`, lp.LabelTone, num(cx), num(labelY),
				text(lp.Label))
		case lp.Count > 1:
			fmt.Fprintf(b, `<text class="lb" x="%s" y="%s">×%d</text>`, num(cx), num(labelY), lp.Count)
		}
		if lp.Arrow != "" {
			d := 7.0
			if lp.Arrow == "left" {
				d = -7
			}
			fmt.Fprintf(b, `<path class="arrow" d="M%s %s h%s m%s -3.5 l%s 3.5 l%s 3.5"/>`, num(cx-d),
				num(drawBottom+7), num(2*d), num(-d*.6), num(d*.6), num(-d*.6))
		}
		b.WriteString(`</a>`)
	}
}

func (l Line) glyph(b *strings.Builder, c column, i int, y0, scale float64) {
	lp := l.Parts[i]
	draw := glyphs[lp.Kind]
	if draw == nil {
		draw = drawPlug
	}
	w := partWidth(lp)
	x := c.x + (c.w-w*scale)/2
	if first := l.Parts[c.parts[0]]; i != c.parts[0] {
		// A pair of gears meshes: their faces line up.
		x = c.x + (c.w-partWidth(first)*scale)/2 + (gearStart(first.Shape)-gearStart(lp.Shape))*scale
	}
	axes := l.Axes
	if lp.Branch != "" {
		axes = []float64{0}
		y0 = l.branchY(y0)
		// A branch is smaller than the unit; it is drawn larger, but never taller than it.
		t, base := extent(lp.Shape, []float64{0})
		scale = math.Min(math.Min(scale*1.25, (c.w-4)/w), (drawBottom-drawTop)/(t-base))
		x = c.x + (c.w-w*scale)/2
	}
	on := axes[:1]
	if lp.Branch == "" {
		on = l.on(lp.Shape)
	}
	draw(pen{b: b, x: x, y0: y0, s: scale, w: w, flip: lp.Flip}, lp.Shape, axes, on, lp.Count)
}

// drawMark draws the state under a part.
func drawMark(b *strings.Builder, m Mark, x float64) {
	y := markY
	switch m.Shape {
	case "bar":
		fill := math.Min(1.25, math.Max(0.04, m.Fill))
		fmt.Fprintf(b, `<rect class="bar" x="%s" y="%s" width="28" height="8"/><rect class="barf %s" x="%s" y="%s" `+
			`width="%s" height="8"/><path class="tick" d="M%s %s v14"/>`,
			num(x-15), num(y-4), m.Tone, num(x-15), num(y-4), num(24*fill), num(x+9), num(y-7))
	case "ask", "count":
		sign := "?"
		if m.Shape == "count" {
			sign = "!"
		}
		fmt.Fprintf(b, `<path class="mk %s" d="M%s %s l10 10 l-10 10 l-10 -10z"/><text class="mk-t %s" x="%s" `+
			`y="%s">%s</text>`, m.Tone+" "+m.Shape, num(x), num(y-10), m.Shape, num(x), num(y+4.5), sign)
	case "out":
		fmt.Fprintf(b, `<rect class="mk red out" x="%s" y="%s" width="17" height="17"/><path class="cross" d="M%s `+
			`%s l8 8 m0 -8 l-8 8"/>`, num(x-8.5), num(y-8.5), num(x-4), num(y-4))
	case "ok":
		fmt.Fprintf(b, `<path class="tickm %s" d="M%s %s l4 4.5 l8 -9"/>`, m.Tone, num(x-6), num(y))
	case "tag":
		fmt.Fprintf(b, `<rect class="mk %s" x="%s" y="%s" width="18" height="18" rx="2"/><text class="mk-t tg" `+
			`x="%s" y="%s">%s</text>`, m.Tone, num(x-9), num(y-9), num(x), num(y+4.8), text(m.Text))
	case "ring":
		fmt.Fprintf(b, `<circle class="mk %s hollow" cx="%s" cy="%s" r="8.5"/><text class="mk-t ask" x="%s" `+
			`y="%s">%s</text>`, m.Tone, num(x), num(y), num(x), num(y+4.6), text(m.Text))
	case "flag":
		fmt.Fprintf(b, `<path class="mk %s" d="M%s %s h21 l-5 7 l5 7 h-21z"/><path class="tick" d="M%s %s `+
			`v21"/><text class="mk-t tg" x="%s" y="%s">%s</text>`, m.Tone, num(x-9), num(y-12), num(x-9), num(y-12),
			num(x-1), num(y), text(m.Text))
	case "next":
		fmt.Fprintf(b, `<path class="mk %s" d="M%s %s h10 l7 9 l-7 9 h-10z"/>`, m.Tone, num(x-8), num(y-9))
	default:
		fmt.Fprintf(b, `<circle class="dot" cx="%s" cy="%s" r="3.4"/>`, num(x), num(y))
	}
}
