package job

import (
	"fmt"
	"strings"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/strip"
	"corvek/internal/store"
)

// Stop is something that must be settled before the next station is honest.
type Stop struct {
	Station string
	Code    string // stable, so that a lead's pass sticks to it
	Text    string
	Part    uint
	Feature string
	Passed  *store.StopPass
}

func stripPart(p *PartState) strip.Part {
	n, counted := found(p)
	return strip.Part{ID: p.ID, Name: p.Name, Off: p.Off, Expected: p.Expected, Found: n, Counted: counted,
		Explained: p.Explained, Loose: p.Loose, Facings: len(p.Def.Facings) > 0, Facing: p.Facing}
}

// Open counts the stops of a station that nobody passed.
func (st *State) Open(station string) int {
	n := 0
	for _, s := range st.Stops[station] {
		if s.Passed == nil {
			n++
		}
	}
	return n
}

// First is the first open stop at or after a station, in the order of work.
func (st *State) First(from string) *Stop {
	reached := false
	for _, station := range Stations {
		reached = reached || station == from
		if !reached {
			continue
		}
		for i := range st.Stops[station] {
			if st.Stops[station][i].Passed == nil {
				return &st.Stops[station][i]
			}
		}
	}
	return nil
}

func (st *State) stop(station, code string, part uint, feature, format string, args ...any) {
	s := Stop{Station: station, Code: fmt.Sprintf("u%d.%s.%s", st.Unit.Ordinal, station, code), Text: fmt.Sprintf(format, args...), Part: part, Feature: feature}
	for i := range st.Job.StopPasses {
		if st.Job.StopPasses[i].Code == s.Code {
			s.Passed = &st.Job.StopPasses[i]
		}
	}
	st.Stops[station] = append(st.Stops[station], s)
}

func (st *State) stops() {
	st.Stops = map[string][]Stop{}
	st.stopCautions()
	st.stopReceive()
	st.stopStrip()
	st.stopMeasure()
	st.stopExplain()
	st.stopMisfits()
	st.stopSuspects()
	st.stopDecide()
	for _, i := range st.KitIssues {
		st.stop("kit", fmt.Sprintf("place%d.piece%d", i.PlaceID, i.PieceID), i.PlaceID, "", "%s", i.Text)
	}
	st.stopBuild()
	st.stopProve()
	st.stopHandOver()
	st.stopBench()
}

// Cautions gives the cautions of a station for this family.
func (st *State) Cautions(station string) []family.Caution {
	var out []family.Caution
	for _, code := range st.Family.Cautions {
		if c, ok := family.CautionByCode(code); ok && c.Station == station {
			out = append(out, c)
		}
	}
	return out
}

// Acknowledged reports who read a caution.
func (st *State) Acknowledged(code string) *store.Acknowledgement {
	for i := range st.Job.Acknowledgements {
		if st.Job.Acknowledgements[i].Caution == code {
			return &st.Job.Acknowledgements[i]
		}
	}
	return nil
}

func (st *State) stopCautions() {
	for _, station := range Stations {
		for _, c := range st.Cautions(station) {
			if c.Serious && st.Acknowledged(c.Code) == nil {
				st.stop(station, "caution."+c.Code, 0, "", "Caution not read: %s", strings.ToLower(c.Title))
			}
		}
	}
}

func (st *State) stopReceive() {
	if strings.TrimSpace(st.Job.Complaint) == "" && st.Job.Symptoms == "" {
		st.stop("receive", "complaint", 0, "", "No complaint written down")
	}
	if st.Family.Action == "pump" {
		for _, n := range []struct {
			ok   bool
			name string
		}{{st.Duty.HasDisplacement, "displacement"}, {st.Duty.HasSpeed, "speed"}, {st.Duty.HasPressure, "duty pressure"}} {
			if !n.ok {
				st.stop("receive", n.name, 0, "", "Not known: %s", n.name)
			}
		}
		any := false
		if st.Received != nil {
			for _, p := range st.Received.Points {
				any = any || p.HasFlow || p.Row.Word != ""
			}
		}
		if !any {
			st.stop("receive", "baseline", 0, "", "No as-received figures: without them nobody can say what the work changed")
		}
	}
	if st.Job.WarrantyHold {
		st.stop("receive", "warranty", 0, "", "Warranty hold: do not open")
	}
}

func (st *State) stopStrip() {
	var parts []strip.Part
	for _, p := range st.Parts {
		parts = append(parts, stripPart(p))
	}
	var loose []strip.Loose
	for _, l := range st.Unit.LooseItems {
		loose = append(loose, strip.Loose{What: l.What, Tied: l.PartID != nil, Note: l.Note})
	}
	for _, i := range strip.Check(parts, loose) {
		code := i.Code
		if p := st.ByID[i.PartID]; p != nil {
			code += "." + p.Code
		}
		st.stop("strip", code, i.PartID, "", "%s", i.Text)
	}
}

func (st *State) stopMeasure() {
	for _, p := range st.Parts {
		for _, f := range p.Features {
			name := p.Name + ": " + strings.ToLower(f.Def.Name)
			switch {
			case len(f.Found.Faults) > 0:
				st.stop("measure", "fault."+f.Path(), p.ID, f.Code, "%s contradicts itself", name)
			case f.Found.Verdict == metrology.Undecided:
				st.stop("measure", "open."+f.Path(), p.ID, f.Code, "%s is undecided", name)
			case !f.Found.Any && f.Def.MustHave:
				st.stop("measure", "must."+f.Path(), p.ID, f.Code, "%s not measured", name)
			}
		}
	}
}

func (st *State) stopExplain() {
	c := st.Conclude
	if c.Cause == "" || c.Cause == "not_found" && strings.TrimSpace(c.Statement) == "" {
		st.stop("explain", "conclusion", 0, "", "No conclusion: name the root cause, or say what was ruled out")
	}
	if st.Cause != nil && st.Cause.Where == "outside" && (strings.TrimSpace(c.Action) == "" || strings.TrimSpace(c.Owner) == "") {
		st.stop("explain", "outside", 0, "", "The cause lies outside the unit: say what is done there and by whom")
	}
}

// stopMisfits asks that what does not fit the concluded cause is answered in words.
func (st *State) stopMisfits() {
	if st.Cause == nil || strings.TrimSpace(st.Conclude.Statement) != "" {
		return
	}
	for _, r := range st.Explain.Ranking {
		if r.Cause.Code != st.Cause.Code || len(r.Misfits) == 0 {
			continue
		}
		st.stop("explain", "misfit", 0, "", "Does not fit %s: %s. Answer it in words", strings.ToLower(st.Cause.Name), r.Misfits[0].Text())
	}
}

// stopSuspects asks for the reading behind a concluded cause: a part that is
// blamed and was never measured.
func (st *State) stopSuspects() {
	if st.Cause == nil {
		return
	}
	for i := range st.Knowledge.Evidence {
		e := &st.Knowledge.Evidence[i]
		if w := st.Cause.Points[e.Code]; w != "almost_always" && w != "usual" {
			continue
		}
		for _, path := range []string{e.From.Used, e.From.Grade, e.From.Odd} {
			if f := st.feature(path); path != "" && f != nil && !f.Found.Any {
				st.stop("measure", "suspect."+path, f.Part.ID, f.Code, "%s: blamed by “%s” and never measured", f.Part.Name, strings.ToLower(st.Cause.Name))
			}
		}
	}
}

func (st *State) stopDecide() {
	for _, p := range st.Parts {
		switch {
		case p.Choice() == decide.Open:
			st.stop("decide", "open."+p.Code, p.ID, "", "%s: %s", p.Name, p.Proposal.Reason)
		case p.Decision.Choice != "" && p.Decision.Choice != string(p.Proposal.Choice) && strings.TrimSpace(p.Decision.Reason) == "":
			st.stop("decide", "reason."+p.Code, p.ID, "", "%s: other than proposed, and no reason given", p.Name)
		}
	}
}

// Steps gives the build steps in fitting order.
func (st *State) Steps() []build.Step {
	out := make([]build.Step, 0, len(st.Parts))
	for _, i := range build.Reverse(len(st.Parts)) {
		p := st.Parts[i]
		out = append(out, build.Step{Name: strings.ToLower(p.Name), Done: p.Step.Done, Turn: build.Turn(p.Step.Turn), Asks: p.Def.TurnCheck})
	}
	return out
}

func (st *State) stopBuild() {
	undone := 0
	for _, p := range st.Parts {
		switch {
		case !p.Step.Done:
			undone++
		case p.Def.TurnCheck && p.Step.Turn == "":
			st.stop("build", "turn."+p.Code, p.ID, "", "%s: turn the shaft and say how it feels", p.Name)
		case build.Turn(p.Step.Turn).Bad():
			st.stop("build", "stiff."+p.Code, p.ID, "", "Shaft %s since %s went in", p.Step.Turn, strings.ToLower(p.Name))
		}
		// A part the wrong way round is told whatever else is still open on it.
		if p.Step.Done && p.Def.Facing != "" && p.Step.Facing != p.Def.Facing {
			st.stop("build", "facing."+p.Code, p.ID, "", "%s: fitted %q, belongs %q", p.Name, orNone(p.Step.Facing), p.Def.Facing)
		}
		for _, f := range p.Features {
			if !f.Def.Clearance {
				continue
			}
			switch {
			case !f.Built.Any:
				st.stop("build", "again."+f.Path(), p.ID, f.Code, "%s: measure again", f.Def.Name)
			case f.Built.Verdict != metrology.In:
				st.stop("build", "again."+f.Path(), p.ID, f.Code, "%s after the build is %s", f.Def.Name, f.Built.Verdict)
			}
		}
	}
	if undone > 0 {
		st.stop("build", "undone", 0, "", "%d of %d parts not fitted", undone, len(st.Parts))
	}
}

func orNone(s string) string {
	if s == "" {
		return "not said"
	}
	return s
}

func (st *State) stopProve() {
	if st.Proved() == nil {
		st.stop("prove", "proved", 0, "", "No passed test in this round")
	}
	if a := st.Proved(); a != nil && strings.TrimSpace(a.ConditionRepeated) == "" {
		st.stop("prove", "condition", 0, "", "Say whether the complaint's own condition was repeated")
	}
}

func (st *State) stopHandOver() {
	if n := len(st.Unit.Rounds); n > 1 && strings.TrimSpace(st.Job.Lesson) == "" {
		st.stop("handover", "lesson", 0, "", "It took %d rounds: write down what the next one should know", n)
	}
}
