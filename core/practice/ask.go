package practice

import (
	"math"
	"strconv"

	"corvek/core/field"
	"corvek/core/quantity"
)

// Ask is one thing that is asked for: a figure in a unit, or one of several answers.
type Ask struct {
	Name    string
	Unit    string // "" of a bare number
	Want    float64
	Step    float64 // the finest that is told
	Within  float64 // how far an answer may be off and is as good as can be told
	Options []Option

	slips []slip
}

// Option is an answer that is offered.
type Option struct {
	Words string
	Right bool
	Says  string // why, or why not
}

// slip is what an answer would be with one slip of the eye or the head.
type slip struct {
	value float64
	says  string
}

// Verdict is what is said of one answer.
type Verdict struct {
	Right bool
	Exact bool // on the very line
	Says  string
	Want  string
	Given string
}

// judge holds answers against what is asked. What cannot be read gives a *field.Error at the number of the ask.
func judge(asks []Ask, answers []string) (out []Verdict, err error) {
	for i := range asks {
		text := ""
		if i < len(answers) {
			text = answers[i]
		}
		v, err := asks[i].judge(text)
		if err != nil {
			return nil, field.Errorf("answer"+strconv.Itoa(i), "%s", err)
		}
		out = append(out, v)
	}
	return out, nil
}

func (a *Ask) judge(text string) (Verdict, error) {
	if len(a.Options) > 0 {
		return a.chosen(text)
	}
	value, err := a.parse(text)
	if err != nil {
		return Verdict{}, err
	}
	v := a.verdict(value)
	v.Given = text
	return v, nil
}

func (a *Ask) chosen(text string) (v Verdict, err error) {
	n, err := strconv.Atoi(text)
	if err != nil || n < 0 || n >= len(a.Options) {
		return v, field.Errorf("answer", "is none of the answers")
	}
	o := a.Options[n]
	v = Verdict{Right: o.Right, Exact: o.Right, Says: o.Says, Given: o.Words}
	for _, other := range a.Options {
		if other.Right {
			v.Want = other.Words
			if !o.Right {
				v.Says += " " + other.Says
			}
		}
	}
	return v, nil
}

// dims are the dimensions of the units that figures are asked in.
var dims = map[string]quantity.Dimension{
	"mm": quantity.Length, "in": quantity.Length, "bar": quantity.Pressure, "psi": quantity.Pressure,
	"L/min": quantity.Flow, "gpm": quantity.Flow, "N·m": quantity.Torque, "lbf·ft": quantity.Torque,
	"": quantity.Number,
}

// parse reads a figure in the unit that is asked for, or in another of its kind.
func (a *Ask) parse(text string) (float64, error) {
	q, err := quantity.ParseDefault(text, dims[a.Unit], a.Unit)
	if err != nil {
		return 0, err
	}
	one, err := quantity.ParseDefault("1", dims[a.Unit], a.Unit)
	if err != nil {
		return 0, err
	}
	return q.SI / one.SI, nil
}

func (a *Ask) verdict(value float64) Verdict {
	v := Verdict{Want: shown(a.Want, a.Step, a.Unit)}
	off := math.Abs(value - a.Want)
	if off <= a.Within*(1+1e-6) {
		v.Right, v.Exact = true, off < a.Step/4
		if !v.Exact {
			v.Says = "As near as can be told."
		}
		return v
	}
	for _, s := range a.slips {
		if math.Abs(value-s.value) <= a.Within*(1+1e-6) && math.Abs(s.value-a.Want) > a.Within {
			v.Says = s.says
			return v
		}
	}
	for _, shift := range []float64{10, 0.1, 100, 0.01} {
		if math.Abs(value/shift-a.Want) <= a.Within*(1+1e-6) {
			v.Says = "The figures are right, the decimal point is not."
			return v
		}
	}
	v.Says = "Once more, from the coarse to the fine."
	return v
}

// shown writes a figure as finely as its step.
func shown(value, step float64, unit string) string {
	places := 0
	for s := step; places < 5 && math.Abs(s-math.Round(s)) > 1e-6; s *= 10 {
		places++
	}
	text := strconv.FormatFloat(value, 'f', places, 64)
	if unit != "" {
		text += " " + unit
	}
	return text
}
