package bench

import (
	"fmt"
	"strings"

	"corvek/core/calc"
	"corvek/core/decide"
	"corvek/core/economics"
	"corvek/core/entry"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Offers are the ways out of a failure that a customer is offered for all units of a job.
type Offers struct {
	Rebuild, Overhaul, New Offer
	Needs                  []string // what must be entered before the sums say anything
}

// Offer is one way out with what it costs, where enough is known.
type Offer struct {
	decide.Offer
	Known     bool // a sum can be given
	Cost      float64
	Total     float64 // with the days it stands
	HasTotal  bool
	Ratio     float64 // of a new one's price for the same life
	HasRatio  bool
	BreakEven float64
	Advice    economics.Advice
	Output    *calc.Output // with the working; nil of a new unit

	newPrice float64 // of another unit, 0 where it is not known
}

// All are the offers in the order in which they are shown.
func (o *Offers) All() []*Offer { return []*Offer{&o.Rebuild, &o.Overhaul, &o.New} }

// Against says by which sum an offer is advised against, "" where it is not: it takes more of a new one's price than
// the life it gives is worth.
func (x *Offer) Against() string {
	least := ""
	if len(x.Unpriced) > 0 {
		least = "at least "
	}
	switch sum := least + quantity.Round(x.Cost, 4); {
	case x.HasRatio && x.Advice == economics.Replace:
		return fmt.Sprintf(
			"it comes to %s, %.0f %% of a new one's worth, and does not pay where a new one is less than %s",
			sum,
			100*x.Ratio,
			quantity.Round(x.BreakEven, 4),
		)
	case !x.HasRatio && x.Known && x.newPrice > 0 && x.Cost > economics.UsualThreshold*x.newPrice:
		return fmt.Sprintf("it comes to %s against %s for a new one, and would not pay though it lasted as long", sum,
			quantity.Round(x.newPrice, 4))
	}
	return ""
}

// Taken is the offer of the customer's answer, nil where it is none of them.
func (o *Offers) Taken(answer string) *Offer {
	for _, x := range o.All() {
		if string(x.Way) == answer {
			return x
		}
	}
	return nil
}

// OffersOf works the offers out from the decisions on all units of a job.
func OffersOf(states []*State) Offers {
	j := states[0].Job
	var asIs, whole []decide.Billed
	bench := decide.Costs{}
	for _, st := range states {
		if !st.Unit.Owes("decide") {
			continue
		}
		for i, p := range st.Parts {
			asIs = append(asIs, st.billed(p, p.Choice(), len(states) > 1))
			whole = append(whole, st.billed(p, st.overhaul[i], len(states) > 1))
		}
	}
	bench.Kit, bench.HasKit = j.PartsCost.Known()
	hours, said := j.LabourHours.Known()
	bench.Hours, bench.HasHours = hours/3600, said
	bench.Outside, _ = j.OutsideCost.Known()
	bench.Days, bench.HasDays = j.RebuildDays.Known()
	bench.PartsDays = partsDays(states)
	bench.Life, _ = j.LifeRebuild.Known()
	o := Offers{Rebuild: Offer{Offer: decide.OfferOf(decide.OfferRebuild, asIs, bench)}}
	bench.Life, _ = j.LifeOverhaul.Known()
	o.Overhaul = Offer{Offer: decide.OfferOf(decide.OfferOverhaul, whole, bench)}
	o.New.Way = decide.OfferNew
	for _, n := range []struct {
		what string
		of   quantity.Quantity
	}{{"parts", j.PartsCost}, {"hours", j.LabourHours}, {"rate", j.LabourRate}, {"days at the bench", j.RebuildDays}} {
		if n.of.IsZero() {
			o.Needs = append(o.Needs, n.what)
		}
	}
	rate, _ := j.LabourRate.Known()
	o.Rebuild.cost(j, rate)
	o.Overhaul.cost(j, rate)
	o.New.new(j)
	for _, x := range o.All() {
		x.Risks = append(x.Risks, outside(states, x.Way)...)
	}
	return o
}

// partsDays is how long the parts take: as it was said of all of them, else the longest lead time of one that is
// renewed.
func partsDays(states []*State) float64 {
	if said, ok := states[0].Job.PartsDays.Known(); ok {
		return said
	}
	longest := 0
	for _, st := range states {
		for _, p := range st.Parts {
			if p.Choice() == decide.Replace {
				longest = max(longest, p.Order.Days)
			}
		}
	}
	return float64(longest)
}

// billed is a part of the unit as an offer with this choice has it.
func (st *Decided) billed(p *Part, choice decide.Choice, several bool) decide.Billed {
	b := decide.Billed{Name: p.Name, Count: p.Expected, Choice: choice, Soft: p.Def.Renew, Looked: p.Proposal.Looked}
	if several {
		b.Name = st.Unit.Name + ": " + p.Name
	}
	b.Price, b.Priced = p.Price.Known()
	b.Used, b.HasUsed = p.Worn()
	b.Hours, b.HasHours = st.HoursLeft(p.AsFound)
	if choice == decide.Rework {
		for _, w := range p.waysFor() {
			b.Ways = append(b.Ways, w.Route)
			b.Outside += w.Price
		}
	}
	return b
}

// cost works an offer's sum out.
func (x *Offer) cost(j *unit.Job, rate float64) {
	if j.LabourHours.IsZero() || j.LabourRate.IsZero() {
		return
	}
	const day = 86400
	given := calc.NewGiven().SI("parts", x.Parts, quantity.Number).
		SI("labour_hours", x.Hours*3600, quantity.Time).SI("rate", rate, quantity.Number).
		SI("outside_work", x.Outside, quantity.Number).SI("rebuild_days", x.Days*day, quantity.Time).
		Size("new_price", j.NewPrice).Size("new_days", days(j.NewDays)).Size("downtime_cost_per_day", j.DowntimeCost)
	if x.Life > 0 {
		given.SI("life_fraction", x.Life, quantity.Number)
	}
	out, err := calc.Ask("rebuild_or_replace", given)
	if err != nil {
		return // the field that is wrong says so itself
	}
	x.Known, x.Output = true, out
	x.newPrice, _ = j.NewPrice.Known()
	x.Cost, _ = out.Value("rebuild_cost")
	if x.Said.Days { // days that nobody entered make no total
		x.Total, x.HasTotal = out.Value("rebuild_total")
	}
	x.Ratio, x.HasRatio = out.Value("ratio")
	x.BreakEven, _ = out.Value("break_even_new_price")
	advice, _ := out.Get("advice").(string)
	x.Advice = economics.Advice(advice)
}

// new is the offer of another unit.
func (x *Offer) new(j *unit.Job) {
	price, ok := j.NewPrice.Known()
	if !ok {
		x.Risks = append(x.Risks, "no price: not to be had, or not asked yet")
		return
	}
	x.Known, x.Cost, x.Life = true, price, economics.NewLife
	x.Days, _ = j.NewDays.Known()
	if down, ok := j.DowntimeCost.Known(); ok && !j.NewDays.IsZero() {
		x.Total, x.HasTotal = price+x.Days*down, true
	}
}

// outside is what threatens an offer from beyond the unit: a cause that nobody acts
// against meets a new unit as it met the old one.
func outside(states []*State, way decide.WayOut) (out []string) {
	for _, st := range states {
		u := st.Unit
		causes := st.Causes()
		for _, n := range causes {
			if n.Outside && (strings.TrimSpace(n.Action) == "" || strings.TrimSpace(n.Owner) == "") {
				out = append(out, strings.ToLower(n.Name)+" lies outside and nobody acts against it yet")
			}
		}
		if len(causes) == 0 && u.Conclusion().Cause != unit.CauseNotFound &&
			u.Conclusion().Cause != unit.CauseNone {
			out = append(out, "the cause is not found yet: it may meet this one too")
		}
		if way != decide.OfferNew {
			continue
		}
		if u.Modification != "" {
			out = append(out, "modified in the field: to be carried over to the new one")
		}
		if u.Rotation != "" || u.Variant != "" {
			out = append(out, fmt.Sprintf("must be the same variant%s",
				strings.TrimRight(": "+strings.Join(nonEmpty(u.Variant, turns[u.Rotation]), ", "), ": ")))
		}
	}
	return out
}

// turns are the rotations as seen on the shaft end.
var turns = map[string]string{entry.RotationRight: "turning clockwise", entry.RotationLeft: "turning anticlockwise",
	entry.RotationBoth: "turning both ways"}

func nonEmpty(words ...string) (out []string) {
	for _, w := range words {
		if w != "" {
			out = append(out, w)
		}
	}
	return out
}

// days gives a bare number of days as the time it is.
func days(q quantity.Quantity) quantity.Quantity {
	if q.IsZero() {
		return q
	}
	return quantity.Quantity{SI: q.SI * 86400, Dim: quantity.Time, Typed: q.Typed}
}
