package jobpages

import (
	"fmt"
	"net/url"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/unit"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// StripPage is the record of how a part came off, and of how far the unit is.
type StripPage struct {
	JobPage
	Run          *RunList // while no part's own sheet shows
	List         string   // the address of the running list
	Gauge        *Verdict // what the gauges say, while that keeps the unit shut
	No           int
	Part         *bench.Part
	SetWith      string // the other parts of its matched set
	Off          Press  // or back on
	OffAndFound  Press  // all pieces found, in the same tap
	Next         string
	PartCautions []family.Caution
	Tabs         Tabs
	Stack        *StackView // nil while the count is turned up
	Found        Entry
	Explained    Entry
	Fragments    []Entry
	Marks        *MarksView
	Different    Different
	Absent       []AbsentRow
	Counts       []CountRow
	Unseen       *UnseenView
	Facing       *Choice
	Stuck        Choice
	Freed        *Entry
	Notes        []Entry
	Parts        []*bench.Part
	Asked        string // a part that was asked for and is not there
	OffCount     int
	ToSettle     int
	Facings      []FacingRow
	Until        string // how the timer stands
	UntilNote    string
	Timer        []Entry
	AddURL       string      // where a part that the list does not have is added
	Palette      []KindShelf // while one is
	Keep         *KeepView
	Library      []site.Named // assemblies that the unit has not, to be added
	Loose        []LooseRow
	Cautions     Cautions
	Stops        []StopRow
}

// FacingRow is the facing of one part among those of all that are off.
type FacingRow struct {
	Code, Name string
	Choice     Choice
}

// AbsentRow is a part of the family that is not on this unit.
type AbsentRow struct {
	Name, Why string
	Back      Press
}

// CountRow is a part that is off, of several pieces, and not counted yet.
type CountRow struct {
	Code  string
	Name  string
	Found Entry
	All   Press
	Of    int
}

// LooseRow is what was found loose, and where it belongs.
type LooseRow struct {
	*unit.Loose
	Belongs Belongs
	Broken  Press
	Note    Entry
}

func stripPage(l *look) StripPage {
	x := l.part
	found := l.unit.PartRef(x.Code, "found")
	p := StripPage{
		JobPage: l.page(), Run: l.runList(), List: withQuery(l.link("strip", "", ""), "list=all"),
		No: l.partNo(), Part: x,
		Off:          l.toggle(l.unit.PartRef(x.Code, "off"), x.Off),
		OffAndFound:  l.press(found, fmt.Sprint(x.Expected), ""),
		PartCautions: l.cautionsOf(x), Found: l.field(found),
		Explained: l.field(l.unit.PartRef(x.Code, "explained")),
		Fragments: l.ofPart("bits", "bits_make"), Marks: l.marks(x), Different: l.different(x),
		Counts: l.counts(), Unseen: l.unseen(),
		Stuck: l.choose(l.unit.PartRef(x.Code, "stuck")), Notes: l.ofPart("witness", "fastener", "note"),
		Parts: l.st.Parts, Asked: l.asked, ToSettle: len(l.st.Stops["strip"]), Facings: l.facings(),
		Until: timerWords(&l.job.TimerUntil, l.Now), UntilNote: l.job.TimerNote,
		Timer:  l.ofJob("timer_until", "timer_note"),
		AddURL: l.faceURL("add"), Keep: l.keep(), Cautions: l.cautions(), Stops: l.stops(),
	}
	if l.face == "add" && l.CanWork() {
		p.Library = l.libraryAssemblies()
		p.Palette = palette()
	}
	_, p.Next = l.neighbours()
	all := l.press(found, fmt.Sprint(x.Expected), x.Found)
	p.Found.Steps, p.Found.All = true, &all
	p.SetWith = l.setWith(x)
	if l.st.Shut() != "" {
		p.Gauge = l.overGauges()
	}
	if x.Stack != nil {
		p.stackOrCount(l)
	}
	if len(x.Def.Facings) > 0 {
		facing := l.choose(l.unit.PartRef(x.Code, "facing")).Tall()
		p.Facing = &facing
	}
	if x.Stuck != "" && x.Stuck != "free" {
		freed := l.field(l.unit.PartRef(x.Code, "freed"))
		p.Freed = &freed
	}
	for _, x := range l.st.Parts {
		if x.Off {
			p.OffCount++
		}
	}
	for _, found := range l.unit.Loose {
		p.Loose = append(p.Loose, LooseRow{found, l.looseBelongs(found),
			l.toggle(l.unit.LooseRef(found.Number, "bit"), found.Fragment),
			l.field(l.unit.LooseRef(found.Number, "note"))})
	}
	for _, gone := range l.st.Absent {
		p.Absent = append(p.Absent, AbsentRow{gone.Name, gone.Absent,
			l.press(l.unit.PartRef(gone.Code, "absent"), "", gone.Absent)})
	}
	return p
}

// setWith names the other parts of a matched set.
func (l *look) setWith(x *bench.Part) string {
	var out []string
	for _, other := range l.st.Parts {
		if x.Def.Set != "" && other != x && other.Def.Set == x.Def.Set {
			out = append(out, strings.ToLower(other.Name))
		}
	}
	return strings.Join(out, ", ")
}

// counts are the parts of several pieces that are off and not counted: after many
// came off at once they are counted here.
func (l *look) counts() (out []CountRow) {
	for _, x := range l.st.Parts {
		if x.Off && x.Found == "" && x.Expected > 1 {
			ref := l.unit.PartRef(x.Code, "found")
			e := l.field(ref)
			e.ID = "count-" + x.Code // the chosen part has the same field on its sheet
			e.Label = fmt.Sprintf("%s, of %d", x.Name, x.Expected)
			out = append(out, CountRow{x.Code, x.Name, e, l.press(ref, fmt.Sprint(x.Expected), ""), x.Expected})
		}
	}
	return out
}

// stackOrCount turns up the stack once the part is off: its order and facing are
// what gets lost then.
func (p *StripPage) stackOrCount(l *look) {
	x := l.part
	stack := Tab{Name: "Stack as removed", URL: l.faceURL("stack")}
	count := Tab{Name: "Count, facing, notes", URL: l.faceURL("count")}
	if l.face == "stack" || l.face == "" && x.Off {
		stack.On, p.Stack = true, l.stack(false)
	}
	count.On = !stack.On
	if x.Removed() == "" {
		stack.Tone = "none"
	}
	if x.Missing != 0 {
		count.Tone = "ochre"
	}
	p.Tabs = Tabs{stack, count}
}

// facings are the parts that are off and have a facing that matters, while more
// than one of them has none noted: after a bulk strip they are noted here.
func (l *look) facings() (out []FacingRow) {
	lacking := 0
	for _, x := range l.st.Parts {
		if !x.Off || len(x.Def.Facings) == 0 {
			continue
		}
		choice := l.choose(l.unit.PartRef(x.Code, "facing")).Named(x.Name + ": facing as removed").Wrap()
		out = append(out, FacingRow{x.Code, x.Name, choice})
		if x.Facing == "" {
			lacking++
		}
	}
	if lacking == 0 || len(out) < 2 {
		return nil
	}
	return out
}

func (s *Pages) takeOffRest(c *echo.Context) error {
	return site.Done(c, s.Jobs.TakeOffRest(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c)))
}

// lookedAt notes that several parts were looked at and are sound: those that are ticked, or all that were listed.
func (s *Pages) lookedAt(c *echo.Context) error {
	form, err := c.FormValues()
	if err != nil {
		return err
	}
	parts := form["sound"]
	if c.FormValue("all") != "" {
		parts = form["listed"]
	}
	return site.Done(c, s.Jobs.LookedAt(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), parts))
}

// unseen are the parts that nobody looked at yet.
func (l *look) unseen() *UnseenView {
	all := l.st.Unseen()
	if len(all) == 0 || !l.CanWork() {
		return nil
	}
	v := &UnseenView{JobPage: l.page()}
	for _, x := range all {
		v.Parts = append(v.Parts, UnseenRow{x.Code, x.Name, l.link("strip", x.Code, "")})
	}
	return v
}

// UnseenView is what works and nobody looked at, answered for in one act.
type UnseenView struct {
	JobPage
	Parts []UnseenRow
}

// UnseenRow is one part of it.
type UnseenRow struct{ Code, Name, URL string }

func (s *Pages) addLoose(c *echo.Context) error {
	n, err := site.CountOf(c)
	if err != nil {
		return err
	}
	return site.Done(
		c,
		s.Jobs.AddLoose(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("what"),
			c.FormValue("place"), n),
	)
}

func (s *Pages) addPart(c *echo.Context) error {
	n, err := site.CountOf(c)
	if err != nil {
		return err
	}
	code, err := s.Jobs.AddPart(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("after"),
		c.FormValue("name"), c.FormValue("kind"), n)
	if err != nil {
		return err
	}
	to := fmt.Sprintf("/jobs/%s/strip?part=%s", c.Param("tag"), url.QueryEscape(code))
	if unitNo(c) > 1 {
		to += fmt.Sprintf("&unit=%d", unitNo(c))
	}
	return site.OK(c, map[string]any{"go": to})
}

func (s *Pages) recount(c *echo.Context) error {
	n, err := site.CountOf(c)
	if err != nil {
		return err
	}
	return site.Done(
		c,
		s.Jobs.Recount(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("part"), n,
			c.FormValue("from"), c.FormValue("why")),
	)
}

func (s *Pages) movePart(c *echo.Context) error {
	by := map[string]int{"earlier": -1, "later": 1}[c.FormValue("by")]
	return site.Done(
		c,
		s.Jobs.MovePart(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("part"), by),
	)
}
