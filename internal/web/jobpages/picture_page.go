package jobpages

import (
	"fmt"
	"html/template"
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/unit"
	"corvek/internal/draw"
	"corvek/internal/report"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// PictureView is one picture with its marks.
type PictureView struct {
	*unit.Picture
	URL      string
	Drawing  template.HTML
	PartName string
	Marks    []MarkView
}

// MarkView is a mark in words.
type MarkView struct {
	*unit.PictureMark
	Words string
}

// picture lays a picture's marks over it.
func (l *look) picture(a *unit.Picture, edit bool) *PictureView {
	v := &PictureView{Picture: a, URL: report.PictureURL(l.job.Tag, a.Number)}
	if x := l.st.ByCode[a.Part]; x != nil && a.Unit == l.unitNo {
		v.PartName = x.Name
	}
	if def, ok := family.PartMark(a.Mark); ok {
		v.PartName += ": " + def.Text
	}
	var marks []draw.PicMark
	for _, m := range a.Marks {
		words := l.st.MarkWords(m)
		v.Marks = append(v.Marks, MarkView{m, words})
		marks = append(marks, draw.PicMark{Number: m.Number, X: m.X, Y: m.Y, Label: words})
	}
	v.Drawing = template.HTML(draw.Picture(v.URL, a.Width, a.Height, marks, a.Caption, edit))
	return v
}

// pictures are the job's, with their marks, for stations and papers.
func (l *look) pictures() (out []*PictureView) {
	for _, a := range l.job.Pictures {
		out = append(out, l.picture(a, false))
	}
	return out
}

// PicturePage is one picture and its marks, and perhaps another beside it.
type PicturePage struct {
	JobPage
	*PictureView
	At       string // its address
	Beside   *PictureView
	Others   []*unit.Picture
	Parts    []*bench.Part
	Evidence []site.Named
	OnParts  []site.Named // marks seen on parts, part/mark
}

func (s *Pages) onePicture(c *echo.Context) error {
	number, err := pictureNo(c)
	if err != nil {
		return err
	}
	l, err := s.look(c, "handover")
	if err != nil {
		return err
	}
	with, _ := strconv.Atoi(c.QueryParam("with"))
	p := PicturePage{JobPage: l.page(), At: fmt.Sprintf("/jobs/%s/pictures/%d", l.job.Tag, number), Parts: l.st.Parts}
	for _, a := range l.job.Pictures {
		switch a.Number {
		case number:
			p.PictureView = l.picture(a, l.CanWork())
			continue
		case with:
			p.Beside = l.picture(a, false)
		}
		p.Others = append(p.Others, a)
	}
	if p.PictureView == nil {
		return store.ErrNotFound
	}
	for _, x := range l.st.Parts {
		for _, m := range x.Seen {
			p.OnParts = append(p.OnParts, site.Named{Code: x.Code + "/" + m.Code,
				Name: x.Name + ": " + m.MarkDef.Text})
		}
	}
	for _, e := range l.st.Knowledge.Evidence {
		p.Evidence = append(p.Evidence, site.Named{Code: e.Code, Name: e.Text})
	}
	return s.renderBeside(c, "picture", "Picture", l, p)
}

func (s *Pages) addMark(c *echo.Context) error {
	id, err := pictureNo(c)
	if err != nil {
		return err
	}
	m := unit.PictureMark{Note: c.FormValue("note"), Evidence: c.FormValue("evidence"), Part: c.FormValue("part"),
		X: -1, Y: -1}
	if part, mark, tied := strings.Cut(c.FormValue("on_part"), "/"); tied {
		m.Part, m.Mark = part, mark
	}
	if x, err := strconv.ParseFloat(c.FormValue("x"), 64); err == nil {
		m.X = x
	}
	if y, err := strconv.ParseFloat(c.FormValue("y"), 64); err == nil {
		m.Y = y
	}
	return site.Done(c, s.Jobs.AddMark(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), id, m))
}

func (s *Pages) dropMark(c *echo.Context) error {
	id, err := pictureNo(c)
	if err != nil {
		return err
	}
	number, _ := strconv.Atoi(c.FormValue("number"))
	return site.Done(c, s.Jobs.DropMark(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), id, number))
}
