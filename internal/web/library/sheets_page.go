package library

import (
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"strconv"
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/sheet"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/draw"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// SheetsPage is the shop's memory of models.
type SheetsPage struct {
	site.Reader
	Rows     []SheetRow
	Proposed []SheetRow // that wait for a lead
	Text     string
	Error    *field.Error
}

// SheetRow is a sheet in the list.
type SheetRow struct {
	ID, Version    uint
	Name, Family   string
	Units, Values  int
	By, At, Reason string
}

func (s *Pages) sheets(c *echo.Context) error { return s.renderSheets(c, http.StatusOK, "", nil) }

func (s *Pages) renderSheets(c *echo.Context, status int, text string, fault *field.Error) error {
	ctx := c.Request().Context()
	now, err := s.Store.SheetsNow(ctx)
	if err != nil {
		return err
	}
	proposed, err := s.Store.SheetsProposed(ctx)
	if err != nil {
		return err
	}
	p := SheetsPage{Reader: s.Reader(c), Rows: s.sheetRows(now), Proposed: s.sheetRows(proposed), Text: text,
		Error: fault}
	return s.Render(c, status, "sheets", "Sheets of models", p)
}

func (s *Pages) sheetRows(list []store.SheetVersion) (out []SheetRow) {
	for i := range list {
		v := &list[i]
		r := SheetRow{ID: v.SheetID, Version: v.ID, Name: v.Doc.Name(), Family: v.Doc.Family,
			Units: len(v.Doc.Units()), Values: len(v.Doc.Values), By: v.ByName, At: v.At.Format("2 Jan 2006"),
			Reason: v.Reason}
		if f := s.Jobs.Families()[v.Doc.Family]; f != nil {
			r.Family = f.Name
		}
		out = append(out, r)
	}
	return out
}

// readSheet takes a sheet that was written to a file elsewhere.
func (s *Pages) readSheet(c *echo.Context) error {
	text := c.FormValue("text")
	doc, err := sheet.Read([]byte(text))
	if err == nil {
		err = s.Jobs.SaveSheet(c.Request().Context(), site.Who(c), doc, "read from a file")
	} else {
		err = field.Errorf("text", "%s", err)
	}
	var fault *field.Error
	if errors.As(err, &fault) {
		return s.renderSheets(c, http.StatusUnprocessableEntity, text, fault)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/library/sheets")
}

// SheetPage is one sheet with its line, its figures and its versions.
type SheetPage struct {
	site.Reader
	ID       uint
	Sheet    *sheet.Sheet
	Family   string
	Line     template.HTML
	Parts    []SheetPart
	Form     []string
	Behind   []string // jobs that stand behind it
	Waiting  uint     // version that no lead confirmed, 0 for none
	Versions []store.SheetVersion
}

// SheetPart is what is known of a part.
type SheetPart struct {
	Name  string
	Lines []SheetLine
}

// SheetLine is a figure with where it is from and how many units stand behind it.
type SheetLine struct{ Name, Text, From, Behind string }

func (s *Pages) sheetAt(c *echo.Context) (store.ModelSheet, *store.SheetVersion, error) {
	id, _ := strconv.ParseUint(c.Param("id"), 10, 32)
	m, err := s.Store.SheetHistory(c.Request().Context(), uint(id))
	if err != nil {
		return m, nil, err
	}
	for i := range m.Versions {
		if !m.Versions[i].Proposed() {
			return m, &m.Versions[i], nil
		}
	}
	if len(m.Versions) == 0 {
		return m, nil, store.ErrNotFound
	}
	return m, &m.Versions[0], nil
}

func (s *Pages) sheet(c *echo.Context) error {
	p, err := s.sheetPage(c)
	if err != nil {
		return err
	}
	return s.Render(c, http.StatusOK, "model", p.Sheet.Name(), p)
}

func (s *Pages) sheetPage(c *echo.Context) (SheetPage, error) {
	m, v, err := s.sheetAt(c)
	if err != nil {
		return SheetPage{}, err
	}
	p := SheetPage{Reader: s.Reader(c), ID: m.ID, Sheet: &v.Doc, Behind: v.Doc.Units(), Versions: m.Versions}
	if m.Versions[0].Proposed() {
		p.Waiting = m.Versions[0].ID
	}
	f := s.Jobs.Families()[v.Doc.Family]
	if f == nil {
		return SheetPage{}, store.ErrNotFound
	}
	u := &unit.Unit{Variant: v.Doc.Variant, More: v.Doc.More}
	if own, err := f.As(u.Variant, u.MoreOf()); err == nil {
		f = own
	}
	p.Family, p.Line = f.Name, familyLine(f)
	for _, x := range v.Doc.Parts {
		words := x.Code + ": not there, " + x.Absent
		if x.Absent == "" {
			words = x.Name + ": more than the family"
		}
		p.Form = append(p.Form, words)
	}
	p.Parts = p.parts(f)
	return p, nil
}

// parts are the values of the sheet by part, those of the whole unit first.
func (p *SheetPage) parts(f *family.Family) (out []SheetPart) {
	at := map[string]int{}
	for i := range p.Sheet.Values {
		v := &p.Sheet.Values[i]
		name, line, told := p.line(f, v)
		if !told {
			continue
		}
		k, begun := at[name]
		if !begun {
			k = len(out)
			at[name] = k
			out = append(out, SheetPart{Name: name})
		}
		out[k].Lines = append(out[k].Lines, line)
	}
	return out
}

// line writes a value; what only says whence another is stands with that one.
func (p *SheetPage) line(f *family.Family, v *sheet.Value) (part string, line SheetLine, told bool) {
	words := strings.Split(v.Key, "/")
	name := words[len(words)-1]
	scope, part, at := unit.ScopeUnit, "The unit", ""
	switch {
	case len(words) == 5:
		scope = unit.ScopeFeature
		at = strings.Join(words[:4], "/") + "/"
	case words[0] == "limit":
		scope, part = unit.ScopeLimit, "Limits of its test"
		line.Name = wording.Plain(words[1]) + ": "
	case words[0] == "part":
		scope = unit.ScopePart
	}
	if words[0] == "part" {
		part = words[1]
		if d, known := f.PartByCode(words[1]); known {
			part = d.Name
			if ft, known := d.FeatureByCode(words[min(3, len(words)-1)]); known {
				line.Name = ft.Name + ": "
			}
		}
	}
	if name == "new_from" || name == "new_source" || name == "standing" || at != "" && name == "source" {
		return "", line, false
	}
	if d, known := entry.Find(scope, name); known {
		line.Name += strings.ToLower(d.Label)
	}
	line.Text = wording.Choice(scope, name, v.Text)
	line.From = p.from(v, at, name)
	if spread, ok := v.Spread(); ok {
		show := draw.Length(p.Reader.Units)
		line.Behind = fmt.Sprintf("%d units, mean %s, %s to %s", spread.Units, show(spread.Mean), show(spread.Least),
			show(spread.Most))
	} else if spread.Units == 1 {
		line.Behind = "1 unit"
	}
	return part, line, true
}

// from says where a value is from: its document, else the job it was kept from.
func (p *SheetPage) from(v *sheet.Value, at, name string) string {
	source := map[bool]string{true: "new_source", false: "source"}[strings.HasPrefix(name, "new_")]
	choice := map[bool]string{true: "new_from", false: "standing"}[strings.HasPrefix(name, "new_")]
	var words []string
	if x := p.Sheet.Value(at + choice); at != "" && x != nil {
		words = append(words, wording.Choice(unit.ScopeFeature, choice, x.Text))
	}
	if x := p.Sheet.Value(at + source); at != "" && x != nil {
		words = append(words, x.Text)
	}
	if v.Source != "" {
		words = append(words, v.Source)
	}
	return strings.Join(words, ", ")
}

// sheetFile is the sheet as a file.
func (s *Pages) sheetFile(c *echo.Context) error {
	_, v, err := s.sheetAt(c)
	if err != nil {
		return err
	}
	text, err := v.Doc.Text()
	if err != nil {
		return err
	}
	name := family.CodeOf(v.Doc.Name())
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf("attachment; filename=%q", name+".json"))
	return c.Blob(http.StatusOK, "application/json", text)
}

func (s *Pages) confirmSheet(c *echo.Context) error {
	version, _ := strconv.ParseUint(c.FormValue("version"), 10, 32)
	if err := s.Jobs.ConfirmSheet(c.Request().Context(), site.Who(c), uint(version)); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/library/sheets/"+c.Param("id"))
}
