package practicepages

import (
	"fmt"
	"html/template"
	"math/rand/v2"
	"net/http"
	"strconv"

	"corvek/core/quantity"
	"corvek/core/reading"
	"corvek/internal/instrument"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// PracticePage is what can be practised.
type PracticePage struct {
	site.Reader
	Kinds []KindLink
}

// KindLink is an instrument that can be read.
type KindLink struct {
	Name, URL string
	On        bool
}

// ReadingPage is an instrument at a setting, with what is asked of it and what is said of an answer.
type ReadingPage struct {
	site.Reader
	Kind    reading.Kind
	Kinds   []KindLink
	Drawing template.HTML
	Wide    bool // its lines are fine: it can be looked at closer
	Form    []site.Plain
	Said    []SaidRow // of an answer; nil before
	Right   bool      // all of it
	Seed    string
	Inch    string // yes or ""
	Unit    string
	Aloud   []string // what the eye sees, in words, where that was asked for
	HelpURL string
	NextURL string
}

// SaidRow is what is said of one figure.
type SaidRow struct {
	reading.Verdict
	Name, Typed string
}

func (s *Pages) practice(c *echo.Context) error {
	return s.RenderOK(c, "practice", "Practice", PracticePage{Reader: s.Reader(c), Kinds: links("")})
}

func links(on string) (out []KindLink) {
	for _, k := range reading.Kinds() {
		out = append(out, KindLink{k.Name, "/practice/reading/" + k.Code, k.Code == on})
	}
	return out
}

// exercise is what the address asks for: a setting by its seed, or another one by chance; in the reader's units where
// none are said.
func (s *Pages) exercise(c *echo.Context) (*reading.Exercise, error) {
	kind, known := reading.KindByCode(c.Param("kind"))
	if !known {
		return nil, echo.ErrNotFound
	}
	seed, err := strconv.ParseUint(c.FormValue("seed"), 10, 64)
	if err != nil {
		seed = rand.Uint64() >> 32
	}
	inch := c.FormValue("inch") == "yes"
	if c.FormValue("seed") == "" {
		units := s.Reader(c).Units
		other := quantity.MetricPsi
		if kind.Inch {
			other = quantity.InchBar
		}
		inch = units == quantity.Inch || units == other
	}
	return reading.New(kind, inch, seed), nil
}

func (s *Pages) reading(c *echo.Context) error {
	e, err := s.exercise(c)
	if err != nil {
		return err
	}
	return s.show(c, http.StatusOK, e, nil, nil)
}

func (s *Pages) answer(c *echo.Context) error {
	e, err := s.exercise(c)
	if err != nil {
		return err
	}
	typed := make([]string, len(e.Asks))
	for i := range typed {
		typed[i] = c.FormValue("answer" + strconv.Itoa(i))
	}
	said, err := e.Judge(typed)
	if site.IsField(err) {
		return s.show(c, http.StatusUnprocessableEntity, e, nil, err)
	}
	if err != nil {
		return err
	}
	return s.show(c, http.StatusOK, e, said, nil)
}

func (s *Pages) show(c *echo.Context, status int, e *reading.Exercise, said []reading.Verdict, fault error) error {
	v := ReadingPage{Reader: s.Reader(c), Kind: e.Kind, Kinds: links(e.Kind.Code), Unit: e.Unit,
		Drawing: template.HTML(instrument.Draw(e)), Wide: e.Caliper != nil || e.Barrel != nil,
		Seed: strconv.FormatUint(e.Seed, 10), Right: true, NextURL: "/practice/reading/" + e.Kind.Code}
	if e.Inch {
		v.Inch = "yes"
	}
	v.HelpURL = fmt.Sprintf("%s?seed=%s&inch=%s&help=1", v.NextURL, v.Seed, v.Inch)
	if c.FormValue("help") != "" {
		v.Aloud = e.Aloud()
	}
	var fields []site.Plain
	for i, ask := range e.Asks {
		name := "answer" + strconv.Itoa(i)
		fields = append(fields, site.Plain{Name: name, Label: ask.Name + " (" + e.Unit + ")", Mode: "decimal",
			Value: c.FormValue(name), Focus: i == 0 && said == nil && fault == nil})
		if said != nil {
			v.Said = append(v.Said, SaidRow{said[i], ask.Name, c.FormValue(name)})
			v.Right = v.Right && said[i].Right
		}
	}
	v.Form = site.PlainForm(fault, fields...)
	return s.Render(c, status, "practice_reading", e.Kind.Name, v)
}
