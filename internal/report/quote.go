package report

import (
	"io"
	"time"

	"corvek/core/quantity"
	"corvek/internal/job"
)

// Quote is the offer to the customer on paper: what was found on each unit, and the ways
// out with what each takes.
type Quote struct {
	Data          // of the first unit, for what stands once
	Units  []Data // with what was found on each
	Offers []Offered
	Needs  []string // what is not entered yet, so that there is no sum
}

// NewQuote works the offer out from all units of a job.
func NewQuote(states []*job.State, units quantity.System, now time.Time) Quote {
	offers := job.OffersOf(states)
	q := Quote{Needs: offers.Needs}
	for _, st := range states {
		q.Units = append(q.Units, New(st, "", units, now))
	}
	q.Data = q.Units[0]
	for _, x := range offers.All() {
		q.Offers = append(q.Offers, OfferedOf(x, states[0].Job.Quote.Answer))
	}
	return q
}

// Paper writes the offer.
func (q Quote) Paper(w io.Writer) error { return templates.ExecuteTemplate(w, "quote.html", q) }
