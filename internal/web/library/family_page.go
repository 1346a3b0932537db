package library

import (
	"context"
	"errors"
	"html/template"
	"net/http"
	"strings"

	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/wording"
	"corvek/internal/draw"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// FamilyPage is a family as it holds, its text and its history.
type FamilyPage struct {
	site.Reader
	Family  *family.Family
	Line    template.HTML
	Text    string
	Reason  string
	Error   *field.Error
	History []store.FamilyVersion
	Gauge   []family.Question
	Own     []OwnVariant
}

// OwnVariant is a variant of the shop's own as it is written.
type OwnVariant struct {
	Code, Name, Text, By string
	Reason               string
	Versions             int
	Form                 FormVariant
}

func (s *Pages) familyPage(c *echo.Context) error {
	return s.renderFamily(c, http.StatusOK, "", "", nil)
}

func (s *Pages) renderFamily(c *echo.Context, status int, text, reason string, fault *field.Error) error {
	ctx := c.Request().Context()
	if err := s.Jobs.Refresh(ctx); err != nil {
		return err
	}
	code := c.Param("code")
	f := s.Jobs.Families()[code]
	if f == nil && fault == nil {
		return store.ErrNotFound
	}
	v := FamilyPage{Reader: s.Reader(c), Family: f, Text: text, Reason: reason, Error: fault}
	var err error
	if v.Text == "" {
		if v.Text, err = s.Jobs.FamilyText(ctx, code); err != nil {
			return err
		}
	}
	if v.History, err = s.Store.FamilyHistory(ctx, code); err != nil {
		return err
	}
	title := code
	if f != nil {
		if v.Own, err = s.ownVariants(ctx, f); err != nil {
			return err
		}
		title = f.Name
		v.Line = familyLine(f)
		for _, q := range f.Gauge {
			if question, ok := family.QuestionByCode(q); ok {
				v.Gauge = append(v.Gauge, question)
			}
		}
	}
	return s.Render(c, status, "family", title, v)
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

func (s *Pages) saveFamily(c *echo.Context) error {
	text, reason, code := strings.ReplaceAll(c.FormValue("text"), "\r\n", "\n"), c.FormValue("reason"), c.Param("code")
	if as := strings.TrimSpace(c.FormValue("as")); as != "" {
		code = as
	}
	err := s.Jobs.SaveFamily(c.Request().Context(), site.Who(c), code, text, reason)
	var fe *field.Error
	if errors.As(err, &fe) {
		return s.renderFamily(c, http.StatusUnprocessableEntity, text, reason, fe)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/library/"+code)
}

// ownVariants are those of a family that the shop wrote.
func (s *Pages) ownVariants(ctx context.Context, f *family.Family) (out []OwnVariant, err error) {
	for i := range f.VariantRules {
		rule := &f.VariantRules[i]
		if !rule.Own {
			continue
		}
		versions, err := s.Store.FamilyHistory(ctx, f.Code+"/"+rule.Code)
		if err != nil {
			return nil, err
		}
		if len(versions) > 0 {
			last := versions[0]
			own := OwnVariant{Code: rule.Code, Name: rule.Name, Text: last.Text, By: last.ByName,
				Reason: last.Reason, Versions: len(versions)}
			if d, err := family.DraftOfVariant(last.Text); err == nil {
				own.Form = formVariant(len(out), d.Variants()[0], f)
			}
			out = append(out, own)
		}
	}
	return out, nil
}

func (s *Pages) saveVariant(c *echo.Context) error {
	text := strings.ReplaceAll(c.FormValue("text"), "\r\n", "\n")
	form, err := c.FormValues()
	if err != nil {
		return err
	}
	if prefix := form.Get("prefix"); prefix != "" { // written by form: its fields go into the text that stands
		d, err := family.DraftOfVariant(text)
		if err != nil {
			return s.renderFamily(c, http.StatusUnprocessableEntity, "", "", field.Errorf("variant", "%s", err))
		}
		if fault := takeVariant(d, 0, prefix, d.Variants()[0], form); fault != nil {
			return s.renderFamily(c, http.StatusUnprocessableEntity, "", "", field.Errorf("variant", "%s", fault.Text))
		}
		text = d.Text()
	}
	err = s.Jobs.SaveVariant(c.Request().Context(), site.Who(c), c.Param("code"), c.Param("variant"), text,
		c.FormValue("reason"))
	var fe *field.Error
	if errors.As(err, &fe) {
		return s.renderFamily(c, http.StatusUnprocessableEntity, "", "", field.Errorf("variant", "%s %s", fe.Field,
			fe.Text))
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/library/"+c.Param("code"))
}

// RuleOf says by which rule a feature is judged.
func (p FamilyPage) RuleOf(f family.Feature) string {
	name := func(path string) string {
		part, feature := family.CutFeature(path)
		if of, known := p.Family.PartByCode(part); known {
			if ft, known := of.FeatureByCode(feature); known {
				return strings.ToLower(of.Name + ", " + ft.Name)
			}
		}
		return path
	}
	show := draw.Length(p.Units)
	rule := wording.RuleOf(f.Rule, show, name)
	if f.Mate != nil {
		rule = strings.TrimPrefix(rule+"; gap "+wording.RuleOf(f.Mate, show, name), "; ")
	}
	return rule
}
