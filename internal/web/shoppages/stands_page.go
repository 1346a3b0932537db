package shoppages

import (
	"net/http"
	"strings"

	"corvek/core/field"
	"corvek/internal/rig"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// StandsPage is the shop's test stands, for leads.
type StandsPage struct {
	site.Reader
	Rows                  []StandRow
	Error                 *field.Error
	Name, Endpoint, Nodes string
	Example               string
}

// StandRow is a stand of the list.
type StandRow struct {
	Name, Endpoint, Nodes string
	Reads                 int
	Drives                bool
	At                    string // job it works for just now
}

const nodesExample = `pressure = ns=2;s=Bench.P1 in bar
flow = ns=2;s=Bench.Q1 in L/min
speed = ns=2;s=Bench.n in rpm
temperature = ns=2;s=Bench.T1 in °C
drive = ns=2;s=Bench.Run
set_pressure = ns=2;s=Bench.SetP in bar`

func (s *Pages) stands(c *echo.Context) error {
	return s.renderStands(c, http.StatusOK, StandsPage{Nodes: nodesExample})
}

func (s *Pages) renderStands(c *echo.Context, status int, v StandsPage) error {
	list, err := s.Store.Stands(c.Request().Context())
	if err != nil {
		return err
	}
	v.Reader, v.Example = s.Reader(c), nodesExample
	for _, row := range list {
		r := StandRow{Name: row.Name, Endpoint: row.Endpoint, Nodes: row.Nodes}
		if nodes, err := rig.ParseNodes(row.Nodes); err == nil {
			for _, n := range nodes {
				r.Drives = r.Drives || n.Code == rig.NodeDrive
			}
			r.Reads = rig.Read(nodes)
		}
		r.At = s.desk.WorksFor(row.Name)
		v.Rows = append(v.Rows, r)
	}
	return s.Render(c, status, "stands", "Test stands", v)
}

func (s *Pages) saveStand(c *echo.Context) error {
	v := StandsPage{Name: strings.TrimSpace(c.FormValue("name")), Endpoint: strings.TrimSpace(c.FormValue("endpoint")),
		Nodes: c.FormValue("nodes")}
	if v.Name == "" {
		v.Error = field.Errorf("name", "say what the stand is called")
	} else if len([]rune(v.Name)) > store.MostStandName {
		v.Error = field.Errorf("name", "is longer than %d letters", store.MostStandName)
	} else if err := rig.CheckEndpoint(v.Endpoint); err != nil {
		v.Error = field.Errorf("endpoint", "%s", err)
	} else if _, err := rig.ParseNodes(v.Nodes); err != nil {
		v.Error = field.Errorf("nodes", "%s", err)
	}
	if v.Error != nil {
		return s.renderStands(c, http.StatusUnprocessableEntity, v)
	}
	if err := s.Store.SaveStand(c.Request().Context(), store.Stand{Name: v.Name, Endpoint: v.Endpoint,
		Nodes: strings.ReplaceAll(v.Nodes, "\r\n", "\n")}); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/stands")
}

func (s *Pages) dropStand(c *echo.Context) error {
	if err := s.Store.DropStand(c.Request().Context(), c.FormValue("name")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/stands")
}
