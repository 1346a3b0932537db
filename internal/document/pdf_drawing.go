package document

import (
	"bytes"
	"math"
	"strconv"

	"corvek/internal/vector"

	"codeberg.org/go-pdf/fpdf"
)

// room for a row of photographs, and the side of a large code, mm.
const (
	pictureRoom = 75.0
	codeSide    = 62.0
)

// measure says how large a drawing is put down; nil where there is none to be read.
func (s *sheet) measure(b Drawing) (d *vector.Drawing, wide, tall float64) {
	d, err := vector.Read(b.SVG)
	if err != nil {
		return nil, 0, 0
	}
	wide = s.room()
	if b.Part {
		wide *= 0.72
	}
	wide = min(wide, d.Width*0.3) // never blown up
	tall = wide * d.Height / d.Width
	if most := s.bottom() - margin - 20; tall > most {
		wide, tall = wide*most/tall, most
	}
	return d, wide, tall
}

// figure puts a drawing of ours over the width.
func (s *sheet) figure(b Drawing) {
	d, wide, tall := s.measure(b)
	if d == nil {
		return
	}
	s.y++
	name := s.set(s.room(), run{letters: body(bodySize, true), text: b.Name})
	s.need(tall + tallOf(name))
	s.flow(0, name)
	s.paint(d, margin, s.y, wide/d.Width)
	s.y += tall + 2
}

// drawing puts a drawing into a box, centred.
func (s *sheet) drawing(svg string, x, y, w, h float64) {
	d, err := vector.Read(svg)
	if err != nil {
		return
	}
	k := min(w/d.Width, h/d.Height)
	s.paint(d, x+(w-k*d.Width)/2, y+(h-k*d.Height)/2, k)
}

// pictures stand two beside one another.
func (s *sheet) pictures(b Pictures) {
	const gap, most = 6.0, pictureRoom
	wide := (s.room() - gap) / 2
	for i := 0; i < len(b.List); i += 2 {
		pair := b.List[i:min(i+2, len(b.List))]
		tall := 0.0
		captions := make([][]setLine, len(pair))
		for k, p := range pair {
			runs := []run{{letters: body(smallSize, false), text: p.Caption}}
			for _, m := range p.Marks {
				runs = append(runs, run{letters: body(smallSize, true), text: "\n" + m.Name},
					run{letters: body(smallSize, false), text: m.Value})
			}
			captions[k] = s.set(wide, runs...)
			tall = max(tall, tallOf(captions[k]))
		}
		s.need(most + tall + 3)
		for k, p := range pair {
			x := margin + float64(k)*(wide+gap)
			s.drawing(p.Drawing, x, s.y, wide, most)
			s.write(x, s.y+most+1, captions[k])
		}
		s.y += most + tall + 4
	}
}

// paint puts a drawing down from a corner, k mm for each of its units.
func (s *sheet) paint(d *vector.Drawing, x, y, k float64) {
	for i := range d.Shapes {
		shape := &d.Shapes[i]
		s.pdf.SetAlpha(shape.Opacity, "Normal")
		switch {
		case shape.Picture != "":
			s.photo(shape, x, y, k)
		case shape.Outline != nil:
			s.outline(shape, x, y, k)
		case shape.Text != "":
			s.label(shape, x, y, k)
		}
	}
	s.pdf.SetAlpha(1, "Normal")
	s.pdf.SetDashPattern(nil, 0)
	s.pdf.SetLineCapStyle("butt")
	s.pdf.SetLineJoinStyle("miter")
}

// label writes a text of a drawing, where it may lie over a line with a halo under the letters.
func (s *sheet) label(shape *vector.Shape, x, y, k float64) {
	if !shape.Fill.On {
		return
	}
	l := letters{face: shape.Face, bold: shape.Weight >= 700 || shape.Face == "label" && shape.Weight >= 600,
		size: shape.Size * k / mmPerPoint, ink: shape.Fill.Color}
	at := x + shape.At.X*k
	wide := s.width(l, shape.Text)
	switch shape.Anchor {
	case "middle":
		at -= wide / 2
	case "end":
		at -= wide
	}
	w := word{letters: l, pieces: pieces(cut(l.face, l.bold), l.bold, shape.Text)}
	if shape.Halo && shape.Stroke.On {
		s.ink(shape.Stroke.Color)
		s.pdf.SetDashPattern(nil, 0)
		s.pdf.SetLineJoinStyle("round")
		s.pdf.SetLineWidth(shape.Width * k)
		s.pdf.SetTextRenderingMode(1) // the outline alone
		s.word(at, y+shape.At.Y*k, w)
		s.pdf.SetTextRenderingMode(0)
	}
	s.word(at, y+shape.At.Y*k, w)
}

// trace moves the PDF's pen along an outline.
func (s *sheet) trace(shape *vector.Shape, x, y, k float64) {
	at := func(p vector.Point) (float64, float64) { return x + p.X*k, y + p.Y*k }
	for _, step := range shape.Outline {
		tx, ty := at(step.To)
		switch step.Op {
		case vector.Move:
			s.pdf.MoveTo(tx, ty)
		case vector.Line:
			s.pdf.LineTo(tx, ty)
		case vector.Curve:
			ax, ay := at(step.First)
			bx, by := at(step.Other)
			s.pdf.CurveBezierCubicTo(ax, ay, bx, by, tx, ty)
		case vector.Close:
			s.pdf.ClosePath()
		}
	}
}

func (s *sheet) outline(shape *vector.Shape, x, y, k float64) {
	how := ""
	if shape.Fill.On {
		if shape.Fill.Pattern != "" {
			s.hatch(shape, x, y, k)
		} else {
			s.pdf.SetFillColor(int(shape.Fill.R), int(shape.Fill.G), int(shape.Fill.B))
			how = "F"
		}
	}
	if shape.Stroke.On && shape.Width > 0 {
		s.ink(shape.Stroke.Color)
		s.pdf.SetLineWidth(shape.Width * k)
		dash := make([]float64, len(shape.Dash))
		for i, v := range shape.Dash {
			dash[i] = v * k
		}
		s.pdf.SetDashPattern(dash, 0)
		ends, corners := "butt", "miter"
		if shape.Round {
			ends, corners = "round", "round"
		}
		s.pdf.SetLineCapStyle(ends)
		s.pdf.SetLineJoinStyle(corners)
		how += "D"
	}
	if how != "" {
		s.trace(shape, x, y, k)
		s.pdf.DrawPath(how)
	}
}

// hatchings by the name of their pattern: distance of the lines in units of the drawing, their
// slope, thickness and colour.
var hatchings = map[string]struct {
	apart, slope, thick float64
	ink                 string
}{"hatch": {6, -1, 1.1, "ink2"}, "hatch2": {6, 1, 1.1, "ink2"}, "soft": {4, -1, 0.8, "line"}}

// hatch fills an outline with a pattern: a ground, and lines that its edge cuts off.
func (s *sheet) hatch(shape *vector.Shape, x, y, k float64) {
	h, known := hatchings[shape.Fill.Pattern]
	if !known {
		return
	}
	ground, line := vector.Token("sheet"), vector.Token(h.ink)
	s.pdf.SetFillColor(int(ground.R), int(ground.G), int(ground.B))
	s.trace(shape, x, y, k)
	s.pdf.DrawPath("F")
	low, high := vector.Point{X: math.Inf(1), Y: math.Inf(1)}, vector.Point{X: math.Inf(-1), Y: math.Inf(-1)}
	for _, ring := range vector.Flat(shape.Outline) {
		for _, p := range ring {
			low = vector.Point{X: min(low.X, p.X), Y: min(low.Y, p.Y)}
			high = vector.Point{X: max(high.X, p.X), Y: max(high.Y, p.Y)}
		}
	}
	tall := high.Y - low.Y
	if !(high.X > low.X) || !(tall > 0) {
		return
	}
	s.pdf.RawWriteStr("q\n")
	s.trace(shape, x, y, k)
	s.pdf.RawWriteStr("W n\n")
	s.ink(line)
	s.pdf.SetDashPattern(nil, 0)
	s.pdf.SetLineWidth(h.thick * k)
	step := h.apart * math.Sqrt2
	for at := math.Floor((low.X-tall)/step) * step; at < high.X+tall; at += step {
		from, to := at, at+tall
		if h.slope < 0 {
			from, to = to, from
		}
		s.pdf.Line(x+from*k, y+low.Y*k, x+to*k, y+high.Y*k)
	}
	s.pdf.RawWriteStr("Q\n")
}

// photo puts a photograph down; one that cannot be had is a framed place.
func (s *sheet) photo(shape *vector.Shape, x, y, k float64) {
	x, y = x+shape.At.X*k, y+shape.At.Y*k
	name, drawn := s.load(shape.Picture)
	switch {
	case drawn != "":
		s.drawing(drawn, x, y, shape.W*k, shape.H*k)
		return
	case name == "":
		s.frame(Plain, x, y, shape.W*k, shape.H*k)
		words := run{letters: body(smallSize, false), text: "This picture is kept with the job."}
		s.write(x+2, y+2, s.set(shape.W*k-4, words))
		return
	}
	s.pdf.ImageOptions(name, x, y, shape.W*k, shape.H*k, false, fpdf.ImageOptions{ImageType: "JPEG"}, 0, "")
}

// load gets a photograph once: the name of an image in the PDF, or a drawing.
func (s *sheet) load(address string) (name, drawn string) {
	if had, ok := s.loaded[address]; ok {
		return had[0], had[1]
	}
	if s.doc.Load != nil {
		content, err := s.doc.Load(address)
		switch {
		case err != nil:
		case bytes.Contains(content[:min(len(content), 200)], []byte("<svg")):
			drawn = string(content)
		default:
			name = "photo " + strconv.Itoa(len(s.loaded))
			s.pdf.RegisterImageOptionsReader(name, fpdf.ImageOptions{ImageType: "JPEG"}, bytes.NewReader(content))
			if s.pdf.Err() {
				s.pdf.ClearError()
				name = ""
			}
		}
	}
	s.loaded[address] = [2]string{name, drawn}
	return name, drawn
}
