package job

import (
	"fmt"
	"strconv"
	"strings"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/strip"
	"corvek/core/unit"
)

// Stop is something that must be settled before the next station is honest.
type Stop struct {
	unit.StopCode
	Text   string
	Passed *unit.Pass
}

func stripPart(p *PartState) strip.Part {
	n, counted := found(p)
	return strip.Part{
		Code: p.Code, Name: p.Name, Off: p.Off, Expected: p.Expected, Found: n, Counted: counted,
		Explained: p.Explained, Loose: p.Loose, Bits: number(p.Bits) + p.LooseBits, BitsMake: number(p.BitsMake),
		Facings: len(p.Def.Facings) > 0, Facing: p.Facing,
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

// add notes a stop, with how it was waived.
func (st *State) add(code unit.StopCode, format string, args ...any) {
	code.Unit = st.Unit.Number
	s := Stop{StopCode: code, Text: fmt.Sprintf(format, args...), Passed: st.Job.Pass(code.String())}
	st.Stops[code.Station] = append(st.Stops[code.Station], s)
}

// stop notes a stop of the unit as a whole.
func (st *State) stop(station string, kind unit.StopKind, format string, args ...any) {
	st.add(unit.StopCode{Station: station, Kind: kind}, format, args...)
}

// stopPart notes a stop of a part.
func (st *State) stopPart(p *PartState, station string, kind unit.StopKind, format string, args ...any) {
	st.add(unit.StopCode{Station: station, Kind: kind, Part: p.Code}, format, args...)
}

// stopAt notes a stop of something measured.
func (st *State) stopAt(f *FeatureState, station string, kind unit.StopKind, format string, args ...any) {
	st.add(unit.StopCode{Station: station, Kind: kind, Part: f.Part.Code, Feature: f.Code}, format, args...)
}

func (st *State) stops() {
	st.Stops = map[string][]Stop{}
	st.stopCautions()
	st.stopReceive()
	st.stopStrip()
	st.stopMeasure()
	st.stopExplain()
	st.stopOutside()
	st.stopMisfits()
	st.stopLeftOver()
	st.stopSuspects()
	st.stopDecide()
	for _, i := range st.KitIssues {
		code := unit.StopCode{Station: "kit", Kind: unit.StopPlace, Part: i.Part}
		if i.Piece > 0 {
			code = unit.StopCode{Station: "kit", Kind: unit.StopPiece, Number: i.Piece}
		}
		st.add(code, "%s", i.Text)
	}
	st.stopBuild()
	st.stopProve()
	st.stopHandOver()
	st.stopGauges()
	st.stopStuck()
	st.stopModification()
	st.stopStacks()
	st.stopInstruments()
	st.stopEnding()
	for station := range st.Stops {
		if !st.Unit.Owes(station) {
			delete(st.Stops, station)
		}
	}
}

// stopEnding asks what an ending leaves untold.
func (st *State) stopEnding() {
	if st.Unit.EndingNote != "" {
		return
	}
	switch st.Unit.Ending {
	case unit.EndReplaced:
		st.stop("handover", unit.StopEnding, "Replaced by another unit: say by which")
	case unit.EndCondemned:
		st.stop("handover", unit.StopEnding, "Condemned: say where it went, and who agreed")
	case unit.EndReturned:
		st.stop("handover", unit.StopEnding, "Returned unopened: say to whom, and with what papers")
	}
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

func (st *State) stopCautions() {
	for _, station := range Stations {
		for _, c := range st.Cautions(station) {
			if c.Serious && st.Job.Acknowledged(c.Code) == nil {
				st.add(unit.StopCode{Station: station, Kind: unit.StopCaution, Part: c.Code},
					"Caution not read: %s", strings.ToLower(c.Title))
			}
		}
	}
}

func (st *State) stopReceive() {
	if strings.TrimSpace(st.Job.Complaint) == "" && len(st.Job.Symptoms) == 0 {
		st.stop("receive", unit.StopComplaint, "No complaint written down")
	}
	if st.Family.Action == "pump" && st.Unit.Owes("prove") {
		for _, n := range []struct {
			ok   bool
			kind unit.StopKind
			name string
		}{
			{st.Duty.HasDisplacement, unit.StopDisplacement, "displacement"},
			{st.Duty.HasSpeed, unit.StopSpeed, "speed"},
			{st.Duty.HasPressure, unit.StopDutyPressure, "duty pressure"},
		} {
			if !n.ok {
				st.stop("receive", n.kind, "Not known: %s", n.name)
			}
		}
		any := false
		if st.Received != nil {
			for _, p := range st.Received.Points {
				any = any || p.HasFlow || p.Row.Word != ""
			}
		}
		if !any {
			st.stop("receive", unit.StopBaseline, "No as-received figures: without them nobody can say what the "+
				"work changed")
		}
	}
	if st.Job.WarrantyHold {
		st.stop("receive", unit.StopWarranty, "Warranty hold: do not open")
	}
}

func (st *State) stopStrip() {
	var parts []strip.Part
	for _, p := range st.Parts {
		parts = append(parts, stripPart(p))
	}
	var loose []strip.Loose
	for _, l := range st.Unit.Loose {
		loose = append(loose, strip.Loose{Number: l.Number, What: l.What, Tied: l.Part != "", Note: l.Note})
	}
	for _, i := range strip.Check(parts, loose) {
		st.add(unit.StopCode{Station: "strip", Kind: i.Kind, Part: i.Part, Number: i.Loose}, "%s", i.Text)
	}
}

func (st *State) stopMeasure() {
	for _, p := range st.Parts {
		for _, f := range p.Features {
			name := p.Name + ": " + strings.ToLower(f.Def.Name)
			switch {
			case len(f.Found.Faults) > 0:
				st.stopAt(f, "measure", unit.StopFault, "%s contradicts itself", name)
			case f.Found.Verdict == metrology.Undecided:
				st.stopAt(f, "measure", unit.StopUndecided, "%s is undecided", name)
			case !f.Found.Any && f.Def.MustHave:
				st.stopAt(f, "measure", unit.StopNotMeasured, "%s not measured", name)
			}
		}
	}
}

func (st *State) stopExplain() {
	c := st.Conclude
	if c.Cause == "" || c.Cause == "not_found" && strings.TrimSpace(c.Statement) == "" {
		st.stop("explain", unit.StopConclusion, "No conclusion: name the root cause, or say what was ruled out")
	}
}

// stopMisfits asks that what does not fit the concluded cause is answered in words.
func (st *State) stopMisfits() {
	if st.Cause == nil || strings.TrimSpace(st.Conclude.Statement) != "" {
		return
	}
	for _, r := range st.Explained().Ranking {
		if r.Cause.Code != st.Cause.Code || len(r.Misfits) == 0 {
			continue
		}
		st.stop("explain", unit.StopMisfit, "Does not fit %s: %s. Answer it in words",
			strings.ToLower(st.Cause.Name), r.Misfits[0].Text())
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
				st.stopAt(f, "measure", unit.StopSuspect, "%s: blamed by “%s” and never measured", f.Part.Name,
					strings.ToLower(st.Cause.Name))
			}
		}
	}
}

func (st *State) stopDecide() {
	for _, p := range st.Parts {
		switch {
		case p.Choice() == decide.Open:
			st.stopPart(p, "decide", unit.StopOpen, "%s: %s", p.Name, p.Proposal.Reason)
		case p.Decision.Choice != "" && p.Decision.Choice != string(p.Proposal.Choice) &&
			strings.TrimSpace(p.Decision.Reason) == "":
			st.stopPart(p, "decide", unit.StopReason, "%s: other than proposed, and no reason given", p.Name)
		}
	}
}

// Steps gives the build steps in fitting order.
func (st *State) Steps() []build.Step {
	out := make([]build.Step, 0, len(st.Parts))
	for _, i := range build.Reverse(len(st.Parts)) {
		p := st.Parts[i]
		step := build.Step{Name: strings.ToLower(p.Name), Done: p.Step.Done, Asks: p.AsksFeel()}
		if p.Def.TurnCheck { // else it is the part that was felt, and not the shaft
			step.Turn = build.Turn(p.Step.Turn)
		}
		out = append(out, step)
	}
	return out
}

func (st *State) stopBuild() {
	undone := 0
	for _, p := range st.Parts {
		switch {
		case !p.Step.Done:
			undone++
		case p.AsksFeel() && p.Step.Turn == "" && !p.Def.TurnCheck:
			st.stopPart(p, "build", unit.StopTurn, "%s came off %s: move it by hand and say how it goes", p.Name,
				p.Stuck)
		case p.AsksFeel() && p.Step.Turn == "":
			st.stopPart(p, "build", unit.StopTurn, "%s: turn the shaft and say how it feels", p.Name)
		case build.Turn(p.Step.Turn).Bad() && !p.Def.TurnCheck:
			st.stopPart(p, "build", unit.StopStiff, "%s goes with %s", p.Name, turnWords(p.Step.Turn))
		case build.Turn(p.Step.Turn).Bad():
			st.stopPart(p, "build", unit.StopStiff, "Shaft %s since %s went in", turnWords(p.Step.Turn),
				strings.ToLower(p.Name))
		}
		// A part the wrong way round is told whatever else is still open on it.
		if p.Step.Done && p.Def.Facing != "" && p.Step.Facing != p.Def.Facing {
			st.stopPart(p, "build", unit.StopFacing, "%s: fitted %q, belongs %q", p.Name, orNone(p.Step.Facing),
				p.Def.Facing)
		}
		for _, f := range p.Features {
			if !f.Def.Clearance {
				continue
			}
			switch {
			case !f.Built.Any:
				st.stopAt(f, "build", unit.StopAgain, "%s: measure again", f.Def.Name)
			case f.Built.Verdict != metrology.In:
				st.stopAt(f, "build", unit.StopAgain, "%s after the build is %s", f.Def.Name, f.Built.Verdict)
			}
		}
	}
	if undone > 0 {
		st.stop("build", unit.StopUnfitted, "%d of %d parts not fitted", undone, len(st.Parts))
	}
}

func orNone(s string) string {
	if s == "" {
		return "not said"
	}
	return s
}

func (st *State) stopProve() {
	a := st.Passed()
	if counts := st.Counts(); a == nil && counts != nil && counts.Source == unit.SourceSimulated {
		st.stop("prove", unit.StopProved, "Only an exercise on the simulated stand: no test of this unit was passed")
	} else if a == nil {
		st.stop("prove", unit.StopProved, "No passed test in this round")
	}
}

func (st *State) stopHandOver() {
	if n := len(st.Unit.Rounds); n > 1 && strings.TrimSpace(st.Job.Lesson) == "" {
		st.stop("handover", unit.StopLesson, "It took %d rounds: write down what the next one should know", n)
	}
}
