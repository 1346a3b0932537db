package report

import (
	"cmp"
	"fmt"
	"iter"
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/unit"
	"corvek/core/wording"
)

// Handling is one act on the unit that a reader of a dispute asks for.
type Handling struct{ When, Who, What string }

// Mark is a finding as a dispute needs it: with where it comes from.
type Mark struct{ Text, Origin, How, Age, Source string }

// DisputeData is what the evidence supports and what it does not, in neutral
// words: both sides read the same paper.
type DisputeData struct {
	Data
	Handled    []Handling
	Opened     string
	Before     []Shot // taken before cleaning
	Later      int
	Seen       []Mark
	Absent     []string
	ByUs       []string
	Unknown    []string
	Unlooked   int
	Supports   []string
	NotSupport []string
	Must       []string
	Decider    string
}

// opening are the acts of the record that tell who opened the unit and when.
func opening(e unit.Entry) string {
	ref, _ := unit.ParseRef(e.Field)
	switch {
	case e.Is(unit.EventReceived):
		return "received into the record"
	case ref == unit.JobRef("warranty_hold") && e.After == entry.Yes:
		return "put on warranty hold"
	case ref == unit.JobRef("warranty_hold"):
		return "warranty hold lifted"
	case ref.Scope == unit.ScopePart && ref.Name == "off" && e.After == entry.Yes:
		return "opened: a part taken off"
	case e.Is(unit.EventRestOff):
		return "opened: the rest taken off"
	case e.Is(unit.EventPicture):
		return e.Action
	}
	return ""
}

func (x *DisputeData) handling(history iter.Seq2[unit.Entry, error]) error {
	for _, p := range x.S.Parts {
		if p.Off {
			x.Opened = "opened; by whom and when is not in this record"
		}
	}
	named := false
	parts := 0
	for e, err := range history {
		if err != nil {
			return err
		}
		what := opening(e)
		if what == "" {
			continue
		}
		if strings.HasPrefix(what, "opened") {
			if !named {
				named = true
				x.Opened = fmt.Sprintf("%s, %s", e.Who, e.At.Format("2 January 2006 15:04"))
			}
			if parts++; parts > 1 {
				continue // the first act opens it
			}
		}
		x.Handled = append(x.Handled, Handling{e.At.Format("2 Jan 2006 15:04"), e.Who, what})
	}
	return nil
}

// asked gives in words how a mark came, was found or looks; "" says nothing.
func asked(name, code string) string {
	if code == "" {
		return ""
	}
	return wording.Choice(unit.ScopeEvidence, name, code)
}

func (x *DisputeData) marks() {
	st := x.S
	known := map[string]bool{}
	for _, f := range st.Findings {
		e, ok := st.Knowledge.EvidenceByCode(f.Code)
		if !ok {
			continue
		}
		known[f.Code] = true
		n := st.Noted[f.Code]
		switch {
		case f.Likely():
			x.Seen = append(x.Seen, Mark{e.Text, asked("origin", cmp.Or(n.Origin, unit.OriginFound)),
				asked("found_how", n.How), asked("age", n.Age), st.Sources[f.Code]})
			if n.Origin == "unknown" {
				x.Unknown = append(x.Unknown, e.Text)
			}
		case explain.Told(f.Strength) == "absent":
			x.Absent = append(x.Absent, e.Text)
		}
	}
	for code, n := range st.Noted {
		if e, ok := st.Knowledge.EvidenceByCode(code); ok && n.Origin == "made_by_us" && n.State == "seen" {
			x.ByUs = append(x.ByUs, e.Text)
			known[code] = true
		}
	}
	slices.Sort(x.ByUs)
	for i := range st.Knowledge.Evidence {
		if !known[st.Knowledge.Evidence[i].Code] {
			x.Unlooked++
		}
	}
}

// words for how much the evidence says; a paper gives no percentages that a
// reader could take for measured.
func standing(p float64) string {
	switch {
	case p >= 0.9:
		return "strongly supported by the evidence"
	case p >= 0.6:
		return "supported more than any other cause"
	case p >= 0.25:
		return "possible on this evidence"
	}
	return "not supported by the evidence"
}

func (x *DisputeData) weigh() {
	st := x.S
	for i, r := range st.Explained().Ranking {
		text := r.Cause.Name + ": " + standing(r.Posterior)
		switch {
		case r.Posterior >= 0.25:
			x.Supports = append(x.Supports, text)
			if i == 0 {
				for _, m := range r.Misfits {
					x.Must = append(x.Must, misfit(m))
				}
			}
		case i < 8:
			x.NotSupport = append(x.NotSupport, r.Cause.Name)
		}
	}
	if _, decider := st.Stories(); decider != nil {
		x.Decider = decider.Text + " (" + decider.Look + ")"
	}
}

func misfit(m explain.Misfit) string {
	if m.Lacking {
		return m.Evidence.Text + " is usual with it and was looked for and not found"
	}
	return m.Evidence.Text + " is hardly ever seen with it"
}
