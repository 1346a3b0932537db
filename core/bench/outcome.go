package bench

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Worked is one thing that was worked out of a unit, as it is said.
type Worked struct {
	Of   string `json:"of"` // what it is about: a part, a step of the test, a stop
	Name string `json:"name"`
	Says string `json:"says"`
}

// Outcome is what was worked out of a unit, in the order of the work: plain data that a later
// version of the program still reads.
type Outcome []Worked

// Outcome tells what the state comes to.
func (st *State) Outcome() (out Outcome) {
	add := func(of, name, says string) {
		if says != "" {
			out = append(out, Worked{of, name, says})
		}
	}
	for _, p := range st.Parts {
		for _, f := range p.Features {
			for _, stage := range []string{unit.StageFound, unit.StageBuilt} {
				add(f.Path()+"/"+stage, p.Name+": "+f.Def.Name+", "+stage, verdictOf(f, stage))
			}
		}
	}
	if st.Leak.Known {
		add("leak", "leak as found", flow(st.Leak.Flow))
		add("leak/rebuilt", "leak after the work", flow(st.Leak.Rebuilt))
	}
	for i, r := range st.Explained().Ranking[:min(len(st.Explained().Ranking), ranked)] {
		add(fmt.Sprintf("cause/%d", i+1), fmt.Sprintf("cause %d", i+1),
			fmt.Sprintf("%s, %.0f %%", r.Cause.Name, 100*r.Posterior))
	}
	for i, c := range st.Causes() {
		add(fmt.Sprintf("named/%d", i), "named "+strings.ReplaceAll(c.Role, "_", " "), c.Name)
	}
	for _, p := range st.Parts {
		add("part/"+p.Code, p.Name, strings.TrimRight(string(p.Choice())+": "+p.Proposal.Reason, ": "))
	}
	for _, a := range append([]*Attempt{st.Received}, st.Attempts...) {
		if a == nil {
			continue
		}
		for i := range a.Points {
			p := &a.Points[i]
			name := fmt.Sprintf("attempt %d: %s", a.Number, p.Test.Name)
			if a == st.Received {
				name = "as received: " + p.Test.Name
			}
			add(fmt.Sprintf("attempt/%d/%s", a.Number, p.Test.Code), name, pointSays(p))
		}
	}
	for _, station := range unit.Stations {
		for _, s := range st.Stops[station] {
			says := s.Text
			if s.Waived != nil {
				says = "waived: " + says
			}
			add("stop/"+s.StopCode.String(), "open at "+station, says)
		}
	}
	claim, missing := st.Claim()
	add(ofClaim, "what may be said", strings.Join(append([]string{string(claim)}, missing...), "; "))
	return out
}

// ofClaim is what the outcome says of the claim of the papers.
const ofClaim = "claim"

// claim is what was said of the unit at its hand-over; ok is false where nothing was kept.
func (then Outcome) claim() (c proof.Claim, missing []string, ok bool) {
	at := slices.IndexFunc(then, func(w Worked) bool { return w.Of == ofClaim })
	if at < 0 {
		return "", nil, false
	}
	said := strings.Split(then[at].Says, "; ")
	return proof.Claim(said[0]), said[1:], true
}

// ranked is how many of the likeliest causes an outcome tells.
const ranked = 5

func flow(si float64) string { return quantity.Show(si, quantity.Flow, quantity.Metric) }

// verdictOf is what a feature's readings of a stage come to, "" where there are none.
func verdictOf(f *Feature, stage string) string {
	r := f.Result(stage)
	if !r.Any {
		return ""
	}
	words := []string{string(r.Verdict)}
	if r.HasUsed {
		words = append(words, fmt.Sprintf("%.0f %% of the wear limit used", 100*r.Used))
	}
	if r.Limits.HasLower {
		words = append(words, "at least "+shownLength(r.Limits.Lower))
	}
	if r.Limits.HasUpper {
		words = append(words, "at most "+shownLength(r.Limits.Upper))
	}
	return strings.Join(slices.DeleteFunc(words, func(w string) bool { return w == "" }), ", ")
}

// pointSays is what a step of a test comes to.
func pointSays(p *Point) string {
	if p.Skipped != "" {
		return "does not apply: " + p.Skipped
	}
	words := []string{string(p.Verdict)}
	for _, f := range p.Figures {
		if f.Verdict == "" {
			continue
		}
		is := f.Figure + " " + f.Q.Typed + " " + string(f.Verdict)
		if f.Limits.HasLower {
			is += ", at least " + limit(f, f.Limits.Lower)
		}
		if f.Limits.HasUpper {
			is += ", at most " + limit(f, f.Limits.Upper)
		}
		words = append(words, is)
	}
	return strings.Join(slices.DeleteFunc(words, func(w string) bool { return w == "" }), "; ")
}

// limit writes what a figure is held against.
func limit(f proof.Figured, si float64) string {
	if f.By == family.ByEfficiency {
		return quantity.Figures(100*si, 3) + " % of theory"
	}
	return quantity.Show(si, f.Dim, quantity.Metric)
}

// Difference is one thing that two outcomes of a unit say otherwise; "" where one of them says
// nothing of it.
type Difference struct{ Name, Then, Now string }

// Against tells in what another outcome of the same unit differs, in the order of the first.
func (then Outcome) Against(now Outcome) (out []Difference) {
	is := map[string]Worked{}
	for _, w := range now {
		is[w.Of] = w
	}
	for _, w := range then {
		if n := is[w.Of]; n.Says != w.Says {
			out = append(out, Difference{w.Name, w.Says, n.Says})
		}
		delete(is, w.Of)
	}
	for _, w := range now {
		if _, fresh := is[w.Of]; fresh {
			out = append(out, Difference{w.Name, "", w.Says})
		}
	}
	return out
}
