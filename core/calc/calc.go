// Package calc is the registry that names every calculator once. The pages,
// the HTTP interface and the command line all run the same entries.
//
// A calculator is a Def: its inputs with their dimensions, its results with
// their units, and one function from read inputs to figures, working and
// warnings. Reading and refusing input is done here, from the declarations.
package calc

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"strings"

	"corvek/core/field"
	"corvek/core/quantity"
)

// Kind is the shape of an input.
type Kind uint8

// The shapes an input can have.
const (
	Single  Kind = iota // one quantity
	List                // a list of quantities
	Grid                // rows of quantities
	Text                // free text
	Choice              // one of Choices
	Objects             // a list of objects with the Parts as fields
	Figures             // an object of the calculator's own result names to quantities
)

// Input declares one input.
type Input struct {
	Name     string
	Kind     Kind
	Dim      quantity.Dimension
	AnyDim   bool     // any one dimension, the same throughout
	Spread   bool     // with AnyDim: a width about a value, so a temperature is a difference
	Bare     string   // unit a bare number is taken in
	Optional bool     // may be absent
	Default  string   // what is taken when absent, for the reader
	Signed   bool     // may be below zero
	Max      float64  // largest accepted, base unit; 0 means no bound
	Choices  []string // for Choice
	Parts    []Input  // for Objects
	Help     string
}

// Result declares one result.
type Result struct {
	Name, Unit, Help string
}

// Def is one calculator.
type Def struct {
	Name        string
	Title       string   // what it is called on its shelf; the name in words where it is left out
	Asked       []string // the results it is opened for, the most wanted first
	Subject     string   // one of Subjects
	Summary     string
	Inputs      []Input
	Results     []Result
	Formula     string
	Source      string
	Assumptions string
	Example     string // a JSON input that works
	Run         func(*Args, *Output) error
}

// Subjects are the shelves of the calculators in the order of the work.
var Subjects = []string{
	"Measuring and judging",
	"Leakage",
	"Seals",
	"Springs, fasteners",
	"Pumps, motors, heat",
	"Geometry and force",
	"Fluid",
	"Tests",
	"Deciding and planning",
	"Mechanical helpers",
}

var registry = map[string]*Def{}

func register(defs ...*Def) {
	for _, d := range defs {
		if registry[d.Name] != nil {
			panic("calc: " + d.Name + " registered twice")
		}
		if !slices.Contains(Subjects, d.Subject) {
			panic("calc: " + d.Name + " is of no known subject")
		}
		if d.Title == "" {
			d.Title = strings.ToUpper(d.Name[:1]) + strings.ReplaceAll(d.Name[1:], "_", " ")
		}
		registry[d.Name] = d
	}
}

// All lists the calculators by name.
func All() []*Def {
	out := make([]*Def, 0, len(registry))
	for _, d := range registry {
		out = append(out, d)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}

// Find gives the calculator of that name.
func Find(name string) (*Def, error) {
	if d := registry[name]; d != nil {
		return d, nil
	}
	return nil, field.Errorf("name", "there is no calculator called %q; corvek calc lists them", name)
}

// Run answers the named calculator for a JSON object of inputs. Every error is
// a *field.Error.
func Run(name string, body []byte) (*Output, error) {
	_, out, err := Answer(name, body)
	return out, err
}

// MostInput is the largest object of inputs that is read, in bytes.
const MostInput = 256 << 10

// Answer is Run that also gives the inputs as read, for those who draw them.
func Answer(name string, body []byte) (*Args, *Output, error) {
	d, err := Find(name)
	if err != nil {
		return nil, nil, err
	}
	if len(body) > MostInput {
		return nil, nil, field.Errorf("", "the input is larger than %d kB", MostInput>>10)
	}
	args, err := d.read(body)
	if err != nil {
		return nil, nil, err
	}
	out, err := d.answer(args)
	return args, out, err
}

func (d *Def) answer(args *Args) (*Output, error) {
	out := &Output{Name: d.Name}
	if err := d.Run(args, out); err != nil {
		return nil, err
	}
	if out.finite() {
		return out, nil
	}
	// Zero is fine until it makes a result endless; then it is the zero that is wrong.
	for i := len(d.Inputs) - 1; i >= 0; i-- {
		in := d.Inputs[i]
		if in.Kind == Single && args.Has(in.Name) && args.Val(in.Name) == 0 {
			return nil, field.Errorf(in.Name, "must be more than zero here")
		}
	}
	return nil, field.Errorf(d.Inputs[0].Name, "these figures give no finite result; check the sizes and units")
}

func finite(v float64) bool { return !math.IsNaN(v) && !math.IsInf(v, 0) }

func describe(in Input) string {
	switch in.Kind {
	case Text:
		return "text"
	case Choice:
		return fmt.Sprintf("one of %v", in.Choices)
	case Objects:
		return "a list of objects"
	case Figures:
		return "an object of result names and figures"
	}
	what := in.Dim.String()
	if in.AnyDim {
		what = "any quantity, all of one kind"
	}
	switch in.Kind {
	case List:
		return "a list, each " + what
	case Grid:
		return "rows (depths) of columns (axes), each " + what
	}
	return what
}

// Describe says what an input takes, for help pages.
func (in Input) Describe() string { return describe(in) }
