package web

import (
	"cmp"
	"fmt"
	"html/template"
	"math"
	"slices"
	"strings"

	"corvek/core/explain"
	"corvek/core/unit"
	"corvek/internal/draw"
)

// ExplainView is the board, the ranking and the checks.
type ExplainView struct {
	Locked bool
	Board  []BoardItem
	Top    []explain.Ranked
	Rest   int
	Next   []explain.Check
	Chain  []explain.LinkState
	Causes []explain.Cause

	Close    []*explain.Evidence // what would close the chain
	Change   []explain.Turn
	Stories  []StoryView
	Decider  *explain.Evidence
	Matrix   template.HTML
	Theory   *explain.Ranked // the reader's own, weighed like any other
	TheoryNo string          // why it cannot be weighed
}

// StoryView is one way to tell the case, with its strip of time.
type StoryView struct {
	explain.Story
	Names     string
	Strip     template.HTML
	Conflicts []string
}

// BoardItem is one mark of the evidence board.
type BoardItem struct {
	*explain.Evidence
	State    string // seen, absent or empty as answered by hand
	Source   string // where an automatic finding comes from
	Strength float64
	OnPart   bool
	Ref      string   // address of its state
	How      []Choice // where it comes from, how it was found, how old it looks
}

// howFields asks what a mark seen is worth: a scratch the bench made itself, or
// one found only after wiping, says less.
func (p *Page) howFields(code string) []Choice {
	var out []Choice
	for _, name := range []string{"origin", "found_how", "age"} {
		out = append(out, p.Listed(p.S.Unit.EvidenceRef(code, name)))
	}
	return out
}

func (p *Page) explainView() ExplainView {
	st := p.S
	v := ExplainView{Locked: !p.CanWork(), Next: st.Explained().Next, Causes: st.Knowledge.Causes}
	strength := map[string]float64{}
	for _, f := range st.Findings {
		strength[f.Code] = f.Strength
	}
	for i := range st.Knowledge.Evidence {
		e := &st.Knowledge.Evidence[i]
		m := st.Unit.LastSaid(e.Code)
		item := BoardItem{Ref: st.Unit.EvidenceRef(e.Code, "state").String(), Evidence: e, State: m.State,
			Source: st.Sources[e.Code], Strength: strength[e.Code], OnPart: p.PartAsked && e.Part != "" &&
				e.Part == p.Part.Code}
		if m.State == unit.MarkSeen {
			item.How = p.howFields(e.Code)
		}
		v.Board = append(v.Board, item)
	}
	// What is found on a part that was asked for stands first; the rest keeps its
	// order, so that nothing jumps away under a finger.
	slices.SortStableFunc(v.Board, func(a, b BoardItem) int { return cmp.Compare(rank(b.OnPart), rank(a.OnPart)) })
	v.Top = st.Explained().Ranking
	if len(v.Top) > 4 {
		v.Rest = len(v.Top) - 4
		v.Top = v.Top[:4]
	}
	if len(v.Next) > 4 {
		v.Next = v.Next[:4]
	}
	cause := st.Cause
	if cause == nil && len(v.Top) > 0 {
		cause = v.Top[0].Cause
	}
	if cause != nil {
		v.Chain = st.Knowledge.Chain(cause, st.Findings)
		v.Close = st.Knowledge.ToClose(cause, st.Findings)
	}
	p.theory(&v)
	// What is costly to work out is worked out only where it is shown.
	switch p.Face {
	case "matrix":
		v.Matrix = p.matrix(v)
	case "story":
		_, v.Decider = st.Stories()
		v.Stories = p.stories()
	default:
		v.Change = st.WouldChange()
	}
	return v
}

// theory finds the reader's own theory in the ranking.
func (p *Page) theory(v *ExplainView) {
	if p.Theory == "" {
		return
	}
	for i := range p.S.Explained().Ranking {
		if p.S.Explained().Ranking[i].Cause.Code == p.Theory {
			v.Theory = &p.S.Explained().Ranking[i]
			return
		}
	}
	v.TheoryNo = "there is nothing to weigh it against yet: answer a mark first"
}

// Most that a matrix shows.
const (
	matrixCauses = 5
	matrixMarks  = 14
)

// matrix sets findings against the leading causes, the strongest findings first.
func (p *Page) matrix(v ExplainView) template.HTML {
	ranking := p.S.Explained().Ranking
	if len(ranking) == 0 {
		return ""
	}
	cols := append([]explain.Ranked{}, ranking[:min(matrixCauses, len(ranking))]...)
	if v.Theory != nil && !slices.ContainsFunc(cols, func(r explain.Ranked) bool { return r.Cause == v.Theory.Cause }) {
		cols[len(cols)-1] = *v.Theory
	}
	m := draw.Matrix{}
	bits := map[*explain.Evidence][]float64{}
	strength := map[*explain.Evidence]float64{}
	for i, r := range cols {
		m.Columns = append(m.Columns, draw.MatrixColumn{Name: r.Cause.Name, Share: r.Posterior,
			Mine: v.Theory != nil && r.Cause == v.Theory.Cause})
		for _, w := range append(append([]explain.Weight{}, r.For...), r.Against...) {
			if bits[w.Evidence] == nil {
				bits[w.Evidence] = make([]float64, len(cols))
			}
			bits[w.Evidence][i], strength[w.Evidence] = w.Bits, w.Strength
		}
	}
	var marks []*explain.Evidence
	for e := range bits {
		marks = append(marks, e)
	}
	strongest := func(e *explain.Evidence) (most float64) {
		for _, b := range bits[e] {
			most = max(most, math.Abs(b))
		}
		return most
	}
	slices.SortFunc(marks, func(a, b *explain.Evidence) int {
		if d := cmp.Compare(strongest(b), strongest(a)); d != 0 {
			return d
		}
		return cmp.Compare(a.Code, b.Code)
	})
	for _, e := range marks[:min(matrixMarks, len(marks))] {
		m.Rows = append(m.Rows, draw.MatrixRow{Name: e.Text, State: explain.Told(strength[e]), Bits: bits[e]})
	}
	return template.HTML(m.SVG())
}

// stories lays the two likeliest tellings side by side, each with its time strip.
func (p *Page) stories() []StoryView {
	ages := map[string]string{}
	for code, e := range p.S.Noted {
		ages[code] = e.Age
	}
	events := func(list []explain.Event) (out []draw.StripEvent) {
		for _, e := range list {
			out = append(out, draw.StripEvent{Text: e.Evidence.Text, Answered: e.Answered, Age: e.Age})
		}
		return out
	}
	var out []StoryView
	told, _ := p.S.Stories()
	for _, s := range told {
		t := p.S.Knowledge.Timeline(s, p.S.Findings, ages)
		var names []string
		for _, c := range s.Causes {
			names = append(names, c.Name)
		}
		out = append(out, StoryView{Story: s, Names: strings.Join(names, ", and "), Conflicts: t.Conflicts,
			Strip: template.HTML(draw.TimeStrip(events(t.Sudden), events(t.Hours), events(t.Gradual)))})
	}
	return out
}

func rank(first bool) int {
	if first {
		return 1
	}
	return 0
}

// Wide is the width of a posterior's bar of 100.
func (ExplainView) Wide(p float64) string { return fmt.Sprintf("%.1f", 100*p) }
