package web

import (
	"encoding/json"
	"errors"
	"html/template"
	"io"
	"net/http"
	"strings"

	"corvek/core/calc"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/internal/answer"

	"github.com/labstack/echo/v5"
)

// Shelf is the calculators of one subject.
type Shelf struct {
	Subject string
	Tools   []ToolLink
}

// ToolLink is a calculator on its shelf; Words are what it is found by.
type ToolLink struct{ Name, Title, Summary, Words string }

func linkTo(d *calc.Def) ToolLink {
	l := ToolLink{Name: d.Name, Title: d.Title, Summary: d.Summary}
	words := []string{d.Subject, d.Name, l.Title, d.Summary}
	for _, in := range d.Inputs {
		words = append(words, answer.Label(in.Name), in.Help)
	}
	for _, r := range d.Results {
		words = append(words, answer.Label(r.Name))
	}
	l.Words = strings.Join(words, " ")
	return l
}

// ToolboxView is all shelves, and the job they were opened from.
type ToolboxView struct {
	Shelves []Shelf
	For     string
}

func safeTag(s string) string {
	if len(s) > 40 {
		return ""
	}
	return s
}

func (s *Server) toolbox(c *echo.Context) error {
	var shelves []Shelf
	for _, subject := range calc.Subjects {
		shelf := Shelf{Subject: subject}
		for _, d := range calc.All() {
			if d.Subject == subject {
				shelf.Tools = append(shelf.Tools, linkTo(d))
			}
		}
		shelves = append(shelves, shelf)
	}
	p := s.page(c, "Toolbox")
	p.Body = ToolboxView{Shelves: shelves, For: safeTag(c.QueryParam("for"))}
	return s.render(c, http.StatusOK, "toolbox", p)
}

// ToolView is a calculator as a page. The inputs stand in its address, so that
// a link carries them.
type ToolView struct {
	Def     *calc.Def
	Fields  []ToolField
	Out     *calc.Output
	Results []answer.Row
	Head    answer.Headline
	Drawing template.HTML
	Error   string
	For     string      // the job at hand
	Jobs    []JobChoice // where the figures can be put
}

// ToolField is an input of the page.
type ToolField struct {
	calc.Input
	Label, Value, Error, Kind, Units, Place string
	Wide                                    bool
}

func (s *Server) tool(c *echo.Context) error {
	d, err := calc.Find(c.Param("name"))
	if err != nil {
		return echo.ErrNotFound
	}
	p := s.page(c, "Toolbox: "+d.Summary)
	v := ToolView{Def: d, For: safeTag(c.QueryParam("for"))}
	in, fields := inputsOf(d, c.QueryParam)
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
			v.Results = answer.Rows(out, p.Units)
			v.Head = answer.Head(out, p.Units)
			v.Drawing = drawn(d.Name, args, out, p.Units)
			if p.CanWork() {
				if v.Jobs, err = s.jobChoices(c, v.For); err != nil {
					return err
				}
			}
		}
	}
	p.Body = v
	return s.render(c, http.StatusOK, "tool", p)
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
	return in, fields
}

// ExampleQuery is the calculator's own example as an address, where its inputs
// are simple enough to stand in one.
func (v ToolView) ExampleQuery() template.URL {
	var in map[string]any
	if err := json.Unmarshal([]byte(v.Def.Example), &in); err != nil {
		return ""
	}
	q := answer.Query(in)
	if v.For != "" {
		q.Set("for", v.For)
	}
	return template.URL(q.Encode()) // encoded above; the template must not encode it again
}

// place puts an error beside the input it belongs to.
func (v *ToolView) place(fe *field.Error) {
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

func (s *Server) calcList(c *echo.Context) error {
	type item struct {
		Name    string `json:"name"`
		Summary string `json:"summary"`
	}
	var out []item
	for _, d := range calc.All() {
		out = append(out, item{d.Name, d.Summary})
	}
	return c.JSON(http.StatusOK, out)
}

const maxCalcBody = 1 << 20

func (s *Server) calc(c *echo.Context) error {
	body, err := io.ReadAll(io.LimitReader(c.Request().Body, maxCalcBody+1))
	if err != nil {
		return err
	}
	if len(body) > maxCalcBody {
		return field.Errorf("", "the input is larger than 1 MB")
	}
	out, err := calc.Run(c.Param("name"), body)
	if err != nil {
		return err
	}
	return c.JSON(http.StatusOK, out)
}
