package vector

import (
	"bytes"
	"cmp"
	"io"
	"slices"
	"strconv"
	"strings"
	"sync"

	"corvek/internal/draw"

	"github.com/andybalholm/cascadia"
	"github.com/tdewolff/parse/v2"
	"github.com/tdewolff/parse/v2/css"
	"golang.org/x/net/html"
)

// Color is red, green and blue.
type Color struct{ R, G, B uint8 }

// Paint is what an outline is filled or stroked with.
type Paint struct {
	On bool
	Color
	Pattern string // hatch, hatch2, soft: lines over the ground
}

// Style is how a shape looks.
type Style struct {
	Fill, Stroke Paint
	Width        float64 // of the stroke
	Dash         []float64
	Round        bool // ends and corners of the stroke
	Opacity      float64
	Face         string  // heading, label or text
	Weight       int     // 400 to 700
	Size         float64 // of letters
	Anchor       string  // start, middle or end
	Halo         bool    // the stroke lies under the letters
}

func plainStyle() Style {
	return Style{Fill: Paint{On: true}, Width: 1, Opacity: 1, Face: "text", Weight: 400, Size: 16, Anchor: "start"}
}

// rule is a selector with what it says.
type rule struct {
	sel  cascadia.Sel
	says [][2]string
}

type styleSheet struct {
	tokens map[string]string
	rules  []rule // weakest first
}

// styles are the sheets that the drawings take their looks from, read once.
var styles = sync.OnceValue(func() *styleSheet {
	s := &styleSheet{tokens: map[string]string{}}
	s.read([]byte(draw.Tokens))
	s.read([]byte(draw.Styles))
	slices.SortStableFunc(s.rules, func(a, b rule) int {
		for i, v := range a.sel.Specificity() {
			if c := cmp.Compare(v, b.sel.Specificity()[i]); c != 0 {
				return c
			}
		}
		return 0
	})
	return s
})

func (s *styleSheet) read(content []byte) {
	p := css.NewParser(parse.NewInput(bytes.NewReader(content)), false)
	var selectors []string
	var says [][2]string
	for {
		kind, _, data := p.Next()
		if kind == css.ErrorGrammar {
			if p.Err() == io.EOF {
				return
			}
			continue
		}
		value := joined(p.Values())
		switch kind {
		case css.BeginRulesetGrammar:
			selectors, says = strings.Split(value, ","), nil
		case css.CustomPropertyGrammar:
			if len(selectors) == 1 && selectors[0] == ":root" {
				s.tokens[string(data)] = light(strings.TrimSpace(value))
			}
		case css.DeclarationGrammar:
			says = append(says, [2]string{string(data), value})
		case css.EndRulesetGrammar:
			for _, text := range selectors {
				// What a pointer or the keyboard does is no matter of paper.
				if sel, err := cascadia.Parse(strings.TrimSpace(text)); err == nil {
					s.rules = append(s.rules, rule{sel, says})
				}
			}
		}
	}
}

func joined(tokens []css.Token) string {
	var b strings.Builder
	for _, t := range tokens {
		b.Write(t.Data)
	}
	return b.String()
}

// light takes the first of two colours: paper is light.
func light(value string) string {
	inside, ok := strings.CutPrefix(value, "light-dark(")
	if !ok {
		return value
	}
	first, _, _ := strings.Cut(inside, ",")
	return strings.TrimSpace(first)
}

// of gives the style of an element under one: what it inherits, then its own attributes, then
// the rules, the strongest last.
func (s *styleSheet) of(n *html.Node, above Style) Style {
	out := above
	own := 1.0
	say := func(name, value string) {
		if name == "opacity" {
			own, _ = strconv.ParseFloat(value, 64)
			return
		}
		s.apply(&out, name, s.worth(value))
	}
	for _, a := range n.Attr {
		say(a.Key, a.Val)
	}
	for _, r := range s.rules {
		if r.sel.Match(n) {
			for _, d := range r.says {
				say(d[0], d[1])
			}
		}
	}
	out.Opacity = above.Opacity * own
	return out
}

// worth puts tokens in place of their names.
func (s *styleSheet) worth(value string) string {
	for {
		before, rest, ok := strings.Cut(value, "var(")
		if !ok {
			return value
		}
		name, after, _ := strings.Cut(rest, ")")
		value = before + s.tokens[strings.TrimSpace(name)] + after
	}
}

func (s *styleSheet) apply(out *Style, name, value string) {
	switch name {
	case "fill":
		out.Fill = s.paint(value)
	case "stroke":
		out.Stroke = s.paint(value)
	case "stroke-width":
		if v := numbers(value); len(v) == 1 {
			out.Width = v[0]
		}
	case "stroke-dasharray":
		out.Dash = numbers(value)
	case "stroke-linecap", "stroke-linejoin":
		out.Round = out.Round || value == "round"
	case "text-anchor":
		out.Anchor = value
	case "paint-order":
		out.Halo = strings.HasPrefix(value, "stroke")
	case "font":
		out.font(value)
	case "font-family":
		out.Face = faceOf(value)
	case "font-size":
		if v := numbers(value); len(v) == 1 {
			out.Size = v[0]
		}
	case "font-weight":
		out.Weight, _ = strconv.Atoi(value)
	}
}

// font reads the short form: weight, size, face.
func (out *Style) font(value string) {
	words := strings.SplitN(value, " ", 3)
	if len(words) < 3 {
		return
	}
	out.Weight, _ = strconv.Atoi(words[0])
	size, _, _ := strings.Cut(words[1], "/")
	if v := numbers(size); len(v) == 1 {
		out.Size = v[0]
	}
	out.Face = faceOf(words[2])
}

func faceOf(family string) string {
	switch {
	case strings.Contains(family, "Semi Condensed"):
		return "label"
	case strings.Contains(family, "Condensed"):
		return "heading"
	}
	return "text"
}

func (s *styleSheet) paint(value string) Paint {
	switch {
	case value == "none" || value == "transparent" || value == "":
		return Paint{}
	case strings.HasPrefix(value, "url(#"):
		name, _, _ := strings.Cut(strings.TrimPrefix(value, "url(#"), ")")
		return Paint{On: true, Pattern: name}
	}
	c, ok := hex(value)
	return Paint{On: ok, Color: c}
}

func hex(value string) (Color, bool) {
	digits, ok := strings.CutPrefix(value, "#")
	if !ok || len(digits) != 6 {
		return Color{}, false
	}
	v, err := strconv.ParseUint(digits, 16, 32)
	return Color{uint8(v >> 16), uint8(v >> 8), uint8(v)}, err == nil
}

// Token is a colour of the style sheets by its name, such as petrol.
func Token(name string) Color {
	c, _ := hex(styles().tokens["--"+name])
	return c
}
