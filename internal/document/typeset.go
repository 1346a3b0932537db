package document

import (
	"strings"

	"corvek/internal/vector"

	"codeberg.org/go-pdf/fpdf"
)

// type sizes of the PDF, pt.
const (
	bodySize    = 9.5
	smallSize   = 7.8
	tableSize   = 8.6
	headingSize = 13.0
	titleSize   = 21.0
	bannerSize  = 15.0
	largeSize   = 14.0
)

// letters say how a run of text is set.
type letters struct {
	face string
	bold bool
	size float64 // pt
	ink  vector.Color
}

func body(size float64, bold bool) letters {
	return letters{face: "text", bold: bold, size: size, ink: vector.Token("ink")}
}

func heading(size float64) letters {
	return letters{face: "heading", bold: true, size: size, ink: vector.Token("ink")}
}

func (l letters) in(tone string) letters {
	l.ink = vector.Token(tone)
	return l
}

// run is a text set in one way.
type run struct {
	letters
	text string
	box  bool // a box to tick, in place of a text
}

// word is what is not broken, as pieces of faces.
type word struct {
	letters
	pieces []piece
	wide   float64
	space  float64 // before it, where it does not begin a line
	box    bool
}

// setLine is a line of words.
type setLine struct {
	words []word
	tall  float64 // mm
}

const (
	mmPerPoint = 25.4 / 72
	leading    = 1.32
)

// tall is the height of a line, mm.
func (l letters) tall() float64 { return l.size * mmPerPoint * leading }

// width of a text in mm.
func (s *sheet) width(l letters, text string) (wide float64) {
	for _, p := range pieces(cut(l.face, l.bold), l.bold, text) {
		s.use(p.face, l.size)
		wide += s.pdf.GetStringWidth(p.text)
	}
	return wide
}

// set breaks runs into lines of a width, mm.
func (s *sheet) set(width float64, runs ...run) []setLine {
	var lines []setLine
	line := setLine{}
	used := 0.0
	flush := func() {
		lines = append(lines, line)
		line, used = setLine{}, 0
	}
	put := func(w word) {
		if len(line.words) > 0 && used+w.space+w.wide > width {
			flush()
		}
		if len(line.words) > 0 {
			used += w.space
		}
		used += w.wide
		line.words = append(line.words, w)
		line.tall = max(line.tall, w.tall())
	}
	for _, r := range runs {
		space := s.width(r.letters, " ")
		if r.box {
			put(word{letters: r.letters, box: true, wide: r.size * mmPerPoint * 1.1, space: space})
			continue
		}
		for i, part := range strings.Split(r.text, "\n") {
			if i > 0 {
				line.tall = max(line.tall, r.tall())
				flush()
			}
			for _, text := range strings.Fields(part) {
				for _, text := range s.broken(r.letters, text, width) {
					put(word{letters: r.letters, pieces: pieces(cut(r.face, r.bold), r.bold, text),
						wide: s.width(r.letters, text), space: space})
				}
			}
		}
	}
	if len(line.words) > 0 {
		flush()
	}
	return lines
}

// broken cuts a word that is wider than the room for it.
func (s *sheet) broken(l letters, text string, width float64) (out []string) {
	if s.width(l, text) <= width {
		return []string{text}
	}
	for part := ""; text != ""; part = "" {
		for _, r := range text {
			if part != "" && s.width(l, part+string(r)) > width {
				break
			}
			part += string(r)
		}
		out = append(out, part)
		text = text[len(part):]
	}
	return out
}

func tallOf(lines []setLine) (tall float64) {
	for _, l := range lines {
		tall += l.tall
	}
	return tall
}

// write puts set lines down from a corner and gives the height they took.
func (s *sheet) write(x, y float64, lines []setLine) float64 {
	from := y
	for _, l := range lines {
		at := x
		for i, w := range l.words {
			if i > 0 {
				at += w.space
			}
			s.word(at, y+l.tall*0.76, w)
			at += w.wide
		}
		y += l.tall
	}
	return y - from
}

// word puts a word on its base line.
func (s *sheet) word(x, base float64, w word) {
	if w.box {
		side := w.size * mmPerPoint * 0.85
		s.ink(vector.Token("ink"))
		s.pdf.SetLineWidth(0.35)
		s.pdf.Rect(x, base-side, side, side, "D")
		return
	}
	s.pdf.SetTextColor(int(w.ink.R), int(w.ink.G), int(w.ink.B))
	for _, p := range w.pieces {
		s.use(p.face, w.size)
		s.pdf.Text(x, base, p.text)
		x += s.pdf.GetStringWidth(p.text)
	}
}

func (s *sheet) ink(c vector.Color) { s.pdf.SetDrawColor(int(c.R), int(c.G), int(c.B)) }

// newPDF is an empty PDF that comes out the same each time.
func newPDF(size Size) *fpdf.Fpdf {
	name := "A4"
	if size == Letter {
		name = "Letter"
	}
	p := fpdf.New("P", "mm", name, "")
	p.SetCatalogSort(true)
	p.SetAutoPageBreak(false, 0)
	return p
}
