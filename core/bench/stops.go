package bench

import (
	"strconv"
	"strings"

	"corvek/core/build"
	"corvek/core/quantity"
	"corvek/core/stops"
	"corvek/core/strip"
	"corvek/core/unit"
)

// Stop is something that must be settled before the next station is honest, with how a
// lead waived it.
type Stop struct {
	stops.Stop
	Waived *unit.Waiver
}

// State is one unit of a job with everything that is worked out from it.
type State struct {
	*Inferred
	Stops map[string][]Stop // what must be settled, by station
}

func stopped(i *Inferred) *State {
	st := &State{Inferred: i, Stops: map[string][]Stop{}}
	for station, list := range stops.All(st.facts()) {
		for _, s := range list {
			st.Stops[station] = append(st.Stops[station], Stop{s, st.Job.Waiver(s.StopCode.String())})
		}
	}
	return st
}

// facts is the unit as it really is with what was worked out of it, as the stops read it.
func (st *State) facts() *stops.Unit {
	u := &stops.Unit{Unit: st.Unit, Job: st.Job, Family: st.Family, Gauge: st.Gauge, Conclusion: st.Conclude,
		Cause: st.Cause, BrokenUp: st.BrokenUp(), Kit: st.KitIssues, Unsettled: st.Unsettled(),
		Known: stops.Known{Displacement: st.Duty.HasDisplacement, Speed: st.Duty.HasSpeed,
			Pressure: st.Duty.HasPressure}}
	if r, told := st.Rating(); told && r.Over {
		u.Asked = r.Words
	}
	if counts := st.Counts(); counts != nil {
		u.Exercise = counts.Source == unit.SourceSimulated
	}
	if st.Received != nil {
		for _, p := range st.Received.Points {
			u.Baseline = u.Baseline || !p.Row.Empty()
		}
	}
	st.factsOfCause(u)
	for _, f := range st.Filling() {
		if st.Unit.Filled[f.Code] == "" {
			u.Unfilled = append(u.Unfilled, f.Words)
		}
	}
	for _, p := range st.Parts {
		u.Parts = append(u.Parts, st.factsOf(p))
	}
	return u
}

// factsOfCause are what speaks against the concluded cause, and who acts against it and
// the others.
func (st *State) factsOfCause(u *stops.Unit) {
	for _, n := range st.Causes() {
		if n.Number > 0 || n.Code == st.Conclude.Cause {
			u.Causes = append(u.Causes, stops.Cause{Number: n.Number, Name: n.Name, Outside: n.Outside,
				Action: n.Action, Owner: n.Owner})
		}
	}
	u.Found = st.found()
	if st.Cause == nil {
		return
	}
	for _, r := range st.Explained().Ranking {
		if r.Cause.Code == st.Cause.Code && len(r.Misfits) > 0 {
			u.Misfit = r.Misfits[0].Text()
		}
	}
	for _, c := range st.NotLookedFor() {
		u.NotLooked = append(u.NotLooked, strings.ToLower(c.Name))
	}
	for _, path := range st.Knowledge.Blames(st.Cause) {
		if f := st.feature(path); f != nil && !f.Found.Any {
			u.Suspects = append(u.Suspects,
				stops.Suspect{Part: f.Part.Code, PartName: f.Part.Name, Feature: f.Code})
		}
	}
}

// found are what was seen and told of the unit that asks for an explanation, in words.
func (st *Weighed) found() (out []string) {
	for _, f := range st.Findings {
		if e, known := st.Knowledge.EvidenceByCode(f.Code); known && f.Likely() && e.Asks() {
			out = append(out, strings.ToLower(e.Text))
		}
	}
	for _, p := range st.Parts {
		for _, m := range p.Seen {
			if m.Origin != unit.OriginBench {
				out = append(out, strings.ToLower(p.Name)+": "+m.Text())
			}
		}
	}
	return out
}

func (st *State) factsOf(p *Part) stops.Part {
	x := stops.Part{Part: p.Part, Strip: stripPart(p.AsFound), Def: p.Def, Choice: p.Choice(), Proposal: p.Proposal,
		Decision: p.Decision, Step: p.Step, AsksFeel: p.AsksFeel(), Stuck: p.CameStuck()}
	if p.Off {
		for _, way := range st.InTheWay(p.AsFound) {
			x.Strip.InWay = append(x.Strip.InWay, strings.ToLower(way.Name))
		}
	}
	if s := p.Stack; s != nil {
		x.Stack = &stops.Stack{Found: s.Found, Fit: s.Fit, FoundFault: s.FoundFault, FitFault: s.FitFault,
			FitDiff: s.FitDiff, FitDoes: s.FitDoes, Unknown: p.Part.StackFrom == unit.StackUnknown}
	}
	for _, i := range st.KitIssues {
		if i.Part == p.Code {
			x.Lacks = i.Text
		}
	}
	if must, asked := st.CountsIn(p); asked {
		x.CountIn = must
	}
	if j, bolted := build.JointOf(p.Def, p.Part.Joint); bolted {
		x.Joint = &j
	}
	if p.Def.Kind == "lip_seal" {
		if t := st.Track(p); t.Worn() {
			x.Groove = quantity.Show(t.Depth, quantity.Length, quantity.Metric)
		}
		x.Lip = build.LipOf(p.Part.Lip, p.Seal.Width, p.Step.Press, shownLength)
	}
	for _, w := range p.Going() {
		x.Ways = append(x.Ways, stops.Way{Route: w.Route, Oversize: w.Kind.Oversize, Flat: w.Kind.Flat, Row: w.Row})
	}
	for _, f := range p.Features {
		x.Features = append(x.Features, stops.Feature{Feature: f.Feature, Def: f.Def, Found: f.Found, Built: f.Built,
			Overdue: st.overdue(f), TooCoarse: f.Found.Finer || f.Built.Finer})
	}
	return x
}

func stripPart(p *AsFound) strip.Part {
	n, counted := found(p)
	return strip.Part{
		Code:          p.Code,
		Name:          p.Name,
		Off:           p.Off,
		Alone:         p.Alone,
		Expected:      p.Expected,
		Found:         n,
		Counted:       counted,
		Explained:     p.Explained,
		Loose:         p.Loose,
		Fragments:     number(p.Fragments) + p.LooseFragments,
		FragmentsMake: number(p.FragmentsMake),
		Facings:       len(p.Def.Facings) > 0,
		Facing:        p.Facing,
	}
}

// number is a whole number as typed, 0 where there is none.
func number(text string) int {
	n, _ := strconv.Atoi(text)
	return n
}

// Open counts the stops of a station that nobody passed.
func (st *State) Open(station string) int {
	n := 0
	for _, s := range st.Stops[station] {
		if s.Waived == nil {
			n++
		}
	}
	return n
}

// First is the first open stop at or after a station, in the order of work.
func (st *State) First(from string) *Stop {
	reached := false
	for _, station := range unit.Stations {
		reached = reached || station == from
		if !reached {
			continue
		}
		for i := range st.Stops[station] {
			if st.Stops[station][i].Waived == nil {
				return &st.Stops[station][i]
			}
		}
	}
	return nil
}

// Steps gives the build steps in fitting order.
func (st *Decided) Steps() []build.Step {
	out := make([]build.Step, 0, len(st.Parts))
	for _, p := range st.InOrder() {
		step := build.Step{Name: strings.ToLower(p.Name), Done: p.Step.Done, Asks: p.AsksFeel()}
		step.Torque, _ = p.Step.TurnTorque.Known()
		if p.Def.TurnCheck { // else it is the part that was felt, and not the shaft
			step.Turn, step.Round = build.Turn(p.Step.Turn), p.Step.TurnRound
		}
		out = append(out, step)
	}
	return out
}
