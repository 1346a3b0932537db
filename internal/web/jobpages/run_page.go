package jobpages

import (
	"cmp"
	"fmt"
	"html/template"
	"net/url"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/draw"
	"corvek/internal/job"
	"corvek/internal/line"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// RunList is the parts of a unit in the order in which they come off or go in, one row each; the one at work is open.
type RunList struct {
	JobPage
	Station string
	Gauge   *Verdict // what the gauges say, while that keeps the unit shut
	Done    []RunRow // further back
	Rows    []RunRow
	Open    string // code of the row at work, "" where all is done
	OpenNo  int
	Of      int
	Alone   []string // left on as it came
}

// LookAt is where a unit of practice is looked at for what a row asks, "" on any other.
func (r *RunList) LookAt(part, name string) string {
	switch {
	case r.Practice == nil:
		return ""
	case name == "turn":
		return unit.Ref{Scope: unit.ScopeStep, Unit: r.UnitNo, Part: part, Name: name}.String()
	case r.Station == "strip":
		return unit.Ref{Scope: unit.ScopePart, Unit: r.UnitNo, Part: part, Name: name}.String()
	}
	return ""
}

// RunRow is one part.
type RunRow struct {
	Code, Name, URL string // the part's own sheet
	Branch          string
	Count           int
	Done            bool
	Said            string // what was noted of it
	Way             string // what is in the way, or must be in first
	Plain           bool   // nothing needs an answer: one tap does it
	OpenURL         string // the list with this row open
	Form            *RunForm
}

// RunRowOf is a row with its list.
type RunRowOf struct {
	List *RunList
	Row  RunRow
}

// RunForm is what the row at work asks, and nothing else.
type RunForm struct {
	Glyph   template.HTML
	Piece   string // new, reworked or kept
	Facing  *RunFacing
	Count   *RunCount
	Torque  *RunTorque
	Stack   string // as it belongs
	Other   string // what is noted on the part's own sheet
	Feel    []Option
	FeelAsk string
	Rounds  []Option // of tightening, of which one is named where it does not go freely
	Cycled  bool
	Checks  []string
	Wet     string
	Handle  string          // with care, as somebody wrote
	Group   string          // the sub-assembly that goes as one, "" where the row is one part
	With    []RunWith       // the other parts of it, in their order
	Single  string          // the address at which they go one by one
	Unread  *family.Caution // read before anything else is asked
	Caution []family.Caution
	Shots   []site.Named
	Act     string
}

// RunWith is a part that comes off or goes in with the one of its row.
type RunWith struct {
	Code, Name string
	Count      int
	Checks     []string
}

// RunFacing is which way round a part is: as it came off, and as it belongs.
type RunFacing struct {
	Ways    []Option
	Came    string
	Belongs string
}

// RunCount is how many are counted.
type RunCount struct {
	Name string // of the field
	Must int
	Now  string
}

// RunTorque is what a joint is tightened to.
type RunTorque struct {
	Text, Source, Unit, Angle string
	Unread                    bool
}

// runs reports that the running list shows, and not the sheet of one part: while anything is left to do, once
// nothing is left to settle either, and where it is asked for.
func (l *look) runs() bool {
	if l.station != "strip" && l.station != "build" || l.partAsked || l.face != "" || l.asked != "" {
		return false
	}
	if l.query.Get("list") != "" || l.rowAtWork() != nil {
		return true
	}
	return !slices.ContainsFunc(l.st.Stops[l.station], func(s bench.Stop) bool {
		return s.Waived == nil && l.st.ByCode[s.Part] != nil
	})
}

// doneRows is how many of the rows that are done show above the one at work.
const doneRows = 2

// runList lays the running list of a station out; nil where the sheet of one part shows.
func (l *look) runList() *RunList {
	if !l.runs() {
		return nil
	}
	r := &RunList{JobPage: l.page(), Station: l.station}
	if l.station == "strip" && l.st.Shut() != "" {
		r.Gauge = l.overGauges()
	}
	open := l.rowAtWork()
	ahead, inOpen := 0, map[string]bool{}
	list := l.runOrder()
	for i, x := range list {
		if x.Alone {
			r.Alone = append(r.Alone, strings.ToLower(x.Name))
			continue
		}
		if !l.rowDone(x) {
			ahead++
		}
		row := l.runRow(x, ahead <= mostAhead || x == open)
		r.Of++
		if x == open {
			r.Open, r.OpenNo = x.Code, i+1
			row.Form = l.runForm(x)
			l.asOne(row.Form, x, list)
			for _, w := range row.Form.With {
				inOpen[w.Code] = true
			}
		}
		if !inOpen[x.Code] {
			r.Rows = append(r.Rows, row)
		}
	}
	at := slices.IndexFunc(r.Rows, func(row RunRow) bool { return row.Code == r.Open })
	if at < 0 {
		at = len(r.Rows)
	}
	if back := max(0, at-doneRows); !slices.ContainsFunc(r.Rows[:back], func(row RunRow) bool { return !row.Done }) {
		r.Done, r.Rows = r.Rows[:back], r.Rows[back:]
	}
	return r
}

// runOrder are the parts in the order of the list.
func (l *look) runOrder() (parts []*bench.Part) {
	if l.station == "build" {
		return l.st.InOrder()
	}
	for _, x := range l.st.OffOrder() {
		parts = append(parts, l.st.ByCode[x.Code])
	}
	return parts
}

// rowAtWork is the part that was asked for in the list, else the one that comes next; nil where all is done.
func (l *look) rowAtWork() *bench.Part {
	if l.work == nil || l.work.station != l.station {
		l.work = &rowWork{l.station, l.findRow()}
	}
	return l.work.part
}

func (l *look) findRow() *bench.Part {
	if x := l.st.ByCode[l.query.Get("at")]; x != nil && !l.rowDone(x) && !x.Alone {
		return x
	}
	if l.station == "build" {
		return line.Next(l.st)
	}
	if left := l.st.OffNext(); len(left) > 0 {
		return l.st.ByCode[left[0].Code]
	}
	return nil
}

func (l *look) rowDone(x *bench.Part) bool {
	if l.station == "build" {
		return x.Step.Done
	}
	return x.Off
}

// mostAhead is of how many rows that are still to come the list says what is in their way.
const mostAhead = 24

func (l *look) runRow(x *bench.Part, near bool) RunRow {
	row := RunRow{Code: x.Code, Name: x.Name, URL: l.link(l.station, x.Code, ""), Branch: x.Def.Branch,
		Count: x.Expected, Done: l.rowDone(x),
		OpenURL: withQuery(l.link(l.station, "", ""), "at="+url.QueryEscape(x.Code))}
	if row.Done {
		row.Said = l.rowSaid(x)
		return row
	}
	if !near {
		return row
	}
	row.Way = listed(l.inWay(x), 3)
	row.Plain = l.asks(x).nothing()
	return row
}

// listed names the first few of a list.
func listed(names []string, most int) string {
	if len(names) > most {
		return fmt.Sprintf("%s and %d more", strings.Join(names[:most], ", "), len(names)-most)
	}
	return strings.Join(names, ", ")
}

// rowSaid is what was noted of a part as it came off or went in.
func (l *look) rowSaid(x *bench.Part) string {
	var out []string
	say := func(text string) {
		if text != "" {
			out = append(out, text)
		}
	}
	if l.station == "strip" {
		if x.Expected > 1 && x.Found != "" {
			say(x.Found + " of " + fmt.Sprint(x.Expected))
		}
		say(x.Facing)
		if x.CameStuck() {
			say(x.Stuck)
		}
		return strings.Join(out, " · ")
	}
	say(x.Step.Facing)
	if x.Step.Count != "" {
		say(x.Step.Count + " in")
	}
	say(x.Step.Torque.Typed)
	say(wording.Plain(x.Step.Turn))
	if x.Step.Over != "" {
		say("before " + x.Step.Over)
	}
	return strings.Join(out, " · ")
}

// runForm is what the row of a part asks, with what is looked at meanwhile.
func (l *look) runForm(x *bench.Part) *RunForm {
	f := l.asks(x)
	f.Glyph = template.HTML(draw.Glyph(x.Def.Kind, x.Def.Shape, 84))
	f.Caution, f.Shots = l.st.CautionsOf(x.AsFound, l.station), l.shotsOf(x)
	return f
}

// handling is how a part is handled, and that it is not made any more.
func (l *look) handling(x *bench.Part) string {
	if x.Order.State == unit.OrderObsolete {
		return wording.Choice(unit.ScopePart, "order_state", unit.OrderObsolete) + wording.Behind("; ", x.Handling)
	}
	return x.Handling
}

// asOne lets the parts of a sub-assembly that follow one another, and of which nothing is asked, go as one.
func (l *look) asOne(f *RunForm, x *bench.Part, list []*bench.Part) {
	group := x.Within()
	if group == "" || l.query.Get("single") != "" || !f.nothing() || len(l.inWay(x)) > 0 {
		return
	}
	for _, p := range list[slices.Index(list, x)+1:] {
		if l.rowDone(p) || p.Alone {
			continue
		}
		asks := l.asks(p)
		if p.Within() != group || !asks.nothing() {
			break
		}
		f.With = append(f.With, RunWith{p.Code, p.Name, p.Expected, asks.Checks})
	}
	if len(f.With) == 0 {
		return
	}
	f.Act = fmt.Sprintf("All %d %s", len(f.With)+1, strings.ToLower(f.Act))
	f.Group = x.Def.Branch
	for _, in := range l.st.Family.Instances {
		if in.Code == x.Def.Assembly {
			f.Group = in.Name
		}
	}
	f.Single = withQuery(withQuery(l.link(l.station, "", ""), "at="+url.QueryEscape(x.Code)), "single=1")
}

// inWay are the names of what keeps a part from coming off, or must be in before it.
func (l *look) inWay(x *bench.Part) (names []string) {
	if l.station == "build" {
		for _, p := range l.st.Under(x) {
			names = append(names, strings.ToLower(p.Name))
		}
		return names
	}
	for _, p := range l.st.InTheWay(x.AsFound) {
		names = append(names, strings.ToLower(p.Name))
	}
	return names
}

// asks is what the row of a part asks.
func (l *look) asks(x *bench.Part) *RunForm {
	f := &RunForm{Act: "Off", Handle: l.handling(x), Unread: l.st.Unread(x.AsFound, l.station)}
	if l.station == "strip" {
		l.askOff(f, x)
	} else {
		l.askFit(f, x)
	}
	return f
}

// nothing reports that nothing of the row needs an answer.
func (f *RunForm) nothing() bool {
	return f.Facing == nil && f.Count == nil && f.Torque == nil && f.Feel == nil && f.Other == "" && f.Stack == "" &&
		!f.Cycled && f.Handle == "" && f.Unread == nil
}

// askOff asks what is lost once a part is off: how many there were, and which way round it was.
func (l *look) askOff(f *RunForm, x *bench.Part) {
	if x.Expected > 1 {
		f.Count = &RunCount{"found", x.Expected, x.Found}
	}
	if len(x.Def.Facings) > 0 {
		f.Facing = &RunFacing{Ways: ways(x.Def.Facings, x.Facing), Belongs: x.Def.Facing}
	}
	if x.Stack != nil {
		f.Other = "order and facing of the pack"
	}
}

// askFit asks what is counted, which way round it goes, how it is tightened and how it feels.
func (l *look) askFit(f *RunForm, x *bench.Part) {
	f.Act = "Fitted"
	f.Piece = map[decide.Choice]string{decide.Replace: "new piece", decide.Rework: "reworked",
		decide.Keep: "kept"}[x.Choice()]
	f.Checks = build.ChecksOf(x.Def)
	f.Wet = l.wets(x)
	if all, right := build.FittingWays(x.Def); len(all) > 0 {
		on := x.Step.Facing
		if on == "" {
			on = right
		}
		f.Facing = &RunFacing{Ways: ways(all, on), Came: x.Facing, Belongs: right}
	}
	if must, asked := l.st.CountsIn(x); asked {
		f.Count = &RunCount{"count", must, x.Step.Count}
	}
	if x.Stack != nil {
		f.Stack = x.StackRight
		if f.Stack == "" {
			f.Stack = x.Stack.Def.As
		}
		if f.Stack == "" {
			f.Other = "order and facing of the pack"
		}
	}
	f.Torque = l.runTorque(x)
	if x.AsksFeel() {
		for _, o := range l.choose(l.unit.StepRef(x.Code, "turn")).Options {
			f.Feel = append(f.Feel, Option{Words: o.Words, Value: o.Value, On: o.On})
		}
		f.FeelAsk = howItGoes(x)
		if x.Def.TurnCheck {
			for _, o := range l.choose(l.unit.StepRef(x.Code, "turn_round")).Options {
				f.Rounds = append(f.Rounds, Option{Words: o.Words, Value: o.Value, On: o.On})
			}
		}
	}
	f.Cycled = x.Def.Reaches
	if l.st.Track(x).Worn() {
		f.Other = "how deep it is pressed beside the old track"
	}
}

func (l *look) runTorque(x *bench.Part) *RunTorque {
	j, bolted := build.JointOf(x.Def, x.Part.Joint)
	if !bolted || x.Part.Joint.Snug {
		return nil
	}
	t, err := build.Tighten(j)
	r := &RunTorque{Source: t.Source, Unit: l.field(l.unit.StepRef(x.Code, "torque")).Unit}
	switch {
	case !j.Bolts && j.Angle != "":
		r.Angle = j.Angle
	case err == nil && t.Torque > 0:
		r.Text = l.Show(t.Torque, quantity.Torque)
	default:
		r.Unread = true
	}
	return r
}

func ways(all []string, on string) (out []Option) {
	for _, w := range all {
		out = append(out, Option{Words: w, Value: w, On: w == on})
	}
	return out
}

// rowLacks say what a row still waits for.
var rowLacks = map[string]string{
	"found": "count them and type how many", "count": "count them in and type how many",
	"facing": "say which way round it is", "torque": "type what it was tightened to", "turn": "say how it goes by hand",
	"cycled": "move what is behind it by hand over its whole way", "stack_fit": "say that it is as it belongs",
}

// rowFields are what a row sends.
var rowFields = []string{"found", "facing", "count", "torque", "turn", "turn_round", "cycled", "stack_fit"}

// mostAsOne is how many parts go as one at most.
const mostAsOne = 100

// doRow takes a part off or fits it from its row.
func (s *Pages) doRow(c *echo.Context) error {
	r := job.Row{Station: c.FormValue("station"), Part: c.FormValue("part")}
	all, err := c.FormValues()
	if err != nil {
		return err
	}
	if r.With = all["with"]; len(r.With) > mostAsOne {
		return field.Errorf("", "no sub-assembly has more than %d parts", mostAsOne)
	}
	if c.FormValue("later") == "" {
		for _, name := range rowFields {
			if v := strings.TrimSpace(c.FormValue(name)); v != "" {
				r.Answers = append(r.Answers, job.Answer{Name: name, Value: v, Bare: c.FormValue("unit_" + name)})
			}
		}
		for _, name := range all["asks"] { // one of each question of the row
			if !slices.ContainsFunc(r.Answers, func(a job.Answer) bool { return a.Name == name }) {
				return field.Errorf(name, "%s", cmp.Or(rowLacks[name], "is asked here"))
			}
		}
		if all.Has("turn_rounds") && build.Turn(c.FormValue("turn")).Bad() && c.FormValue("turn_round") == "" {
			return field.Errorf("turn_round", "say at which round: it tells where to look")
		}
	}
	return site.Done(c, s.Jobs.DoRow(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), r))
}

// shotsOf are the pictures of a part.
func (l *look) shotsOf(x *bench.Part) (out []site.Named) {
	for _, p := range l.job.Pictures {
		if p.Unit == l.unitNo && p.Part == x.Code {
			out = append(
				out,
				site.Named{Code: fmt.Sprintf("/jobs/%s/pictures/%d", l.job.Tag, p.Number), Name: p.Caption},
			)
		}
	}
	return out
}
