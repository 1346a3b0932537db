package explain

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"corvek/core/field"
)

// Case is a case as it is written down: docs/explain.md describes it.
type Case struct {
	Family   string         `json:"family"`
	Evidence []CaseItem     `json:"evidence"`
	Counts   map[string]int `json:"closed_jobs,omitempty"` // how often the shop concluded each cause
}

// CaseItem is one check: seen, absent or not_looked; or a strength from 0 to 1.
type CaseItem struct {
	Code     string   `json:"code"`
	State    string   `json:"state,omitempty"`
	Grade    *int     `json:"grade,omitempty"` // by touch, 0 to 4
	Strength *float64 `json:"strength,omitempty"`
}

// Answer is what the engine says of a case.
type Answer struct {
	Family  string         `json:"family"`
	Ranking []AnswerCause  `json:"ranking"`
	Two     float64        `json:"two_together"`
	Pairs   []AnswerStory  `json:"pairs"`
	Stories []AnswerStory  `json:"stories"`
	Decider string         `json:"decider,omitempty"`
	Next    []AnswerCheck  `json:"next"`
	Change  []AnswerChange `json:"would_change"`
	Entropy float64        `json:"open_bits"`
}

// AnswerCause is a ranked cause with its reasons.
type AnswerCause struct {
	Cause     string         `json:"cause"`
	Name      string         `json:"name"`
	Where     string         `json:"where"`
	Posterior float64        `json:"posterior"`
	Alone     float64        `json:"alone"`
	For       []AnswerWeight `json:"for"`
	Against   []AnswerWeight `json:"against"`
	Misfits   []AnswerMisfit `json:"misfits"`
}

// AnswerWeight is what one finding says, in bits.
type AnswerWeight struct {
	Evidence    string  `json:"evidence"`
	Strength    float64 `json:"strength"`
	Information float64 `json:"bits"`
}

// AnswerMisfit is what a cause must answer; lacking means looked for and absent.
type AnswerMisfit struct {
	Evidence string `json:"evidence"`
	Lacking  bool   `json:"lacking"`
}

// AnswerStory is one way to tell the case.
type AnswerStory struct {
	Causes    []string       `json:"causes"`
	Posterior float64        `json:"posterior"`
	Open      []AnswerMisfit `json:"open,omitempty"`
}

// AnswerCheck is something to look at next.
type AnswerCheck struct {
	Evidence    string   `json:"evidence"`
	Text        string   `json:"text"`
	Look        string   `json:"look"`
	Minutes     float64  `json:"minutes"`
	Information float64  `json:"bits"`
	Destroys    bool     `json:"destroys_evidence"`
	Or          []string `json:"or,omitempty"`
}

// AnswerChange is an outcome that would put another cause in front.
type AnswerChange struct {
	Evidence string  `json:"evidence"`
	Seen     bool    `json:"seen"`
	Chance   float64 `json:"chance"`
	To       string  `json:"to"`
}

// ReadCase reads a case. Every error is a *field.Error naming the place.
func ReadCase(body []byte) (*Case, error) {
	c := &Case{}
	if err := field.DecodeJSON(body, c, true); err != nil {
		return nil, field.Errorf("case", "is not a case as docs/explain.md has it: %s", err)
	}
	return c, nil
}

// findings turns a case's checks into findings; what was not looked at says nothing.
func (c *Case) findings(k *Knowledge) ([]Finding, error) {
	var out []Finding
	seen := map[string]bool{}
	for i, e := range c.Evidence {
		where := fmt.Sprintf("evidence[%d]", i)
		if _, ok := k.EvidenceByCode(e.Code); !ok {
			return nil, field.Errorf(where, "%q is no evidence of %s; corvek explain --codes %s lists it", e.Code,
				c.Family, c.Family)
		}
		if seen[e.Code] {
			return nil, field.Errorf(where, "%q is there twice", e.Code)
		}
		seen[e.Code] = true
		f := Finding{Code: e.Code}
		switch {
		case e.Strength != nil && (e.State != "" || e.Grade != nil) || e.Grade != nil && e.State != "":
			return nil, field.Errorf(where, "give one of state, grade and strength")
		case e.Strength != nil:
			if !(*e.Strength >= 0 && *e.Strength <= 1) {
				return nil, field.Errorf(where, "strength lies between 0 and 1")
			}
			f.Strength = min(Seen, max(Absent, *e.Strength))
		case e.Grade != nil:
			if *e.Grade < 0 || *e.Grade > 4 {
				return nil, field.Errorf(where, "a grade runs from 0 to 4")
			}
			f.Strength = StrengthOfGrade(*e.Grade)
		case e.State == "seen":
			f.Strength = Seen
		case e.State == "absent":
			f.Strength = Absent
		case e.State == "not_looked":
			continue
		default:
			return nil, field.Errorf(where, "state is seen, absent or not_looked")
		}
		out = append(out, f)
	}
	return out, nil
}

// Families lists the families that have knowledge.
func (b Base) Families() []string {
	return slices.Sorted(maps.Keys(b))
}

// Answer reads a case and answers it.
func (b Base) Answer(body []byte) (*Answer, error) {
	c, err := ReadCase(body)
	if err != nil {
		return nil, err
	}
	k := b[c.Family]
	if k == nil {
		return nil, field.Errorf("family", "%q is not known; it is one of %s", c.Family,
			strings.Join(b.Families(), ", "))
	}
	for code, n := range c.Counts {
		if _, ok := k.CauseByCode(code); !ok || n < 0 {
			return nil, field.Errorf("closed_jobs", "%q is no cause of %s, or its count is below zero", code, c.Family)
		}
	}
	k = k.WithCounts(c.Counts)
	findings, err := c.findings(k)
	if err != nil {
		return nil, err
	}
	return k.answer(findings), nil
}

func (k *Knowledge) answer(findings []Finding) *Answer {
	x := k.Explain(findings)
	a := &Answer{Family: k.Family, Two: x.Two, Entropy: x.Entropy, Ranking: []AnswerCause{}, Pairs: []AnswerStory{},
		Stories: []AnswerStory{}, Next: []AnswerCheck{}, Change: []AnswerChange{}}
	for _, r := range x.Ranking {
		a.Ranking = append(a.Ranking, AnswerCause{r.Cause.Code, r.Cause.Name, r.Cause.Where, r.Posterior, r.Alone,
			weightsOf(r.For), weightsOf(r.Against), misfitsOf(r.Misfits)})
	}
	for _, p := range x.Pairs {
		a.Pairs = append(a.Pairs, AnswerStory{Causes: []string{p.A.Code, p.B.Code}, Posterior: p.Posterior})
	}
	stories, decider := k.Stories(findings)
	for _, s := range stories {
		var codes []string
		for _, c := range s.Causes {
			codes = append(codes, c.Code)
		}
		a.Stories = append(a.Stories, AnswerStory{codes, s.Posterior, misfitsOf(s.Open)})
	}
	if decider != nil {
		a.Decider = decider.Code
	}
	for _, n := range x.Next {
		a.Next = append(a.Next, AnswerCheck{n.Evidence.Code, n.Evidence.Text, n.Evidence.Look, n.Evidence.Minutes,
			n.Information, n.Evidence.Destroys, codesOf(n.Or)})
	}
	for _, t := range k.WouldChange(findings, 10) {
		a.Change = append(a.Change, AnswerChange{t.Evidence.Code, t.Seen, t.Chance, t.To.Code})
	}
	return a
}

func codesOf(list []*Evidence) (out []string) {
	for _, e := range list {
		out = append(out, e.Code)
	}
	return out
}

func weightsOf(ws []Weight) []AnswerWeight {
	out := []AnswerWeight{}
	for _, w := range ws {
		out = append(out, AnswerWeight{w.Evidence.Code, w.Strength, w.Information})
	}
	return out
}

func misfitsOf(ms []Misfit) []AnswerMisfit {
	out := []AnswerMisfit{}
	for _, m := range ms {
		out = append(out, AnswerMisfit{m.Evidence.Code, m.Lacking})
	}
	return out
}
