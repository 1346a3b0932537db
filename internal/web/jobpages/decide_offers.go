package jobpages

import (
	"net/url"
	"strings"

	"corvek/core/bench"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/report"
	"corvek/internal/web/site"
)

// OffersFace is what the customer is offered, and what he says to it.
type OffersFace struct {
	Offers []report.Offered
	Needs  string // what must be entered before there is a sum
	Costs  []Entry
	Quote  unit.Quote
	Given  string // the day, in words
	Said   string // his answer
	Answer []site.Named

	Promised string // the day that the offer prints, "" where none is promised
	PlanURL  string // where it is told when the job is done
}

func (l *look) offers(o bench.Offers) *OffersFace {
	q := l.job.Quote
	v := &OffersFace{Quote: q, Needs: strings.Join(o.Needs, ", "),
		PlanURL: "/plan?why=" + url.QueryEscape(l.job.Tag) + "#why",
		Costs: l.ofJob("parts_cost", "labour_hours", "labour_rate", "outside_cost", "rebuild_days", "parts_days",
			"new_price", "new_days", "downtime_cost", "life_rebuild", "life_overhaul")}
	for _, x := range o.All() {
		v.Offers = append(v.Offers, report.OfferedOf(x, q.Answer))
	}
	if day := l.job.PromisedOn; day != "" {
		v.Promised = day.Time().Format("Mon 2 Jan")
	}
	if d, ok := unit.ParseDate(string(q.GivenOn)); ok {
		v.Given = d.Time().Format("2 Jan 2006")
	}
	for _, code := range unit.Answers {
		v.Answer = append(v.Answer, site.Named{Code: code, Name: wording.Choice(unit.ScopeJob, "answer", code)})
	}
	if q.Answer != "" {
		v.Said = wording.Choice(unit.ScopeJob, "answer", q.Answer)
	}
	return v
}

// NameList is parts by their names, and what is done with them.
type NameList struct {
	What  string
	Names []string
}
