package family

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/quantity"
)

// StackDef is a pack whose order, facing and number matter: shims, valve discs,
// friction and separator plates, dished springs. A stack is written as text,
// piece by piece from the end that comes off first: the code of the piece, with
// > or < where it has a facing, and =thickness where that was measured.
type StackDef struct {
	Pieces    []StackPiece `yaml:"pieces"`
	As        string       `yaml:"as"`        // the right stack, where the family knows one
	Installed string       `yaml:"installed"` // height it works at; of a model's sheet alone, like the rest
	Needed    string       `yaml:"needed"`    // force it must deliver there
	Spring    *DiscSize    `yaml:"spring"`    // size of the dished springs in it
	Friction  *FrictionDef `yaml:"friction"`
}

// StackPiece is a kind of piece in a stack.
type StackPiece struct {
	Code      string `yaml:"code"`
	Name      string `yaml:"name"`
	Kind      string `yaml:"kind"` // disc, shim, friction, separator, plate
	Faced     bool   `yaml:"faced"`
	Thickness string `yaml:"thickness"`
}

// DiscSize is a dished spring.
type DiscSize struct {
	Outside   string `yaml:"outside"`
	Inside    string `yaml:"inside"`
	Thickness string `yaml:"thickness"`
	Cone      string `yaml:"cone"`
}

// FrictionDef tells what a plate pack needs to carry torque.
type FrictionDef struct {
	PressedBy string `yaml:"pressed_by"` // part whose spring stack clamps the pack
	Outer     string `yaml:"outer"`      // of the rubbing face, part.feature
	Inner     string `yaml:"inner"`
}

// Presses reports that there are dished springs in the stack.
func (d *StackDef) Presses() bool {
	return d != nil && slices.ContainsFunc(d.Pieces, func(p StackPiece) bool { return p.Kind == "disc" })
}

// Piece is one piece of a stack as it lay.
type Piece struct {
	Def       *StackPiece
	Facing    byte    // '>' or '<'; 0 where it has none or it was not noted
	Thickness float64 // m; 0 where not known
}

// Text writes the piece as a stack's text has it.
func (p Piece) Text() string {
	s := p.Def.Code
	if p.Facing != 0 {
		s += string(p.Facing)
	}
	if p.Thickness > 0 && p.Def.Thickness == "" {
		s += "=" + strings.ReplaceAll(quantity.Show(p.Thickness, quantity.Length, quantity.Metric), " ", "")
	}
	return s
}

// StackText writes pieces as they lie.
func StackText(pieces []Piece) string {
	words := make([]string, len(pieces))
	for i, p := range pieces {
		words[i] = p.Text()
	}
	return strings.Join(words, " ")
}

// mostPieces keeps a stack to what a bench can hold.
const mostPieces = 400

// Read reads a stack's text. Errors name the place.
func (d *StackDef) Read(text string) ([]Piece, error) {
	words := strings.Fields(text)
	if len(words) > mostPieces {
		return nil, fmt.Errorf("has more than %d pieces", mostPieces)
	}
	out := make([]Piece, 0, len(words))
	for i, w := range words {
		name, thick, measured := strings.Cut(w, "=")
		code := strings.TrimRight(name, "<>")
		k := slices.IndexFunc(d.Pieces, func(p StackPiece) bool { return p.Code == code })
		if k < 0 {
			return nil, fmt.Errorf("piece %d: %q is none of %s", i+1, code, strings.Join(d.codes(), ", "))
		}
		p := Piece{Def: &d.Pieces[k]}
		if facing := name[len(code):]; facing != "" {
			if len(facing) > 1 || !p.Def.Faced {
				return nil, fmt.Errorf("piece %d: %q has no such facing", i+1, w)
			}
			p.Facing = facing[0]
		}
		p.Thickness = lengthOf(p.Def.Thickness)
		if measured {
			q, err := quantity.Parse(thick, quantity.Length)
			if err != nil || q.SI <= 0 {
				return nil, fmt.Errorf("piece %d: %q is no thickness", i+1, thick)
			}
			p.Thickness = q.SI
		}
		out = append(out, p)
	}
	return out, nil
}

func (d *StackDef) codes() []string {
	var out []string
	for _, p := range d.Pieces {
		out = append(out, p.Code)
	}
	return out
}

// kinds of pieces that a stack can hold.
var pieceKinds = []string{"disc", "shim", "friction", "separator", "plate"}

func (c *checker) stack(p *Part) {
	d := p.Stack
	if d == nil {
		return
	}
	if len(d.Pieces) == 0 {
		c.fail(p.line, "part %s: a stack needs its pieces", p.Code)
	}
	for _, s := range d.Pieces {
		if s.Code == "" || strings.ContainsAny(s.Code, "<>= ") || s.Name == "" {
			c.fail(p.line, "part %s: a piece of the stack needs a code without < > = and a name", p.Code)
		}
		if !slices.Contains(pieceKinds, s.Kind) {
			c.fail(p.line, "part %s: piece %s: kind is one of %s", p.Code, s.Code, strings.Join(pieceKinds, ", "))
		}
		c.quantity(p.line, "thickness of "+s.Code, s.Thickness, quantity.Length)
	}
	if _, err := d.Read(d.As); err != nil {
		c.fail(p.line, "part %s: stack %s", p.Code, err)
	}
	c.quantity(p.line, "installed", d.Installed, quantity.Length)
	c.quantity(p.line, "needed", d.Needed, quantity.Force)
	if s := d.Spring; s != nil {
		for what, text := range map[string]string{"outside": s.Outside, "inside": s.Inside,
			"thickness": s.Thickness, "cone": s.Cone} {
			if text == "" {
				c.fail(p.line, "part %s: spring needs its %s", p.Code, what)
			}
			c.quantity(p.line, "spring "+what, text, quantity.Length)
		}
		if lengthOf(s.Inside) >= lengthOf(s.Outside) {
			c.fail(p.line, "part %s: spring inside is not smaller than outside", p.Code)
		}
	}
	if f := d.Friction; f != nil {
		c.goesBy(p.line, "part "+p.Code+": friction", f.Outer, f.Inner)
		if !slices.ContainsFunc(c.f.Parts, func(by Part) bool {
			return by.Code == f.PressedBy && by.Stack.Presses()
		}) {
			c.fail(p.line, "part %s: pressed_by %q is not a part with a spring stack", p.Code, f.PressedBy)
		}
	}
}

// identity checks gauge questions, marks and variant rules.
func (c *checker) identity() {
	f := c.f
	for _, code := range f.Gauge {
		if _, ok := QuestionByCode(code); !ok {
			c.fail(c.at["gauge"], "gauge question %q is not known", code)
		}
	}
	seen := map[string]bool{}
	for _, v := range f.VariantRules {
		if v.Code == "" || v.Name == "" || seen[v.Code] {
			c.fail(v.line, "a variant needs a code of its own and a name")
		}
		seen[v.Code] = true
		if _, ok := f.markByCode(v.Mark); v.Mark != "" && !ok {
			c.fail(v.line, "variant %s: mark %q is not one of the family's marks", v.Code, v.Mark)
		}
		if v.SerialTo > 0 && v.SerialFrom > v.SerialTo {
			c.fail(v.line, "variant %s: the serial range runs backwards", v.Code)
		}
		if len(v.Suffix) == 0 && v.SerialFrom == 0 && v.SerialTo == 0 && v.Mark == "" && v.Measured == nil {
			c.fail(v.line, "variant %s: nothing tells it: give suffix, serial_from, serial_to, mark or measured",
				v.Code)
		}
		if m := v.Measured; m != nil {
			part, feature := CutFeature(m.Feature)
			p, ok := f.PartByCode(part)
			if ok {
				_, ok = p.FeatureByCode(feature)
			}
			if !ok {
				c.fail(v.line, "variant %s: there is no feature %q", v.Code, m.Feature)
			}
			c.quantity(v.line, "low", m.Low, quantity.Length)
			c.quantity(v.line, "high", m.High, quantity.Length)
			if !v.Own {
				c.fail(
					v.line,
					"variant %s: measured is a size, and a family has none: it belongs on the sheet of a model",
					v.Code,
				)
			}
		}
	}
}
