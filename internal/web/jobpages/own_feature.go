package jobpages

import (
	"strconv"
	"strings"

	"corvek/core/family"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// ownMethods are the ways something else is measured, as they are called at the bench.
var ownMethods = []site.Named{
	{Code: string(family.MethodValue), Name: "readings one after the other"},
	{Code: string(family.MethodGrid), Name: "places by axes"},
	{Code: string(family.MethodSisters), Name: "one reading a piece"},
	{Code: string(family.MethodFit), Name: "hole and shaft, pair by pair"},
	{Code: string(family.MethodFeeler), Name: "feeler leaves"},
	{Code: string(family.MethodDepth), Name: "depths"},
	{Code: string(family.MethodTIR), Name: "swing of a dial"},
	{Code: string(family.MethodGrade), Name: "by touch"},
}

// OwnMethods are offered for what is measured besides.
func (MeasurePage) OwnMethods() []site.Named { return ownMethods }

func (s *Pages) addFeature(c *echo.Context) error {
	whole := func(name string) int {
		n, err := strconv.Atoi(strings.TrimSpace(c.FormValue(name)))
		if err != nil {
			return 1
		}
		return n
	}
	return site.Done(c, s.Jobs.AddFeature(
		c.Request().Context(),
		site.Who(c),
		c.Param("tag"),
		unitNo(c),
		family.OwnFeature{
			Part:  c.FormValue("part"),
			Name:  c.FormValue("name"),
			By:    family.Method(c.FormValue("method")),
			Wears: c.FormValue("wears"),
			Rows:  whole("rows"),
			Cols:  whole("cols"),
		},
	))
}
