package decide

import (
	"fmt"
	"slices"
	"strings"
)

// WayOut is a way out of a failure that is offered to the customer.
type WayOut string

// The three offers.
const (
	OfferRebuild  WayOut = "rebuild"  // what is condemned is renewed
	OfferOverhaul WayOut = "overhaul" // every wearing part is renewed
	OfferNew      WayOut = "replace"  // another unit
)

// Billed is a part as one of the offers has it.
type Billed struct {
	Name     string
	Count    int
	Choice   Choice // under this offer
	Soft     bool   // comes with the kit of soft parts
	Looked   bool   // somebody measured it or said what is on it
	Price    float64
	Priced   bool
	Ways     []Route // that are gone, where it is reworked
	Outside  float64 // money for those
	Used     float64 // share of its allowance that has worn, with HasUsed
	HasUsed  bool
	Hours    float64 // it still has, with HasHours
	HasHours bool
}

// Costs is what does not hang on single parts.
type Costs struct {
	Kit               float64 // of the soft parts
	HasKit            bool
	HasHours, HasDays bool
	Hours             float64 // strip, build and test
	Outside           float64
	Days              float64 // at the bench
	PartsDays         float64 // until the parts are here
	Life              float64 // share of a new one's, where somebody said so; else 0
}

// Offer is one way out with what it takes.
type Offer struct {
	Way       WayOut
	Renewed   []Billed
	Reworked  []Billed
	Parts     float64  // money
	Unpriced  []string // parts without a price, so that the sum is the least
	Hours     float64
	Outside   float64
	Days      float64
	Life      float64                           // share of a new one's; 0 where nothing says it
	LifeSaid  bool                              // by a person
	Limits    string                            // the part that limits it
	HoursLeft float64                           // until that part is at its limit, 0 where the hours are not known
	Said      struct{ Parts, Hours, Days bool } // what was entered, so that the figure is one
	Risks     []string
}

// OfferOf adds up what the decisions come to. Soft parts come with the kit; every other new
// part has a price of its own (0 where it is in the kit too), or is named as without one.
func OfferOf(way WayOut, parts []Billed, bench Costs) Offer {
	o := Offer{Way: way, Parts: bench.Kit, Hours: bench.Hours, Outside: bench.Outside, Life: bench.Life,
		LifeSaid: bench.Life > 0}
	o.Said.Parts, o.Said.Hours, o.Said.Days = bench.HasKit, bench.HasHours, bench.HasDays
	var work Work
	for _, p := range parts {
		switch p.Choice {
		case Replace:
			o.Renewed = append(o.Renewed, p)
			switch {
			case p.Priced:
				o.Parts += p.Price * float64(p.Count)
				o.Said.Parts = true
			case !bench.HasKit || !p.Soft:
				o.Unpriced = append(o.Unpriced, strings.ToLower(p.Name))
			}
		case Rework:
			o.Reworked = append(o.Reworked, p)
			o.Outside += p.Outside
			w := WorkOf(p.Ways)
			work.Hours, work.Days = work.Hours+w.Hours, max(work.Days, w.Days)
		}
	}
	o.Hours += work.Hours
	o.Days = bench.Days + max(bench.PartsDays, work.Days)
	o.lasts(parts)
	o.risks(parts)
	return o
}

// lasts finds the kept part that ends the offer's life first.
func (o *Offer) lasts(parts []Billed) {
	for _, p := range parts {
		if p.Choice != Keep || !p.HasUsed {
			continue
		}
		if left := max(0, 1-p.Used); !o.LifeSaid && (o.Limits == "" || left < o.Life) {
			o.Life, o.Limits = left, strings.ToLower(p.Name)
		}
		if p.HasHours && (o.HoursLeft == 0 || p.Hours < o.HoursLeft) {
			o.HoursLeft = p.Hours
		}
	}
}

// nearLimit is the share of its allowance from which a kept part is called a risk.
const nearLimit = 0.7

// risks names what speaks against the offer, from the parts that it keeps.
func (o *Offer) risks(parts []Billed) {
	var blind, near, open []string
	for _, p := range parts {
		name := strings.ToLower(p.Name)
		switch {
		case p.Choice == Open:
			open = append(open, name)
		case p.Choice != Keep:
		case p.HasUsed && p.Used >= nearLimit:
			near = append(near, fmt.Sprintf("%s (%.0f %%)", name, 100*p.Used))
		case !p.Looked:
			blind = append(blind, name)
		}
	}
	o.risk("still open", open)
	o.risk("kept near the limit", near)
	o.risk("kept and looked at by nobody", blind)
}

// mostNamed is how many parts a risk names before it counts the rest.
const mostNamed = 3

func (o *Offer) risk(what string, of []string) {
	if len(of) == 0 {
		return
	}
	words := strings.Join(of[:min(mostNamed, len(of))], ", ")
	if more := len(of) - mostNamed; more > 0 {
		words += fmt.Sprintf(" and %d more", more)
	}
	o.Risks = append(o.Risks, what+": "+words)
}

// Names are the names of parts, for those that an offer renews.
func Names(parts []Billed) []string {
	out := make([]string, 0, len(parts))
	for _, p := range parts {
		if !slices.Contains(out, p.Name) {
			out = append(out, p.Name)
		}
	}
	return out
}
