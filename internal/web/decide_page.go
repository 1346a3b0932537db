package web

import (
	"fmt"
	"strings"

	"corvek/core/decide"
	"corvek/core/economics"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/answer"
	"corvek/internal/job"
)

// DecidePage is what is kept, reworked or renewed, and whether it pays.
type DecidePage struct {
	JobPage
	Found                       []job.Named // causes, with who does what
	Policy                      Choice
	Keep, Rework, Replace, Open int
	Parts                       []DecideRow
	Shim                        *ShimView
	ShimFields                  []Entry
	Economy                     *EconomyView
	Work                        string // what the chosen rework comes to
	Costs                       []Entry
	Cautions                    Cautions
	Stops                       []StopRow
}

// DecideRow is a part with what is proposed and what is chosen.
type DecideRow struct {
	No               int
	Code, Name, Link string
	Selected         bool
	Reason           string
	Routes           []family.Rework // ways to rework it, once that is chosen
	Choice           Choice
	Why              *Entry // of a choice made by hand
}

// EconomyView is what the rebuild costs against a new unit.
type EconomyView struct {
	Advice    string
	Pays      bool
	Cost      string
	Ratio     string // "" where it was left out
	BreakEven string
	Steps     []string
	Warnings  []string
}

func decidePage(l *look) DecidePage {
	p := DecidePage{JobPage: l.page(), Found: l.st.Causes(),
		Policy: l.choose(unit.JobRef("policy")), Shim: l.shim(), Economy: l.economy(),
		Costs: l.ofJob("parts_cost", "labour_hours", "labour_rate", "outside_cost", "rebuild_days", "new_price",
			"new_days", "downtime_cost"),
		Cautions: l.cautions(), Stops: l.stops()}
	if p.Shim != nil {
		p.ShimFields = l.ofUnit("shims_fitted", "shims_available", "off_body", "off_gears")
	}
	p.work(l.st.Work())
	for i, x := range l.st.Parts {
		p.count(x.Choice())
		p.Parts = append(p.Parts, l.decideRow(i+1, x))
	}
	return p
}

// work says what the chosen rework comes to, and offers it where the sum is asked.
func (p *DecidePage) work(w decide.Work) {
	var words []string
	if w.Hours > 0 {
		words = append(words, fmt.Sprintf("%.3g h at the bench", w.Hours))
	}
	if w.Days > 0 {
		words = append(words, fmt.Sprintf("%.3g days away", w.Days))
	}
	p.Work = strings.Join(words, ", ")
	for i, e := range p.Costs {
		switch {
		case e.Field == unit.JobRef("labour_hours").String() && w.Hours > 0:
			p.Costs[i] = e.With(fmt.Sprintf("%.3g h", w.Hours))
		case e.Field == unit.JobRef("rebuild_days").String() && w.Days > 0:
			p.Costs[i] = e.With(fmt.Sprintf("%.3g", w.Days))
		}
	}
}

func (p *DecidePage) count(c decide.Choice) {
	switch c {
	case decide.Keep:
		p.Keep++
	case decide.Rework:
		p.Rework++
	case decide.Replace:
		p.Replace++
	default:
		p.Open++
	}
}

func (l *look) decideRow(no int, x *job.PartState) DecideRow {
	r := DecideRow{No: no, Code: x.Code, Name: x.Name, Link: l.link("decide", x.Code, ""), Selected: x == l.part,
		Reason: x.Proposal.Reason, Choice: l.decideChoice(x)}
	if x.Choice() == decide.Rework {
		r.Routes = x.Routes()
	}
	if x.Decision.Choice != "" {
		why := l.field(l.unit.DecisionRef(x.Code, "reason"))
		r.Why = &why
	}
	return r
}

// decideChoice is what is done with a part, the proposal marked. Taking the
// proposal is no choice of one's own.
func (l *look) decideChoice(x *job.PartState) Choice {
	c := l.choose(l.unit.DecisionRef(x.Code, "choice")).Named(x.Name + ": keep, rework or new")
	for i := range c.Options {
		o, code := &c.Options[i], []decide.Choice{decide.Keep, decide.Rework, decide.Replace}[i]
		o.On, o.Proposed, o.Value = x.Choice() == code, x.Proposal.Choice == code, string(code)
		if o.Proposed {
			o.Value = ""
		}
	}
	return c
}

func (l *look) economy() *EconomyView {
	e := l.st.Economy
	if !e.Known {
		return nil
	}
	v := &EconomyView{Advice: answer.Capital(strings.TrimSpace(string(e.Advice))), Pays: e.Advice == economics.Rebuild,
		Steps: e.Output.Steps}
	money := func(name string) string {
		if figure, ok := e.Output.Value(name); ok {
			return quantity.Figures(figure, 4)
		}
		return ""
	}
	v.Cost, v.BreakEven = money("rebuild_cost"), money("break_even_new_price")
	if ratio, ok := e.Output.Value("ratio"); ok {
		v.Ratio = fmt.Sprintf("%.0f %%", 100*ratio)
	}
	for _, w := range e.Output.Warnings {
		v.Warnings = append(v.Warnings, w.Text)
	}
	return v
}
