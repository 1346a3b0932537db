package calc

import (
	"math"

	"corvek/core/field"
	"corvek/core/quantity"
)

// Given are a calculator's inputs as quantities that were read already, for
// those who ask from inside the program.
type Given struct {
	args Args
}

// NewGiven makes an empty set of inputs.
func NewGiven() *Given {
	return &Given{Args{
		text: map[string]string{}, single: map[string]quantity.Quantity{}, list: map[string][]quantity.Quantity{},
		objects: map[string][]map[string]quantity.Quantity{},
	}}
}

// Size gives a single input; one that was never entered is left out.
func (g *Given) Size(name string, q quantity.Quantity) *Given {
	if !q.IsZero() {
		g.args.single[name] = q
	}
	return g
}

// Word gives a text or a choice.
func (g *Given) Word(name, text string) *Given {
	g.args.text[name] = text
	return g
}

// SI gives a single input as a figure in base units.
func (g *Given) SI(name string, v float64, d quantity.Dimension) *Given {
	g.args.single[name] = quantity.Quantity{SI: v, Dim: d}
	return g
}

// Lengths gives a list of lengths in m.
func (g *Given) Lengths(name string, vs []float64) *Given {
	list := make([]quantity.Quantity, len(vs))
	for i, v := range vs {
		list[i] = quantity.Quantity{SI: v, Dim: quantity.Length}
	}
	g.args.list[name] = list
	return g
}

// Object adds an object to a list of them.
func (g *Given) Object(name string, parts map[string]quantity.Quantity) *Given {
	g.args.objects[name] = append(g.args.objects[name], parts)
	return g
}

// Ask answers the named calculator for inputs that were read already. Every
// error is a *field.Error.
func Ask(name string, g *Given) (*Output, error) {
	d, err := Find(name)
	if err != nil {
		return nil, err
	}
	for _, in := range d.Inputs {
		if !in.Optional && !g.args.Has(in.Name) {
			return nil, field.Errorf(in.Name, "is missing; give %s", accepts(in))
		}
		if math.IsNaN(g.args.Val(in.Name)) {
			return nil, field.Errorf(in.Name, "cannot be read")
		}
	}
	return d.answer(&g.args)
}
