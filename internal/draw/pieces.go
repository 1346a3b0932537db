package draw

import (
	"fmt"
	"math"
)

// PieceView is one piece of a pack in the stack editor. Set, Value and Base are
// what a tap on it writes; Drop is what taking it out writes.
type PieceView struct {
	Kind   string // disc, shim, friction, separator, plate
	Facing byte   // '>' or '<', 0 where it has none
	Faced  bool   // it has a facing that must be noted
	Title  string
	Set    string
	Base   string
	Turn   string // value when it is turned over; "" where it cannot be
	Drop   string
	Odd    bool // not as the right stack has it
	Locked bool // only to look at
}

const (
	pieceWide = 46.0
	pieceTall = 190.0
)

// Pieces draws a pack piece by piece, left to right from the end that comes off
// first; every piece is a target of at least 44 px.
func Pieces(pieces []PieceView, said string) string {
	n := len(pieces)
	if n == 0 {
		return ""
	}
	width := math.Max(200, float64(n)*pieceWide+24)
	s := &sheet{}
	fmt.Fprintf(&s.b, `<svg class="pieces" width="%s" height="%s" viewBox="0 0 %s %s" role="group" `+
		`aria-label="%s">`, num(width), num(pieceTall), num(width), num(pieceTall), text(said))
	s.path("cl", "M4 66 H%v", width-4)
	for i, p := range pieces {
		x := 12 + float64(i)*pieceWide
		s.piece(i, p, x)
	}
	return s.svg()
}

func (s *sheet) piece(i int, p PieceView, x float64) {
	live := !p.Locked && p.Turn != ""
	word := map[byte]string{'>': ", facing right", '<': ", facing left"}[p.Facing]
	if p.Faced && p.Facing == 0 {
		word = ", facing not noted"
	}
	said := fmt.Sprintf("%d %s%s", i+1, p.Title, word)
	if live {
		fmt.Fprintf(&s.b, `<g class="flip pc" data-set="%s" data-value="%s" data-base="%s" tabindex="0" `+
			`role="button" aria-label="%s; tap to turn over"><title>%s</title>`, text(p.Set), text(p.Turn),
			text(p.Base), text(said), text(said))
	} else {
		fmt.Fprintf(&s.b, `<g class="pc" aria-label="%s"><title>%s</title>`, text(said), text(said))
	}
	s.rect("hit", x+1, 2, pieceWide-2, 142)
	if p.Odd {
		s.rect("pc-odd", x+2, 3, pieceWide-4, 140)
	}
	mid, m := x+pieceWide/2, 1.0
	if p.Facing == '<' {
		m = -1
	}
	for _, half := range []float64{1, -1} {
		rim, bore := 66-half*56, 66-half*22
		switch p.Kind {
		case "disc":
			if p.Facing == 0 {
				s.path("dish", "M%v %v H%v V%v H%vZ", mid-4, rim, mid+4, bore, mid-4)
				continue
			}
			s.path("dish", "M%v %v L%v %v H%v L%v %vZ", mid-m*12-3.5, rim, mid+m*12-3.5, bore, mid+m*12+3.5,
				mid-m*12+3.5, rim)
		case "friction":
			s.rect("k", mid-3, math.Min(rim, bore), 6, math.Abs(rim-bore))
			s.rect("lining", mid-9, math.Min(rim, bore)+3, 6, math.Abs(rim-bore)-6)
			s.rect("lining", mid+3, math.Min(rim, bore)+3, 6, math.Abs(rim-bore)-6)
		case "separator":
			s.rect("h", mid-5, math.Min(rim, bore)-2, 10, math.Abs(rim-bore)+4)
		case "shim":
			s.rect("d", mid-1.6, math.Min(rim, bore), 3.2, math.Abs(rim-bore))
		default: // a plate: a step shows which way it faces
			s.rect("h", mid-6, math.Min(rim, bore), 12, math.Abs(rim-bore))
			if p.Facing != 0 {
				edge := mid + m*6
				s.rect("k", math.Min(edge, edge+m*5), 66-half*44-6, 5, 12)
				s.path("face", "M%v %v V%v", edge, rim, bore)
			}
		}
	}
	switch {
	case p.Facing != 0:
		s.path("arrow", "M%v 66 h%v m%v -4 l%v 4 l%v 4", mid-m*9, m*18, -m*6, m*6, -m*6)
	case p.Faced:
		s.path("mk ask ochre", "M%v 56 l10 10 l-10 10 l-10 -10z", mid)
		s.text("mk-t ask", mid, 70.5, "middle", "?")
	}
	s.text("no", mid, 139, "middle", fmt.Sprint(i+1))
	s.b.WriteString(`</g>`)
	if !p.Locked {
		fmt.Fprintf(&s.b, `<g class="flip drop" data-set="%s" data-value="%s" data-base="%s" tabindex="0" `+
			`role="button" aria-label="take out %d">`, text(p.Set), text(p.Drop), text(p.Base), i+1)
		s.rect("hit", x+1, 145, pieceWide-2, 44)
		s.path("drop-x", "M%v 161 l12 12 m0 -12 l-12 12", mid-6)
		s.b.WriteString(`</g>`)
	}
}

// Sisters draws one reading a piece against the middle of them all, the one
// that is not like the others marked.
type Sisters struct {
	Values   []float64 // m; NaN where nothing was read
	Middle   float64
	Odd      int // counted from 1
	Lower    float64
	HasLower bool
	Upper    float64
	HasUpper bool
	Show     func(float64) string
}

// SVG draws the comparison, 440 wide and 150 high.
func (c Sisters) SVG() string {
	lo, hi, n := c.Middle, c.Middle, 0
	for _, v := range c.Values {
		if !math.IsNaN(v) {
			lo, hi = math.Min(lo, v), math.Max(hi, v)
			n++
		}
	}
	if n < 2 {
		return ""
	}
	if c.HasLower {
		lo = math.Min(lo, c.Lower)
	}
	if c.HasUpper {
		hi = math.Max(hi, c.Upper)
	}
	room := math.Max((hi-lo)*.2, 1e-7)
	lo, hi = lo-room, hi+room
	const left, right, top, base = 14.0, 426.0, 14.0, 112.0
	py := func(v float64) float64 { return base - (v-lo)/(hi-lo)*(base-top) }
	step := (right - left) / float64(len(c.Values))
	s := newSheet("plot sisters", 440, 150, "each piece against its sisters")
	if c.HasLower {
		s.path("pr-lim", "M%v %v H%v", left, py(c.Lower), right)
		s.text("pr-t red", right, py(c.Lower)+14, "end", "limit "+c.Show(c.Lower))
	}
	if c.HasUpper {
		s.path("pr-lim", "M%v %v H%v", left, py(c.Upper), right)
		s.text("pr-t red", right, py(c.Upper)-5, "end", "limit "+c.Show(c.Upper))
	}
	s.path("pl-th", "M%v %v H%v", left, py(c.Middle), right)
	for i, v := range c.Values {
		x := left + (float64(i)+.5)*step
		class := ""
		if i+1 == c.Odd {
			class = " ochre"
		}
		if !math.IsNaN(v) {
			s.path("sis"+class, "M%v %v V%v", x, py(c.Middle), py(v))
			s.circle("sp"+class, x, py(v), 6)
		}
		s.text("no"+class, x, base+22, "middle", fmt.Sprint(i+1))
	}
	if c.Odd > 0 {
		x := left + (float64(c.Odd)-.5)*step
		s.path("mk ochre", "M%v %v l8 8 h-16z", x, base+26)
	}
	return s.svg()
}
