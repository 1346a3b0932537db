package toolbox

import (
	"strings"

	"corvek/core/calc"
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

// ToolboxPage is all shelves, and the job they were opened from.
type ToolboxPage struct {
	Shelves []Shelf
	Of      Subject
	Find    string
}

// mostFind is how long words may be that something is looked for by.
const mostFind = 100

// foundBy reports that a calculator goes by all the words.
func (l ToolLink) foundBy(words []string) bool {
	hay := strings.ToLower(l.Words)
	for _, w := range words {
		if !strings.Contains(hay, w) {
			return false
		}
	}
	return true
}

func safeTag(s string) string {
	if len(s) > 40 {
		return ""
	}
	return s
}

func (s *Pages) toolbox(c *echo.Context) error {
	var shelves []Shelf
	find := c.QueryParam("find")
	if len(find) > mostFind {
		find = ""
	}
	words := strings.Fields(strings.ToLower(find))
	for _, subject := range calc.Subjects {
		shelf := Shelf{Subject: subject}
		for _, d := range calc.All() {
			if l := linkTo(d); d.Subject == subject && l.foundBy(words) {
				shelf.Tools = append(shelf.Tools, l)
			}
		}
		if len(shelf.Tools) > 0 {
			shelves = append(shelves, shelf)
		}
	}
	return s.RenderOK(c, "toolbox", "Toolbox", ToolboxPage{Shelves: shelves, Of: subjectOf(c.QueryParam),
		Find: find})
}
