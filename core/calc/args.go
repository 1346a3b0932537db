package calc

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"corvek/core/field"
	"corvek/core/quantity"
)

// Args are the inputs of one run, read and checked.
type Args struct {
	single  map[string]quantity.Quantity
	list    map[string][]quantity.Quantity
	grid    map[string][][]quantity.Quantity
	text    map[string]string
	objects map[string][]map[string]quantity.Quantity
	figures map[string]map[string]float64
}

// Has reports whether an optional input was given.
func (a *Args) Has(name string) bool {
	_, s := a.single[name]
	_, l := a.list[name]
	_, g := a.grid[name]
	_, t := a.text[name]
	_, o := a.objects[name]
	_, n := a.figures[name]
	return s || l || g || t || o || n
}

// Val is the base-unit figure of a quantity, 0 when absent.
func (a *Args) Val(name string) float64 { return a.single[name].SI }

// Or is Val with a figure for an absent input.
func (a *Args) Or(name string, absent float64) float64 {
	if q, ok := a.single[name]; ok {
		return q.SI
	}
	return absent
}

// Quantity is the quantity as typed.
func (a *Args) Quantity(name string) quantity.Quantity { return a.single[name] }

// List is the base-unit figures of a list.
func (a *Args) List(name string) []float64 { return figures(a.list[name]) }

// Grid is the base-unit figures of a grid.
func (a *Args) Grid(name string) [][]float64 {
	out := make([][]float64, len(a.grid[name]))
	for i, row := range a.grid[name] {
		out[i] = figures(row)
	}
	return out
}

// Text is a text or choice, "" when absent.
func (a *Args) Text(name string) string { return a.text[name] }

// Objects is a list of objects of quantities.
func (a *Args) Objects(name string) []map[string]quantity.Quantity { return a.objects[name] }

func figures(qs []quantity.Quantity) []float64 {
	out := make([]float64, len(qs))
	for i, q := range qs {
		out[i] = q.SI
	}
	return out
}

func (d *Def) read(body []byte) (*Args, error) {
	raw, err := object(body)
	if err != nil {
		return nil, err
	}
	known := map[string]bool{}
	for _, in := range d.Inputs {
		known[in.Name] = true
	}
	var unknown []string
	for k := range raw {
		if !known[k] {
			unknown = append(unknown, k)
		}
	}
	if len(unknown) > 0 {
		slices.Sort(unknown)
		return nil, field.Errorf(unknown[0], "is not an input of %s; it takes %s", d.Name, d.inputNames())
	}
	a := &Args{
		single: map[string]quantity.Quantity{}, list: map[string][]quantity.Quantity{},
		grid: map[string][][]quantity.Quantity{}, text: map[string]string{},
		objects: map[string][]map[string]quantity.Quantity{}, figures: map[string]map[string]float64{},
	}
	var one *quantity.Dimension // the dimension shared by AnyDim inputs
	for _, in := range d.Inputs {
		msg, given := raw[in.Name]
		if !given || string(msg) == "null" {
			if !in.Optional {
				return nil, field.Errorf(in.Name, "is missing; give %s", accepts(in))
			}
			continue
		}
		if in.Kind == Figures {
			if err := a.readFigures(d, in, msg); err != nil {
				return nil, err
			}
			continue
		}
		if err := a.readOne(in, in.Name, msg, &one); err != nil {
			return nil, err
		}
	}
	return a, nil
}

// object decodes a JSON object and nothing after it.
func object(body []byte) (map[string]json.RawMessage, error) {
	raw := map[string]json.RawMessage{}
	if err := field.DecodeJSON(body, &raw, false); err != nil {
		return nil, field.Errorf("", "this is not a JSON object of inputs: %s", err)
	}
	return raw, nil
}

func (d *Def) inputNames() string {
	names := make([]string, len(d.Inputs))
	for i, in := range d.Inputs {
		names[i] = in.Name
	}
	return strings.Join(names, ", ")
}

func accepts(in Input) string {
	if in.AnyDim || in.Kind == Text || in.Kind == Choice || in.Kind == Objects || in.Kind == Figures {
		return describe(in)
	}
	return describe(in) + " in " + in.Dim.Accepted()
}

func (a *Args) readOne(in Input, name string, msg json.RawMessage, one **quantity.Dimension) error {
	switch in.Kind {
	case Single:
		q, err := readQuantity(in, name, msg, one)
		if err != nil {
			return err
		}
		a.single[in.Name] = q
	case List:
		qs, err := readList(in, name, msg, one)
		if err != nil {
			return err
		}
		a.list[in.Name] = qs
	case Grid:
		return a.readGrid(in, msg, one)
	case Text, Choice:
		return a.readText(in, msg)
	case Objects:
		return a.readObjects(in, msg)
	}
	return nil
}

// Most that is taken of a list, of the rows of a grid, and of a text: far more than
// a bench has, and little enough that no calculator is kept long by it.
const (
	MostEntries = 500
	MostRows    = 100
	MostText    = 2000
)

// within refuses a list that is longer than anything is made of.
func within(name string, n, most int) error {
	if n > most {
		return field.Errorf(name, "has %d entries; at most %d are taken", n, most)
	}
	return nil
}

// readFigures reads quoted figures; each is a quantity of its result's kind.
func (a *Args) readFigures(d *Def, in Input, msg json.RawMessage) error {
	var items map[string]json.RawMessage
	if err := json.Unmarshal(msg, &items); err != nil {
		return field.Errorf(in.Name, "is an object of result names and figures")
	}
	a.figures[in.Name] = map[string]float64{}
	keys := make([]string, 0, len(items))
	for k := range items {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	for _, k := range keys {
		at := slices.IndexFunc(d.Results, func(r Result) bool { return r.Name == k && r.Name != in.Name })
		if at < 0 {
			return field.Errorf(in.Name+"."+k, "is not a result of %s", d.Name)
		}
		q, err := readQuantity(Input{Dim: dimensionOfResult[d.Results[at].Unit]}, in.Name+"."+k, items[k], nil)
		if err != nil {
			return err
		}
		a.figures[in.Name][k] = q.SI
	}
	return nil
}

var dimensionOfResult = map[string]quantity.Dimension{
	"":     quantity.Number,
	"m":    quantity.Length,
	"m2":   quantity.Area,
	"m3":   quantity.Volume,
	"Pa":   quantity.Pressure,
	"N":    quantity.Force,
	"m3/s": quantity.Flow,
	"s":    quantity.Time,
}

func (a *Args) readGrid(in Input, msg json.RawMessage, one **quantity.Dimension) error {
	var rows []json.RawMessage
	if err := json.Unmarshal(msg, &rows); err != nil {
		return field.Errorf(in.Name, "is a list of rows, each a list of readings")
	}
	if err := within(in.Name, len(rows), MostRows); err != nil {
		return err
	}
	for i, row := range rows {
		rowName := fmt.Sprintf("%s[%d]", in.Name, i)
		qs, err := readList(in, rowName, row, one)
		if err != nil {
			return err
		}
		if len(qs) == 0 {
			return field.Errorf(rowName, "has no readings")
		}
		if i > 0 && len(qs) != len(a.grid[in.Name][0]) {
			return field.Errorf(rowName, "has %d readings where the first row has %d", len(qs), len(a.grid[in.Name][0]))
		}
		a.grid[in.Name] = append(a.grid[in.Name], qs)
	}
	if len(rows) == 0 {
		return field.Errorf(in.Name, "has no readings")
	}
	return nil
}

func (a *Args) readText(in Input, msg json.RawMessage) error {
	var s string
	if err := json.Unmarshal(msg, &s); err != nil {
		return field.Errorf(in.Name, "is text in quotes: %s", describe(in))
	}
	s = strings.TrimSpace(s)
	if len(s) > MostText {
		return field.Errorf(in.Name, "is longer than %d characters", MostText)
	}
	if in.Kind == Choice && !slices.Contains(in.Choices, s) {
		return field.Errorf(in.Name, "%q is not offered; use %s", s, strings.Join(in.Choices, " or "))
	}
	if s == "" {
		return field.Errorf(in.Name, "is empty; give %s", describe(in))
	}
	a.text[in.Name] = s
	return nil
}

func (a *Args) readObjects(in Input, msg json.RawMessage) error {
	var items []map[string]json.RawMessage
	if err := json.Unmarshal(msg, &items); err != nil {
		return field.Errorf(in.Name, "is a list of objects with %s", partNames(in))
	}
	if err := within(in.Name, len(items), MostEntries); err != nil {
		return err
	}
	a.objects[in.Name] = []map[string]quantity.Quantity{}
	for i, item := range items {
		obj := map[string]quantity.Quantity{}
		for k := range item {
			if !slices.ContainsFunc(in.Parts, func(p Input) bool { return p.Name == k }) {
				return field.Errorf(fmt.Sprintf("%s[%d].%s", in.Name, i, k), "is not known here; use %s", partNames(in))
			}
		}
		for _, p := range in.Parts {
			name := fmt.Sprintf("%s[%d].%s", in.Name, i, p.Name)
			m, ok := item[p.Name]
			if !ok {
				if p.Optional {
					continue
				}
				return field.Errorf(name, "is missing; give %s", accepts(p))
			}
			q, err := readQuantity(p, name, m, nil)
			if err != nil {
				return err
			}
			obj[p.Name] = q
		}
		a.objects[in.Name] = append(a.objects[in.Name], obj)
	}
	return nil
}

func partNames(in Input) string {
	names := make([]string, len(in.Parts))
	for i, p := range in.Parts {
		names[i] = p.Name
	}
	return strings.Join(names, ", ")
}

func readList(in Input, name string, msg json.RawMessage, one **quantity.Dimension) ([]quantity.Quantity, error) {
	var items []json.RawMessage
	if err := json.Unmarshal(msg, &items); err != nil {
		return nil, field.Errorf(name, "is a list, like [\"3 thou\", \"5 thou\"]")
	}
	if err := within(name, len(items), MostEntries); err != nil {
		return nil, err
	}
	out := make([]quantity.Quantity, len(items))
	for i, m := range items {
		q, err := readQuantity(in, fmt.Sprintf("%s[%d]", name, i), m, one)
		if err != nil {
			return nil, err
		}
		out[i] = q
	}
	return out, nil
}

func readQuantity(in Input, name string, msg json.RawMessage, one **quantity.Dimension) (quantity.Quantity, error) {
	text := string(msg)
	if text != "" && text[0] == '"' {
		var s string
		if err := json.Unmarshal(msg, &s); err != nil {
			return quantity.Quantity{}, field.Errorf(name, "is not readable text")
		}
		text = s
	} else if text == "" || !strings.ContainsRune("-0123456789", rune(text[0])) {
		return quantity.Quantity{}, field.Errorf(name, "is %s written as \"number unit\"",
			describe(Input{Dim: in.Dim, AnyDim: in.AnyDim}))
	}
	var q quantity.Quantity
	var err error
	if in.AnyDim {
		q, err = anyQuantity(text, one, in.Spread)
	} else {
		q, err = quantity.ParseDefault(text, in.Dim, in.Bare)
	}
	if err != nil {
		return q, field.Errorf(name, "%s", err)
	}
	if q.SI < 0 && !in.Signed && q.Dim != quantity.Temperature {
		return q, field.Errorf(name, "cannot be below zero")
	}
	if in.Max > 0 && q.SI > in.Max*(1+1e-12) {
		return q, field.Errorf(name, "cannot be more than %s", quantity.Figures(in.Max, 3))
	}
	return q, nil
}

// anyQuantity parses in the first dimension that fits, and from then on only in
// that one; a spread about a temperature is a difference of temperatures.
func anyQuantity(text string, one **quantity.Dimension, spread bool) (quantity.Quantity, error) {
	if *one != nil {
		if spread && **one == quantity.Temperature {
			return quantity.Parse(text, quantity.TemperatureDifference)
		}
		return quantity.Parse(text, **one)
	}
	var first error
	for d := quantity.Number; d <= quantity.Slope; d++ {
		q, err := quantity.Parse(text, d)
		if err == nil {
			*one = &d
			return q, nil
		}
		if d == quantity.Length {
			first = err
		}
	}
	return quantity.Quantity{}, first
}
