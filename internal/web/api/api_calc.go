package api

import (
	"io"
	"net/http"

	"corvek/core/calc"

	"github.com/labstack/echo/v5"
)

func (s *Pages) calcList(c *echo.Context) error {
	type item struct {
		Name    string `json:"name"`
		Summary string `json:"summary"`
	}
	var out []item
	for _, d := range calc.All() {
		out = append(out, item{d.Name, d.Summary})
	}
	return c.JSON(http.StatusOK, out)
}

func (s *Pages) calc(c *echo.Context) error {
	body, err := io.ReadAll(io.LimitReader(c.Request().Body, calc.MostInput+1))
	if err != nil {
		return err
	}
	out, err := calc.Run(c.Param("name"), body)
	if err != nil {
		return err
	}
	return c.JSON(http.StatusOK, out)
}
