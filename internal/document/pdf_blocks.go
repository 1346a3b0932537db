package document

import (
	"strconv"

	"corvek/internal/vector"
)

// headingRoom is what a heading takes, mm.
const headingRoom = 11.0

// least is the height that a block needs at the place where it begins.
func (s *sheet) least(b Block) float64 {
	switch b := b.(type) {
	case Drawing:
		_, _, tall := s.measure(b)
		return tall + 2
	case Pictures:
		return pictureRoom + 12
	case Code:
		return codeSide
	}
	return 14
}

// block lays one block out.
func (s *sheet) block(b Block) {
	switch b := b.(type) {
	case Heading:
		s.y += 2.5
		s.paragraph(0, run{letters: heading(headingSize), text: b.Text})
		s.y--
		s.rule(vector.Token("line"), 0.25)
		s.y += 1.5
	case Text:
		l := body(bodySize, false)
		if b.Quiet {
			l = l.in("ink2")
		}
		s.paragraph(0, run{letters: body(bodySize, true), text: b.Lead}, run{letters: l, text: b.Text})
	case Small:
		s.paragraph(0, run{letters: body(smallSize, false).in("ink2"), text: b.Text})
	case Big:
		s.paragraph(0, run{letters: heading(72), text: b.Text})
	case Lines:
		s.lines(b)
	case Banner:
		s.banner(b)
	case Facts:
		s.facts(b)
	case Table:
		s.table(b)
	case Drawing:
		s.figure(b)
	case Pictures:
		s.pictures(b)
	case Boxes:
		var runs []run
		for _, name := range b.Names {
			l := heading(12)
			runs = append(runs, run{letters: l, box: true}, run{letters: l, text: name + "\u00a0\u00a0"})
		}
		s.y += 1
		s.paragraph(0, runs...)
	case Checks:
		l := body(bodySize, false)
		for _, item := range b.Items {
			s.paragraph(0, run{letters: l, box: true}, run{letters: l, text: item})
			s.y++
		}
	case Signs:
		s.signs(b)
	case Seal:
		s.seal(b)
	case Code:
		s.need(codeSide)
		s.drawing(codeSVG(s.doc.Opens), margin-5, s.y, codeSide, codeSide)
		s.y += codeSide + 2
	}
}

func (s *sheet) lines(b Lines) {
	l, indent := body(bodySize, false), 5.0
	if b.Large {
		l, indent = body(largeSize, false), 9
	}
	for i, item := range b.Items {
		mark := "•"
		if b.Ordered {
			mark = strconv.Itoa(i+1) + "."
		}
		set := s.set(s.room()-indent, run{letters: l, text: item})
		s.need(min(tallOf(set), 40))
		s.write(margin, s.y, s.set(indent, run{letters: l, text: mark}))
		s.flow(indent, set)
		if b.Large {
			s.y += 2.5
		}
	}
	s.y += 1
}

// ground is the light ground of a tone; a frame of it is seen without colour too.
func (s *sheet) frame(tone Tone, x, y, w, h float64) {
	c := vector.Token("ink")
	if tone != Plain {
		c = vector.Token(string(tone))
	}
	s.ink(c)
	s.pdf.SetLineWidth(0.6)
	s.pdf.Rect(x, y, w, h, "D")
}

func (s *sheet) banner(b Banner) {
	l := heading(bannerSize)
	if b.Tone != Plain {
		l = l.in(string(b.Tone))
	}
	runs := []run{{letters: l, text: b.Text}}
	why := body(bodySize, false)
	if b.Tone != Plain {
		why = why.in(string(b.Tone))
	}
	for _, item := range b.Items {
		runs = append(runs, run{letters: why, text: "\n• " + item})
	}
	set := s.set(s.room()-8, runs...)
	for len(set) > 0 { // a frame a page
		s.need(min(tallOf(set), 30) + 4)
		n, tall := 0, 0.0
		for n < len(set) && (n == 0 || s.y+tall+set[n].tall+4 < s.bottom()) {
			tall += set[n].tall
			n++
		}
		s.frame(b.Tone, margin, s.y, s.room(), tall+3)
		s.write(margin+4, s.y+1.2, set[:n])
		s.y += tall + 6
		set = set[n:]
	}
}

// facts stand two beside one another.
func (s *sheet) facts(b Facts) {
	const name = 23.0
	half := s.room() / 2
	for i := 0; i < len(b.Rows); i += 2 {
		tall := 0.0
		var put []func()
		for k, f := range b.Rows[i:min(i+2, len(b.Rows))] {
			x := margin + float64(k)*half
			n := s.set(name-1, run{letters: heading(10).in("ink2"), text: f.Name})
			v := s.set(half-name-3, run{letters: body(bodySize, false), text: f.Value})
			tall = max(tall, tallOf(n), tallOf(v))
			put = append(put, func() {
				s.write(x, s.y, n)
				s.write(x+name, s.y, v)
			})
		}
		s.need(tall)
		for _, p := range put {
			p()
		}
		s.y += tall + 0.8
	}
	s.y++
}

func (s *sheet) signs(b Signs) {
	s.need(22)
	s.y += 16
	wide := s.room() / float64(len(b.Names))
	for i, name := range b.Names {
		x := margin + float64(i)*wide
		s.ink(vector.Token("ink"))
		s.pdf.SetLineWidth(0.3)
		s.pdf.Line(x, s.y, x+wide-8, s.y)
		s.write(x, s.y+0.6, s.set(wide, run{letters: body(smallSize, false).in("ink2"), text: name}))
	}
	s.y += 8
}

// seal has a full frame where it is signed, and a broken one where it is not.
func (s *sheet) seal(b Seal) {
	set := s.set(s.room()-8, run{letters: heading(13), text: b.Lead() + "\n"},
		run{letters: body(smallSize, false), text: b.Words})
	tall := tallOf(set)
	s.y += 3
	s.need(tall + 6)
	if !b.Signed {
		s.pdf.SetDashPattern([]float64{2, 1.5}, 0)
	}
	s.frame(Plain, margin, s.y, s.room(), tall+4)
	s.pdf.SetDashPattern(nil, 0)
	s.write(margin+4, s.y+1.6, set)
	s.y += tall + 7
}
