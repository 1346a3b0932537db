package web

import (
	"errors"
	"html/template"
	"net/http"
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/draw"
	"corvek/internal/job"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// LibraryRow is a family in the list.
type LibraryRow struct {
	Code, Name, Action       string
	Parts, Features, Musts   int
	Own                      bool
	Questions, Variants, Tes int
}

func (s *Server) library(c *echo.Context) error {
	if err := s.jobs.Refresh(c.Request().Context()); err != nil {
		return err
	}
	var rows []LibraryRow
	for _, f := range s.jobs.Families().List() {
		r := LibraryRow{Code: f.Code, Name: f.Name, Action: f.Action, Parts: len(f.Parts),
			Own: s.jobs.OwnFamily(f.Code), Questions: len(f.Gauge), Variants: len(f.VariantRules), Tes: len(f.Tests)}
		for _, p := range f.Parts {
			r.Features += len(p.Features)
			for _, ft := range p.Features {
				if ft.MustHave {
					r.Musts++
				}
			}
		}
		rows = append(rows, r)
	}
	p := s.page(c, "Library of families")
	p.Body = rows
	return s.render(c, http.StatusOK, "library", p)
}

// FamilyView is a family as it holds, its text and its history.
type FamilyView struct {
	Family  *family.Family
	Line    template.HTML
	Text    string
	Reason  string
	Error   *field.Error
	History []store.FamilyVersion
	Gauge   []family.Question
}

func (s *Server) familyPage(c *echo.Context) error {
	return s.renderFamily(c, http.StatusOK, "", "", nil)
}

func (s *Server) renderFamily(c *echo.Context, status int, text, reason string, fault *field.Error) error {
	ctx := c.Request().Context()
	if err := s.jobs.Refresh(ctx); err != nil {
		return err
	}
	code := c.Param("code")
	f := s.jobs.Families()[code]
	if f == nil && fault == nil {
		return store.ErrNotFound
	}
	v := FamilyView{Family: f, Text: text, Reason: reason, Error: fault}
	var err error
	if v.Text == "" {
		if v.Text, err = s.jobs.FamilyText(ctx, code); err != nil {
			return err
		}
	}
	if v.History, err = s.store.FamilyHistory(ctx, code); err != nil {
		return err
	}
	title := code
	if f != nil {
		title = f.Name
		v.Line = familyLine(f)
		for _, q := range f.Gauge {
			if question, ok := family.QuestionByCode(q); ok {
				v.Gauge = append(v.Gauge, question)
			}
		}
	}
	p := s.page(c, title)
	p.Body = v
	return s.render(c, status, "family", p)
}

// familyLine draws a family as it comes apart.
func familyLine(f *family.Family) template.HTML {
	l := draw.Line{Axes: f.Axes, Title: f.Name, Width: 1090}
	for i, part := range f.Parts {
		l.Parts = append(l.Parts, draw.LinePart{No: i + 1, Name: part.Name, Kind: part.Kind, Count: part.Count,
			Branch: part.Branch, Shape: part.Shape,
			Mark: draw.Mark{Shape: "dot"}, URL: "#" + part.Code})
	}
	return template.HTML(l.SVG())
}

func (s *Server) saveFamily(c *echo.Context) error {
	text, reason, code := strings.ReplaceAll(c.FormValue("text"), "\r\n", "\n"), c.FormValue("reason"), c.Param("code")
	if as := strings.TrimSpace(c.FormValue("as")); as != "" {
		code = as
	}
	err := s.jobs.SaveFamily(c.Request().Context(), who(c), code, text, reason)
	var fe *field.Error
	if errors.As(err, &fe) {
		return s.renderFamily(c, http.StatusUnprocessableEntity, text, reason, fe)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/library/"+code)
}

// InstrumentRow is a measuring tool with how its calibration stands.
type InstrumentRow struct {
	store.Instrument
	Overdue bool
	Due     string
}

func instrumentRows(list []store.Instrument, today unit.Date) []InstrumentRow {
	var out []InstrumentRow
	for _, i := range list {
		r := InstrumentRow{Instrument: i, Due: "no calibration kept"}
		if i.DueOn != nil {
			r.Due, r.Overdue = "due "+i.DueOn.Format("2 Jan 2006"), job.Overdue(i, today)
		}
		out = append(out, r)
	}
	return out
}

func (s *Server) instruments(c *echo.Context) error {
	return s.renderInstruments(c, http.StatusOK, nil)
}

// InstrumentsView is the page of the shop's measuring tools.
type InstrumentsView struct {
	Rows                  []InstrumentRow
	Error                 *field.Error
	Name, Kind, Res, DueS string
}

func (s *Server) renderInstruments(c *echo.Context, status int, v *InstrumentsView) error {
	list, err := s.store.Instruments(c.Request().Context())
	if err != nil {
		return err
	}
	if v == nil {
		v = &InstrumentsView{}
	}
	v.Rows = instrumentRows(list, unit.DateOf(s.jobs.Now()))
	p := s.page(c, "Instruments")
	p.Body = v
	return s.render(c, status, "instruments", p)
}

func (s *Server) saveInstrument(c *echo.Context) error {
	v := &InstrumentsView{Name: strings.TrimSpace(c.FormValue("name")),
		Kind: strings.TrimSpace(c.FormValue("kind")), Res: strings.TrimSpace(c.FormValue("resolution")),
		DueS: strings.TrimSpace(c.FormValue("due_on"))}
	row := store.Instrument{Name: v.Name, Kind: v.Kind, Resolution: v.Res}
	switch {
	case v.Name == "":
		v.Error = field.Errorf("name", "say which one it is, as it is marked")
	case v.Kind == "":
		v.Error = field.Errorf("kind", "say what it is: micrometer, bore gauge")
	default:
		if q, err := quantity.Parse(v.Res, quantity.Length); err != nil {
			v.Error = field.Errorf("resolution", "%s", err)
		} else if q.SI <= 0 {
			v.Error = field.Errorf("resolution", "must be more than zero")
		}
	}
	if v.DueS != "" && v.Error == nil {
		t, err := time.Parse(time.DateOnly, v.DueS)
		if err != nil {
			v.Error = field.Errorf("due_on", "is a date like 2031-05-27")
		}
		row.DueOn = &t
	}
	if v.Error != nil {
		return s.renderInstruments(c, http.StatusUnprocessableEntity, v)
	}
	if err := s.store.SaveInstrument(c.Request().Context(), &row); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/instruments")
}
