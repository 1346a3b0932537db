package draw

import (
	"fmt"
	"math"
	"strings"
)

// MatrixColumn is a cause of the matrix.
type MatrixColumn struct {
	Name  string
	Share float64 // its probability
	Mine  bool    // the reader's own theory
}

// MatrixRow is a finding with its weight, in bits, for each column.
type MatrixRow struct {
	Name        string
	State       string // seen, absent, partly
	Information []float64
}

// Matrix draws findings against causes: bars to the right speak for, to the left
// against. A full bar is the strongest weight in it, at least two bits.
type Matrix struct {
	Columns []MatrixColumn
	Rows    []MatrixRow
}

const (
	matrixHead = 84.0
	matrixName = 226.0
	matrixRow  = 30.0
	matrixCol  = 104.0
)

// SVG draws the matrix.
func (m Matrix) SVG() string {
	if len(m.Columns) == 0 || len(m.Rows) == 0 {
		return ""
	}
	most := 2.0
	for _, r := range m.Rows {
		for _, b := range r.Information {
			most = math.Max(most, math.Abs(b))
		}
	}
	w, h := matrixName+matrixCol*float64(len(m.Columns))+8, matrixHead+matrixRow*float64(len(m.Rows))+8
	s := &sheet{}
	fmt.Fprintf(&s.b, `<svg class="matrix" width="%s" height="%s" viewBox="0 0 %s %s" role="img" `+
		`aria-label="findings against causes: %s">`, num(w), num(h), num(w), num(h), text(m.said()))
	for i, c := range m.Columns {
		x := matrixName + matrixCol*float64(i)
		if c.Mine {
			s.rect("mx-mine", x+1, 2, matrixCol-2, h-6)
		}
		s.text("mx-p", x+matrixCol/2, 22, "middle", fmt.Sprintf("%.0f %%", 100*c.Share))
		for k, line := range wrap(c.Name, 17, 3) {
			s.text("mx-c", x+matrixCol/2, 40+float64(k)*15, "middle", line)
		}
		s.path("mx-0", "M%v %v V%v", x+matrixCol/2, matrixHead, h-6)
	}
	for i, r := range m.Rows {
		y := matrixHead + matrixRow*float64(i)
		s.path("mx-l", "M0 %v H%v", y, w-4)
		mid := y + matrixRow/2
		switch r.State {
		case "seen":
			s.circle("mx-s", 10, mid, 6)
		case "absent":
			s.circle("mx-a", 10, mid, 5.4)
		default:
			s.circle("mx-a", 10, mid, 5.4)
			s.path("mx-s", "M10 %v a6 6 0 0 1 0 12z", mid-6)
		}
		s.text("mx-e", 24, mid+5, "start", clip(r.Name, 33))
		for k, b := range r.Information {
			x := matrixName + matrixCol*(float64(k)+.5)
			if math.Abs(b) < 0.05 {
				s.circle("dot", x, mid, 2)
				continue
			}
			long := math.Abs(b) / most * (matrixCol/2 - 27)
			if b > 0 {
				s.rect("mx-for", x, mid-8, math.Max(2, long), 16)
				s.text("mx-b", x+long+4, mid+5, "start", fmt.Sprintf("+%.1f", b))
				continue
			}
			s.rect("mx-no", x-math.Max(2, long), mid-8, math.Max(2, long), 16)
			s.text("mx-b", x-long-4, mid+5, "end", fmt.Sprintf("−%.1f", -b))
		}
	}
	return s.svg()
}

func (m Matrix) said() string {
	var parts []string
	for _, c := range m.Columns {
		parts = append(parts, fmt.Sprintf("%s %.0f percent", c.Name, 100*c.Share))
	}
	return strings.Join(parts, ", ")
}

// wrap breaks words into lines of about so many letters.
func wrap(words string, letters, lines int) []string {
	var out []string
	line := ""
	for _, w := range strings.Fields(words) {
		if line != "" && len([]rune(line))+1+len([]rune(w)) > letters {
			out, line = append(out, line), ""
		}
		if line != "" {
			line += " "
		}
		line += w
	}
	out = append(out, line)
	if len(out) > lines {
		out = out[:lines]
		out[lines-1] = clip(out[lines-1]+" …", letters)
	}
	return out
}

func clip(s string, letters int) string {
	r := []rune(s)
	if len(r) <= letters {
		return s
	}
	return string(r[:letters-1]) + "…"
}

// StripEvent is a mark on the time strip.
type StripEvent struct {
	Text     string
	Answered bool
	Age      string
}

// TimeStrip draws what was seen from an instant on the left to long on the
// right; what the story does not answer for is ringed.
func TimeStrip(sudden, hours, gradual []StripEvent) string {
	most := max(len(sudden), len(hours), len(gradual), 1)
	const width, left, zone, top, step = 720.0, 4.0, 238.0, 40.0, 34.0
	h := top + step*float64(most) + 30
	s := &sheet{}
	fmt.Fprintf(&s.b, `<svg class="strip" viewBox="0 0 %s %s" role="img" aria-label="marks from sudden to `+
		`gradual">`, num(width), num(h))
	base := h - 18
	for i, z := range []struct {
		name   string
		events []StripEvent
	}{{"in an instant", sudden}, {"in hours", hours}, {"in weeks or longer", gradual}} {
		x := left + zone*float64(i)
		s.rect("ts-z"+fmt.Sprint(i), x, 24, zone-4, base-24)
		s.text("ts-h", x+8, 18, "start", z.name)
		for k, e := range z.events {
			y := top + step*float64(k)
			class := "ts-d"
			if !e.Answered {
				class = "ts-d open"
			}
			s.circle(class, x+16, y+4, 7)
			label := e.Text
			if e.Age == "old" || e.Age == "fresh" {
				label += " (" + e.Age + ")"
			}
			for n, line := range wrap(label, 32, 2) {
				s.text("ts-t", x+30, y+9+float64(n)*14, "start", line)
			}
		}
	}
	s.path("ts-ax", "M%v %v H%v m-9 -5 l9 5 l-9 5", left, base, width-6)
	return s.svg()
}
