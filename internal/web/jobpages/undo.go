package jobpages

import (
	"context"
	"fmt"
	"strconv"

	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// undoOf is the last act of the reader on the job; nil where there is none, or where
// nothing can be changed.
func (s *Pages) undoOf(ctx context.Context, l *look) (*site.UndoView, error) {
	if !l.CanWork() {
		return nil, nil
	}
	act, err := s.Store.LastAct(ctx, l.job.Tag, l.Person.Name)
	if err != nil || act == nil {
		return nil, err
	}
	return &site.UndoView{Words: actWords(l.job, l.st.Families, act.Lines), Action: l.page().Act("undo"),
		Version: act.Version, CSRF: l.CSRF}, nil
}

// actWords say what an act was: its last line stands for all.
func actWords(j *unit.Job, families func(*unit.Unit) *family.Family, lines []store.ActLine) string {
	if len(lines) == 0 {
		return "the last change"
	}
	last := lines[len(lines)-1]
	if last.Action == "waits by itself" && len(lines) > 1 {
		last, lines = lines[len(lines)-2], lines[:len(lines)-1]
	}
	words := last.Action
	if last.Field != "" {
		words = wording.Where(j, families, last.Field) + ": " + site.ValueWords(last.Field, last.After)
		if last.After == "" {
			words = wording.Where(j, families, last.Field) + " cleared"
		}
	}
	if n := len(lines) - 1; n > 0 {
		words += fmt.Sprintf(", and %d more", n)
	}
	return words
}

// undo takes back what its reader did last.
func (s *Pages) undo(c *echo.Context) error {
	version, err := strconv.ParseInt(c.FormValue("version"), 10, 64)
	if err != nil {
		return field.Errorf("undo", "say which act is meant")
	}
	return site.Done(c, s.Jobs.Undo(c.Request().Context(), site.Who(c), c.Param("tag"), version))
}
