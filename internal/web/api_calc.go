package web

import (
	"io"
	"net/http"

	"corvek/core/calc"
	"corvek/core/field"

	"github.com/labstack/echo/v5"
)

func (s *Server) calcList(c *echo.Context) error {
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

const maxCalcBody = 1 << 20

func (s *Server) calc(c *echo.Context) error {
	body, err := io.ReadAll(io.LimitReader(c.Request().Body, maxCalcBody+1))
	if err != nil {
		return err
	}
	if len(body) > maxCalcBody {
		return field.Errorf("", "the input is larger than 1 MB")
	}
	out, err := calc.Run(c.Param("name"), body)
	if err != nil {
		return err
	}
	return c.JSON(http.StatusOK, out)
}
