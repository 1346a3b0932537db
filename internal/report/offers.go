package report

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/economics"
	"corvek/core/quantity"
)

// Offered is one of the three offers.
type Offered struct {
	Code, Name       string
	Cost             string // "" while it is not known
	AtLeast          bool   // parts are not priced yet
	Against          string // a new one's worth
	Pays             bool   // the figures speak for it
	Advised          string // why it is advised against, "" where it is not
	Rows             []OfferRow
	Renewed          []string
	Reworked         []string
	Risks            []string
	Steps            []string
	Taken            bool // by the customer
	BreakEven, Total string
}

// OfferRow is one figure of an offer.
type OfferRow struct{ Name, Value, Note string }

// money writes a sum in whatever the shop counts in.
func money(v float64) string { return plain(v, 4) }

// OfferedOf lays an offer out; taken is the customer's answer.
func OfferedOf(x *bench.Offer, taken string) Offered {
	v := Offered{Code: string(x.Way), Name: offerNames[x.Way], Risks: x.Risks, Taken: taken == string(x.Way),
		Renewed: decide.Names(x.Renewed), Reworked: decide.Names(x.Reworked)}
	if x.Known {
		v.Cost = money(x.Cost)
	}
	v.AtLeast = v.Cost != "" && len(x.Unpriced) > 0
	if x.Way != decide.OfferNew {
		v.works(x)
	} else if x.Known {
		v.Rows = append(v.Rows, OfferRow{"Days until it is here", days(x.Days), ""})
	}
	if x.HasTotal {
		v.Rows = append(v.Rows, OfferRow{"With the days it stands", money(x.Total), ""})
	}
	v.Rows = append(v.Rows, lifeRow(x))
	v.Advised = x.Against()
	if x.HasRatio {
		v.Against = fmt.Sprintf("%.0f %% of a new one's worth", 100*x.Ratio)
		v.Pays = x.Advice == economics.Rebuild && !v.AtLeast
		if v.AtLeast {
			v.Against = "at least " + v.Against
		}
		v.BreakEven = money(x.BreakEven)
	}
	if x.Output != nil {
		v.Steps = x.Output.Steps
		for _, w := range x.Output.Warnings {
			v.Risks = append(v.Risks, w.Text)
		}
	}
	v.Risks = once(v.Risks)
	return v
}

// once leaves out what several units of a job say alike.
func once(list []string) (out []string) {
	for _, text := range list {
		if !slices.Contains(out, text) {
			out = append(out, text)
		}
	}
	return out
}

// offerNames are the offers as the page and the paper call them.
var offerNames = map[decide.WayOut]string{decide.OfferRebuild: "Rebuild", decide.OfferOverhaul: "Full overhaul",
	decide.OfferNew: "New unit"}

// works are the figures of an offer that is work on this unit.
func (v *Offered) works(x *bench.Offer) {
	parts := OfferRow{Name: "New parts", Value: fmt.Sprint(len(x.Renewed))}
	if len(x.Unpriced) > 0 {
		parts.Note = "without a price: " + few(x.Unpriced)
	}
	v.Rows = append(v.Rows, parts)
	if len(x.Reworked) > 0 {
		v.Rows = append(v.Rows, OfferRow{"Reworked", fmt.Sprint(len(x.Reworked)), ""})
	}
	v.Rows = append(v.Rows, OfferRow{"Money for parts", entered(x.Said.Parts, money(x.Parts)), ""},
		OfferRow{"Hours at the bench", entered(x.Said.Hours, fmt.Sprintf("%.3g h", x.Hours)), ""})
	if x.Outside > 0 {
		v.Rows = append(v.Rows, OfferRow{"Outside work", money(x.Outside), ""})
	}
	v.Rows = append(v.Rows, OfferRow{"Days until it is back", entered(x.Said.Days, days(x.Days)), ""})
}

// entered is a figure, where what it rests on was entered.
func entered(is bool, figure string) string {
	if !is {
		return "not entered"
	}
	return figure
}

// lifeRow is how long the unit lasts then, and what says so.
func lifeRow(x *bench.Offer) OfferRow {
	r := OfferRow{
		Name:  "Expected life",
		Value: "not known",
		Note:  "nothing that is kept was measured against a limit",
	}
	switch {
	case x.Way == decide.OfferNew:
		r.Value, r.Note = "a new one's", ""
	case x.LifeSaid:
		r.Value, r.Note = fmt.Sprintf("%.0f %%", 100*x.Life), "of a new one's, as the shop says"
	case x.Limits != "":
		r.Value, r.Note = fmt.Sprintf("%.0f %%", 100*x.Life), "of a new one's, by "+x.Limits+", which is kept"
	}
	if x.HoursLeft > 0 {
		r.Note += fmt.Sprintf("; about %s h to its limit", quantity.Round(x.HoursLeft, 2))
	}
	return r
}

// days writes a number of days, which no unit has to be written beside.
func days(d float64) string { return plain(d, 3) }

// plain writes a number without noughts that say nothing.
func plain(v float64, figures int) string {
	text := quantity.Figures(v, figures)
	if strings.Contains(text, ".") {
		text = strings.TrimRight(strings.TrimRight(text, "0"), ".")
	}
	return text
}

// few names the first of a list and counts the rest.
func few(of []string) string {
	const most = 3
	words := strings.Join(of[:min(most, len(of))], ", ")
	if len(of) > most {
		words += fmt.Sprintf(" and %d more", len(of)-most)
	}
	return words
}
