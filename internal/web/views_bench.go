package web

import (
	"fmt"
	"html/template"
	"math"
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/strip"
	"corvek/internal/answer"
	"corvek/internal/draw"
	"corvek/internal/job"
)

// UnitTab is one unit of a job with several.
type UnitTab struct {
	No   int
	Name string
	URL  string
	Here bool
}

// UnitTabs lists the job's units; nothing for a job with one.
func (p *Page) UnitTabs() []UnitTab {
	if p.S == nil || len(p.S.Job.Units) < 2 {
		return nil
	}
	station := p.Station
	if station == "" {
		station = "receive"
	}
	var out []UnitTab
	for i, u := range p.S.Job.Units {
		url := "/jobs/" + p.S.Job.Tag + "/" + station
		if i > 0 {
			url += fmt.Sprintf("?unit=%d", i+1)
		}
		out = append(out, UnitTab{No: i + 1, Name: u.Name, URL: url, Here: i+1 == p.UnitNo})
	}
	return out
}

// FaceURL is the station's page with another of its faces turned up.
func (p *Page) FaceURL(face string) string {
	part := ""
	if p.Part != nil && p.Station != "receive" {
		part = p.Part.Code
	}
	u := p.Link(p.Station, part, "")
	if face == "" {
		return u
	}
	if strings.Contains(u, "?") {
		return u + "&face=" + face
	}
	return u + "?face=" + face
}

// GaugeRow is a gauge question with what was answered.
type GaugeRow struct {
	family.Question
	Said string
}

// MarkRow is an identity mark with what was seen.
type MarkRow struct {
	family.IdentityMark
	Said string
}

// GaugeRows are the family's questions in their order.
func (p *Page) GaugeRows() []GaugeRow {
	said := p.S.Unit.Gauge
	var out []GaugeRow
	for _, code := range p.S.Family.Gauge {
		if q, ok := family.QuestionByCode(code); ok {
			out = append(out, GaugeRow{q, said[code]})
		}
	}
	return out
}

// MarkRows are the family's identity marks.
func (p *Page) MarkRows() []MarkRow {
	said := p.S.Unit.Identity
	var out []MarkRow
	for _, m := range p.S.Family.Marks {
		out = append(out, MarkRow{m, said[m.Code]})
	}
	return out
}

// GaugeWords says what the answers come to.
func (p *Page) GaugeWords() (w struct{ Tone, Head, Text string }) {
	g := p.S.Gauge
	switch g.Verdict {
	case family.Acquits:
		w.Tone, w.Head, w.Text = "red", "CLEARED", "Do not open: "+strings.Join(g.Because, "; ")
	case family.Elsewhere:
		w.Tone, w.Head, w.Text = "ochre", "ELSEWHERE", "Look there first: "+strings.Join(g.Because, "; ")
	case family.AtUnit:
		w.Tone, w.Head, w.Text = "petrol", "AT THE UNIT", strings.Join(g.Because, "; ")
	default:
		w.Tone, w.Head, w.Text = "ochre", "?", "not told yet"
		if len(g.Because) > 0 && len(g.Against) > 0 {
			w.Text = "the answers point both ways: " + strings.Join(g.Because,
				"; ") + "; but " + strings.Join(g.Against, "; ")
		}
	}
	return w
}

// BalanceWords says how the fluid balance stands; nil until it can be told.
func (p *Page) BalanceWords() *struct{ Tone, Head, Text string } {
	if p.S.Balance == nil {
		return nil
	}
	verdict, _ := p.S.Balance.Get("verdict").(string)
	missing, known := p.S.Balance.Value("unexplained")
	w := map[string]struct{ Tone, Head, Text string }{
		"balanced": {"petrol", "BALANCED", "what came out accounts for what was in it"},
		"short":    {"red", "SHORT", p.Show(missing, "volume") + " went somewhere: look for a sump that gained"},
	}[verdict]
	if w.Head == "" {
		w = struct{ Tone, Head, Text string }{"ochre", "?", "undecided: the level before draining is not known"}
		if known {
			w.Text = "undecided: more came out than was in it; look at the level before again"
		}
	}
	return &w
}

// BalanceRows are the fluid balance's figures for reading.
func (p *Page) BalanceRows() []answer.Row {
	if p.S.Balance == nil {
		return nil
	}
	return answer.Rows(p.S.Balance, p.Units)
}

// StackFace reports that the chosen part's stack is turned up rather than its
// count: once it is off, the order and facing are what gets lost.
func (p *Page) StackFace() bool {
	return p.Part != nil && p.Part.Stack != nil && (p.Face == "stack" || p.Face == "" && p.Part.Off)
}

// StackView is the stack editor of a part at a station.
type StackView struct {
	Part      *job.PartState
	Title     string
	Field     string
	Text      string
	Fault     string
	Drawing   template.HTML
	Adds      []StackAct
	Copies    []StackAct
	Diffs     []string
	Lines     []StackLine
	HasPieces bool
	Locked    bool
}

// StackAct is a tap that writes a new stack.
type StackAct struct{ Label, Value string }

// StackLine is something the stack delivers.
type StackLine struct{ Label, Text, Tone string }

// Stack gives the editor of the chosen part for the strip or the build record.
func (p *Page) Stack(fit bool) *StackView {
	x := p.Part
	if x == nil || x.Stack == nil {
		return nil
	}
	s := x.Stack
	v := &StackView{Part: x, Title: "As removed", Field: p.S.Unit.PartRef(x.Code, "stack_found").String(),
		Text: x.StackFound, Fault: s.FoundFault, Locked: !p.CanWork()}
	pieces, diffs, does := s.Found, s.FoundDiff, s.FoundDoes
	if fit {
		v.Title, v.Field, v.Text, v.Fault = "As fitted", p.S.Unit.PartRef(x.Code, "stack_fit").String(), x.StackFit,
			s.FitFault
		pieces, diffs, does = s.Fit, s.FitDiff, s.FitDoes
		if x.StackFound != "" && x.StackFound != x.StackFit {
			v.Copies = append(v.Copies, StackAct{"copy as removed", x.StackFound})
		}
	}
	if s.Def.As != "" && s.Def.As != v.Text {
		v.Copies = append(v.Copies, StackAct{"as the family has it", s.Def.As})
	}
	v.HasPieces = len(pieces) > 0
	odd := map[int]bool{}
	for _, d := range diffs {
		v.Diffs = append(v.Diffs, d.Text)
		odd[d.At] = true
	}
	views := make([]draw.PieceView, len(pieces))
	for i, pc := range pieces {
		views[i] = draw.PieceView{Kind: pc.Def.Kind, Facing: pc.Facing, Faced: pc.Def.Faced, Title: pc.Def.Name,
			Set: v.Field, Base: v.Text, Odd: odd[i+1], Locked: v.Locked, Drop: without(pieces, i)}
		if pc.Def.Faced {
			views[i].Turn = turned(pieces, i)
		}
	}
	v.Drawing = template.HTML(draw.Pieces(views, x.Name+", "+strings.ToLower(v.Title)))
	for _, d := range s.Def.Pieces {
		if d.Faced {
			v.Adds = append(v.Adds, StackAct{d.Name + " ▶", joined(v.Text, d.Code+">")},
				StackAct{d.Name + " ◀", joined(v.Text, d.Code+"<")})
			continue
		}
		v.Adds = append(v.Adds, StackAct{d.Name, joined(v.Text, d.Code)})
	}
	v.Lines = p.stackLines(x, len(pieces), does, fit)
	return v
}

func joined(text, piece string) string { return strings.TrimSpace(text + " " + piece) }

func stackText(pieces []family.Piece) string {
	var out []string
	for _, pc := range pieces {
		out = append(out, pc.Text())
	}
	return strings.Join(out, " ")
}

func without(pieces []family.Piece, i int) string {
	rest := append(append([]family.Piece{}, pieces[:i]...), pieces[i+1:]...)
	return stackText(rest)
}

func turned(pieces []family.Piece, i int) string {
	all := append([]family.Piece{}, pieces...)
	all[i].Facing = map[byte]byte{'>': '<', '<': '>', 0: '>'}[all[i].Facing]
	return stackText(all)
}

func (p *Page) stackLines(x *job.PartState, pieces int, d strip.Delivery, fit bool) []StackLine {
	if pieces == 0 {
		return nil
	}
	out := []StackLine{{"pieces", fmt.Sprint(pieces), ""}}
	if d.FreeLength > 0 {
		out = append(out, StackLine{"free length", p.Show(d.FreeLength,
			"length") + ", in a space of " + x.Stack.Def.Installed, ""})
	}
	if d.HasForce {
		tone := "petrol"
		text := quantity.Show(d.Force, quantity.Force, p.Units)
		if d.Needed > 0 {
			text += " of the " + quantity.Show(d.Needed, quantity.Force, p.Units) + " it must"
			if !d.Enough() {
				tone = "red"
			}
		}
		out = append(out, StackLine{"presses with", text, tone})
	}
	if d.Faces > 0 {
		out = append(out, StackLine{"faces that work", fmt.Sprint(d.Faces), ""})
	}
	if torque, ok := p.S.Carries(x, fit); ok {
		out = append(out, StackLine{"holds before it slips", quantity.Show(torque, quantity.Torque, p.Units), "petrol"})
	}
	if d.Thickness > 0 && d.Unknown == 0 {
		out = append(out, StackLine{"thick in all", p.Show(d.Thickness, "length"), ""})
	}
	if d.Fault != "" {
		out = append(out, StackLine{"", d.Fault, "red"})
	}
	return out
}

// InstrumentEntry is the field of a feature's tool, with the shop's own to tap.
func (p *Page) InstrumentEntry(f *job.FeatureState) Entry {
	e := p.FeatureField(f, "instrument")
	for _, i := range p.S.Tools {
		e.Choices = append(e.Choices, i.Name)
	}
	slices.Sort(e.Choices)
	return e
}

// sisters draws pieces against one another.
func (p *Page) sisters(f *job.FeatureState, stage string) template.HTML {
	r := f.Result(stage)
	if !r.Any {
		return ""
	}
	d := draw.Sisters{Odd: r.Odd, Show: draw.Length(p.Units), Lower: r.Limits.Lower, HasLower: r.Limits.HasLower,
		Upper: r.Limits.Upper, HasUpper: r.Limits.HasUpper}
	for _, slot := range f.Spec.Slots() {
		v := math.NaN()
		if m, ok := f.Size(stage, slot); ok {
			v = m
		}
		d.Values = append(d.Values, v)
	}
	d.Middle = r.Summary.Mean
	return template.HTML(d.SVG())
}
