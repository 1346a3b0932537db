package draw

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"corvek/core/quantity"
)

// Curve is a line of a flow-against-pressure plot.
type Curve struct {
	Class string // as found, rebuilt
	Label string
	Flow  func(pressure float64) float64
}

// PlotPoint is a measured point of the plot.
type PlotPoint struct {
	Class          string
	Pressure, Flow float64
	Label          string
}

// FlowPlot is delivered flow against pressure, base units.
type FlowPlot struct {
	Theory float64
	Duty   float64
	Top    float64                     // highest pressure shown
	Band   func(share float64) float64 // least efficiency at a share of duty, nil for none
	Curves []Curve
	Points []PlotPoint
	System quantity.System
	Tall   bool
}

// SVG draws the plot.
func (f FlowPlot) SVG() string {
	if f.Theory <= 0 || f.Duty <= 0 {
		return ""
	}
	width, height := 440.0, 190.0
	if f.Tall {
		width, height = 560, 330
	}
	tall := ""
	if f.Tall {
		tall = " tall"
	}
	left, right, top, bottom := 52.0, width-14, 22.0, height-34
	pmax := math.Max(f.Top, f.Duty*1.02)
	low := f.lowest()
	px := func(p float64) float64 { return left + p/pmax*(right-left) }
	py := func(q float64) float64 { return bottom - (q-low)/(f.Theory*1.06-low)*(bottom-top) }
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="plot%s" viewBox="0 0 %s %s" role="img" aria-label="delivered flow against `+
		`pressure">`, tall, num(width), num(height))
	if f.Band != nil {
		path := fmt.Sprintf("M%s %s H%s", num(px(0)), num(py(f.Theory)), num(px(f.Duty)))
		for i := 20; i >= 0; i-- {
			share := float64(i) / 20
			path += fmt.Sprintf("L%s %s", num(px(share*f.Duty)), num(py(f.Theory*f.Band(share))))
		}
		fmt.Fprintf(&b, `<path class="pl-band" d="%sZ"/>`, path)
	}
	fmt.Fprintf(&b, `<path class="pl-ax" d="M%s %s V%s H%s"/>`, num(left), num(top-6), num(bottom), num(right))
	f.grid(&b, px, py, left, right, bottom, pmax, low)
	fmt.Fprintf(&b, `<path class="pl-th" d="M%s %s H%s"/><text class="pl-t" x="%s" y="%s" `+
		`text-anchor="end">theoretical %s</text>`, num(left), num(py(f.Theory)), num(right), num(right),
		num(py(f.Theory)-5), quantity.Show(f.Theory, quantity.Flow, f.System))
	for _, c := range f.Curves {
		path, steps := "", 80
		for i := 0; i <= steps; i++ {
			p := pmax * float64(i) / float64(steps)
			q := math.Max(low, c.Flow(p))
			cmd := "L"
			if i == 0 {
				cmd = "M"
			}
			path += fmt.Sprintf("%s%s %s", cmd, num(px(p)), num(py(q)))
		}
		fmt.Fprintf(&b, `<path class="pl-c %s" d="%s"/>`, c.Class, path)
	}
	for _, p := range f.Points {
		x, y := px(p.Pressure), py(math.Max(low, p.Flow))
		if p.Class == "received" {
			fmt.Fprintf(&b, `<path class="pl-p received" d="M%s %s l6 6 l-6 6 l-6 -6z"><title>%s</title></path>`,
				num(x), num(y-6), text(p.Label))
			continue
		}
		fmt.Fprintf(&b, `<circle class="pl-p %s" cx="%s" cy="%s" r="5"><title>%s</title></circle>`, p.Class, num(x),
			num(y), text(p.Label))
	}
	f.legend(&b, left)
	b.WriteString(`</svg>`)
	return b.String()
}

// legend names curves and points where they can be read without hunting.
func (f FlowPlot) legend(b *strings.Builder, left float64) {
	y := 0.0
	height := 190.0 - 34
	if f.Tall {
		height = 330 - 34
	}
	var rows []string
	for i := len(f.Curves) - 1; i >= 0; i-- {
		c := f.Curves[i]
		rows = append(rows, fmt.Sprintf(`<path class="pl-c %s" d="M%s %%s h22"/><text class="pl-t %s" x="%s" `+
			`y="%%s">%s</text>`, c.Class, num(left+12), c.Class, num(left+40), text(c.Label)))
	}
	seen := map[string]bool{}
	for _, p := range f.Points {
		if seen[p.Class] {
			continue
		}
		seen[p.Class] = true
		name := map[string]string{"received": "measured as received", "rebuilt": "measured after the rebuild",
			"failed": "earlier attempt"}[p.Class]
		shape := fmt.Sprintf(`<circle class="pl-p %s" cx="%s" cy="%%s" r="5"/>`, p.Class, num(left+23))
		if p.Class == "received" {
			shape = fmt.Sprintf(`<path class="pl-p received" d="M%s %%s m0 -6 l6 6 l-6 6 l-6 -6z"/>`, num(left+23))
		}
		rows = append(rows, shape+fmt.Sprintf(`<text class="pl-t" x="%s" y="%%s">%s</text>`, num(left+40), name))
	}
	for i, r := range rows {
		y = height - 14 - float64(len(rows)-1-i)*20
		fmt.Fprintf(b, r, num(y), num(y+4))
	}
}

// lowest is where the flow axis begins: far enough down to show the worst point.
func (f FlowPlot) lowest() float64 {
	least := f.Theory
	for _, c := range f.Curves {
		least = math.Min(least, c.Flow(f.Duty))
	}
	for _, p := range f.Points {
		least = math.Min(least, p.Flow)
	}
	if f.Band != nil {
		least = math.Min(least, f.Theory*f.Band(1))
	}
	room := f.Theory - least
	return math.Max(0, least-1.1*room-0.05*f.Theory)
}

func (f FlowPlot) grid(b *strings.Builder, px, py func(float64) float64, left, right, bottom, pmax, low float64) {
	pu, _ := quantity.ShopUnit(f.Duty, quantity.Pressure, f.System)
	qu, _ := quantity.ShopUnit(f.Theory, quantity.Flow, f.System)
	for _, v := range ticks(0, pu.In(pmax), 5) {
		x := px(v * pu.Factor)
		fmt.Fprintf(b, `<path class="pl-tick" d="M%s %s v5"/><text class="pl-t" x="%s" y="%s" `+
			`text-anchor="middle">%s</text>`, num(x), num(bottom), num(x), num(bottom+17),
			strconv.FormatFloat(v, 'g', 6, 64))
	}
	for _, v := range ticks(qu.In(low), qu.In(f.Theory), 4) {
		y := py(v * qu.Factor)
		fmt.Fprintf(b, `<path class="pl-g" d="M%s %s H%s"/><text class="pl-t" x="%s" y="%s" `+
			`text-anchor="end">%s</text>`, num(left), num(y), num(right), num(left-6), num(y+4),
			strconv.FormatFloat(v, 'g', 6, 64))
	}
	fmt.Fprintf(b, `<text class="pl-t" x="%s" y="%s" text-anchor="end">%s</text><text class="pl-t" x="4" `+
		`y="12">%s</text>`, num(right), num(bottom+31), pu.Name, qu.Name)
}

// ticks gives round figures between two ends.
func ticks(lo, hi float64, about int) []float64 {
	if hi <= lo {
		return nil
	}
	raw := (hi - lo) / float64(about)
	mag := math.Pow(10, math.Floor(math.Log10(raw)))
	step := mag
	for _, m := range []float64{1, 2, 2.5, 5, 10} {
		if mag*m >= raw {
			step = mag * m
			break
		}
	}
	var out []float64
	for v := math.Ceil(lo/step) * step; v <= hi*(1+1e-9); v += step {
		out = append(out, v)
	}
	return out
}

// BoltCircle draws a circle of bolts with the order they are tightened in.
func BoltCircle(order []int) string {
	n := len(order)
	if n == 0 {
		return ""
	}
	const c, r = 110.0, 78.0
	at := func(pos int) (x, y float64) {
		turn := 2*math.Pi*float64(pos-1)/float64(n) - math.Pi/2
		return c + r*math.Cos(turn), c + r*math.Sin(turn)
	}
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="bolts" viewBox="0 0 220 220" role="img" aria-label="tightening order,`+
		` crosswise"><circle class="bo-c" cx="110" cy="110" r="100"/><circle class="bo-p" cx="110" cy="110" `+
		`r="78"/><path class="cl" d="M4 110 H216 M110 4 V216"/>`)
	path := ""
	for i, pos := range order {
		x, y := at(pos)
		cmd := "L"
		if i == 0 {
			cmd = "M"
		}
		path += fmt.Sprintf("%s%s %s", cmd, num(x), num(y))
	}
	fmt.Fprintf(&b, `<path class="bo-w" d="%s"/>`, path)
	for i, pos := range order {
		x, y := at(pos)
		class := "bo-b"
		if i == 0 {
			class += " first"
		}
		fmt.Fprintf(&b, `<circle class="%s" cx="%s" cy="%s" r="16"/><text class="bo-n" x="%s" y="%s">%d</text>`,
			class, num(x), num(y), num(x), num(y+6), i+1)
	}
	b.WriteString(`</svg>`)
	return b.String()
}

// GearPair draws an external gear pair seen from the shaft end, turning as
// ordered, with the side the oil comes from.
func GearPair(rotation string) string {
	var b strings.Builder
	b.WriteString(`<svg class="pair" viewBox="0 0 240 200" role="img" aria-label="rotation seen from the shaft end: ` +
		`` + text(orUnknown(rotation)) + `">`)
	b.WriteString(`<path class="pa-b" d="M120 14 a54 54 0 0 1 54 54 v64 a54 54 0 0 1 -108 0 v-64 a54 54 0 0 1 54 ` +
		`-54z"/>`)
	for i, cy := range []float64{68, 132} {
		gear(&b, 120, cy, 38, 27, 11, float64(i)*math.Pi/11)
		r := 11.0
		fmt.Fprintf(&b, `<circle class="pa-s" cx="120" cy="%s" r="%s"/>`, num(cy), num(r))
	}
	if rotation == "right" || rotation == "left" {
		m := 1.0
		if rotation == "left" {
			m = -1
		}
		// With the upper gear turning right its teeth part from the mesh on the
		// left: there the gaps open and draw oil in; it leaves on the right.
		fmt.Fprintf(&b, `<path class="pa-a" d="M%s 30 a44 44 0 0 %d %s 0 m%s -8 l%s 8 l%s 8"/>`, num(120-m*22),
			sweep(m), num(m*44), num(-m*9), num(m*9), num(-m*9))
		head := fmt.Sprintf("m%s -7 l%s 7 l%s 7", num(-m*9), num(m*9), num(-m*9))
		in, out := 120-m*92, 120+m*92
		fmt.Fprintf(&b, `<path class="pa-f in" d="M%s 100 H%s %s"/><text class="pa-t" x="%s" y="84" `+
			`text-anchor="middle">in</text>`, num(in), num(120-m*62), head, num(120-m*80))
		fmt.Fprintf(&b, `<path class="pa-f out" d="M%s 100 H%s %s"/><text class="pa-t" x="%s" y="84" `+
			`text-anchor="middle">out</text>`, num(120+m*62), num(out), head, num(120+m*80))
	}
	b.WriteString(`</svg>`)
	return b.String()
}

func sweep(m float64) int {
	if m < 0 {
		return 0
	}
	return 1
}

func orUnknown(s string) string {
	if s == "" {
		return "not known"
	}
	return s
}

// gear draws a spur gear outline.
func gear(b *strings.Builder, cx, cy, ro, ri float64, teeth int, turn float64) {
	path := ""
	for i := range teeth {
		base := 2*math.Pi*float64(i)/float64(teeth) + turn
		step := 2 * math.Pi / float64(teeth)
		for k, p := range []struct{ a, r float64 }{{0, ri}, {.2, ro}, {.5, ro}, {.7, ri}} {
			cmd := "L"
			if i == 0 && k == 0 {
				cmd = "M"
			}
			path += fmt.Sprintf("%s%s %s", cmd, num(cx+p.r*math.Cos(base+p.a*step)),
				num(cy+p.r*math.Sin(base+p.a*step)))
		}
	}
	fmt.Fprintf(b, `<path class="pa-g" d="%sZ"/>`, path)
}

// GradeTile draws the section of a face as a nail would feel it, 0 to 4.
func GradeTile(grade int) string {
	profiles := []string{
		"M4 30 H116",
		"M4 30 H40 l3 1 l3 -1 H70 l3 1 l3 -1 H116",
		"M4 30 H34 l4 4 l4 -4 H62 l4 4 l4 -4 H88 l4 4 l4 -4 H116",
		"M4 30 H30 l5 10 l5 -10 H58 l4 7 l4 -7 H78 l5 11 l5 -11 H116",
		"M4 30 H44 V46 H82 V30 H116",
	}
	if grade < 0 || grade >= len(profiles) {
		return ""
	}
	d := profiles[grade]
	return `<svg class="grade" viewBox="0 0 120 62" aria-hidden="true"><path class="gr-b" d="` + d +
		` V58 H4Z"/><path class="gr-l" fill="none" d="` + d +
		`"/><path class="gr-n" d="M70 4 q14 2 12 16 q-3 5 -8 2 q-8 -6 -4 -18z"/></svg>`
}
