package decide

import (
	"fmt"
	"strings"
)

// proposePart proposes for one part, whatever becomes of its set. The reasons stand strongest
// first: what broke it, what decides, what else speaks.
func proposePart(p Part, policy Policy) Proposal {
	breaking, others := p.seen()
	measured := judge(p)
	because := func(c Choice, reasons ...string) Proposal {
		all := append(breaking, reasons...)
		all = append(all, p.besides(others)...)
		return Proposal{Choice: c, Reason: strings.Join(all, "; "), Looked: p.Looked() || measured.good}
	}
	out := strings.Join(measured.bad, ", ") + " out of limits"
	switch {
	case p.Unfit != "" && len(breaking) == 0 && p.Short == 0 && len(measured.bad) == 0:
		return because(Keep, append([]string{p.Unfit + ": the one that was in it goes back"},
			p.kept(measured.good)...)...)
	case p.Unfit != "":
		return because(Open, p.Unfit+", and the one that was in it cannot go back")
	case p.Renew:
		return because(Replace, "soft part, new at every rebuild")
	case p.Short > 0:
		return because(Replace, fmt.Sprintf("%d short of the count", p.Short))
	case len(breaking) > 0:
		return because(Replace)
	case p.Aged != "":
		return because(Replace, p.Aged)
	case p.Ask != "":
		return because(Open, p.Ask)
	case p.Calls.Choice != "":
		return because(p.Calls.Choice, p.Calls.Reason)
	case len(measured.bad) > 0 && !measured.saved:
		return because(Replace, append([]string{out}, measured.lost()...)...)
	case policy == FullOverhaul && p.Wearing:
		return because(Replace, "wearing part, full overhaul")
	case len(measured.bad) > 0:
		rework := because(Rework, append([]string{out}, measured.ways()...)...)
		rework.Routes = measured.routes
		return rework
	case len(measured.open) > 0:
		return because(Open, strings.Join(measured.open, ", "))
	case len(p.Remedies) > 0:
		return because(Replace, "the remedy of the cause renews it: "+strings.Join(p.Remedies, ", "))
	case p.Stuck != "" && !p.Looked():
		return because(Open, "not looked at since it came off: say what is on it, or that it is sound")
	case len(p.Blamed) > 0 && !p.Looked() && !measured.good:
		return because(Open, "the cause lies here ("+strings.Join(p.Blamed, ", ")+"): say what is on it, or measure it")
	case p.Works && !p.Looked() && !measured.good:
		open := because(Open, "not looked at: say what is on it, or that it is sound")
		open.Unseen = true
		return open
	}
	return because(Keep, p.kept(measured.good)...)
}

// seen are the marks in words, those that break it first.
func (p Part) seen() (breaking, others []string) {
	for _, m := range p.Marks {
		if m.Breaking {
			breaking = append(breaking, m.Text)
		} else {
			others = append(others, m.Text)
		}
	}
	return breaking, others
}

// besides is what else speaks of the part, whatever is proposed.
func (p Part) besides(others []string) (all []string) {
	if p.Stuck != "" {
		all = append(all, "came off "+p.Stuck)
	}
	if len(others) > 0 {
		all = append(all, "seen: "+strings.Join(others, ", "))
	}
	if p.Wear != "" {
		all = append(all, p.Wear)
	}
	return all
}

// kept says what speaks for keeping the part, and what nobody did.
func (p Part) kept(measured bool) []string {
	var out []string
	if measured {
		out = append(out, "measured and within limits")
	}
	switch {
	case p.Sound:
		out = append(out, "looked at and sound")
	case !measured && len(p.Marks) == 0:
		out = append(out, "not looked at")
	}
	return out
}
