package jobpages

import (
	"fmt"
	"html/template"
	"net/url"
	"slices"
	"strings"
	"time"

	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/line"
	"corvek/internal/web/site"
)

func (l *look) shell() *site.JobShell {
	j := l.job
	s := &site.JobShell{
		Version:      j.Version,
		Tag:          j.Tag,
		Title:        j.Title,
		Customer:     j.Customer.Name,
		Family:       l.st.Family.Name,
		Displacement: l.unit.Displacement.In(l.Units),
		Rotation:     l.unit.Rotation,
		PromisedOn:   j.PromisedOn,
		Promise:      daysLeft(j.PromisedOn.Time(), l.Now),
		Pictures:     len(j.Pictures),
		ToolboxURL:   "/toolbox",
		Station:      l.station,
		Rail:         l.rail(),
		Units:        l.unitTabs(),
	}
	s.HeldBy, _, _ = strings.Cut(j.HeldBy, " ")
	s.Mine, s.Open = unit.HandedTo(l.Person.Name, j.HeldBy, j.HalfDone), !j.Closed()
	s.Late = strings.Contains(s.Promise, "late")
	if j.Withdrawn() {
		s.Promise, s.Late = "withdrawn", true
	} else if j.HandedOver() {
		s.Promise = "handed over"
	} else if l.CanWork() {
		s.ToolboxURL += "?for=" + j.Tag
		if l.unit.Number > 1 {
			s.ToolboxURL += fmt.Sprintf("&unit=%d", l.unit.Number)
		}
	}
	if len(j.Units) > 1 {
		s.UnitName = l.unit.Name
	}
	if l.st.Round > 1 {
		s.Round = l.st.Round
	}
	if l.station != "" {
		s.Help = helpFor(l.station, wording.Stations[l.station])
		s.Foot, s.Lessons, s.Here = l.foot(), l.st.Lessons(l.station), l.here()
	}
	if line.Stations[l.station] {
		s.Line, s.LargeURL = l.drawLine(), l.largeURL()
	}
	return s
}

func (l *look) rail() (out []site.RailItem) {
	for i, x := range l.st.Progress() {
		out = append(out, site.RailItem{
			No: i + 1, Code: x.Station, Name: wording.Stations[x.Station], URL: l.link(x.Station, "", ""),
			Stops: x.Open, Here: x.Station == l.station, Begun: x.Begun, Done: x.Done, Owed: x.Owed,
		})
	}
	return out
}

// unitTabs lists the job's units; nothing for a job with one.
func (l *look) unitTabs() (out []site.UnitTab) {
	if len(l.job.Units) < 2 {
		return nil
	}
	station := l.station
	if station == "" {
		station = "receive"
	}
	for i, u := range l.job.Units {
		link := "/jobs/" + l.job.Tag + "/" + station
		if i > 0 {
			link += fmt.Sprintf("?unit=%d", i+1)
		}
		out = append(out, site.UnitTab{No: i + 1, Name: u.Name, URL: link, Here: i+1 == l.unitNo})
	}
	return out
}

// foot finds the stop in the way, the neighbours of the part and the next act.
func (l *look) foot() *site.Foot {
	at := slices.Index(unit.Stations, l.station)
	f := &site.Foot{Stops: l.st.Open(l.station)}
	for _, stop := range l.st.Stops[l.station] {
		if stop.Waived == nil {
			f.StopText, f.StopURL = stop.Next(), l.stopURL(stop)
			break
		}
	}
	if f.StopURL == "" {
		if stop := l.st.First(l.station); stop != nil {
			f.StopText = "at " + wording.Stations[stop.Station] + ": " + stop.Next()
			f.StopURL = l.stopURL(*stop)
		}
	}
	if at < len(unit.Stations)-1 {
		next := unit.Stations[at+1]
		f.NextText, f.NextURL = wording.Stations[next], l.link(next, "", "")
	}
	if line.Stations[l.station] {
		f.PrevURL, f.SuccURL = l.neighbours()
	}
	return f
}

// neighbours are the pages of the part before and of the next one, in the order
// of the station's work.
func (l *look) neighbours() (prev, succ string) {
	parts := l.st.Parts
	if l.station == "build" {
		parts = l.st.InOrder()
	}
	i := slices.Index(parts, l.part)
	at := func(i int) string {
		if i < 0 || i >= len(parts) {
			return ""
		}
		return l.link(l.station, parts[i].Code, "")
	}
	return at(i - 1), at(i + 1)
}

// largeURL is the line alone, with this station's layer.
func (l *look) largeURL() string {
	return withQuery(l.page().Act("line"), "layer="+l.station+"&part="+url.QueryEscape(l.part.Code))
}

// daysLeft says how a promise stands.
func daysLeft(promised, now time.Time) string {
	if promised.IsZero() {
		return "no date promised"
	}
	today := time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, time.UTC)
	due := time.Date(promised.Year(), promised.Month(), promised.Day(), 0, 0, 0, 0, time.UTC)
	switch n := int(due.Sub(today).Hours() / 24); {
	case n > 1:
		return fmt.Sprintf("%d days left", n)
	case n == 1:
		return "due tomorrow"
	case n == 0:
		return "due today"
	case n == -1:
		return "one day late"
	default:
		return fmt.Sprintf("%d days late", -n)
	}
}

// drawLine draws the unit with the layer of the page's station.
func (l *look) drawLine() template.HTML {
	layer := line.Layer{Station: l.station, Selected: l.part.Code,
		Link: func(part string) string { return l.link(l.station, part, "") }}
	key := "line " + l.station + " " + l.part.Code + " " + layer.Link("")
	return template.HTML(l.drawings.of(l.st, key, func() string { return layer.Draw(l.st) }))
}
