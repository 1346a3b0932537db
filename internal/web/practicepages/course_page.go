package practicepages

import (
	"html/template"
	"strconv"

	"corvek/core/hidden"
	"corvek/core/practice"
	"corvek/core/wording"
	"corvek/internal/document"
	"corvek/internal/instrument"
	"corvek/internal/report"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// courseFamily is what the cases of the course are of: what every shop has on its bench.
const courseFamily = "external_gear_pump"

// drawnLessons are those beside which a unit pulled apart is drawn, by the part that is marked.
var drawnLessons = map[string]string{"strip": "rear_plate", "look": "relief_poppet", "explain": "drive_gear",
	"decide": "body", "kit": "seal_inner", "build": "cover_bolts"}

// LessonPage is one lesson of the course.
type LessonPage struct {
	site.Reader
	practice.Lesson
	No, Of         int
	At             string // its station
	Drawing        template.HTML
	Try            Link
	KindName       string
	Family         string
	Previous, Next string // addresses
	Cases          bool
}

func (s *Pages) lesson(c *echo.Context) error {
	l, no, known := practice.LessonByCode(c.Param("code"))
	if !known {
		return echo.ErrNotFound
	}
	all := practice.Course()
	v := LessonPage{Reader: s.Reader(c), Lesson: l, No: no, Of: len(all), At: wording.Stations[l.Station],
		Family: courseFamily, Cases: s.book != nil}
	name, is := l.Of()
	v.Try = Link{name, "/practice/drill/" + l.Drill, false}
	if is {
		v.Try.URL = "/practice/reading/" + l.Drill
	}
	kind, _ := hidden.KindByCode(l.Kind)
	v.KindName = kind.Name
	if no > 1 {
		v.Previous = "/practice/lesson/" + all[no-2].Code
	}
	if no < len(all) {
		v.Next = "/practice/lesson/" + all[no].Code
	}
	var err error
	if v.Drawing, err = s.lessonDrawing(c, l); err != nil {
		return err
	}
	return s.RenderOK(c, "practice_lesson", strconv.Itoa(no)+" "+l.Title, v)
}

// lessonDrawing is what is looked at with a lesson: a unit pulled apart, or the instrument that is read.
func (s *Pages) lessonDrawing(c *echo.Context, l practice.Lesson) (template.HTML, error) {
	if part := drawnLessons[l.Code]; part != "" {
		return s.line(c, &practice.Line{Family: courseFamily, Part: part})
	}
	if k, known := practice.KindByCode(l.Drill); known {
		return template.HTML(instrument.Draw(practice.New(k, s.Reader(c).Inch(), 4))), nil
	}
	return "", nil
}

// booklet is the whole course as a paper.
func (s *Pages) booklet(c *echo.Context) error {
	head, err := s.Store.Letterhead(c.Request().Context())
	if err != nil {
		return err
	}
	d := document.Document{Shop: report.ShopOf(head), Kind: "Practice", Title: "Ten lessons at the bench",
		Printed: s.Jobs.Now()}
	for i, l := range practice.Course() {
		d.Add(document.Heading{Text: strconv.Itoa(i+1) + ". " + l.Title + " (" + wording.Stations[l.Station] + ")"})
		drawing, err := s.lessonDrawing(c, l)
		if err != nil {
			return err
		}
		if drawing != "" {
			d.Add(document.Drawing{SVG: string(drawing)})
		}
		d.Add(document.Lines{Items: l.Says}, document.Banner{Text: l.Caution, Tone: document.Look})
		name, _ := l.Of()
		d.Add(document.Text{Text: "To try: " + name + "."})
	}
	return s.SendPaper(c, "ten-lessons", d, func(document.Size) []document.Link {
		return []document.Link{{Name: "PDF", Address: "/practice/course.pdf"}, {Name: "Back", Address: "/practice"}}
	})
}
