package web

import (
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"corvek/internal/job"
	"corvek/internal/store"
	"corvek/internal/wording"

	"github.com/labstack/echo/v5"
)

// jobPage loads a job and lays out what every station shares.
func (s *Server) jobPage(c *echo.Context, station string) (*Page, error) {
	if !slices.Contains(job.Stations, station) {
		return nil, store.ErrNotFound
	}
	unit := unitNo(c)
	st, err := s.jobs.Load(c.Request().Context(), c.Param("tag"), unit)
	if err != nil {
		return nil, err
	}
	p := s.page(c, st.Job.Tag+" "+wording.Stations[station])
	p.S, p.Station, p.UnitNo, p.Face = st, station, unit, c.QueryParam("face")
	p.Theory = c.QueryParam("theory")
	part := c.QueryParam("part")
	if asked := strings.TrimSpace(c.QueryParam("find")); asked != "" {
		p.Asked = asked
		if x := p.findPart(asked); x != nil {
			part, p.Asked = x.Code, ""
		}
	}
	if p.shop, err = s.jobs.Shop(c.Request().Context(), p.Person.Name); err != nil {
		return nil, err
	}
	p.choosePart(part, c.QueryParam("feature"))
	p.rail()
	p.foot()
	if lineStations[station] {
		p.Line = p.drawLine()
	}
	return p, nil
}

func unitNo(c *echo.Context) int {
	n, err := strconv.Atoi(c.QueryParam("unit"))
	if err != nil {
		return 1
	}
	return n
}

func (s *Server) station(c *echo.Context) error {
	station := c.Param("station")
	p, err := s.jobPage(c, station)
	if err != nil {
		return err
	}
	p.Body = p.stationView()
	if v, is := p.Body.(ReceiveView); is {
		v.Families = s.families()
		p.Body = v
	}
	return s.render(c, http.StatusOK, station, p)
}

// choosePart takes the part asked for, else the one where the work is.
func (p *Page) choosePart(part, feature string) {
	p.Part = p.S.ByCode[part]
	p.PartAsked = p.Part != nil
	if p.Part == nil {
		p.Part = p.S.Parts[0]
		switch p.Station {
		case "strip":
			p.Part = p.firstPart(func(x *job.PartState) bool { return !x.Off })
		case "measure":
			p.Part = p.firstPart(func(x *job.PartState) bool { return len(x.Features) > 0 })
		case "build":
			if next := p.nextStep(); next != nil {
				p.Part = next
			}
		case "explain":
			p.Part = p.firstPart(func(x *job.PartState) bool { return p.marks(x) > 0 })
		}
		for _, stop := range p.S.Stops[p.Station] {
			if p.S.ByCode[stop.Part] != nil && stop.Passed == nil && p.Station != "build" && p.Station != "kit" {
				p.Part = p.S.ByCode[stop.Part]
				if feature == "" {
					feature = stop.Feature
				}
				break
			}
		}
	}
	for i, f := range p.Part.Features {
		if i == 0 || f.Code == feature {
			p.Feature = f
		}
	}
}

// findPart is the part that was typed or scanned: its number in the line, its
// code, or words of its name, the closest first.
func (p *Page) findPart(asked string) *job.PartState {
	asked = strings.ToLower(asked)
	if n, err := strconv.Atoi(asked); err == nil && n >= 1 && n <= len(p.S.Parts) {
		return p.S.Parts[n-1]
	}
	for _, fits := range []func(*job.PartState) bool{
		func(x *job.PartState) bool {
			return strings.EqualFold(x.Code, asked) || strings.EqualFold(x.Name, asked)
		},
		func(x *job.PartState) bool { return strings.HasPrefix(strings.ToLower(x.Name), asked) },
		func(x *job.PartState) bool {
			for _, w := range strings.Fields(asked) {
				if !strings.Contains(strings.ToLower(x.Name+" "+x.Def.Branch), w) {
					return false
				}
			}
			return true
		},
	} {
		for _, x := range p.S.Parts {
			if fits(x) {
				return x
			}
		}
	}
	return nil
}

func (p *Page) firstPart(is func(*job.PartState) bool) *job.PartState {
	for _, x := range p.S.Parts {
		if is(x) {
			return x
		}
	}
	return p.S.Parts[0]
}

func (p *Page) rail() {
	for i, x := range p.S.Progress() {
		p.Rail = append(p.Rail, RailItem{
			No: i + 1, Code: x.Station, Name: wording.Stations[x.Station], URL: p.Link(x.Station, "", ""),
			Stops: x.Open, Here: x.Station == p.Station, Begun: x.Begun, Done: x.Done,
		})
	}
}

// foot finds the stop in the way, the neighbours of the part and the next act.
func (p *Page) foot() {
	at := slices.Index(job.Stations, p.Station)
	p.Foot.Stops = p.S.Open(p.Station)
	for _, stop := range p.S.Stops[p.Station] {
		if stop.Passed == nil {
			p.Foot.StopText = stop.Text
			p.Foot.StopURL = p.Link(p.Station, stop.Part, stop.Feature)
			break
		}
	}
	if p.Foot.StopURL == "" {
		if stop := p.S.First(p.Station); stop != nil {
			p.Foot.StopURL = p.Link(stop.Station, stop.Part, stop.Feature)
		}
	}
	if at < len(job.Stations)-1 {
		next := job.Stations[at+1]
		p.Foot.NextText, p.Foot.NextURL = wording.Stations[next], p.Link(next, "", "")
	}
	if !lineStations[p.Station] {
		return
	}
	i := slices.Index(p.S.Parts, p.Part)
	prev, succ := i-1, i+1
	if p.Station == "build" {
		prev, succ = i+1, i-1
	}
	if prev >= 0 && prev < len(p.S.Parts) {
		p.Foot.PrevURL = p.Link(p.Station, p.S.Parts[prev].Code, "")
	}
	if succ >= 0 && succ < len(p.S.Parts) {
		p.Foot.SuccURL = p.Link(p.Station, p.S.Parts[succ].Code, "")
	}
}

// No is the number of the chosen part as the line shows it.
func (p *Page) No() int {
	i := slices.Index(p.S.Parts, p.Part)
	if p.Station == "build" {
		return len(p.S.Parts) - i
	}
	return i + 1
}

func (s *Server) openJob(c *echo.Context) error {
	j, err := s.store.Job(c.Request().Context(), c.Param("tag"))
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/jobs/%s/%s", j.Tag, j.Station))
}

func (s *Server) home(c *echo.Context) error { return c.Redirect(http.StatusSeeOther, "/rack") }

// offStation makes the page one of the job that is no station.
func (p *Page) offStation(title string) {
	p.Title, p.Station = p.S.Job.Tag+title, ""
	for i := range p.Rail {
		p.Rail[i].Here = false
	}
}

// record shows who did what.
func (s *Server) record(c *echo.Context) error {
	p, err := s.jobPage(c, "receive")
	if err != nil {
		return err
	}
	entries, err := s.store.Record(c.Request().Context(), p.S.Job.Tag, mostLines)
	if err != nil {
		return err
	}
	p.offStation(" Record")
	p.Body = entries
	return s.render(c, http.StatusOK, "record", p)
}

// mostLines of the record are shown at once.
const mostLines = 500
