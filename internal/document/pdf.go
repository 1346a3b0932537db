package document

import (
	"bytes"
	"fmt"
	"io"
	"net/http"
	"strings"

	"corvek/internal/vector"

	"codeberg.org/go-pdf/fpdf"
)

// margins of a sheet, mm; the foot takes more.
const (
	margin   = 16.0
	footRoom = 18.0
)

// sheet is a PDF as it is laid out.
type sheet struct {
	pdf           *fpdf.Fpdf
	doc           Document
	wide, tall    float64         // of the sheet
	y             float64         // where the next block begins
	pages         int             // in all; 0 while they are counted
	faces         map[string]bool // that are in it
	loaded        map[string][2]string
	headsAtBreaks func() // writes a table's heads anew on a new page
}

// PDF writes the paper as a PDF. It is laid out twice: the first time tells how many pages
// there are.
func PDF(w io.Writer, d Document) error {
	first := layOut(d, 0)
	if err := first.pdf.Error(); err != nil {
		return err
	}
	return layOut(d, first.pdf.PageNo()).pdf.Output(w)
}

func layOut(d Document, pages int) *sheet {
	s := &sheet{pdf: newPDF(d.Shop.Size), doc: d, pages: pages, loaded: map[string][2]string{},
		faces: map[string]bool{}}
	s.wide, s.tall = d.Shop.Size.millimetres()
	s.pdf.SetTitle(printable(d.Tag+" "+d.Kind), true)
	s.pdf.SetAuthor(printable(d.Shop.Name), true)
	s.pdf.SetCreationDate(d.Printed)
	s.pdf.SetModificationDate(d.Printed)
	s.page()
	if d.Title != "" {
		s.paragraph(0, run{letters: heading(titleSize), text: d.Title})
	}
	for i, b := range d.Blocks {
		if _, heads := b.(Heading); heads && i+1 < len(d.Blocks) {
			s.need(headingRoom + s.least(d.Blocks[i+1])) // never alone at the foot of a page
		}
		s.block(b)
	}
	return s
}

// room is the width between the margins.
func (s *sheet) room() float64 { return s.wide - 2*margin }

// bottom is where a page ends.
func (s *sheet) bottom() float64 { return s.tall - footRoom }

// page begins a page, the first one with the shop's head.
func (s *sheet) page() {
	s.pdf.AddPage()
	s.foot()
	if s.pdf.PageNo() == 1 {
		s.head()
		return
	}
	s.y = margin - 4
	s.write(margin, s.y, s.set(s.room(), run{letters: heading(9).in("ink2"), text: strings.Join(
		nonEmpty(s.doc.Tag, s.doc.Kind, s.doc.Title), "  ·  ")}))
	s.y += 7
	if s.headsAtBreaks != nil {
		s.headsAtBreaks()
	}
}

// need begins a new page where the room that is left is too small.
func (s *sheet) need(tall float64) {
	if s.y+tall > s.bottom() && s.y > margin+12 {
		s.page()
	}
}

func (s *sheet) head() {
	const code = 24.0
	d := s.doc
	x, y := margin, 12.0
	if tall := s.mark(x, y); tall > 0 {
		x += tall + 4
	}
	right := s.room()
	if d.codeAtHead() {
		right -= code + 3
		s.drawing(codeSVG(d.Opens), s.wide-margin-code+2, y-2, code, code)
	}
	left := s.set(right/2, run{letters: heading(15), text: d.Shop.Name})
	down := s.write(x, y, left)
	if d.Shop.Address != "" {
		small := run{letters: body(smallSize, false).in("ink2"), text: d.Shop.Address}
		down += s.write(x, y+down, s.set(right/2, small))
	}
	at := y
	for _, r := range []run{{letters: heading(15), text: d.Tag}, {letters: heading(11), text: d.Kind},
		{letters: body(smallSize, false).in("ink2"), text: d.Day()}} {
		for _, line := range s.set(right/2, r) {
			at += s.write(margin+right-lineWidth(line), at, []setLine{line})
		}
	}
	s.y = max(y+down, at) + 2
	if d.codeAtHead() {
		s.y = max(s.y, y+code-3)
	}
	s.rule(vector.Token("ink"), 0.6)
	s.y += 3
}

func lineWidth(l setLine) (wide float64) {
	for i, w := range l.words {
		if i > 0 {
			wide += w.space
		}
		wide += w.wide
	}
	return wide
}

// mark puts the shop's mark down and gives the side it took.
func (s *sheet) mark(x, y float64) float64 {
	const side = 16.0
	kind := map[string]string{"image/png": "PNG", "image/jpeg": "JPEG"}[http.DetectContentType(s.doc.Shop.Mark)]
	if kind == "" {
		return 0
	}
	o := fpdf.ImageOptions{ImageType: kind}
	info := s.pdf.RegisterImageOptionsReader("mark", o, bytes.NewReader(s.doc.Shop.Mark))
	if s.pdf.Err() || info == nil || info.Width() <= 0 || info.Height() <= 0 {
		s.pdf.ClearError() // a paper without the mark is better than none
		return 0
	}
	k := side / max(info.Width(), info.Height())
	s.pdf.ImageOptions("mark", x, y, info.Width()*k, info.Height()*k, false, o, 0, "")
	return side
}

// foot says which paper a loose page belongs to.
func (s *sheet) foot() {
	small := body(7, false).in("ink2")
	text := fmt.Sprintf("page %d of %d", s.pdf.PageNo(), s.pages)
	y := s.tall - 12
	if lines := s.set(s.room()-30, run{letters: small, text: s.doc.Foot}); len(lines) > 0 {
		s.write(margin, y, lines[:min(2, len(lines))])
	}
	s.write(s.wide-margin-s.width(small, text), y, s.set(60, run{letters: small, text: text}))
}

// rule draws a line across.
func (s *sheet) rule(c vector.Color, thick float64) {
	s.ink(c)
	s.pdf.SetLineWidth(thick)
	s.pdf.Line(margin, s.y, s.wide-margin, s.y)
}

// paragraph writes runs over the width, indented, and breaks pages as it must.
func (s *sheet) paragraph(indent float64, runs ...run) {
	s.flow(indent, s.set(s.room()-indent, runs...))
	s.y += 1
}

func (s *sheet) flow(indent float64, lines []setLine) {
	for _, l := range lines {
		s.need(l.tall)
		s.y += s.write(margin+indent, s.y, []setLine{l})
	}
}

func nonEmpty(list ...string) (out []string) {
	for _, t := range list {
		if t != "" {
			out = append(out, t)
		}
	}
	return out
}
