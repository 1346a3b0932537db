package vector

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Point is a place on a drawing.
type Point struct{ X, Y float64 }

// Op is what a step of an outline does.
type Op byte

// The steps there are; a closed outline goes back to where it began.
const (
	Move  Op = 'M'
	Line  Op = 'L'
	Curve Op = 'C'
	Close Op = 'Z'
)

// Step goes on to a point; a curve is a cubic one with its two controls.
type Step struct {
	Op           Op
	First, Other Point
	To           Point
}

func rectangle(x, y, w, h, r float64) []Step {
	r = math.Min(r, math.Min(w, h)/2)
	if r <= 0 {
		return []Step{{Op: Move, To: Point{x, y}}, {Op: Line, To: Point{x + w, y}},
			{Op: Line, To: Point{x + w, y + h}}, {Op: Line, To: Point{x, y + h}}, {Op: Close}}
	}
	out := []Step{{Op: Move, To: Point{x + r, y}}}
	corner := func(cx, cy, from float64) {
		out = append(out, arc(cx, cy, r, r, 0, from, from+math.Pi/2)...)
	}
	line := func(x, y float64) { out = append(out, Step{Op: Line, To: Point{x, y}}) }
	line(x+w-r, y)
	corner(x+w-r, y+r, -math.Pi/2)
	line(x+w, y+h-r)
	corner(x+w-r, y+h-r, 0)
	line(x+r, y+h)
	corner(x+r, y+h-r, math.Pi/2)
	line(x, y+r)
	corner(x+r, y+r, math.Pi)
	return append(out, Step{Op: Close})
}

func circle(cx, cy, r float64) []Step {
	out := []Step{{Op: Move, To: Point{cx + r, cy}}}
	return append(append(out, arc(cx, cy, r, r, 0, 0, 2*math.Pi)...), Step{Op: Close})
}

// arc follows an ellipse about a centre, turned by an angle, in cubic curves of a quarter turn
// at most; the usual factor keeps them within a thousandth of the radius.
func arc(cx, cy, rx, ry, turned, from, to float64) (out []Step) {
	pieces := int(math.Ceil(math.Abs(to-from)/(math.Pi/2) - 1e-9))
	sin, cos := math.Sincos(turned)
	place := func(x, y float64) Point { return Point{cx + x*cos - y*sin, cy + x*sin + y*cos} }
	for i := range pieces {
		a := from + (to-from)*float64(i)/float64(pieces)
		b := from + (to-from)*float64(i+1)/float64(pieces)
		k := 4.0 / 3 * math.Tan((b-a)/4)
		sa, ca := math.Sincos(a)
		sb, cb := math.Sincos(b)
		out = append(out, Step{Op: Curve, First: place(rx*(ca-k*sa), ry*(sa+k*ca)),
			Other: place(rx*(cb+k*sb), ry*(sb-k*cb)), To: place(rx*cb, ry*sb)})
	}
	return out
}

// ended is the arc of a path, from a point to another, as SVG states it (W3C SVG 2, appendix
// "Elliptical arc implementation notes").
func ended(from Point, rx, ry, degrees float64, large, sweep bool, to Point) []Step {
	rx, ry = math.Abs(rx), math.Abs(ry)
	if rx == 0 || ry == 0 || from == to {
		return []Step{{Op: Line, To: to}}
	}
	turned := degrees * math.Pi / 180
	sin, cos := math.Sincos(turned)
	dx, dy := (from.X-to.X)/2, (from.Y-to.Y)/2
	x, y := cos*dx+sin*dy, -sin*dx+cos*dy
	if over := x*x/(rx*rx) + y*y/(ry*ry); over > 1 {
		rx, ry = rx*math.Sqrt(over), ry*math.Sqrt(over)
	}
	under := rx*rx*y*y + ry*ry*x*x
	k := math.Sqrt(math.Max(0, (rx*rx*ry*ry-under)/under))
	if large == sweep {
		k = -k
	}
	cx, cy := k*rx*y/ry, -k*ry*x/rx
	a, b := math.Atan2((y-cy)/ry, (x-cx)/rx), math.Atan2((-y-cy)/ry, (-x-cx)/rx)
	switch {
	case sweep && b < a:
		b += 2 * math.Pi
	case !sweep && b > a:
		b -= 2 * math.Pi
	}
	return arc(cos*cx-sin*cy+(from.X+to.X)/2, sin*cx+cos*cy+(from.Y+to.Y)/2, rx, ry, turned, a, b)
}

// readPath reads the d of a path.
func readPath(d string) ([]Step, error) {
	r := pathReader{rest: d}
	for r.command() {
		if err := r.draw(); err != nil {
			return nil, fmt.Errorf("path %.60q: %w", d, err)
		}
		if len(r.out) > mostShapes {
			return nil, fmt.Errorf("a path of more than %d steps", mostShapes)
		}
	}
	if r.rest != "" {
		return nil, fmt.Errorf("path %.60q ends in %.20q", d, r.rest)
	}
	return r.out, nil
}

type pathReader struct {
	rest   string
	op     byte
	at     Point // where the pen is
	begun  Point // where the outline began
	before Point // last control of a curve
	curved bool
	out    []Step
}

// command takes the next letter, or goes on with the one before where figures follow.
func (r *pathReader) command() bool {
	r.rest = strings.TrimLeft(r.rest, " ,\n\t")
	if r.rest == "" {
		return false
	}
	if c := r.rest[0]; strings.IndexByte("MmLlHhVvCcSsQqTtAaZz", c) >= 0 {
		r.op, r.rest = c, r.rest[1:]
		return true
	}
	switch r.op {
	case 0, 'Z', 'z':
		return false
	case 'M':
		r.op = 'L'
	case 'm':
		r.op = 'l'
	}
	return strings.IndexByte("+-.0123456789", r.rest[0]) >= 0
}

// figure takes the next figure.
func (r *pathReader) figure() (float64, error) {
	r.rest = strings.TrimLeft(r.rest, " ,\n\t")
	end, dot := 0, false
	for end < len(r.rest) {
		c := r.rest[end]
		switch {
		case c >= '0' && c <= '9':
		case c == '.' && !dot:
			dot = true
		case (c == '-' || c == '+') && end == 0:
		default:
			c = 0
		}
		if c == 0 {
			break
		}
		end++
	}
	v, err := strconv.ParseFloat(r.rest[:end], 64)
	r.rest = r.rest[end:]
	return v, err
}

func (r *pathReader) figures(n int) ([]float64, error) {
	out := make([]float64, n)
	for i := range out {
		v, err := r.figure()
		if err != nil {
			return nil, err
		}
		out[i] = v
	}
	return out, nil
}

// takes is how many figures a command takes.
var takes = map[byte]int{'m': 2, 'l': 2, 'h': 1, 'v': 1, 'c': 6, 's': 4, 'q': 4, 't': 2, 'a': 7, 'z': 0}

func (r *pathReader) draw() error {
	low := r.op | 0x20
	v, err := r.figures(takes[low])
	if err != nil {
		return err
	}
	var from Point
	if r.op == low {
		from = r.at // small letters count from where the pen is
	}
	p := func(i int) Point { return Point{from.X + v[i], from.Y + v[i+1]} }
	curved := false
	switch low {
	case 'm':
		r.at = p(0)
		r.begun = r.at
		r.out = append(r.out, Step{Op: Move, To: r.at})
	case 'l':
		r.line(p(0))
	case 'h':
		r.line(Point{from.X + v[0], r.at.Y})
	case 'v':
		r.line(Point{r.at.X, from.Y + v[0]})
	case 'c':
		r.curve(p(0), p(2), p(4))
		curved = true
	case 's':
		r.curve(r.mirrored(), p(0), p(2))
		curved = true
	case 'q', 't':
		control, to := r.mirrored(), Point{}
		if low == 'q' {
			control, to = p(0), p(2)
		} else {
			to = p(0)
		}
		r.curve(between(r.at, control, 2.0/3), between(to, control, 2.0/3), to)
		r.before, curved = control, true
	case 'a':
		to := p(5)
		r.out = append(r.out, ended(r.at, v[0], v[1], v[2], v[3] != 0, v[4] != 0, to)...)
		r.at = to
	case 'z':
		r.out = append(r.out, Step{Op: Close})
		r.at = r.begun
	}
	r.curved = curved
	return nil
}

func (r *pathReader) line(to Point) {
	r.out = append(r.out, Step{Op: Line, To: to})
	r.at = to
}

func (r *pathReader) curve(first, other, to Point) {
	r.out = append(r.out, Step{Op: Curve, First: first, Other: other, To: to})
	r.before, r.at = other, to
}

// mirrored is the control that carries a curve on smoothly.
func (r *pathReader) mirrored() Point {
	if !r.curved {
		return r.at
	}
	return Point{2*r.at.X - r.before.X, 2*r.at.Y - r.before.Y}
}

func between(a, b Point, share float64) Point {
	return Point{a.X + (b.X-a.X)*share, a.Y + (b.Y-a.Y)*share}
}

// Flat gives the outline as rings of straight lines, for what cannot follow a curve.
func Flat(outline []Step) (rings [][]Point) {
	var ring []Point
	flush := func() {
		if len(ring) > 2 {
			rings = append(rings, ring)
		}
		ring = nil
	}
	for _, s := range outline {
		switch s.Op {
		case Move:
			flush()
			ring = []Point{s.To}
		case Line:
			ring = append(ring, s.To)
		case Curve:
			if len(ring) == 0 {
				continue
			}
			from := ring[len(ring)-1]
			for i := 1; i <= 8; i++ {
				t := float64(i) / 8
				u := 1 - t
				ring = append(ring, Point{
					u*u*u*from.X + 3*u*u*t*s.First.X + 3*u*t*t*s.Other.X + t*t*t*s.To.X,
					u*u*u*from.Y + 3*u*u*t*s.First.Y + 3*u*t*t*s.Other.Y + t*t*t*s.To.Y})
			}
		case Close:
			flush()
		}
	}
	flush()
	return rings
}
