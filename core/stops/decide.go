package stops

import (
	"corvek/core/decide"
	"corvek/core/metrology"
	"corvek/core/search"
	"corvek/core/unit"
)

func (l *list) decide() {
	l.answer()
	for i := range l.Parts {
		p := &l.Parts[i]
		switch {
		case p.Choice == decide.Open:
			l.part(p, "decide", unit.StopOpen, "%s: %s", p.Name, p.Proposal.Reason)
		case p.Decision.Choice != "" && p.Decision.Choice != string(p.Proposal.Choice) && blank(p.Decision.Reason):
			l.part(p, "decide", unit.StopReason, "%s: other than proposed, and no reason given", p.Name)
		case p.Decision.Choice == string(decide.Keep) && search.Masks(p.Decision.Reason):
			l.part(
				p,
				"decide",
				unit.StopReason,
				"%s: “%s” hides what is wrong and mends nothing. Renew or rework it, "+
					"or give a reason that lies in the part",
				p.Name,
				p.Decision.Reason,
			)
		}
	}
}

// answer waits for the customer's word, and tells where the work goes another way than
// he said.
func (l *list) answer() {
	q := l.Job.Quote
	policy := decide.Policy(l.Job.Policy)
	switch {
	case q.Open():
		l.of("decide", unit.StopAnswer, "The customer has the offer of %s and has not answered", q.GivenOn)
	case q.Answer == unit.AnswerRebuild && policy == decide.FullOverhaul:
		l.of("decide", unit.StopAnswer, "The customer takes the rebuild, the policy is full overhaul")
	case q.Answer == unit.AnswerOverhaul && policy == decide.OnCondition:
		l.of("decide", unit.StopAnswer, "The customer takes the overhaul, the policy is on condition")
	}
}

// rework holds the build until a part that is saved is back, flat, and within what may
// come off; the new measure is asked with the other clearances.
func (l *list) rework(p *Part) {
	for _, w := range p.Ways {
		r := w.Row
		trend := decide.Trending(r.FlatFirst.SI, r.FlatNow.SI)
		switch {
		case r.Out():
			l.part(p, "build", unit.StopRework, "%s: sent out on %s (%s) and not back", p.Name, r.Sent, w.Name)
		case w.Fault() != "" && w.Taken > 0:
			l.part(p, "build", unit.StopRework, "%s: %s", p.Name, w.Fault())
		case w.Flat && r.FlatHow == "":
			l.part(p, "build", unit.StopRework, "%s: say how flat it is now, and how that was found", p.Name)
		case w.Flat && r.FlatHow == unit.FlatNotFound:
			l.part(p, "build", unit.StopRework, "%s: nobody found how flat it is after the work", p.Name)
		case w.Flat && !r.FlatFirst.IsZero() && !r.FlatNow.IsZero() && trend == decide.LessFlat:
			l.part(p, "build", unit.StopRework, "%s got less flat by the work: send it to be ground, or leave it",
				p.Name)
		}
	}
}

// reworked asks for the new measure of what a rework changed.
func (l *list) reworked(p *Part, f *Feature) {
	for _, w := range p.Ways {
		switch {
		case !w.Answers(f.Code) || f.Def.Clearance: // a clearance is taken again anyway
		case !f.Built.Any:
			l.at(p, f, "build", unit.StopAgain, "%s: measure again after the rework", f.Def.Name)
		case w.Oversize && decide.Oversize(f.Found.Nominal, f.Built.Value) <= w.Stock && f.Found.HasNominal:
		case f.Built.Verdict == metrology.Out || f.Built.Verdict == metrology.Undecided:
			l.at(p, f, "build", unit.StopAgain, "%s after the rework is %s", f.Def.Name, f.Built.Verdict)
		}
	}
}
