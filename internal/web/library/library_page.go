package library

import (
	"github.com/labstack/echo/v5"
)

// LibraryRow is a family in the list.
type LibraryRow struct {
	Code, Name, Action         string
	Parts, Features, Musts     int
	Own                        bool
	Questions, Variants, Tests int
}

func (s *Pages) library(c *echo.Context) error {
	if err := s.Jobs.Refresh(c.Request().Context()); err != nil {
		return err
	}
	var rows []LibraryRow
	for _, f := range s.Jobs.Families().List() {
		r := LibraryRow{Code: f.Code, Name: f.Name, Action: f.Action, Parts: len(f.Parts),
			Own: s.Jobs.OwnFamily(f.Code), Questions: len(f.Gauge), Variants: len(f.VariantRules), Tests: len(f.Tests)}
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
	return s.RenderOK(c, "library", "Library of families", rows)
}
