package web

import (
	"errors"
	"html/template"
	"net/http"
	"path/filepath"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/draw"
	"corvek/internal/job"
	"corvek/internal/picture"
	"corvek/internal/report"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

func (s *Server) addPicture(c *echo.Context) error {
	head, err := c.FormFile("picture")
	if err != nil {
		return field.Errorf("picture", "choose a picture")
	}
	if head.Size > picture.MaxBytes {
		return field.Errorf("picture", "%s", picture.ErrTooBig)
	}
	f, err := head.Open()
	if err != nil {
		return err
	}
	defer f.Close()
	taken, err := picture.Take(f)
	if err != nil {
		for _, known := range []error{picture.ErrTooBig, picture.ErrKind, picture.ErrPixels, picture.ErrDamaged} {
			if errors.Is(err, known) {
				return field.Errorf("picture", "%s", err)
			}
		}
		return err
	}
	name := strings.TrimSuffix(filepath.Base(head.Filename), filepath.Ext(head.Filename))
	number, err := s.jobs.AddPicture(c.Request().Context(), who(c), c.Param("tag"), unitNo(c),
		job.Picture{Taken: taken, Part: c.FormValue("part"), Name: name,
			Caption: c.FormValue("caption"), BeforeCleaning: c.FormValue("before_cleaning") == "yes"})
	if err != nil {
		return err
	}
	return ok(c, map[string]any{"go": "/jobs/" + c.Param("tag") + "/pictures/" + strconv.Itoa(number)})
}

// pictureNo is the number of the picture in the address.
func pictureNo(c *echo.Context) (int, error) {
	n, err := strconv.Atoi(c.Param("number"))
	if err != nil {
		return 0, echo.ErrNotFound
	}
	return n, nil
}

// picture serves one picture; ?thumb gives the small one where there is one.
func (s *Server) picture(c *echo.Context) error {
	id, err := pictureNo(c)
	if err != nil {
		return err
	}
	content, mediaType, err := s.store.Picture(c.Request().Context(), c.Param("tag"), id)
	if err != nil {
		return err
	}
	h := c.Response().Header()
	h.Set("Cache-Control", "private, max-age=86400")
	// A drawn picture could carry script when it is opened by itself.
	h.Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
	if c.QueryParam("thumb") != "" && len(content.Thumb) > 0 {
		return c.Blob(http.StatusOK, "image/jpeg", content.Thumb)
	}
	return c.Blob(http.StatusOK, mediaType, content.Bytes)
}

// PictureView is one picture with its marks, and perhaps another beside it.
type PictureView struct {
	*unit.Picture
	URL      string
	Drawing  template.HTML
	Beside   *PictureView
	Others   []*unit.Picture
	Evidence []Named
	PartName string
	Marks    []MarkView
}

// MarkView is a mark in words.
type MarkView struct {
	*unit.PictureMark
	Words string
}

// pictureView lays a picture's marks over it.
func (p *Page) pictureView(a *unit.Picture, edit bool) *PictureView {
	v := &PictureView{Picture: a, URL: report.PictureURL(p.S.Job.Tag, a.Number)}
	if x := p.S.ByCode[a.Part]; x != nil && a.Unit == p.UnitNo {
		v.PartName = x.Name
	}
	var marks []draw.PicMark
	for _, m := range a.Marks {
		words := p.S.MarkWords(m)
		v.Marks = append(v.Marks, MarkView{m, words})
		marks = append(marks, draw.PicMark{Number: m.Number, X: m.X, Y: m.Y, Label: words})
	}
	v.Drawing = template.HTML(draw.Picture(v.URL, a.Width, a.Height, marks, a.Caption, edit))
	return v
}

// Shots are the job's pictures with their marks, for stations and papers.
func (p *Page) Shots() []*PictureView {
	var out []*PictureView
	for _, a := range p.S.Job.Pictures {
		out = append(out, p.pictureView(a, false))
	}
	return out
}

// pictures is the page of all pictures of a job.
func (s *Server) pictures(c *echo.Context) error {
	p, err := s.jobPage(c, "handover")
	if err != nil {
		return err
	}
	p.offStation(" Pictures")
	return s.render(c, http.StatusOK, "pictures", p)
}

// onePicture is the page of one picture: marks, and another beside it.
func (s *Server) onePicture(c *echo.Context) error {
	id, err := pictureNo(c)
	if err != nil {
		return err
	}
	p, err := s.jobPage(c, "handover")
	if err != nil {
		return err
	}
	with, _ := strconv.Atoi(c.QueryParam("with"))
	var v *PictureView
	for _, a := range p.S.Job.Pictures {
		if a.Number == id {
			v = p.pictureView(a, p.CanWork())
		}
	}
	if v == nil {
		return store.ErrNotFound
	}
	for _, a := range p.S.Job.Pictures {
		if a.Number == id {
			continue
		}
		v.Others = append(v.Others, a)
		if a.Number == with {
			v.Beside = p.pictureView(a, false)
		}
	}
	for _, e := range p.S.Knowledge.Evidence {
		v.Evidence = append(v.Evidence, Named{e.Code, e.Text})
	}
	p.offStation(" Picture")
	p.Body = v
	return s.render(c, http.StatusOK, "picture", p)
}

func (s *Server) addMark(c *echo.Context) error {
	id, err := pictureNo(c)
	if err != nil {
		return err
	}
	m := unit.PictureMark{Note: c.FormValue("note"), Evidence: c.FormValue("evidence"), Part: c.FormValue("part"),
		X: -1, Y: -1}
	if x, err := strconv.ParseFloat(c.FormValue("x"), 64); err == nil {
		m.X = x
	}
	if y, err := strconv.ParseFloat(c.FormValue("y"), 64); err == nil {
		m.Y = y
	}
	return done(c, s.jobs.AddMark(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), id, m))
}

func (s *Server) dropMark(c *echo.Context) error {
	id, err := pictureNo(c)
	if err != nil {
		return err
	}
	number, _ := strconv.Atoi(c.FormValue("number"))
	return done(c, s.jobs.DropMark(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), id, number))
}
