package jobpages

import (
	"strings"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/unit"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// DecidePage is what is kept, reworked or renewed, and what the customer is offered.
type DecidePage struct {
	JobPage
	Tabs                        Tabs
	Found                       []bench.Named // causes, with who does what
	Spare                       string        // what it is asked, where that is far less than its rating
	Policy                      Choice
	Keep, Rework, Replace, Open int
	Unseen                      *UnseenView
	Besides                     []BesideView // old parts beside new ones
	Parts                       []DecideRow
	Part                        *PartDecision // the chosen one
	Shim                        *ShimView
	ShimFields                  []Entry
	Offers                      *OffersFace // nil while the parts are shown
	Cautions                    Cautions
	Stops                       []StopRow
}

// DecideRow is a part with what is proposed and what is chosen.
type DecideRow struct {
	No               int
	Code, Name, Link string
	Selected         bool
	Reason           string
	Choice           Choice
	Why              *Entry // of a choice made by hand
}

// BesideView is what goes back as it is beside something new.
type BesideView struct{ New, Old string }

func (l *look) besides() (out []BesideView) {
	for _, b := range l.st.Besides() {
		out = append(out, BesideView{New: strings.Join(b.New, ", "), Old: strings.Join(b.Old, ", ")})
	}
	return out
}

// faceOffers is the face of Decide with the offers to the customer.
const faceOffers = "offers"

func decidePage(l *look, states []*bench.State) DecidePage {
	p := DecidePage{JobPage: l.page(), Found: l.st.Causes(), Policy: l.choose(unit.JobRef("policy")),
		Cautions: l.cautions(), Stops: l.stops(), Unseen: l.unseen(), Besides: l.besides()}
	if r, told := l.st.Rating(); told && r.Spare {
		p.Spare = r.Words
	}
	for i, x := range l.st.Parts {
		p.count(x.Choice())
		p.Parts = append(p.Parts, l.decideRow(i+1, x))
	}
	parts, offers := l.tab("", "Parts"), l.tab(faceOffers, "Offer to the customer")
	if p.Open > 0 {
		parts.Tone = "none"
	}
	if l.job.Quote.Open() {
		offers.Tone = "ochre"
	}
	p.Tabs = Tabs{parts, offers}
	if l.face == faceOffers {
		p.Offers = l.offers(bench.OffersOf(states))
		return p
	}
	p.Part = l.partDecision()
	if sh := l.st.Shims; sh != nil && (sh.Feature.Part == l.part.AsFound || l.part.Def.Kind == "shims") {
		p.Shim, p.ShimFields = l.shim(), l.ofUnit("shims_fitted", "shims_available", "off_body", "off_gears")
	}
	return p
}

func (p *DecidePage) count(c decide.Choice) {
	switch c {
	case decide.Keep:
		p.Keep++
	case decide.Rework:
		p.Rework++
	case decide.Replace:
		p.Replace++
	default:
		p.Open++
	}
}

func (l *look) decideRow(no int, x *bench.Part) DecideRow {
	r := DecideRow{No: no, Code: x.Code, Name: x.Name, Link: l.link("decide", x.Code, ""), Selected: x == l.part,
		Choice: l.decideChoice(x)}
	r.Reason, _, _ = strings.Cut(x.Proposal.Reason, "; ")
	if x.Decision.Choice != "" {
		why := l.field(l.unit.DecisionRef(x.Code, "reason"))
		r.Why = &why
	}
	return r
}

// decideChoice is what is done with a part, the proposal marked. Taking the
// proposal is no choice of one's own.
func (l *look) decideChoice(x *bench.Part) Choice {
	c := l.choose(l.unit.DecisionRef(x.Code, "choice")).Named(x.Name + ": keep, rework or new")
	for i := range c.Options {
		o, code := &c.Options[i], []decide.Choice{decide.Keep, decide.Rework, decide.Replace}[i]
		o.On, o.Proposed, o.Value = x.Choice() == code, x.Proposal.Choice == code, string(code)
		if o.Proposed {
			o.Value = ""
		}
	}
	return c
}

func (s *Pages) giveOffer(c *echo.Context) error {
	return site.Done(c, s.Jobs.Offered(c.Request().Context(), site.Who(c), c.Param("tag")))
}

func (s *Pages) takeAnswer(c *echo.Context) error {
	return site.Done(c, s.Jobs.Answered(c.Request().Context(), site.Who(c), c.Param("tag"), c.FormValue("answer"),
		strings.TrimSpace(c.FormValue("answer_by")), c.FormValue("answer_note")))
}
