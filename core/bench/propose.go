package bench

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/kit"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Decided is the unit with what is done with each part, and the places that it leaves for new
// pieces.
type Decided struct {
	*Rated
	Parts  []*Part // as Stripped has them
	ByCode map[string]*Part
	Places []kit.Slot

	pieces   []kit.Piece     // of the kit, as its rules read them
	overhaul []decide.Choice // what each part would come to in a full overhaul
}

// decided proposes for every part what is done with it under the job's policy.
func decided(r *Rated) *Decided {
	st := &Decided{Rated: r, ByCode: map[string]*Part{}}
	parts := r.toDecide()
	for i, prop := range decide.Propose(parts, decide.Policy(st.Job.Policy)) {
		p := &Part{AsFound: r.Parts[i], Proposal: prop}
		st.Parts = append(st.Parts, p)
		st.ByCode[p.Code] = p
		if p.Choice() == decide.Replace {
			st.Places = append(st.Places, kit.Slot{Part: p.Code, Name: p.Name, Need: p.Expected})
		}
	}
	st.pieces = r.lying()
	for i := range st.Places {
		p := st.ByCode[st.Places[i].Part]
		p.Place, p.Filled = &st.Places[i], kit.Filled(p.Code, st.pieces)
	}
	for i := range parts {
		parts[i].Chosen = ""
	}
	for _, prop := range decide.Propose(parts, decide.FullOverhaul) {
		st.overhaul = append(st.overhaul, prop.Choice)
	}
	return st
}

// toDecide is what each proposal rests on.
func (st *Rated) toDecide() []decide.Part {
	blamed, remedies := st.causesOf()
	parts := make([]decide.Part, len(st.Parts))
	for i, p := range st.Parts {
		d := decide.Part{
			Code:     p.Code,
			Name:     p.Name,
			Renew:    p.Def.Renew,
			Wearing:  p.Def.Wearing,
			Works:    p.Works(),
			Set:      p.Def.Set,
			Sound:    p.Sound,
			Chosen:   decide.Choice(p.Decision.Choice),
			Blamed:   blamed[p.Code],
			Remedies: remedies[p.Code],
			Wear:     st.wear(p),
			Aged:     st.aged(p),
			Unfit:    st.unfits(p.Code),
		}
		if p.Off {
			d.Short = max(0, p.Missing)
		}
		if p.CameStuck() {
			d.Stuck = p.Stuck
		}
		for _, m := range p.Seen {
			if m.Code != MarkSeized { // said as how it came off
				d.Marks = append(d.Marks, decide.Mark{Text: m.Text(), Breaking: m.Breaking})
			}
		}
		for _, f := range p.Features {
			d.Findings = append(d.Findings, decide.Finding{Code: f.Code, Name: f.Def.Name,
				Verdict: f.Found.Verdict, Measured: f.Found.Any, Must: f.Def.MustHave,
				HasLimit: f.Found.Verdict != "" || !f.Found.Limits.Empty()})
		}
		for _, w := range p.Ways() {
			d.Routes = append(d.Routes, w.Route)
		}
		if c := st.Coil(p); c != nil {
			d.Ask, d.Calls = c.proposal()
		}
		parts[i] = d
	}
	return parts
}

// Works reports that the part is off and wears, moves or carries the load: it does not go back unseen. A spring goes
// back measured.
func (p *AsFound) Works() bool {
	k, known := family.KindByCode(p.Def.Kind)
	return p.Off && (p.Def.Wearing || known && (k.Moves || k.Loaded))
}

// Unseen are the parts that work, are off, and were neither measured nor looked at.
func (st *Decided) Unseen() (out []*Part) {
	for _, p := range st.Parts {
		if p.Off && p.Proposal.Unseen && p.Decision.Choice == "" {
			out = append(out, p)
		}
	}
	return out
}

// causesOf are the causes that were named, by the parts that they are in, and by the
// parts that their remedy renews.
func (st *Stripped) causesOf() (blamed, remedies map[string][]string) {
	blamed, remedies = map[string][]string{}, map[string][]string{}
	for _, n := range st.Causes() {
		c, listed := st.Known.CauseByCode(n.Code)
		if !listed {
			continue
		}
		name := strings.ToLower(n.Name)
		for _, path := range st.blames(c) {
			if part, _ := family.CutFeature(path); !slices.Contains(blamed[part], name) {
				blamed[part] = append(blamed[part], name)
			}
		}
		for _, p := range st.Parts {
			// What only contributed, and what lies outside with nobody who acts on it, renews what bears a mark, and
			// nothing on a guess.
			guess := n.Role == unit.RoleContributing || n.Outside && strings.TrimSpace(n.Action) == ""
			if c.RenewsPart(p.Code, p.Def.Kind) && (!guess || len(p.Seen) > 0) {
				remedies[p.Code] = append(remedies[p.Code], name)
			}
		}
	}
	return blamed, remedies
}

// blames is what is measured that a cause inside the unit leaves its marks on.
func (st *Given) blames(c *explain.Cause) []string {
	if c.Where != "inside" {
		return nil
	}
	return st.Known.Blames(c)
}

// wear says how much of what may wear has worn, and how long it lasts, where that is known.
func (st *Stripped) wear(p *AsFound) string {
	used, ok := p.Worn()
	if !ok || used <= 0 {
		return ""
	}
	words := fmt.Sprintf("%.0f %% of the wear limit used", 100*used)
	if hours, known := st.HoursLeft(p); known && hours > 0 {
		words += fmt.Sprintf(", about %s h left", quantity.Round(hours, 2))
	}
	return words
}

// Worn is the largest share of an allowance that was measured as used; a grade by touch
// is no share.
func (p *AsFound) Worn() (used float64, ok bool) {
	for _, f := range p.Features {
		if f.Found.HasUsed && f.Found.Figure() && (!ok || f.Found.Used > used) {
			used, ok = f.Found.Used, true
		}
	}
	return used, ok
}

// HoursLeft is how long the fastest wearing feature of a part still has.
func (st *Stripped) HoursLeft(p *AsFound) (hours float64, known bool) {
	for _, f := range p.Features {
		if life, ok := st.Life(f); ok && life.Worn && (!known || life.HoursLeft < hours) {
			hours, known = life.HoursLeft, true
		}
	}
	return hours, known
}

// Way is one way to save a part, with how far it was gone.
type Way struct {
	family.Rework
	Kind    family.Way
	Route   decide.Route
	Feature *Feature
	Price   float64
	Row     unit.Rework
}

// Ways are the ways to save the part, each with how far it was gone.
func (p *AsFound) Ways() (out []Way) {
	for _, r := range p.Def.Reworks {
		w := Way{Rework: r, Feature: p.feature(r.For)}
		w.Kind, _ = family.WayByCode(r.Code)
		stock, _ := quantity.Parse(r.Stock, quantity.Length)
		w.Route = decide.Route{Code: r.Code, Name: r.Name, For: r.Answers(), Hours: r.Hours, Days: r.Days,
			Stock: stock.SI}
		if done := p.Rework(r.Code); done != nil {
			w.Row, w.Route.Goes = *done, done.Goes
			w.Route.Taken, _ = done.Taken.Known()
			w.Price, _ = done.Price.Known()
		}
		w.Route.Need = w.need()
		out = append(out, w)
	}
	return out
}

// need is how much must come off before the wear is gone, less what came off already; 0
// where the readings do not say it.
func (w *Way) need() float64 {
	f := w.Feature
	if f == nil || !w.Kind.Takes || !f.Found.HasValue || !f.Found.HasNominal {
		return 0
	}
	switch f.Def.Wears {
	case "bore":
		return max(0, f.Found.Value-f.Found.Nominal-w.Route.Taken)
	case "shaft":
		return max(0, f.Found.Nominal-f.Found.Value-w.Route.Taken)
	}
	return 0
}

func (p *AsFound) feature(code string) *Feature {
	for _, f := range p.Features {
		if f.Code == code {
			return f
		}
	}
	return nil
}

// Going are the ways that are gone when the part is reworked: one for each feature that
// is out of limits.
func (p *Part) Going() (out []Way) {
	if p.Choice() != decide.Rework {
		return nil
	}
	return p.waysFor()
}

// waysFor are the ways that a rework of the part would go; where none can be gone, the first
// that would answer, so that its fault is seen.
func (p *AsFound) waysFor() (out []Way) {
	ways := p.Ways()
	routes := make([]decide.Route, len(ways))
	for i, w := range ways {
		routes[i] = w.Route
	}
	for _, f := range p.Features {
		answers := func(r decide.Route) bool { return r.Answers(f.Code) }
		best, _ := decide.WayFor(routes, f.Code)
		if best < 0 {
			best = slices.IndexFunc(routes, answers)
		}
		if best < 0 || f.Found.Verdict != metrology.Out && !routes[best].Goes {
			continue
		}
		if !slices.ContainsFunc(out, func(w Way) bool { return w.Code == ways[best].Code }) {
			out = append(out, ways[best])
		}
	}
	return out
}
