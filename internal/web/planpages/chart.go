package planpages

import (
	"fmt"
	"strconv"
	"strings"
	"time"

	"corvek/core/plan"
	"corvek/core/shop"
	"corvek/core/workshop"
	"corvek/internal/planning"
)

// Chart is the plan drawn: days across, and a row for each person and place, and for what is waited for.
type Chart struct {
	Width, Height int
	Days          []ChartDay
	Rows          []ChartRow
	Bars          []Bar
	Now           int // x of the moment that the plan begins with
	Opens, Shuts  int // minutes of the day between which somebody is there
}

// ChartDay is a column.
type ChartDay struct {
	X, Width int
	Name     string
	Called   string // wherever there is room
	Closed   bool
}

// ChartRow is a row.
type ChartRow struct {
	Y, Height int
	Name      string
	Kind      string // person, place or wait
	Resource  int    // of the planner
}

// Bar is a task in a row.
type Bar struct {
	X, Y, Width, Height    int
	Words, Title, URL      string
	Task                   string // its address
	Row                    int    // the resource whose row it is in
	Late, Pinned, Wait, On bool   // On: it is the one that is looked at
	Runs                   bool   // somebody is at it
	Can                    string // the rows that it may stand in, by blanks
	From                   int    // it cannot begin left of here
	After                  string // since so long it is at something else
	Held                   string // what is said to one who draws another over it, "" where that may move it
}

// Sizes of the chart, in units of its drawing.
const (
	chartDays  = 14
	dayWide    = 132
	dayNarrow  = 22 // nobody is there
	nameWide   = 132
	rowHigh    = 46
	waitHigh   = 24
	headHigh   = 34
	leastWide  = 5
	dayMinutes = 24 * 60
)

// axis lays minutes of the plan out across days.
type axis struct {
	first        int // the day of the plan that it begins with
	x            [chartDays + 1]int
	opens, shuts int // minutes of the day between which somebody is there
}

// axisOf lays two weeks out from a day of the plan on: it finds the hours between which the shop is open, and which
// days are narrow because it is not.
func axisOf(p *planning.Planned, first int) (a axis) {
	a.first, a.opens, a.shuts = first, dayMinutes, 0
	var there [chartDays]bool
	for _, r := range p.Laid.Problem.Resources[:len(p.Shop.Hands)] {
		for _, s := range r.Works.Spans(first*dayMinutes, (first+chartDays)*dayMinutes) {
			there[s.From/dayMinutes-first] = true
			a.opens, a.shuts = min(a.opens, s.From%dayMinutes), max(a.shuts, (s.To-1)%dayMinutes+1)
		}
	}
	if a.opens >= a.shuts {
		a.opens, a.shuts = 7*60, 16*60
	}
	a.x[0] = nameWide
	for d, is := range there {
		wide := dayNarrow
		if is {
			wide = dayWide
		}
		a.x[d+1] = a.x[d] + wide
	}
	return a
}

// at is the place of a minute; one before the first day or after the last is at its edge.
func (a *axis) at(m plan.Minute) int {
	m = max(0, m-a.first*dayMinutes)
	d := min(m/dayMinutes, chartDays)
	if d == chartDays {
		return a.x[d]
	}
	open := min(max(m%dayMinutes-a.opens, 0), a.shuts-a.opens)
	return a.x[d] + open*(a.x[d+1]-a.x[d])/(a.shuts-a.opens)
}

// minute is that at a place of the chart, to the quarter of the hour; what lies left of it is now.
func (a *axis) minute(x int) plan.Minute {
	for d := range chartDays {
		if x < a.x[d+1] {
			into := max(0, x-a.x[d]) * (a.shuts - a.opens) / (a.x[d+1] - a.x[d])
			return (a.first+d)*dayMinutes + (a.opens+into+quarter/2)/quarter*quarter
		}
	}
	return (a.first + chartDays) * dayMinutes
}

// quarter is to how many minutes a bar is moved.
const quarter = 15

// jobIn reports that a task is of a job of one of several shops, "" for all.
func jobIn(p *planning.Planned, task int, site string) bool {
	return shop.Same(p.Laid.Jobs[p.Laid.Problem.Tasks[task].Job].Site, site)
}

// shown reports that a time is on the axis.
func (a *axis) shown(from, to plan.Minute) bool {
	return to > a.first*dayMinutes && from < (a.first+chartDays)*dayMinutes
}

// chartOf draws two weeks of a plan from a day on, of one shop or of all; chosen is the task that is looked at.
func chartOf(p *planning.Planned, chosen int, site string, first int) Chart {
	a := axisOf(p, first)
	c := Chart{Width: a.x[chartDays] + 8, Now: a.at(p.Laid.Problem.Now), Opens: a.opens, Shuts: a.shuts}
	for d := range chartDays {
		day := p.Laid.Time((first + d) * dayMinutes)
		name := day.Format("Mon 2")
		narrow := a.x[d+1]-a.x[d] == dayNarrow
		if narrow {
			name = day.Format("2")
		}
		c.Days = append(c.Days, ChartDay{X: a.x[d], Width: a.x[d+1] - a.x[d], Name: name, Closed: narrow,
			Called: day.Format("Mon 2 Jan")})
	}
	y := headHigh
	rows := make([]int, len(p.Laid.Problem.Resources))
	for r := range p.Laid.Problem.Resources {
		kind := "place"
		if r < len(p.Shop.Hands) {
			kind = "person"
		}
		if !p.Shop.In(r, site) {
			continue
		}
		rows[r] = y
		c.Rows = append(c.Rows, ChartRow{Y: y, Height: rowHigh, Name: p.Laid.Problem.Resources[r].Name, Kind: kind,
			Resource: r})
		y += rowHigh
	}
	pinned := pinnedTasks(p)
	lanes := []int{}
	waits := y
	for i, at := range p.Plan.Tasks {
		from := at.Start
		if p.Laid.Tasks[i].Waits() {
			from = waitFrom(p, i)
		}
		if at.Nowhere != "" || !a.shown(from, at.End) || !jobIn(p, i, site) {
			continue
		}
		b := barOf(p, i)
		if first > 0 {
			b.URL = strings.Replace(b.URL, "/plan?", fmt.Sprintf("/plan?ahead=%d&", first/chartDays), 1)
		}
		b.X, b.On, b.Pinned = a.at(at.Start), i == chosen, pinned[p.Laid.Keys[i]]
		b.Width = max(leastWide, a.at(at.End)-b.X)
		b.bounds(p, i, &a)
		for _, r := range at.On {
			if rows[r] == 0 {
				continue // of another shop
			}
			b.Y, b.Height, b.Row = rows[r]+4, rowHigh-8, r
			c.Bars = append(c.Bars, b.worded())
		}
		if p.Laid.Tasks[i].Waits() {
			b.Wait, b.X = true, a.at(from)
			b.Width = max(leastWide, a.at(at.End)-b.X)
			lane := laneFor(&lanes, b.X, b.X+b.Width)
			b.Y, b.Height = waits+lane*waitHigh+3, waitHigh-6
			c.Bars = append(c.Bars, b.worded())
		}
	}
	if len(lanes) > 0 {
		c.Rows = append(c.Rows, ChartRow{Y: waits, Height: len(lanes) * waitHigh, Name: "waited for", Kind: "wait"})
	}
	c.Height = waits + len(lanes)*waitHigh + 4
	return c
}

// bounds tells where a bar can be drawn to: it may not begin before what must come first is done, nor stand over what
// is pinned or was begun.
func (b *Bar) bounds(p *planning.Planned, i int, a *axis) {
	t := &p.Laid.Problem.Tasks[i]
	var can []string
	for _, need := range t.Needs {
		for _, r := range need {
			can = append(can, strconv.Itoa(r))
		}
	}
	b.Can = strings.Join(can, " ")
	from, behind := plan.Earliest(p.Laid.Problem, p.Plan, i)
	switch {
	case behind >= 0:
		b.After = fmt.Sprintf("%s is done %s", p.Laid.Tasks[behind].Name, when(p.Laid.Time(from)))
	case from > p.Laid.Problem.Now:
		b.After = "not before " + when(p.Laid.Time(from))
	default:
		b.After = "that is over"
	}
	b.From = a.at(from)
	switch {
	case b.Runs:
		b.Held = b.Words + " was begun there"
	case b.Pinned:
		b.Held = b.Words + " is pinned there"
	}
}

// letter is how wide one of a bar's words is.
const letter = 8

// worded is the bar with as much of its words as it has room for: the tag, the end of it, or nothing.
func (b Bar) worded() Bar {
	_, end, cut := strings.Cut(b.Words, "-")
	room := (b.Width - 8) / letter
	switch {
	case len(b.Words) <= room:
	case cut && len(end) <= room:
		b.Words = end
	default:
		b.Words = ""
	}
	return b
}

// waitFrom is since when it is waited for: since what came before is done.
func waitFrom(p *planning.Planned, i int) plan.Minute {
	from := p.Laid.Problem.Now
	for _, a := range p.Laid.Problem.Tasks[i].After {
		from = max(from, p.Plan.Tasks[a.Task].End)
	}
	return min(from, p.Plan.Tasks[i].End)
}

// laneFor finds a lane that is free between two places.
func laneFor(lanes *[]int, from, to int) int {
	for k, until := range *lanes {
		if until <= from {
			(*lanes)[k] = to + 2
			return k
		}
	}
	*lanes = append(*lanes, to+2)
	return len(*lanes) - 1
}

func pinnedTasks(p *planning.Planned) map[workshop.Key]bool {
	out := map[workshop.Key]bool{}
	for _, pin := range p.Pins {
		out[pin.Key] = true
	}
	return out
}

func barOf(p *planning.Planned, i int) Bar {
	at, key, task := p.Plan.Tasks[i], p.Laid.Keys[i], p.Laid.Tasks[i]
	person, place := p.Laid.On(at)
	who := strings.TrimPrefix(strings.TrimSuffix(person+", "+place, ", "), ", ")
	title := fmt.Sprintf(
		"%s: %s, %s to %s",
		key.Tag,
		task.Name,
		when(p.Laid.Time(at.Start)),
		when(p.Laid.Time(at.End)),
	)
	if who != "" {
		title += ", " + who
	}
	runs := p.Laid.Problem.Tasks[i].Running != nil
	if runs {
		title += ", begun"
	}
	return Bar{Words: key.Tag, Title: title, URL: taskURL(key), Task: address(key), Runs: runs,
		Late: p.Plan.Late[p.Laid.Problem.Tasks[i].Job] > 0}
}

func when(t time.Time) string { return t.Format("Mon 2 Jan 15:04") }
