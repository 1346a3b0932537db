package vector

import (
	"math"
	"strings"
)

// matrix turns a place of a drawing's part into one of the drawing:
// x' = a x + c y + e, y' = b x + d y + f.
type matrix struct{ a, b, c, d, e, f float64 }

func move(x, y float64) matrix { return matrix{1, 0, 0, 1, x, y} }

// times puts an inner placing inside this one.
func (m matrix) times(n matrix) matrix {
	return matrix{m.a*n.a + m.c*n.b, m.b*n.a + m.d*n.b, m.a*n.c + m.c*n.d, m.b*n.c + m.d*n.d,
		m.a*n.e + m.c*n.f + m.e, m.b*n.e + m.d*n.f + m.f}
}

func (m matrix) apply(p Point) Point {
	return Point{m.a*p.X + m.c*p.Y + m.e, m.b*p.X + m.d*p.Y + m.f}
}

func (m matrix) step(s Step) Step {
	return Step{Op: s.Op, First: m.apply(s.First), Other: m.apply(s.Other), To: m.apply(s.To)}
}

// readTransform reads a transform attribute: translate, scale and rotate, one after another.
func readTransform(s string) matrix {
	m := move(0, 0)
	for s != "" {
		name, rest, ok := strings.Cut(s, "(")
		if !ok {
			break
		}
		inside, after, _ := strings.Cut(rest, ")")
		v := append(numbers(inside), 0, 0, 0)
		switch strings.TrimSpace(name) {
		case "translate":
			m = m.times(move(v[0], v[1]))
		case "scale":
			if len(v) == 4 { // one figure for both
				v[1] = v[0]
			}
			m = m.times(matrix{v[0], 0, 0, v[1], 0, 0})
		case "rotate":
			sin, cos := math.Sincos(v[0] * math.Pi / 180)
			m = m.times(move(v[1], v[2])).times(matrix{cos, sin, -sin, cos, 0, 0}).times(move(-v[1], -v[2]))
		}
		s = after
	}
	return m
}
