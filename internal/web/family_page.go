package web

import (
	"errors"
	"html/template"
	"net/http"
	"strings"

	"corvek/core/family"
	"corvek/core/field"
	"corvek/internal/draw"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// FamilyPage is a family as it holds, its text and its history.
type FamilyPage struct {
	Reader
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
	v := FamilyPage{Reader: s.reader(c), Family: f, Text: text, Reason: reason, Error: fault}
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
	return s.render(c, status, "family", title, v)
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
