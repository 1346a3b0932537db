package web

import (
	"encoding/json"
	"errors"
	"fmt"
	"html/template"
	"io"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"corvek/core/calc"
	"corvek/core/field"
	"corvek/core/quantity"

	"github.com/labstack/echo/v5"
)

// Shelf is the calculators of one subject.
type Shelf struct {
	Subject string
	Tools   []*calc.Def
}

func (s *Server) toolbox(c *echo.Context) error {
	var shelves []Shelf
	at := map[string]int{}
	for _, d := range calc.All() {
		i, ok := at[d.Subject]
		if !ok {
			i = len(shelves)
			at[d.Subject] = i
			shelves = append(shelves, Shelf{Subject: d.Subject})
		}
		shelves[i].Tools = append(shelves[i].Tools, d)
	}
	p := s.page(c, "Toolbox")
	p.Body = shelves
	return s.render(c, http.StatusOK, "toolbox", p)
}

// ToolView is a calculator as a page. The inputs stand in its address, so that
// a link carries them.
type ToolView struct {
	Def     *calc.Def
	Fields  []ToolField
	Out     *calc.Output
	Results []ToolResult
	Error   string
}

// ToolField is an input of the page.
type ToolField struct {
	calc.Input
	Label, Value, Error, Kind, Units, Place string
}

// ToolResult is a result in shop units and in SI.
type ToolResult struct{ Label, Text, SI string }

func (s *Server) tool(c *echo.Context) error {
	d, err := calc.Find(c.Param("name"))
	if err != nil {
		return echo.ErrNotFound
	}
	p := s.page(c, "Toolbox: "+d.Summary)
	v := ToolView{Def: d}
	in := map[string]any{}
	for _, input := range d.Inputs {
		if input.Kind == calc.Objects && input.Parts[0].Name != "thickness" {
			continue // a shelf of seals comes from the stock, not from a line of text
		}
		value := strings.TrimSpace(c.QueryParam(input.Name))
		v.Fields = append(v.Fields, toolField(input, value))
		if value != "" {
			in[input.Name] = fromText(input, value)
		}
	}
	if len(in) > 0 {
		body, err := json.Marshal(in)
		if err != nil {
			return err
		}
		out, err := calc.Run(d.Name, body)
		var fe *field.Error
		switch {
		case errors.As(err, &fe):
			v.place(fe)
		case err != nil:
			return err
		default:
			v.Out = out
			v.Results = toolResults(out, p.Units)
		}
	}
	p.Body = v
	return s.render(c, http.StatusOK, "tool", p)
}

// ExampleQuery is the calculator's own example as an address, where its inputs
// are simple enough to stand in one.
func (v ToolView) ExampleQuery() template.URL {
	var in map[string]any
	if err := json.Unmarshal([]byte(v.Def.Example), &in); err != nil {
		return ""
	}
	q := url.Values{}
	for k, x := range in {
		if text := asText(x); text != "" {
			q.Set(k, text)
		}
	}
	return template.URL(q.Encode()) // encoded above; the template must not encode it again
}

// asText writes an example's input as it would be typed on the page.
func asText(x any) string {
	switch v := x.(type) {
	case string:
		return v
	case float64:
		return strconv.FormatFloat(v, 'g', -1, 64)
	case map[string]any:
		var parts []string
		for k, figure := range v {
			parts = append(parts, k+" = "+asText(figure))
		}
		slices.Sort(parts)
		return strings.Join(parts, ", ")
	case []any:
		var parts []string
		sep := ", "
		for _, item := range v {
			if row, ok := item.([]any); ok {
				sep = "; "
				parts = append(parts, asText(row))
				continue
			}
			if o, ok := item.(map[string]any); ok {
				text := asText(o["thickness"])
				if n := asText(o["count"]); n != "" {
					text += " x" + n
				}
				parts = append(parts, text)
				continue
			}
			parts = append(parts, asText(item))
		}
		return strings.Join(parts, sep)
	}
	return ""
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
	f := ToolField{Input: in, Label: capital(strings.ReplaceAll(in.Name, "_", " ")), Value: value, Kind: "quantity"}
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

func toolResults(out *calc.Output, s quantity.System) []ToolResult {
	var rows []ToolResult
	for _, e := range out.Results {
		r := ToolResult{Label: capital(strings.ReplaceAll(e.Name, "_", " "))}
		switch v := e.Value.(type) {
		case calc.Figure:
			r.Text, r.SI = figureText(v, s), joinUnit(fmt.Sprintf("%.6g", v.Value), v.Unit)
		case []calc.Figure:
			var parts []string
			for _, f := range v {
				parts = append(parts, figureText(f, s))
			}
			r.Text = strings.Join(parts, ", ")
			if r.Text == "" {
				r.Text = "none"
			}
		case []map[string]any:
			var parts []string
			for _, row := range v {
				parts = append(parts, rowText(row, s))
			}
			r.Text = strings.Join(parts, "; ")
			if r.Text == "" {
				r.Text = "none"
			}
		case map[string]any:
			r.Text = rowText(v, s)
		case bool:
			r.Text = map[bool]string{true: "yes", false: "no"}[v]
		default:
			r.Text = fmt.Sprint(v)
		}
		rows = append(rows, r)
	}
	return rows
}

// rowText writes a result that is an object: its words, then its figures by name.
func rowText(row map[string]any, s quantity.System) string {
	keys := make([]string, 0, len(row))
	for k := range row {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	var words, figures []string
	for _, k := range keys {
		switch v := row[k].(type) {
		case string:
			words = append(words, v)
		case calc.Figure:
			text := figureText(v, s)
			if k == "percent" {
				text = fmt.Sprintf("%.0f %%", 100*v.Value)
			}
			figures = append(figures, strings.ReplaceAll(k, "_", " ")+" "+text)
		case map[string]any:
			figures = append(figures, strings.ReplaceAll(k, "_", " ")+": "+rowText(v, s))
		}
	}
	return strings.Join(append(words, figures...), ", ")
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
