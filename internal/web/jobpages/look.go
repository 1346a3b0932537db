package jobpages

import (
	"context"
	"corvek/core/handover"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/entry"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/job"
	"corvek/internal/line"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// jobFuncs are what the templates of a job's pages call.
var jobFuncs = template.FuncMap{
	"changeOf": changeOf,
	"named":    func(what string, names []string) NameList { return NameList{what, names} },
	"runrow":   func(list *RunList, row RunRow) RunRowOf { return RunRowOf{list, row} },
	"page":     func(page KitPage, of any) PageOf { return PageOf{page, of} },
}

// look is one reader's look at a unit: at which station, at which part. The
// builders of the pages of a job take it.
type look struct {
	site.Reader
	st        *bench.State
	job       *unit.Job
	unit      *unit.Unit
	unitNo    int
	station   string
	part      *bench.Part
	partAsked bool // it stands in the address
	feature   *bench.Feature
	face      string        // which of a station's faces is turned up
	asked     string        // a part that was asked for and not found
	theory    string        // the reader's own theory at Explain
	mark      string        // the words of a mark he looks for at Explain
	piece     int           // a piece of the kit that was chosen
	stock     *job.StockFor // what the shop's own stock has for the unit, at Kit
	atStep    string        // a step of the test that was asked for
	allMarks  bool          // he wants to see every mark there is
	shop      *entry.Shop
	drawings  *drawings
	query     url.Values // of the address it was asked for by

	work *rowWork // the row at work, once somebody asked for it
}

// rowWork is the part whose row is at work at a station; nil where all is done.
type rowWork struct {
	station string
	part    *bench.Part
}

// JobPage is what the pages of a job have in common: their forms, and where
// these go.
type JobPage struct {
	site.Reader
	Tag    string
	UnitNo int
}

// Act is the address of a command or of a paper of the shown unit.
func (p JobPage) Act(path string) string {
	u := "/jobs/" + p.Tag + "/" + path
	if p.UnitNo > 1 {
		u += fmt.Sprintf("?unit=%d", p.UnitNo)
	}
	return u
}

func (l *look) page() JobPage { return JobPage{Reader: l.Reader, Tag: l.job.Tag, UnitNo: l.unitNo} }

// look reads the job of the address as a station sees it.
func (s *Pages) look(c *echo.Context, station string) (*look, error) {
	if !slices.Contains(unit.Stations, station) {
		return nil, store.ErrNotFound
	}
	no := unitNo(c)
	st, err := s.Jobs.Load(c.Request().Context(), c.Param("tag"), no)
	if err != nil {
		return nil, err
	}
	l := &look{Reader: s.Reader(c), st: st, job: st.Job, unit: st.Unit, unitNo: no, station: station,
		face: c.QueryParam("face"), theory: c.QueryParam("theory"), mark: strings.TrimSpace(c.QueryParam("mark")),
		allMarks: c.QueryParam("marks") == "all", atStep: c.QueryParam("step")}
	l.query, l.drawings = c.QueryParams(), s.drawings
	l.piece, _ = strconv.Atoi(c.QueryParam("piece"))
	l.Closed = st.Job.Closed()
	part := c.QueryParam("part")
	if asked := strings.TrimSpace(c.QueryParam("find")); asked != "" {
		l.asked = asked
		if x := findPart(st.Parts, asked); x != nil {
			part, l.asked = x.Code, ""
		}
	}
	if l.shop, err = s.Jobs.Shop(c.Request().Context(), l.Person.Name); err != nil {
		return nil, err
	}
	if station == "kit" && !l.Closed {
		if l.stock, err = s.Jobs.StockFor(c.Request().Context(), st); err != nil {
			return nil, err
		}
	}
	l.choosePart(part, c.QueryParam("feature"))
	if l.runs() {
		if at := l.rowAtWork(); at != nil {
			l.part = at
		}
	}
	return l, nil
}

func unitNo(c *echo.Context) int {
	n, err := strconv.Atoi(c.QueryParam("unit"))
	if err != nil {
		return 1
	}
	return n
}

// link is the address of a station of the job, with part and feature set by
// their codes.
func (l *look) link(station, part, feature string) string {
	q := url.Values{}
	if l.unitNo > 1 {
		q.Set("unit", fmt.Sprint(l.unitNo))
	}
	if part != "" {
		q.Set("part", part)
	}
	if feature != "" {
		q.Set("feature", feature)
	}
	u := "/jobs/" + l.job.Tag + "/" + station
	if len(q) > 0 {
		u += "?" + q.Encode()
	}
	return u
}

// here is the address of what the page shows: the part and the feature that it opened
// with stand in it, so that the sheet stays under the hand whatever is entered.
func (l *look) here() string {
	q := url.Values{}
	for name, values := range l.query {
		if name != "find" {
			q[name] = values
		}
	}
	if line.Stations[l.station] && !l.runs() {
		q.Set("part", l.part.Code)
	}
	if l.runs() {
		q.Del("at") // the next row is the one at work
	}
	if l.station == "measure" && l.feature != nil {
		q.Set("feature", l.feature.Code)
	}
	u := "/jobs/" + l.job.Tag + "/" + l.station
	if len(q) > 0 {
		u += "?" + q.Encode()
	}
	return u
}

// faceURL is the station's page with another of its faces turned up.
func (l *look) faceURL(face string) string {
	part := ""
	if l.station != "receive" {
		part = l.part.Code
	}
	u := l.link(l.station, part, "")
	if face == "" {
		return u
	}
	return withQuery(u, "face="+face)
}

// withQuery adds a query to an address that may have one already.
func withQuery(address, query string) string {
	if strings.Contains(address, "?") {
		return address + "&" + query
	}
	return address + "?" + query
}

// choosePart takes the part asked for, else the one where the work is.
func (l *look) choosePart(part, feature string) {
	l.part = l.st.ByCode[part]
	l.partAsked = l.part != nil
	if l.part == nil {
		l.part = l.partAtWork()
		for _, stop := range l.st.Stops[l.station] {
			if l.st.ByCode[stop.Part] != nil && stop.Waived == nil && l.station != "build" && l.station != "kit" {
				l.part = l.st.ByCode[stop.Part]
				if feature == "" {
					feature = stop.Feature
				}
				break
			}
		}
	}
	for i, f := range l.part.Features {
		if i == 0 || f.Code == feature {
			l.feature = f
		}
	}
}

// partAtWork is the part where the station's work goes on.
func (l *look) partAtWork() *bench.Part {
	is := func(*bench.Part) bool { return true }
	switch l.station {
	case "strip":
		is = func(x *bench.Part) bool { return !x.Off }
	case "measure":
		is = func(x *bench.Part) bool { return len(x.Features) > 0 }
	case "explain":
		is = func(x *bench.Part) bool { return line.MarksOn(l.st, x) > 0 }
	case "decide":
		is = func(x *bench.Part) bool { return x.Choice() == decide.Rework }
	case "build":
		if next := line.Next(l.st); next != nil {
			return next
		}
	}
	if i := slices.IndexFunc(l.st.Parts, is); i >= 0 {
		return l.st.Parts[i]
	}
	return l.st.Parts[0]
}

// partNo is the number of the chosen part as the line shows it.
func (l *look) partNo() int {
	if l.station == "build" {
		return slices.Index(l.st.InOrder(), l.part) + 1
	}
	return slices.Index(l.st.Parts, l.part) + 1
}

// findPart is the part that was typed or scanned: its number in the line, its
// code, or words of its name, the closest first.
func findPart(parts []*bench.Part, asked string) *bench.Part {
	asked = strings.ToLower(asked)
	if n, err := strconv.Atoi(asked); err == nil && n >= 1 && n <= len(parts) {
		return parts[n-1]
	}
	for _, fits := range []func(*bench.Part) bool{
		func(x *bench.Part) bool {
			return strings.EqualFold(x.Code, asked) || strings.EqualFold(x.Name, asked)
		},
		func(x *bench.Part) bool { return strings.HasPrefix(strings.ToLower(x.Name), asked) },
		func(x *bench.Part) bool {
			words := strings.ToLower(x.Name + " " + x.Def.Branch)
			for _, w := range strings.Fields(asked) {
				if !strings.Contains(words, w) {
					return false
				}
			}
			return true
		},
	} {
		if i := slices.IndexFunc(parts, fits); i >= 0 {
			return parts[i]
		}
	}
	return nil
}

// station shows a station of a job.
func (s *Pages) station(c *echo.Context) error {
	l, err := s.look(c, c.Param("station"))
	if err != nil {
		return err
	}
	shell := site.Shell{Reader: l.Reader, Title: l.job.Tag + " " + wording.Stations[l.station], Job: l.shell()}
	if shell.Main, err = s.stationPage(c.Request().Context(), l); err != nil {
		return err
	}
	if shell.Job.Foot.Undo, err = s.undoOf(c.Request().Context(), l); err != nil {
		return err
	}
	shell.Live = l.station == "prove"
	return s.RenderShell(c, http.StatusOK, l.station, shell)
}

func (s *Pages) stationPage(ctx context.Context, l *look) (any, error) {
	switch l.station {
	case "receive":
		same, err := s.Jobs.SameUnit(ctx, l.st)
		page := receivePage(l, s.Families(), same)
		page.Sheets = s.sheetOffers(l)
		return page, err
	case "strip":
		return stripPage(l), nil
	case "measure":
		return measurePage(l), nil
	case "explain":
		board, err := s.marksBoard(l)
		return explainPage(l, board), err
	case "decide":
		states, err := s.Jobs.LoadAll(ctx, l.job.Tag)
		if err != nil {
			return nil, err
		}
		return decidePage(l, states), nil
	case "kit":
		return kitPage(l, l.piece), nil
	case "build":
		return buildPage(l), nil
	case "prove":
		p := provePage(l)
		list, err := s.Store.Recordings(ctx, l.job.Tag, l.unitNo)
		if err != nil {
			return nil, err
		}
		p.Recordings = recordingRows(list)
		p.Stand, err = s.standPanel(ctx, l, l.atStep)
		return p, err
	}
	kept, err := s.Store.Papers(ctx, l.job.Tag)
	if err != nil {
		return nil, err
	}
	signed, err := handover.SignedOff(l.job, l.unitNo, s.Store.Lines(ctx, l.job.Tag))
	if err != nil {
		return nil, err
	}
	p := handoverPage(l, kept, signed)
	p.asked(l.job.FollowUps, unit.DateOf(s.Jobs.Now()))
	return p, nil
}

// renderBeside writes a page of the job that is no station, such as its record.
func (s *Pages) renderBeside(c *echo.Context, name, title string, l *look, page any) error {
	return s.renderBesideAs(c, http.StatusOK, name, title, l, page)
}

// renderBesideAs is renderBeside with a status.
func (s *Pages) renderBesideAs(c *echo.Context, status int, name, title string, l *look, page any) error {
	l.station = ""
	return s.RenderShell(c, status, name,
		site.Shell{Reader: l.Reader, Title: l.job.Tag + " " + title, Job: l.shell(), Main: page})
}

func (s *Pages) openJob(c *echo.Context) error {
	j, err := s.Store.Job(c.Request().Context(), c.Param("tag"))
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/jobs/%s/%s", j.Tag, j.Station))
}
