// Package vector reads the drawings of the pages as plain shapes with their colours and
// strokes, so that a paper can put them down as vectors. The SVG of package draw is the
// one drawing there is; its looks come from the same style sheets that a browser reads.
package vector

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"
)

// Drawing is a drawing in its own units, x to the right and y downwards.
type Drawing struct {
	Width, Height float64
	Shapes        []Shape // the first lies lowest
}

// Shape is an outline, a text or a picture.
type Shape struct {
	Style
	Outline []Step // nil for a text and a picture
	Text    string
	At      Point  // of the text's anchor, or of the picture's upper left corner
	Picture string // address of the picture
	W, H    float64
}

// Bounds of a drawing that is read: ours are far below.
const (
	mostShapes = 20_000
	deepest    = 40
)

// Read takes an SVG of package draw apart. It draws what those drawings are made of: paths,
// rectangles, circles, lines, texts, pictures and groups; anything else is left out.
func Read(svg string) (*Drawing, error) {
	nodes, err := html.ParseFragment(strings.NewReader(svg), &html.Node{Type: html.ElementNode, Data: "body",
		DataAtom: atom.Body})
	if err != nil {
		return nil, err
	}
	for _, n := range nodes {
		if n.Type != html.ElementNode || n.Data != "svg" {
			continue
		}
		d := &Drawing{}
		box := numbers(attribute(n, "viewBox"))
		if len(box) != 4 || box[2] <= 0 || box[3] <= 0 {
			return nil, fmt.Errorf("a drawing has no box: %q", attribute(n, "viewBox"))
		}
		d.Width, d.Height = box[2], box[3]
		return d, d.walk(n, plainStyle(), move(-box[0], -box[1]), 0)
	}
	return nil, fmt.Errorf("no drawing in %d bytes", len(svg))
}

func (d *Drawing) walk(n *html.Node, above Style, at matrix, depth int) error {
	if depth > deepest || len(d.Shapes) > mostShapes {
		return fmt.Errorf("a drawing of more than %d shapes", mostShapes)
	}
	style := styles().of(n, above)
	at = at.times(readTransform(attribute(n, "transform")))
	switch n.Data {
	case "title", "defs", "pattern", "style":
		return nil
	case "svg", "g", "a":
		for c := n.FirstChild; c != nil; c = c.NextSibling {
			if c.Type != html.ElementNode {
				continue
			}
			if err := d.walk(c, style, at, depth+1); err != nil {
				return err
			}
		}
		return nil
	}
	s := Shape{Style: style}
	figure := func(name string) float64 {
		v, err := strconv.ParseFloat(strings.TrimSuffix(attribute(n, name), "px"), 64)
		if err != nil || math.IsNaN(v) || math.IsInf(v, 0) {
			return 0
		}
		return v
	}
	switch n.Data {
	case "rect":
		s.Outline = rectangle(figure("x"), figure("y"), figure("width"), figure("height"), figure("rx"))
	case "circle":
		s.Outline = circle(figure("cx"), figure("cy"), figure("r"))
	case "line":
		s.Outline = []Step{{Op: Move, To: Point{figure("x1"), figure("y1")}},
			{Op: Line, To: Point{figure("x2"), figure("y2")}}}
	case "path":
		outline, err := readPath(attribute(n, "d"))
		if err != nil {
			return err
		}
		s.Outline = outline
	case "text":
		s.Text, s.At = strings.TrimSpace(words(n)), at.apply(Point{figure("x"), figure("y")})
	case "image":
		s.Picture, s.At = attribute(n, "href"), at.apply(Point{figure("x"), figure("y")})
		s.W, s.H = figure("width"), figure("height")
	default:
		return nil
	}
	for i := range s.Outline {
		s.Outline[i] = at.step(s.Outline[i])
	}
	d.Shapes = append(d.Shapes, s)
	return nil
}

func words(n *html.Node) string {
	if n.Type == html.TextNode {
		return n.Data
	}
	var b strings.Builder
	for c := n.FirstChild; c != nil; c = c.NextSibling {
		b.WriteString(words(c))
	}
	return b.String()
}

func attribute(n *html.Node, name string) string {
	for _, a := range n.Attr {
		if a.Key == name {
			return a.Val
		}
	}
	return ""
}

// numbers reads figures that stand apart by spaces or commas.
func numbers(s string) (out []float64) {
	for _, word := range strings.FieldsFunc(s, func(r rune) bool { return r == ' ' || r == ',' }) {
		v, err := strconv.ParseFloat(strings.TrimSuffix(word, "px"), 64)
		if err != nil || math.IsNaN(v) || math.IsInf(v, 0) {
			return nil
		}
		out = append(out, v)
	}
	return out
}
