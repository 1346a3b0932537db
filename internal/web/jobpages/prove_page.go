package jobpages

import (
	"html/template"
	"net/url"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/search"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/answer"
	"corvek/internal/report"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// ProvePage is the test at the stand, its plot and the ledger of its attempts.
type ProvePage struct {
	JobPage
	Found      []bench.Named    // causes, with who does what
	Last       *bench.Attempt   // nil before the first
	Plan       []proof.PlanStep // what will be tested, before the first
	Points     []PointRow
	Stand      *StandPanel // nil where no attempt is open
	Recordings []RecordingRow
	Gauges     GaugesOf // what the last attempt is read with
	Run        RunOf    // and run on
	Open       bool     // the last attempt goes on
	Next       int      // number of the attempt that can be started, 0 for none
	Failed     bool
	Exercise   bool            // the last attempt's figures are the simulated stand's
	Stands     report.Standing // what may be claimed now
	Claims     []ClaimRow      // that the unit owes
	Settled    bool            // each is shown, or somebody said why that is not possible
	Charts     []ChartView
	Ledger     []*bench.Attempt
	Told       []bench.Told   // what the attempts say of the parts
	Left       []bench.Left   // what may still be wrong, and what to change next
	PartsOf    []site.Named   // down to which the unit can be opened again
	Changes    []bench.Change // single changes that fit this unit
	Back       []string       // why it goes back: what the test did not pass
	Pointed    string         // code of the one that the causes point at
	Steps      StepsMore      // that this unit alone is asked
	Cautions   Cautions
	Stops      []StopRow
}

// GaugesOf are the instruments that an attempt is read with.
type GaugesOf struct {
	Pressure, Flow, Temperature Entry
	Names                       string
	Asked                       bool // the shop keeps such, and none is named
}

// gaugesOf are the fields of an attempt's instruments, the shop's own offered.
func (l *look) gaugesOf(a *bench.Attempt) GaugesOf {
	at := func(name string, dim quantity.Dimension) Entry {
		e := l.field(l.unit.AttemptRef(a.Number, name))
		e.ReadOnly = e.ReadOnly || a.Closed
		for _, i := range l.st.Tools.There() {
			if _, err := quantity.Parse(i.Resolution, dim); err == nil {
				e.Choices = append(e.Choices, i.Name)
			}
		}
		return e
	}
	g := GaugesOf{Pressure: at("pressure_gauge", quantity.Pressure), Flow: at("flow_meter", quantity.Flow),
		Temperature: at("thermometer", quantity.Temperature)}
	var names []string
	for _, name := range []string{a.PressureGauge, a.FlowMeter, a.Thermometer} {
		if name != "" {
			names = append(names, name)
		}
	}
	g.Names = strings.Join(names, ", ")
	g.Asked = a.PressureGauge == "" && len(g.Pressure.Choices) > 0 || a.FlowMeter == "" && len(g.Flow.Choices) > 0
	return g
}

// RunOf is what an attempt is run on: asked once a shift, and of oil alone how thick and how clean it is.
type RunOf struct {
	Stand  Entry
	Of     []Entry
	Medium string
	Words  string
	Named  bool // what it is run on is told
	Told   bool // and all that its figures rest on
}

func (l *look) runOf(a *bench.Attempt) RunOf {
	at := func(name string) Entry {
		e := l.field(l.unit.AttemptRef(a.Number, name))
		e.ReadOnly = e.ReadOnly || a.Closed
		return e
	}
	r := RunOf{Stand: at("ran_on_stand"), Medium: l.st.Family.Run.Of(), Named: a.RanOn.Oil != "",
		Words: report.RanOnWords(l.st, a.Attempt, l.Units)}
	warm := slices.ContainsFunc(a.Points, func(p bench.Point) bool { // it is read anyway, at a step
		_, reads := p.Test.ReadOf("temperature")
		return p.Skipped == "" && reads
	})
	r.Told = r.Named && (r.Medium != family.MediumOil || warm || l.st.RanOn(a.Attempt, nil).Known)
	oil := at("ran_on_oil")
	oil.Label = answer.Capital(r.Medium) + " in it"
	if r.Medium != family.MediumOil {
		r.Of = []Entry{oil}
		return r
	}
	for _, name := range []string{l.unit.Fluid, "mineral oil VG 32", "mineral oil VG 46", "mineral oil VG 68"} {
		if name != "" && !slices.Contains(oil.Choices, name) {
			oil.Choices = append(oil.Choices, name)
		}
	}
	r.Of = []Entry{oil, at("ran_on_clean"), at("ran_on_temperature"), at("ran_on_viscosity")}
	return r
}

// ClaimRow is a claim that the unit owes, with where it was shown or what keeps it from that.
type ClaimRow struct {
	Says       string
	Tone, Sign string
	Level, Why []string
}

// claimRows are the claims in the order of the family.
func (l *look) claimRows() (out []ClaimRow) {
	for i := range l.st.Claims {
		c := &l.st.Claims[i]
		r := ClaimRow{Says: answer.Capital(c.Says), Level: report.LevelOf(c, l.Units), Why: c.Why, Tone: "ochre",
			Sign: "○"}
		switch {
		case c.Shown():
			r.Tone, r.Sign = "petrol", "✓"
		case c.Out():
			r.Tone, r.Sign = "red", "✗"
		}
		out = append(out, r)
	}
	return out
}

// ChartView is a chart of the test as the page shows it.
type ChartView struct {
	Name    string
	Drawing template.HTML
	Note    string
}

func provePage(l *look) ProvePage {
	st := l.st
	p := ProvePage{JobPage: l.page(), Found: l.st.Causes(),
		Steps: l.stepsMore(), Last: st.Attempt(), Ledger: st.Attempts, Cautions: l.cautions(), Stops: l.stops(),
		Stands: report.Stands(st, l.Units)}
	for _, c := range report.Charts(st, l.Units) {
		p.Charts = append(p.Charts, ChartView{c.Name, template.HTML(c.SVG), c.Note})
	}
	if p.Last == nil {
		p.Plan = st.Plan()
	} else {
		p.Points, p.Open, p.Gauges = l.pointRows(p.Last), !p.Last.Closed, l.gaugesOf(p.Last)
		p.Run = l.runOf(p.Last)
		p.Failed = p.Last.Closed && p.Last.Verdict != string(metrology.In)
		p.Exercise = p.Last.Source == unit.SourceSimulated
	}
	for _, x := range st.Parts {
		p.PartsOf = append(p.PartsOf, site.Named{Code: x.Code, Name: x.Name})
	}
	p.Changes, p.Back, p.Told = st.Changes(), st.Failed(), st.Told()
	if p.Failed {
		p.Left = st.Left()
		if x := st.PointedAt(); x != nil {
			p.Pointed = x.Code
		}
	}
	p.Claims, p.Settled = l.claimRows(), len(st.Unsettled()) == 0
	if !p.Open {
		p.Next = 1
		for _, a := range st.Attempts {
			p.Next = max(p.Next, a.Number+1)
		}
	}
	return p
}

// ChangeOf are the choices of one change of an attempt.
type ChangeOf struct {
	Name         string // begins the names of its fields
	Kinds, Parts []site.Named
}

// changeOf lays the choices of a change out.
func changeOf(p ProvePage, name string) ChangeOf {
	c := ChangeOf{Name: name, Parts: p.PartsOf}
	for _, k := range search.Kinds {
		c.Kinds = append(
			c.Kinds,
			site.Named{Code: string(k), Name: wording.Choice(unit.ScopeAttempt, "change_kind", string(k))},
		)
	}
	return c
}

func (s *Pages) nextAttempt(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.NextAttempt(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), bench.Change{
			Words: c.FormValue("one_change"), Kind: c.FormValue("change_kind"), Part: c.FormValue("change_part"),
			Second: c.FormValue("second_change"), SecondKind: c.FormValue("second_kind"),
			SecondPart: c.FormValue("second_part")}),
	)
}

func (s *Pages) startHold(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.StartHold(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("code")),
	)
}

func (s *Pages) pour(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.Pour(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("code"),
			c.FormValue("pour_volume"), c.FormValue("pour_stroke")),
	)
}

func (s *Pages) endHold(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.EndHold(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("code")),
	)
}

func (s *Pages) closeAttempt(c *echo.Context) error {
	err := s.Jobs.CloseAttempt(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c))
	if w := s.desk.Of(c.Param("tag"), unitNo(c)); err == nil && w != nil {
		w.Leave() // what it shows from now on belongs to no attempt
	}
	return site.Done(c, err)
}

func (s *Pages) openRound(c *echo.Context) error {
	back := c.FormValue("back_to")
	if err := s.Jobs.OpenRound(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), back,
		c.FormValue("part"), c.FormValue("reason")); err != nil {
		return err
	}
	to := "/jobs/" + c.Param("tag") + "/" + back
	if part := c.FormValue("part"); part != "" {
		to += "?part=" + url.QueryEscape(part)
	}
	return site.OK(c, map[string]any{"go": to})
}
