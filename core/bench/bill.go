package bench

import (
	"fmt"
	"math"

	"corvek/core/decide"
	"corvek/core/partner"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// BillLine is one line of what goes on the invoice.
type BillLine struct {
	Kind  string // one of the Bill constants
	What  string
	Count float64 // pieces or hours
	Each  float64 // money
	Known bool    // its price is
	From  string  // whence its price
}

// The kinds of line.
const (
	BillParts   = "parts"
	BillHours   = "hours"
	BillOutside = "outside"
	BillTests   = "tests"
)

// Sum is what the line comes to, to the cent.
func (l BillLine) Sum() float64 { return cents(l.Count * l.Each) }

func cents(v float64) float64 { return math.Round(v*100) / 100 }

// Bill is what was done on all units of a job, as far as it costs.
type Bill struct {
	Lines   []BillLine
	Missing []string // what is not entered, so that the sum is the least
	Agreed  float64  // what the customer agreed to, with HasAgreed
	// HasAgreed is false where he was given no sum.
	HasAgreed bool
}

// Sum is what all lines come to.
func (b *Bill) Sum() (sum float64) {
	for _, l := range b.Lines {
		sum += l.Sum()
	}
	return cents(sum)
}

// Over is by how much it comes to more than was agreed.
func (b *Bill) Over() float64 { return cents(b.Sum() - b.Agreed) }

// Prices are what the shop's own lists say.
type Prices struct {
	Lot func(lot string) (float64, bool) // of a piece of a lot of the stock
	// Partners have what outside work costs where nobody entered a price.
	Partners partner.Partners
	Test     quantity.Quantity // of a unit on the stand, zero where it is in the hours
}

// work is what outside work costs, and whose price that is.
func (p Prices) work(name string) (each float64, from string, known bool) {
	by := p.Partners.Does(name)
	if by == nil {
		return 0, "", false
	}
	each, known = by.Price.Known()
	return each, "price list, " + by.Name, known
}

// tested adds the tests that units were proved by, where they have a price of their own.
func (b *Bill) tested(st *State, name string, price quantity.Quantity) {
	each, known := price.Known()
	if !known || st.Counts() == nil {
		return
	}
	b.Lines = append(b.Lines, BillLine{BillTests, name + "Test on the stand", 1, each, true, "price list"})
}

// BillOf gathers what was put in, worked and sent out on the units of a job: what was done, not what was offered.
func BillOf(states []*State, prices Prices) *Bill {
	j := states[0].Job
	b := &Bill{}
	kit, hasKit := j.PartsCost.Known()
	if hasKit && kit > 0 {
		b.Lines = append(b.Lines, BillLine{BillParts, "Kit of soft parts", 1, kit, true, "as entered for the offer"})
	}
	for _, st := range states {
		if !st.Unit.Owes("build") && len(st.Unit.Kit) == 0 {
			continue
		}
		name := ""
		if len(states) > 1 {
			name = st.Unit.Name + ": "
		}
		for _, p := range st.Parts {
			b.fitted(st, p, name, hasKit, prices)
			b.sent(p, name, prices)
		}
		b.tested(st, name, prices.Test)
	}
	if v, known := j.OutsideCost.Known(); known && v > 0 {
		b.Lines = append(b.Lines, BillLine{BillOutside, "Other outside work", 1, v, true, "as entered for the offer"})
	}
	b.hours(j)
	b.Agreed, b.HasAgreed = j.Quote.Agreed.Known()
	return b
}

// fitted adds the new pieces that stand at a part's place.
func (b *Bill) fitted(st *State, p *Part, name string, hasKit bool, prices Prices) {
	if p.Place == nil || p.Filled == 0 {
		return
	}
	l := BillLine{Kind: BillParts, What: name + p.Name, Count: float64(p.Filled)}
	if l.Each, l.Known = p.Price.Known(); l.Known {
		l.From = "price of the part"
	}
	for _, k := range st.Unit.Kit {
		if k.Part == p.Code && k.Lot != "" && !l.Known {
			if l.Each, l.Known = prices.Lot(k.Lot); l.Known {
				l.From = "price in the stock"
			}
		}
	}
	switch {
	case l.Known:
		b.Lines = append(b.Lines, l)
	case hasKit && p.Def.Renew: // it comes with the kit
	default:
		b.Lines, b.Missing = append(b.Lines, l), append(b.Missing, "price of "+l.What)
	}
}

// sent adds the ways of rework of a part that went out.
func (b *Bill) sent(p *Part, name string, prices Prices) {
	for _, w := range p.Going() {
		if w.Days == 0 {
			continue // done here, in the hours
		}
		l := BillLine{Kind: BillOutside, What: name + p.Name + ", " + w.Name, Count: 1}
		l.From = "price of the work"
		if l.Each, l.Known = w.Row.Price.Known(); !l.Known {
			l.Each, l.From, l.Known = prices.work(w.Route.Name)
		}
		if !l.Known {
			b.Missing = append(b.Missing, "price of "+l.What)
		}
		b.Lines = append(b.Lines, l)
	}
}

// hours adds what was worked, which is not what was reckoned with.
func (b *Bill) hours(j *unit.Job) {
	l := BillLine{Kind: BillHours, What: "Hours at the bench and the stand", From: "rate of the offer"}
	worked, said := j.WorkedHours.Known()
	l.Each, l.Known = j.LabourRate.Known()
	l.Count = worked / 3600
	if !said {
		missing := "hours worked"
		if reckoned, known := j.LabourHours.Known(); known {
			missing = fmt.Sprintf("hours worked (the offer reckoned with %.3g h)", reckoned/3600)
		}
		b.Missing = append(b.Missing, missing)
		return
	}
	if !l.Known {
		b.Missing = append(b.Missing, "rate of an hour")
	}
	b.Lines = append(b.Lines, l)
}

// AgreedTo is the sum of the offer that an answer takes, as it stands; ok is false where there is none.
func AgreedTo(states []*State, answer string) (sum float64, ok bool) {
	offers := OffersOf(states)
	x := offers.Taken(answer)
	if x == nil || !x.Known || x.Way == decide.OfferNew {
		return 0, false
	}
	return cents(x.Cost), true
}
