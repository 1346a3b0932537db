package document

import (
	"corvek/internal/draw"
	"corvek/internal/vector"
)

const cellGap = 2.2 // mm between columns

// setCell is a cell that is ready to be written.
type setCell struct {
	lines   []setLine
	verdict string
	drawing string
	tall    float64
}

func (s *sheet) table(b Table) {
	widths := make([]float64, len(b.Shares))
	sum := 0.0
	for _, share := range b.Shares {
		sum += share
	}
	for i, share := range b.Shares {
		widths[i] = s.room() * share / sum
	}
	heads := func() {
		cells := make([]setCell, len(b.Heads))
		for i, h := range b.Heads {
			cells[i].lines = s.set(widths[i]-cellGap, run{letters: heading(9.5).in("ink2"), text: h})
			cells[i].tall = tallOf(cells[i].lines)
		}
		s.row(widths, cells, "ink2")
	}
	s.need(24)
	heads()
	s.headsAtBreaks = heads
	defer func() { s.headsAtBreaks = nil }()
	for _, row := range b.Rows {
		cells := make([]setCell, len(row))
		for i, c := range row {
			cells[i] = s.cell(c, widths[i]-cellGap)
		}
		s.row(widths, cells, "line")
	}
	if len(b.Rows) == 0 && b.None != "" {
		s.paragraph(0, run{letters: body(tableSize, false), text: b.None})
	}
	s.y += 1.5
}

const (
	markSide = 4.2  // mm of a verdict's mark
	cellDraw = 12.0 // mm of a drawing in a cell
)

func (s *sheet) cell(c Cell, width float64) setCell {
	out := setCell{verdict: c.Verdict, drawing: c.Drawing}
	if c.Verdict != "" {
		l := body(tableSize, c.Verdict != "in")
		if c.Verdict == "out" {
			l = l.in("red")
		}
		out.lines = s.set(width-markSide, run{letters: l, text: VerdictWord(c.Verdict)})
	}
	for _, line := range c.Lines {
		l := body(tableSize, line.Bold)
		switch {
		case line.Small:
			l = body(7.4, false).in("ink2")
		case line.Large:
			l = heading(16)
		}
		runs := []run{{letters: l, text: line.Text}}
		if line.Box {
			runs = []run{{letters: l, box: true}, {letters: l, text: line.Text}}
		}
		out.lines = append(out.lines, s.set(width, runs...)...)
	}
	out.tall = tallOf(out.lines)
	if c.Drawing != "" {
		out.tall = max(out.tall, cellDraw)
	}
	return out
}

// row writes cells beside one another; one that is taller than a page goes on on the next.
func (s *sheet) row(widths []float64, cells []setCell, rule string) {
	tall := 0.0
	for _, c := range cells {
		tall = max(tall, c.tall)
	}
	if full := s.bottom() - margin - 20; tall <= full {
		s.need(tall + 1.2)
		s.cells(widths, cells)
		s.y += tall + 0.6
	} else {
		s.split(widths, cells)
	}
	s.rule(vector.Token(rule), 0.15)
	s.y += 0.6
}

// split writes a tall row line by line.
func (s *sheet) split(widths []float64, cells []setCell) {
	for {
		tall := 0.0
		part := make([]setCell, len(cells))
		for i := range cells {
			if len(cells[i].lines) > 0 {
				part[i].lines = cells[i].lines[:1]
				tall = max(tall, cells[i].lines[0].tall)
				cells[i].lines = cells[i].lines[1:]
			}
		}
		if tall == 0 {
			return
		}
		s.need(tall + 1)
		s.cells(widths, part)
		s.y += tall
	}
}

func (s *sheet) cells(widths []float64, cells []setCell) {
	x := margin
	for i, c := range cells {
		at := x
		if c.verdict != "" {
			s.drawing(draw.Verdict(c.verdict), x-0.4, s.y-0.2, markSide, markSide)
			at += markSide
		}
		if c.drawing != "" {
			s.drawing(c.drawing, x, s.y, min(widths[i]-cellGap, cellDraw), cellDraw)
		}
		s.write(at, s.y, c.lines)
		x += widths[i]
	}
}
