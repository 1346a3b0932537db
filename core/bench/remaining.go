package bench

import (
	"time"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/partner"
	"corvek/core/remaining"
)

// ShopKnows is what the shop knows beside the unit's own record, as far as work follows from it.
type ShopKnows struct {
	// Signed tells whether a lead's sign-off holds; it is asked only where nothing else is left to do, for anything
	// else would undo it.
	Signed func() bool
	// Booked is how many pieces of the shop's own stock are promised to a part's place; nil for none anywhere.
	Booked func(part string) int
	// Partners are whom the shop waits for, with the days that they take.
	Partners partner.Partners
}

// Remaining is what the unit still needs before it goes out, by what is on record.
func (st *State) Remaining(g *remaining.Guidance, known ShopKnows) []remaining.Task {
	u := st.record(known.Booked)
	u.SignedOff = known.Signed
	st.ask(u, known.Partners)
	return remaining.Of(u, g)
}

// ask takes the days of those who supply or work for the shop where nobody named others.
func (st *State) ask(u *remaining.Unit, all partner.Partners) {
	for i := range u.New {
		n := &u.New[i]
		from := all.Supplier(st.ByCode[n.Part].Order.Supplier)
		if from == nil {
			continue
		}
		n.By = from.Name
		if n.Due == "" && n.Days == 0 {
			n.Days, n.Sigma, n.From = from.Days, from.Sigma(), from.Name
		}
	}
	for i := range u.Ways {
		w := &u.Ways[i]
		if w.Days == 0 {
			continue
		}
		if by := all.Does(w.Work); by != nil {
			w.Days, w.Sigma, w.By = by.Days, by.Sigma(), by.Name
		}
	}
}

// Reckoned is how many hours of hands guidance gives the unit as it came in: all parts on, nothing measured, and
// what was decided still to be done. It is what hours that were worked are held against.
func (st *State) Reckoned(g *remaining.Guidance) (sum time.Duration) {
	u := &remaining.Unit{Owes: st.Unit.Owes, Receive: 1, Fill: len(st.Filling()) > 0, LeadSigns: st.Shop.LeadSigns}
	for _, p := range st.Parts {
		if p.Alone {
			continue
		}
		u.On++
		u.Unread += len(p.Features)
		u.Unbuilt++
		if _, bolted := build.JointOf(p.Def, p.Part.Joint); bolted {
			u.Tight++
		}
		for _, w := range p.Going() {
			u.Ways = append(
				u.Ways,
				remaining.Way{Part: p.Code, Route: w.Route.Code, Name: p.Name, Hours: w.Route.Hours,
					Days: w.Route.Days},
			)
		}
	}
	plan := st.Plan()
	for i := range plan {
		if s := st.Shown[plan[i].Code]; s != nil && s.NotPossible == "" {
			u.Steps = append(u.Steps, remaining.Step{Code: plan[i].Code, Name: plan[i].Name, Hold: s.Hold})
		}
	}
	for _, t := range remaining.Of(u, g) {
		if !t.Waits() && !t.Alone() {
			sum += t.Time
		}
	}
	return sum
}

// StandNeed is what a stand must reach for the steps of the test that are not shown yet.
func (st *State) StandNeed() (n remaining.Need) {
	for _, s := range st.toShow() {
		level, _ := st.Level(s.At)
		n.Pressure = max(n.Pressure, s.Pressure*level)
		if st.Duty.Theory() {
			n.Flow = st.Found.Theoretical()
		}
		if torque, known := st.Unit.Need.Torque.Known(); known {
			n.Torque = torque // what a motor must give is held by the stand's brake
		}
	}
	return n
}

// toShow are the steps of the test that can be run here and are not shown.
func (st *State) toShow() (out []*family.Test) {
	plan := st.Plan()
	for i := range plan {
		s := st.Shown[plan[i].Code]
		if s != nil && s.NotPossible == "" && len(s.Why()) > 0 {
			out = append(out, &plan[i].Test)
		}
	}
	return out
}

// record is what is on record of the unit, as far as work follows from it.
func (st *State) record(booked func(string) int) *remaining.Unit {
	if booked == nil {
		booked = func(string) int { return 0 }
	}
	q := st.Job.Quote
	begun := len(st.Unit.Kit) > 0 || st.begun("build")
	u := &remaining.Unit{
		Owes: st.Unit.Owes, Gone: st.Job.HandedOver(), Receive: st.Open("receive"),
		Concluded: st.Conclude.Cause != "", LeadSigns: st.Shop.LeadSigns,
		Quote: remaining.Quote{Wanted: q.GivenOn != "" || !begun, Given: q.GivenOn, Answered: q.Answer != ""},
	}
	measured := st.worked("measure", map[string]bool{"strip": true})
	for _, p := range st.Parts {
		if !p.Alone {
			st.recordPart(u, p, measured, booked)
		}
	}
	for _, f := range st.Filling() {
		u.Fill = u.Fill || st.Unit.Filled[f.Code] == ""
	}
	for _, s := range st.toShow() {
		u.Steps = append(u.Steps, remaining.Step{Code: s.Code, Name: s.Name, Hold: st.Shown[s.Code].Hold})
	}
	return u
}

// recordPart is what one part still needs. What was measured before the work of measuring was over is not asked for
// again; once it is, nothing is.
func (st *State) recordPart(u *remaining.Unit, p *Part, measured bool, booked func(string) int) {
	looked := p.Decision.Choice != "" || len(p.Seen) > 0
	for _, f := range p.Features {
		looked = looked || f.Found.Any
	}
	for _, f := range p.Features {
		if !f.Found.Any && !measured && p.Decision.Choice == "" {
			u.Unread++
		}
	}
	switch {
	case !p.Off:
		u.On++
	case !looked && p.Step.Round == 0:
		u.Off++
	}
	if p.Choice() == decide.Open {
		u.Undecided++
	}
	if p.Place != nil && p.Filled+booked(p.Code) < p.Place.Need {
		u.New = append(
			u.New,
			remaining.Piece{Part: p.Code, Name: p.Name, Ordered: p.Order.Awaited(), Due: p.Order.Due,
				Days: float64(p.Order.Days), Placed: p.Order.Placed},
		)
	}
	for _, w := range p.Going() {
		if w.Row.Back == "" && w.Row.FlatHow == "" && w.Row.Taken.IsZero() {
			u.Ways = append(
				u.Ways,
				remaining.Way{Part: p.Code, Route: w.Route.Code, Name: p.Name + ": " + w.Route.Name, Work: w.Route.Name,
					Hours: w.Route.Hours, Days: w.Route.Days, Sent: w.Row.Sent},
			)
		}
	}
	if built := p.Built(st.Round); built == nil || !built.Done {
		u.Unbuilt++
		if _, bolted := build.JointOf(p.Def, p.Part.Joint); bolted {
			u.Tight++
		}
	}
}
