package calc

import (
	"bytes"
	"corvek/core/quantity"
	"encoding/json"
	"fmt"
)

// Figure is a number with its unit.
type Figure struct {
	Value float64 `json:"value"`
	Unit  string  `json:"unit"`
}

// figureDims are the dimensions of results, by their unit.
var figureDims = map[string]quantity.Dimension{
	"m": quantity.Length, "m2": quantity.Area, "m3": quantity.Volume, "Pa": quantity.Pressure, "N": quantity.Force,
	"N·m": quantity.Torque, "m3/s": quantity.Flow, "W": quantity.Power, "N/m": quantity.SpringRate,
	"m/s": quantity.Speed, "m2/s": quantity.KinematicViscosity, "Pa·s": quantity.DynamicViscosity,
	"degC": quantity.Temperature, "m3/rev": quantity.Displacement,
}

// Dim is what a figure measures; ok is false where no workshop has a unit for it.
func (f Figure) Dim() (d quantity.Dimension, ok bool) {
	d, ok = figureDims[f.Unit]
	return d, ok
}

// String writes a figure as a metric workshop would.
func (f Figure) String() string {
	if d, ok := f.Dim(); ok {
		return quantity.Show(f.Value, d, quantity.Metric)
	}
	if f.Unit == "" {
		return quantity.Figures(f.Value, 4)
	}
	return quantity.Figures(f.Value, 4) + " " + f.Unit
}

// Entry is one named result: a Figure, a string, a bool, or a list of those.
type Entry struct {
	Name  string
	Value any
}

// Warning is something the reader must know beside the figures.
type Warning struct {
	Code string `json:"code"`
	Text string `json:"text"`
}

// Output is what a calculator answers: results in order, the working, warnings.
type Output struct {
	Name     string
	Results  []Entry
	Steps    []string
	Warnings []Warning
}

// Fig adds a number in its unit.
func (o *Output) Fig(name string, v float64, unit string) {
	o.Results = append(o.Results, Entry{name, Figure{v, unit}})
}

// Word adds a verdict, code or other word.
func (o *Output) Word(name, v string) { o.Results = append(o.Results, Entry{name, v}) }

// Bool adds a yes or no.
func (o *Output) Bool(name string, v bool) { o.Results = append(o.Results, Entry{name, v}) }

// List adds a list of numbers in one unit.
func (o *Output) List(name string, vs []float64, unit string) {
	figs := make([]Figure, len(vs))
	for i, v := range vs {
		figs[i] = Figure{v, unit}
	}
	o.Results = append(o.Results, Entry{name, figs})
}

// Table adds a list of objects of numbers and words.
func (o *Output) Table(name string, rows []map[string]any) {
	o.Results = append(o.Results, Entry{name, rows})
}

// Step adds a line of working.
func (o *Output) Step(format string, args ...any) {
	o.Steps = append(o.Steps, fmt.Sprintf(format, args...))
}

// Warn adds a warning.
func (o *Output) Warn(code, format string, args ...any) {
	o.Warnings = append(o.Warnings, Warning{code, fmt.Sprintf(format, args...)})
}

// Get is the named result, nil when it was left out.
func (o *Output) Get(name string) any {
	for _, e := range o.Results {
		if e.Name == name {
			return e.Value
		}
	}
	return nil
}

// Value is the named number; ok is false when it was left out.
func (o *Output) Value(name string) (v float64, ok bool) {
	f, ok := o.Get(name).(Figure)
	return f.Value, ok
}

func (o *Output) finite() bool {
	for _, e := range o.Results {
		switch v := e.Value.(type) {
		case Figure:
			if !finite(v.Value) {
				return false
			}
		case []Figure:
			for _, f := range v {
				if !finite(f.Value) {
					return false
				}
			}
		}
	}
	return true
}

// MarshalJSON writes the results as one object, in their order.
func (o *Output) MarshalJSON() ([]byte, error) {
	var b bytes.Buffer
	b.WriteString(`{"name":`)
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	if err := enc.Encode(o.Name); err != nil {
		return nil, err
	}
	b.WriteString(`,"results":{`)
	for i, e := range o.Results {
		if i > 0 {
			b.WriteByte(',')
		}
		fmt.Fprintf(&b, "%q:", e.Name)
		if err := enc.Encode(e.Value); err != nil {
			return nil, err
		}
	}
	b.WriteString(`},"steps":`)
	steps, warnings := o.Steps, o.Warnings
	if steps == nil {
		steps = []string{}
	}
	if warnings == nil {
		warnings = []Warning{}
	}
	if err := enc.Encode(steps); err != nil {
		return nil, err
	}
	b.WriteString(`,"warnings":`)
	if err := enc.Encode(warnings); err != nil {
		return nil, err
	}
	b.WriteByte('}')
	return b.Bytes(), nil
}
