package shoppages

import (
	"net/http"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/core/remaining"
	"corvek/core/unit"
	"corvek/core/workshop"
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
	Place                 string // chosen: the number of a place, newPlace, or "" for practice only
	Places                []workshop.Place
	Example               string
}

// newPlace is the choice that makes a place of the plan of a stand.
const newPlace = "new"

// StandRow is a stand of the list.
type StandRow struct {
	Name, Endpoint, Nodes string
	Reads                 int
	Drives                bool
	At                    string // job it works for just now
	Place                 *workshop.Place
}

const nodesExample = `pressure = ns=2;s=Bench.P1 in bar
flow = ns=2;s=Bench.Q1 in L/min
speed = ns=2;s=Bench.n in rpm
temperature = ns=2;s=Bench.T1 in °C
drive = ns=2;s=Bench.Run
set_pressure = ns=2;s=Bench.SetP in bar`

func (s *Pages) stands(c *echo.Context) error {
	return s.renderStands(c, http.StatusOK, StandsPage{Nodes: nodesExample, Place: newPlace})
}

func (s *Pages) renderStands(c *echo.Context, status int, v StandsPage) error {
	list, err := s.Store.Stands(c.Request().Context())
	if err != nil {
		return err
	}
	if v.Places, err = s.standPlaces(c); err != nil {
		return err
	}
	v.Reader, v.Example = s.Reader(c), nodesExample
	for _, row := range list {
		r := StandRow{Name: row.Name, Endpoint: row.Endpoint, Nodes: row.Nodes, Place: row.Place}
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
		Nodes: c.FormValue("nodes"), Place: c.FormValue("place")}
	if v.Name == "" {
		v.Error = field.Errorf("name", "say what the stand is called")
	} else if len([]rune(v.Name)) > store.MostStandName {
		v.Error = field.Errorf("name", "is longer than %d letters", store.MostStandName)
	} else if err := rig.CheckEndpoint(v.Endpoint); err != nil {
		v.Error = field.Errorf("endpoint", "%s", err)
	} else if _, err := rig.ParseNodes(v.Nodes); err != nil {
		v.Error = field.Errorf("nodes", "%s", err)
	}
	stand := store.Stand{Name: v.Name, Endpoint: v.Endpoint, Nodes: strings.ReplaceAll(v.Nodes, "\r\n", "\n")}
	if v.Error == nil {
		var err error
		if v.Error, err = s.standsIn(c, &stand, v.Place); err != nil {
			return err
		}
	}
	if v.Error != nil {
		return s.renderStands(c, http.StatusUnprocessableEntity, v)
	}
	words := "stand " + v.Name + ", for practice"
	if stand.Place != nil {
		words = "stand " + v.Name + ", in the plan as " + stand.Place.Name
	}
	if err := s.Store.SaveStand(c.Request().Context(), stand, site.Who(c).Name, words); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/stands")
}

// places are those that are planned.
func (s *Pages) places(c *echo.Context) ([]workshop.Place, error) {
	w, err := s.Store.Workshop(c.Request().Context(), unit.DateOf(s.Jobs.Now()))
	if err != nil {
		return nil, err
	}
	return w.Places, nil
}

// standPlaces are those of them that are stands.
func (s *Pages) standPlaces(c *echo.Context) (out []workshop.Place, err error) {
	all, err := s.places(c)
	for _, p := range all {
		if p.Kind == string(remaining.AtStand) {
			out = append(out, p)
		}
	}
	return out, err
}

// standsIn says which place of the plan a stand is: one that is there, a new one of its name, or none.
func (s *Pages) standsIn(c *echo.Context, stand *store.Stand, asked string) (*field.Error, error) {
	if asked == "" {
		return nil, nil
	}
	all, err := s.places(c)
	if err != nil {
		return nil, err
	}
	for i := range all {
		p := &all[i]
		isStand := p.Kind == string(remaining.AtStand)
		switch {
		case isStand && strconv.Itoa(int(p.ID)) == asked, isStand && asked == newPlace && p.Name == stand.Name:
			stand.PlaceID, stand.Place = &p.ID, p
			return nil, nil
		case asked == newPlace && p.Name == stand.Name:
			return field.Errorf("name", "%s is another place of the shop: %s", p.Name, p.Kind), nil
		}
	}
	if asked != newPlace {
		return field.Errorf("place", "is not in the plan any more: choose again"), nil
	}
	stand.Place = &workshop.Place{Name: stand.Name, Kind: string(remaining.AtStand)}
	return nil, nil
}

func (s *Pages) dropStand(c *echo.Context) error {
	name := c.FormValue("name")
	err := s.Store.DropStand(c.Request().Context(), name, site.Who(c).Name, "stand "+name+" is read no more")
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/stands")
}
