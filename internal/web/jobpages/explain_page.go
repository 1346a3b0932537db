package jobpages

import (
	"fmt"
	"html/template"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/explain"
	"corvek/core/unit"
	"corvek/internal/web/site"
)

// ExplainPage is the marks, what they weigh for each cause, and the conclusion.
type ExplainPage struct {
	JobPage
	No         int
	PartName   string
	PartCode   string
	Face       string
	Tabs       Tabs
	Board      MarksBoard
	Ranking    []CauseView
	Head       *LeadView // what leads, nil where there is nothing to rank
	Others     Others
	Chain      []explain.LinkState
	Close      []*explain.Evidence // what would close the chain
	Change     []explain.Turn
	Matrix     template.HTML
	Causes     []explain.Cause
	TheoryCode string
	Theory     *explain.Ranked // the reader's own, weighed like any other
	TheoryNo   string          // why it cannot be weighed
	Stories    []StoryView
	Decider    *CheckView          // what decides between the stories
	Neither    []*explain.Evidence // what was seen and neither story explains
	Cause      *explain.Cause
	Outside    []Entry       // who does what at the machine, where the root lies there
	Earlier    []bench.Named // roots of rounds before
	Further    []FurtherRow
	Roles      []site.Named // what part a further cause can have
	Statement  Entry
	NotFound   Press
	NoFinding  *Press // nothing was told, and that is a result
	Next       []CheckView
	Cautions   Cautions
	Stops      []StopRow
}

// CauseView is a cause in the ranking.
type CauseView struct {
	explain.Ranked
	Root Press
	Full bool // with what speaks for and against it
}

// Wide is the width of its bar of 100.
func (c CauseView) Wide() string { return fmt.Sprintf("%.1f", 100*c.Alone) }

// Others are the causes that are not shown, and those that met.
type Others struct {
	Count   int
	Share   float64 // of the rest, each alone
	Several float64 // several root causes at once
	Pairs   []PairRow
}

// PairRow is two root causes that met.
type PairRow struct {
	Names string
	Share float64
}

// CheckView is a mark to look at, with its answer.
type CheckView struct {
	explain.Check
	Answer Choice
	Others []OutcomeView // what the same look may show instead, each with its answer
	Thens  []string      // what each answer would do
}

// OutcomeView is one of several things that a look may show.
type OutcomeView struct {
	Text   string
	Answer Choice
}

// How many causes and checks a page shows, and how many causes with reasons.
const (
	causesShown  = 4
	causesReason = 2
	checksShown  = 4
	pairsShown   = 3
)

func explainPage(l *look, board MarksBoard) ExplainPage {
	k, st := l.st.Knowledge, l.st
	p := ExplainPage{JobPage: l.page(), No: l.partNo(), PartName: l.part.Name, PartCode: l.part.Code,
		Face: l.face, Board: board,
		Causes: k.Causes, TheoryCode: l.theory, Cause: st.Cause, Outside: l.atTheMachine(), Roles: causeRoles(),
		Statement: l.field(l.unit.ConclusionRef("statement")), NotFound: l.notFound(), NoFinding: l.noFinding(),
		Next: l.nextChecks(), Cautions: l.cautions(), Stops: l.stops()}
	p.Tabs = Tabs{l.tab("", "Causes"), l.tab("matrix", "Marks against causes"),
		l.tab("story", "Events")}
	p.rank(l)
	p.lead(l)
	p.further(l)
	cause := st.Cause
	if ranking := st.Explained().Ranking; cause == nil && len(ranking) > 0 {
		cause = ranking[0].Cause
	}
	if cause != nil {
		p.Chain, p.Close = st.Why(cause), k.ToClose(cause, st.Findings)
	}
	p.weighTheory(l)
	// What is costly to work out is worked out only where it is shown.
	switch l.face {
	case "matrix":
		p.Matrix = l.matrix(p.Theory)
	case "story":
		var decider *explain.Evidence
		if p.Stories, decider = l.stories(); decider != nil {
			p.Decider = &CheckView{Check: explain.Check{Evidence: decider}, Answer: l.markState(decider.Code).Tall()}
		}
		told, _ := st.Stories()
		p.Neither = k.Neither(told, st.Findings)
	default:
		p.Change = st.WouldChange()
	}
	return p
}

// LeadView says what leads, and what speaks against it; or that the answer is open.
type LeadView struct {
	Open    bool
	Name    string
	Sure    float64 // how likely the one that leads is, alone
	LeftNow string  // what stands first and is only what is left over
	Against string  // what it must answer, the gravest first
	Look    string  // what to look at next
}

// lead says what leads of a ranking.
func (p *ExplainPage) lead(l *look) {
	ranking := explain.Alone(l.st.Explained().Ranking)
	if len(ranking) == 0 {
		return
	}
	v := &LeadView{}
	if r, ok := explain.Lead(ranking); ok {
		v.Name, v.Sure = r.Cause.Name, r.Alone
		if len(r.Misfits) > 0 {
			v.Against = r.Misfits[0].Text()
		} else if len(r.Against) > 0 {
			v.Against = strings.ToLower(r.Against[0].Text())
		}
	} else {
		v.Open = true
		if ranking[0].Cause.LeftOver {
			v.LeftNow = ranking[0].Cause.Name
		}
	}
	if len(p.Next) > 0 {
		v.Look = strings.ToLower(p.Next[0].Evidence.Text)
	}
	p.Head = v
}

// answer is a button for one answer of several; pressed again it is taken back.
func (l *look) answer(ref unit.Ref, value, stands string) Press {
	p := l.press(ref, value, stands)
	if value == stands {
		p.Value, p.On = "", true
	}
	return p
}

// howFields asks what a mark seen is worth: a scratch the bench made itself, or
// one found only after wiping, says less.
func (l *look) howFields(code string) (out []Choice) {
	for _, name := range []string{"origin", "found_how", "age"} {
		out = append(out, l.listed(l.unit.EvidenceRef(code, name)))
	}
	return out
}

// rank lays out the leading causes.
func (p *ExplainPage) rank(l *look) {
	ranking := explain.Alone(l.st.Explained().Ranking)
	ref := l.unit.ConclusionRef("cause")
	for i, r := range ranking[:min(causesShown, len(ranking))] {
		root := l.press(ref, r.Cause.Code, l.st.Conclude.Cause)
		root.On = r.Cause.Code == l.st.Conclude.Cause
		p.Ranking = append(p.Ranking, CauseView{Ranked: r, Root: root, Full: i < causesReason})
	}
	x := l.st.Explained()
	p.Others = Others{Count: len(ranking) - len(p.Ranking), Several: x.Two}
	for _, r := range ranking[len(p.Ranking):] {
		p.Others.Share += r.Alone
	}
	for _, pair := range x.Pairs[:min(pairsShown, len(x.Pairs))] {
		p.Others.Pairs = append(p.Others.Pairs, PairRow{pair.A.Name + ", and " + pair.B.Name, pair.Posterior})
	}
}

// weighTheory finds the reader's own theory in the ranking.
func (p *ExplainPage) weighTheory(l *look) {
	if l.theory == "" {
		return
	}
	ranking := l.st.Explained().Ranking
	i := slices.IndexFunc(ranking, func(r explain.Ranked) bool { return r.Cause.Code == l.theory })
	if i < 0 {
		p.TheoryNo = "there is nothing to weigh it against yet: answer a mark first"
		return
	}
	p.Theory = &ranking[i]
}

// nextChecks are the marks whose answer would tell most.
func (l *look) nextChecks() (out []CheckView) {
	next := l.st.Next()
	for _, check := range next[:min(checksShown, len(next))] {
		view := CheckView{Check: check, Answer: l.markState(check.Evidence.Code)}
		for _, e := range check.Or {
			view.Others = append(view.Others, OutcomeView{e.Text, l.markState(e.Code)})
		}
		for _, t := range check.Then {
			view.Thens = append(view.Thens, thenWords(t, len(check.Or) > 0))
		}
		out = append(out, view)
	}
	return out
}

// thenWords says what an answer would do.
func thenWords(t explain.Then, several bool) string {
	answer := "there"
	switch {
	case several:
		answer = strings.ToLower(t.Evidence.Text)
	case !t.Seen:
		answer = "not there"
	}
	words := fmt.Sprintf("%s: %s %.0f %%", answer, strings.ToLower(t.Lead.Name), 100*t.P)
	if t.Lead != t.Was {
		words += fmt.Sprintf(", %s only %.0f %%", strings.ToLower(t.Was.Name), 100*t.Left)
	}
	return words
}

// atTheMachine are the fields of a root cause that lies outside the unit: it needs
// somebody who acts.
func (l *look) atTheMachine() (out []Entry) {
	of := func(name string) Entry { return l.field(l.unit.ConclusionRef(name)) }
	if l.st.Cause == nil || l.st.Cause.Where != "outside" {
		return nil
	}
	out = append(out, of("action").With(l.st.Cause.Action), of("owner"), of("blamed"))
	if l.st.Conclude.Blamed != "" {
		out = append(out, of("blamed_found"))
	}
	if l.unit.Ending == unit.EndReplaced {
		out = append(out, of("cured"))
	}
	return out
}

// noFinding concludes that there is nothing to explain, nil where there is.
func (l *look) noFinding() *Press {
	if len(l.st.Explained().Ranking) > 0 && l.st.Conclude.Cause != unit.CauseNone {
		return nil
	}
	p := l.answer(l.unit.ConclusionRef("cause"), unit.CauseNone, l.st.Conclude.Cause)
	return &p
}

// notFound concludes that the cause was looked for and not found.
func (l *look) notFound() Press {
	return l.answer(l.unit.ConclusionRef("cause"), unit.CauseNotFound, l.st.Conclude.Cause)
}
