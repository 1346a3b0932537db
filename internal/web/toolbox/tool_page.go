package toolbox

import (
	"encoding/json"
	"errors"
	"html/template"
	"slices"
	"strings"

	"corvek/core/calc"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/internal/answer"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// ToolPage is a calculator as a page. The inputs stand in its address, so that
// a link carries them.
type ToolPage struct {
	site.Reader
	Def     *calc.Def
	Fields  []ToolField
	Out     *calc.Output
	Results []answer.Row
	Head    answer.Headline
	Drawing template.HTML
	Error   string
	Of      Subject     // what of a job it is opened for
	About   []AboutLink // parts or readings of that unit to choose from
	Taken   bool        // some of it is filled in from the unit
	Jobs    []JobChoice // where the figures can be put
}

// ToolField is an input of the page.
type ToolField struct {
	calc.Input
	Label, Value, Error, Kind, Units, Place string
	Whence                                  string // where the unit has it from, while it stands as there
	Wide                                    bool
}

func (s *Pages) tool(c *echo.Context) error {
	d, err := calc.Find(c.Param("name"))
	if err != nil {
		return echo.ErrNotFound
	}
	v := ToolPage{Reader: s.Reader(c), Def: d, Of: subjectOf(c.QueryParam)}
	known, about, err := s.fillIn(c, d, v.Of)
	if err != nil {
		return err
	}
	v.About = about
	typed := c.QueryParam
	if fresh := !asked(d, c); fresh { // opened, and nothing typed yet: what the unit knows stands there
		typed = func(name string) string { return known[name].Text }
	}
	in, fields := inputsOf(d, typed)
	for i := range fields {
		f := &fields[i]
		if k, there := known[f.Name]; there && k.Text == f.Value {
			f.Whence, v.Taken = k.Whence, true
		}
	}
	v.Fields = fields
	if len(in) > 0 {
		body, err := json.Marshal(in)
		if err != nil {
			return err
		}
		args, out, err := calc.Answer(d.Name, body)
		var fe *field.Error
		switch {
		case errors.As(err, &fe):
			v.place(fe)
		case err != nil:
			return err
		default:
			v.Out = out
			v.Results = answer.Rows(out, v.Units)
			v.Head = answer.Head(out, v.Units)
			v.Drawing = drawn(d.Name, args, out, v.Units)
			if v.CanWork() {
				if v.Jobs, err = s.jobChoices(c, v.Of.Job); err != nil {
					return err
				}
			}
		}
	}
	return s.RenderOK(c, "tool", "Toolbox: "+d.Summary, v)
}

// Back is the page of the job that it was opened from, "" where that is none.
func (v ToolPage) Back() string {
	if strings.HasPrefix(v.Of.Back, "/jobs/"+v.Of.Job+"/") {
		return v.Of.Back
	}
	return ""
}

// asked reports that an input of the calculator stands in the address.
func asked(d *calc.Def, c *echo.Context) bool {
	return slices.ContainsFunc(d.Inputs, func(in calc.Input) bool { return c.QueryParam(in.Name) != "" })
}

// inputsOf reads a calculator's inputs as they were typed on the page.
func inputsOf(d *calc.Def, typed func(string) string) (in map[string]any, fields []ToolField) {
	in = map[string]any{}
	for _, input := range d.Inputs {
		if input.Kind == calc.Objects && input.Parts[0].Name != "thickness" {
			continue // a shelf of seals comes from the stock, not from a line of text
		}
		value := strings.TrimSpace(typed(input.Name))
		fields = append(fields, toolField(input, value))
		if value != "" {
			in[input.Name] = fromText(input, value)
		}
	}
	// Where something was typed, a list left empty is an empty one: no leaf stops.
	for _, input := range d.Inputs {
		if len(in) > 0 && in[input.Name] == nil && input.Kind == calc.List && !input.Optional {
			in[input.Name] = []string{}
		}
	}
	return in, fields
}

// ExampleQuery is the calculator's own example as an address, where its inputs
// are simple enough to stand in one.
func (v ToolPage) ExampleQuery() template.URL {
	var in map[string]any
	if err := json.Unmarshal([]byte(v.Def.Example), &in); err != nil {
		return ""
	}
	q := answer.Query(in)
	if v.Of.Job != "" {
		q.Set("for", v.Of.Job)
	}
	return template.URL(q.Encode()) // encoded above; the template must not encode it again
}

// place puts an error beside the input it belongs to.
func (v *ToolPage) place(fe *field.Error) {
	name, _, _ := strings.Cut(fe.Field, "[")
	for i := range v.Fields {
		if v.Fields[i].Name == name {
			v.Fields[i].Error = fe.Text
			return
		}
	}
	v.Error = fe.Error()
}

func toolField(in calc.Input, value string) ToolField {
	f := ToolField{Input: in, Label: answer.Label(in.Name), Value: value, Kind: "quantity"}
	f.Wide = in.Kind != calc.Single && in.Kind != calc.Choice
	if in.Kind == calc.Text || in.Kind == calc.Objects {
		f.Kind = "text"
	}
	if !in.AnyDim && in.Kind != calc.Text && in.Kind != calc.Choice && in.Kind != calc.Objects {
		f.Units = strings.ReplaceAll(in.Dim.Accepted(), ", ", "|")
		f.Place = in.Dim.Accepted()
		if in.Dim == quantity.Number {
			f.Units, f.Place = "%", ""
		}
	}
	switch in.Kind {
	case calc.List:
		f.Place = "several, with commas: 3 thou, 5 thou"
	case calc.Grid:
		f.Place = "rows with semicolons: a, b; c, d"
	case calc.Objects:
		f.Place = "0.05 mm x2, 0.02 mm x4"
	case calc.Figures:
		f.Kind, f.Units, f.Place = "text", "", "output_pressure = 250 bar"
	}
	return f
}

// fromText turns what was typed on the page into the JSON a calculator takes.
func fromText(in calc.Input, value string) any {
	switch in.Kind {
	case calc.List:
		return commaList(value)
	case calc.Grid:
		var rows [][]string
		for _, row := range strings.Split(value, ";") {
			rows = append(rows, commaList(row))
		}
		return rows
	case calc.Figures:
		out := map[string]string{}
		for _, item := range commaList(value) {
			name, figure, _ := strings.Cut(item, "=")
			out[strings.TrimSpace(name)] = strings.TrimSpace(figure)
		}
		return out
	case calc.Objects:
		var out []map[string]string
		for _, item := range commaList(value) {
			thickness, count, ok := strings.Cut(item, "x")
			o := map[string]string{"thickness": strings.TrimSpace(thickness)}
			if ok {
				o["count"] = strings.TrimSpace(count)
			}
			out = append(out, o)
		}
		return out
	}
	return value
}

func commaList(text string) []string {
	out := []string{}
	for _, s := range strings.Split(text, ",") {
		if s = strings.TrimSpace(s); s != "" {
			out = append(out, s)
		}
	}
	return out
}
