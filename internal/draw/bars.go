package draw

import (
	"fmt"
	"math"
	"strings"

	"corvek/core/metrology"
	"corvek/core/quantity"
)

// ToleranceBar is a value or an interval against its limits, with the guard
// bands of the uncertainty. All figures in base units.
type ToleranceBar struct {
	Limits      metrology.Limits
	Uncertainty float64
	Value       float64
	HasValue    bool
	Interval    metrology.Interval
	IsLeaves    bool
	Others      []float64 // further readings, as light ticks
	Verdict     metrology.Verdict
	Show        func(float64) string
	Narrow      bool // half the width, for beside a sheet of readings
}

var tones = map[metrology.Verdict]string{metrology.In: "petrol", metrology.Undecided: "ochre", metrology.Out: "red"}

// SVG draws the bar, 92 high and 620 wide, or 330 when narrow.
func (t ToleranceBar) SVG() string {
	const height, left, y = 92.0, 12.0, 46.0
	width := 620.0
	if t.Narrow {
		width = 330
	}
	right := width - 12
	lo, hi := t.span()
	if hi <= lo {
		return ""
	}
	px := func(v float64) float64 { return left + (v-lo)/(hi-lo)*(right-left) }
	clamp := func(v float64) float64 { return math.Min(right, math.Max(left, px(v))) }
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="tol" viewBox="0 0 %s %s" role="img" aria-label="%s"><rect class="tol-bg" x="%s" `+
		`y="%s" width="%s" height="18"/>`,
		num(width), num(height), text(t.said()), num(left), num(y), num(right-left))
	inLo, inHi := left, right
	if t.Limits.HasLower {
		inLo = clamp(t.Limits.Lower)
	}
	if t.Limits.HasUpper {
		inHi = clamp(t.Limits.Upper)
	}
	fmt.Fprintf(&b, `<rect class="tol-in" x="%s" y="%s" width="%s" height="18"/>`, num(inLo), num(y),
		num(math.Max(0, inHi-inLo)))
	for _, limit := range t.limits() {
		if t.Uncertainty > 0 { // within U of a limit, on either side of it, nothing is decided
			from, to := clamp(limit-t.Uncertainty), clamp(limit+t.Uncertainty)
			fmt.Fprintf(&b, `<rect class="tol-guard" x="%s" y="%s" width="%s" height="18"/>`, num(from), num(y),
				num(math.Max(1.5, to-from)))
		}
	}
	for _, limit := range t.limits() {
		x := px(limit)
		fmt.Fprintf(&b, `<path class="tol-limit" d="M%s %s v36"/><text class="tol-t" x="%s" y="%s" `+
			`text-anchor="%s">%s</text>`, num(x), num(y-9), num(x), num(y+42), anchor(x, left, right),
			text(t.Show(limit)))
	}
	for _, o := range t.Others {
		fmt.Fprintf(&b, `<path class="tol-other" d="M%s %s v10"/>`, num(clamp(o)), num(y+4))
	}
	t.mark(&b, clamp, y, left, right)
	b.WriteString(`</svg>`)
	return b.String()
}

func (t ToleranceBar) mark(b *strings.Builder, clamp func(float64) float64, y, left, right float64) {
	tone := tones[t.Verdict]
	switch {
	case t.IsLeaves:
		x1, x2 := clamp(t.Interval.AtLeast), right
		label := "at least " + t.Show(t.Interval.AtLeast)
		if t.Interval.Bounded {
			x2 = clamp(t.Interval.LessThan)
			label = "between " + t.Show(t.Interval.AtLeast) + " and " + t.Show(t.Interval.LessThan)
			if t.Interval.AtLeast == 0 {
				label = "under " + t.Show(t.Interval.LessThan)
			}
		}
		mid := (x1 + x2) / 2
		fmt.Fprintf(b, `<rect class="tol-iv %s" x="%s" y="%s" width="%s" height="18"/><path class="tol-ivl %s" `+
			`d="M%s %s v12 m0 -6 H%s m0 -6 v12"/>`, tone, num(x1), num(y), num(math.Max(2, x2-x1)), tone, num(x1),
			num(y-20), num(x2))
		fmt.Fprintf(b, `<text class="tol-v %s" x="%s" y="%s" text-anchor="%s">%s</text>`, tone, num(mid), num(y-26),
			anchor(mid, left, right), text(label))
	case t.HasValue:
		x := clamp(t.Value)
		fmt.Fprintf(b, `<path class="tol-p %s" d="M%s %s l-7 -11 h14z"/><path class="tol-ivl %s" d="M%s %s v18"/>`,
			tone, num(x), num(y-1), tone, num(x), num(y))
		fmt.Fprintf(b, `<text class="tol-v %s" x="%s" y="%s" text-anchor="%s">%s</text>`, tone, num(x), num(y-18),
			anchor(x, left, right), text(t.Show(t.Value)))
	}
}

// anchor keeps a label inside the drawing.
func anchor(x, left, right float64) string {
	switch {
	case x < left+90:
		return "start"
	case x > right-90:
		return "end"
	}
	return "middle"
}

func (t ToleranceBar) said() string {
	if t.HasValue || t.IsLeaves {
		return "value against its limits: " + string(t.Verdict)
	}
	return "limits, nothing measured yet"
}

// limits are those that are there, the lower first.
func (t ToleranceBar) limits() (out []float64) {
	if t.Limits.HasLower {
		out = append(out, t.Limits.Lower)
	}
	if t.Limits.HasUpper {
		out = append(out, t.Limits.Upper)
	}
	return out
}

// span is the stretch of the scale that shows limits and values with room around.
func (t ToleranceBar) span() (lo, hi float64) {
	lo, hi = math.Inf(1), math.Inf(-1)
	take := func(v float64) { lo, hi = math.Min(lo, v), math.Max(hi, v) }
	for _, limit := range t.limits() {
		take(limit - t.Uncertainty)
		take(limit + t.Uncertainty)
	}
	if t.HasValue {
		take(t.Value)
	}
	for _, o := range t.Others {
		take(o)
	}
	if t.IsLeaves {
		take(t.Interval.AtLeast)
		if t.Interval.Bounded {
			take(t.Interval.LessThan)
		}
	}
	if math.IsInf(lo, 1) {
		return 0, 0
	}
	if !t.Limits.HasLower && !t.HasValue {
		lo = math.Max(0, lo-(hi-lo))
	}
	room := (hi - lo) * .3
	if room == 0 {
		room = math.Max(math.Abs(hi)*.02, 1e-6)
	}
	return lo - room, hi + room
}

// Profile draws a grid of bore or shaft readings as its wall, with the wear
// exaggerated and the limit beside it. Rows are depths, columns axes.
type Profile struct {
	Grid     [][]float64 // m; NaN where nothing was read
	Nominal  float64
	Limit    float64
	HasLimit bool
	Bore     bool
}

// SVG draws the profile, 300 wide and 150 high; one line an axis.
func (p Profile) SVG() string {
	if len(p.Grid) == 0 {
		return ""
	}
	scale := math.Abs(p.Limit - p.Nominal)
	for _, row := range p.Grid {
		for _, v := range row {
			if !math.IsNaN(v) {
				scale = math.Max(scale, math.Abs(v-p.Nominal))
			}
		}
	}
	if scale == 0 {
		return ""
	}
	sign := 1.0
	if !p.Bore {
		sign = -1
	}
	const left, right, y0, room = 34.0, 290.0, 112.0, 78.0
	py := func(v float64) float64 { return y0 - sign*(v-p.Nominal)/scale*room }
	px := func(i int) float64 {
		if len(p.Grid) == 1 {
			return (left + right) / 2
		}
		return left + 14 + float64(i)*(right-left-28)/float64(len(p.Grid)-1)
	}
	var b strings.Builder
	b.WriteString(`<svg class="profile" viewBox="0 0 300 150" role="img" aria-label="wear along the depth,` +
		` exaggerated">`)
	fmt.Fprintf(&b, `<rect class="pr-wall" x="%s" y="%s" width="%s" height="16"/><path class="pr-nom" d="M%s %s `+
		`H%s"/><text class="pr-t" x="%s" y="%s">nominal</text>`, num(left), num(y0), num(right-left), num(left),
		num(y0), num(right), num(left), num(y0+30))
	if p.HasLimit {
		fmt.Fprintf(&b, `<path class="pr-lim" d="M%s %s H%s"/><text class="pr-t red" x="%s" y="%s" `+
			`text-anchor="end">limit</text>`, num(left), num(py(p.Limit)), num(right), num(right), num(py(p.Limit)-5))
	}
	for c := range p.Grid[0] {
		path := ""
		for r, row := range p.Grid {
			if math.IsNaN(row[c]) {
				continue
			}
			cmd := "L"
			if path == "" {
				cmd = "M"
			}
			path += fmt.Sprintf("%s%s %s", cmd, num(px(r)), num(py(row[c])))
			fmt.Fprintf(&b, `<circle class="pr-p a%d" cx="%s" cy="%s" r="4"/>`, c+1, num(px(r)), num(py(row[c])))
		}
		if path != "" {
			fmt.Fprintf(&b, `<path class="pr-l a%d" d="%s"/>`, c+1, path)
		}
	}
	b.WriteString(`</svg>`)
	return b.String()
}

// Length shows a length in the reader's system.
func Length(s quantity.System) func(float64) string {
	return func(v float64) string { return quantity.Show(v, quantity.Length, s) }
}
