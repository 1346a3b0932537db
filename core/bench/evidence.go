package bench

import (
	"strconv"
	"strings"

	"corvek/core/build"
	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/fluid"
	"corvek/core/machine"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/unit"
)

// Weighed is the unit with all that is known of it as evidence, and what was concluded.
type Weighed struct {
	*Tested
	Findings []explain.Finding
	Noted    map[string]unit.Mark // what was last said of each mark by hand, by code
	Sources  map[string]string    // evidence code → where an automatic finding comes from
	Conclude unit.Conclusion
	Cause    *explain.Cause // concluded, nil for none of the list
}

// weighed gathers what is known as evidence.
func weighed(t *Tested) *Weighed {
	st := &Weighed{Tested: t, Noted: map[string]unit.Mark{}, Sources: map[string]string{}}
	for _, m := range st.Unit.Marks {
		st.Noted[m.Code] = st.Unit.LastSaid(m.Code)
	}
	for i := range st.Knowledge.Evidence {
		e := &st.Knowledge.Evidence[i]
		switch m := st.Noted[e.Code]; {
		case m.State != "" && m.Origin == unit.OriginBench:
			// A mark we made says nothing of the cause.
		case m.State == unit.MarkSeen:
			st.Findings = append(st.Findings, explain.Finding{Code: e.Code,
				Strength: explain.StrengthOfSight(m.Origin, m.How)})
		case m.State == unit.MarkAbsent:
			st.Findings = append(st.Findings, explain.Finding{Code: e.Code, Strength: explain.Absent})
		default:
			if s, source, ok := st.automatic(e); ok {
				st.Findings = append(st.Findings, explain.Finding{Code: e.Code, Strength: s})
				st.Sources[e.Code] = source
			}
		}
	}
	st.Conclude = st.Unit.Conclusion()
	if c, ok := st.Known.CauseByCode(st.Conclude.Cause); ok {
		st.Cause = c
	}
	return st
}

// anythingTold reports that there is something to explain: with no complaint
// and nothing found, no cause is made up.
func (st *Weighed) anythingTold() bool {
	for _, f := range st.Findings {
		if f.Likely() {
			return true
		}
	}
	return len(st.Noted) > 0
}

// has answers whether the unit has an assembly, a part, or a part of a @kind.
func (st *Stripped) has() func(string) bool {
	family := st.Family.HasOf(func(code string) bool { return st.ByCode[code] != nil })
	added := map[string]bool{}
	for _, p := range st.Parts {
		if p.Kind != "" {
			added[p.Code], added["@"+p.Kind] = true, true
		}
	}
	return func(what string) bool { return family(what) || added[what] }
}

// Situation is how far the unit has come: what is open to the eye, and whether it may
// still be run.
func (st *Stripped) Situation() explain.Situation {
	s := explain.Situation{Reached: explain.Outside, Alone: st.Unit.NotAsked != ""}
	off, broken := 0, false
	for _, p := range st.Parts {
		if p.Off {
			off++
		}
		for _, m := range p.Seen {
			broken = broken || m.Breaking
		}
	}
	switch {
	case off > 0 && off == len(st.Parts):
		s.Reached = explain.Stripped
	case off > 0:
		s.Reached = explain.Opened
	}
	s.MayRun = off == 0 && !broken
	return s
}

// automatic turns what other stations know into a finding. What is seen in one place is seen; it is absent where one
// that can tell tells so and none shows it.
func (st *Weighed) automatic(e *explain.Evidence) (strength float64, source string, ok bool) {
	for _, from := range e.Froms() {
		s, where, tells := st.automaticFrom(e, from)
		if tells && (!ok || s > strength) {
			strength, source, ok = s, where, true
		}
	}
	return strength, source, ok
}

func (st *Weighed) automaticFrom(e *explain.Evidence, from explain.From) (strength float64, source string, ok bool) {
	for _, look := range []func(explain.From) (float64, string, bool){st.automaticMeasured, st.automaticTold,
		st.automaticBench, st.automaticTest, st.automaticFluid} {
		if strength, source, ok = look(from); ok {
			return strength, source, ok
		}
	}
	return st.automaticMark(e, from.Mark)
}

// automaticMeasured turns readings and counts into findings.
func (st *Weighed) automaticMeasured(from explain.From) (strength float64, source string, ok bool) {
	switch {
	case from.Used != "":
		if f := st.feature(from.Used); f != nil && f.Found.Any && f.Found.HasUsed {
			return explain.StrengthOfUse(f.Found.Used),
				"measured: " + strconv.Itoa(int(100*f.Found.Used+0.5)) + " % of the wear limit", true
		}
	case from.Grade != "":
		if f := st.feature(from.Grade); f != nil && f.Found.Grade >= 0 {
			return explain.StrengthOfGrade(f.Found.Grade), "by touch: " + family.Grades[f.Found.Grade], true
		}
	case from.Odd != "":
		if f := st.feature(from.Odd); f != nil && f.Found.Complete {
			if f.Found.Odd > 0 {
				return explain.Seen, "measured: no. " + strconv.Itoa(f.Found.Odd) + " is an outlier", true
			}
			return explain.Absent, "measured: all alike", true
		}
	case from.Off.Path != "":
		return st.automaticOff(from.Off)
	case from.Missing != "":
		if p := st.ByCode[from.Missing]; p != nil && p.Off {
			if p.Missing > 0 {
				return explain.Seen, "strip count: " + strconv.Itoa(p.Missing) + " not found", true
			}
			if _, counted := found(p.AsFound); counted {
				return explain.Absent, "strip count correct", true
			}
		}
	}
	return 0, "", false
}

// automaticOff turns a reading beyond a limit on one side into a finding, and one within its limits into none there.
func (st *Weighed) automaticOff(off explain.Sided) (strength float64, source string, ok bool) {
	f := st.feature(off.Path)
	if f == nil || !f.Found.HasValue {
		return 0, "", false
	}
	l := f.Found.Limits
	over := off.Low && l.HasLower && f.Found.Value < l.Lower || !off.Low && l.HasUpper && f.Found.Value > l.Upper
	switch {
	case f.Found.Verdict == metrology.Out && over:
		return explain.Seen, "measured: " + shownLength(f.Found.Value) + ", out of its limits", true
	case f.Found.Verdict == metrology.In:
		return explain.Absent, "measured: within its limits", true
	}
	return 0, "", false
}

// automaticTold turns the complaint and what was asked at the machine into findings.
func (st *Weighed) automaticTold(from explain.From) (strength float64, source string, ok bool) {
	strength, ok = machine.Heard(from, st.Unit.Gauge, st.Job.Symptoms)
	if from.Symptom != "" {
		return strength, "complaint", ok
	}
	return strength, "asked at the machine", ok
}

// automaticFluid turns what was drained, and what another sump gained, into findings.
func (st *Rated) automaticFluid(from explain.From) (strength float64, source string, ok bool) {
	u := st.Unit
	sight := fluid.SightOf(u.DrainedLook)
	seen, source := false, "drained: "+u.DrainedLook
	switch from.Fluid {
	case "water":
		if seen = u.Water.SI > 0 || sight.Milky; seen && !sight.Milky {
			source = "drained: water in it"
		}
	case "burnt":
		seen = sight.Burnt
	case "metal":
		seen = sight.Metal
	case "gained":
		seen, source = u.GainedElsewhere.SI > 0, "another sump gained "+u.GainedElsewhere.Typed
	default:
		return 0, "", false
	}
	if seen {
		return explain.Seen, source, true
	}
	return explain.Absent, source, sight.Clear && from.Fluid != "gained"
}

// automaticBench turns the strip record and the work into findings.
func (st *Weighed) automaticBench(from explain.From) (strength float64, source string, ok bool) {
	switch {
	case from.Stack != "":
		if p := st.ByCode[from.Stack]; p != nil && p.Stack != nil && len(p.Stack.Found) > 0 &&
			len(p.Stack.Right) > 0 {
			if len(p.Stack.FoundDiff) > 0 {
				return explain.Seen, "stack as removed: " + p.Stack.FoundDiff[0].Text, true
			}
			return explain.Absent, "stack as it should be", true
		}
	case from.Facing != nil:
		return st.automaticFacing(*from.Facing)
	case from.Stuck != nil:
		return st.automaticStuck(*from.Stuck)
	case from.Never != nil:
		return st.automaticNever(*from.Never)
	case from.Work != "":
		return st.automaticWork(from.Work)
	}
	return 0, "", false
}

// automaticStuck turns how parts came off into a finding: stuck as they were taken out, which is another thing than
// stuck in service.
func (st *Stripped) automaticStuck(of explain.PartOf) (strength float64, source string, ok bool) {
	noted, all := 0, 0
	for _, p := range st.Parts {
		if !of.Of(p.Code, p.Def.Kind) {
			continue
		}
		all++
		switch {
		case p.CameStuck():
			return explain.Seen, strings.ToLower(p.Name) + " came off " + p.Stuck, true
		case p.Stuck == entry.CameFree:
			noted++
		}
	}
	return explain.Absent, "came off freely", all > 0 && noted == all
}

// neverFitted is how it is said of a part that its unit never had it, though it belongs there.
const neverFitted = "never fitted"

// automaticNever turns a part that was not there, and belongs there, into a finding.
func (st *Stripped) automaticNever(of explain.PartOf) (strength float64, source string, ok bool) {
	for _, row := range st.Absent {
		def := row.Def(st.Family)
		if of.Of(row.Code, def.Kind) && strings.Contains(strings.ToLower(row.Absent), neverFitted) {
			return explain.Seen, strings.ToLower(def.Name) + " was never fitted", true
		}
	}
	return 0, "", false
}

// automaticTest turns the test as received, and a later one of the unit as it was built, into findings.
func (st *Weighed) automaticTest(from explain.From) (strength float64, source string, ok bool) {
	switch {
	case from.Efficiency != "":
		if p := st.receivedAt(from.Efficiency); p != nil {
			if eff, ok := p.Efficiency(); ok {
				return explain.StrengthOfShortfall(eff, proof.Band(st.Family.Accept, p.Test.Pressure)),
					"as received: " + strconv.Itoa(int(100*eff+0.5)) + " % of theory", true
			}
		}
	case from.Word.Asked():
		if p := st.receivedAt(from.Word.To); p != nil && p.Row.Word != "" {
			if p.Row.Word == from.Word.With {
				return explain.Seen, "as received: " + from.Word.With, true
			}
			return explain.Absent, "as received: " + p.Row.Word, true
		}
	case from.Step != "":
		return st.automaticStep(from.Step)
	}
	return 0, "", false
}

// automaticStep turns a step as received that is out into a finding, where one side is asked for only on that side.
func (st *Tested) automaticStep(said string) (strength float64, source string, ok bool) {
	code, side, sided := strings.Cut(said, "=")
	p := st.receivedAt(code)
	if p == nil {
		return 0, "", false
	}
	name := strings.ToLower(p.Test.Name)
	switch f := outOf(p); {
	case p.Verdict == metrology.In:
		return explain.Absent, "as received: " + name + " in", true
	case p.Verdict != metrology.Out:
		return 0, "", false
	case !sided:
		return explain.Seen, "as received: " + name + " out", true
	case f == nil:
		return 0, "", false
	case (f.Limits.HasLower && f.Value < f.Limits.Lower) == (side == "low"):
		return explain.Seen, "as received: " + name + " too " + side, true
	}
	return explain.Absent, "as received: " + name + " not too " + side, true
}

// receivedAt is a step of the test as received, nil where it was not run.
func (st *Tested) receivedAt(step string) *Point {
	if st.Received == nil {
		return nil
	}
	for i := range st.Received.Points {
		if p := &st.Received.Points[i]; p.Test.Code == step {
			return p
		}
	}
	return nil
}

// automaticFacing turns which way round a part came out, or any of a @kind, into a finding.
func (st *Stripped) automaticFacing(of explain.PartOf) (strength float64, source string, ok bool) {
	noted, all := 0, 0
	for _, p := range st.Parts {
		if !of.Of(p.Code, p.Def.Kind) || p.Def.Facing == "" {
			continue
		}
		all++
		if p.Facing == "" {
			continue
		}
		noted++
		if p.Facing != p.Def.Facing {
			return explain.Seen, strings.ToLower(p.Name) + " came out " + p.Facing, true
		}
	}
	return explain.Absent, "came out as it should", all > 0 && noted == all
}

// automaticWork turns what Build, Kit and Prove showed into findings.
func (st *Weighed) automaticWork(what string) (strength float64, source string, ok bool) {
	switch what {
	case "stiff":
		for _, p := range st.Parts {
			if build.Turn(p.Step.Turn).Bad() && (p.Def.TurnCheck || !p.CameStuck()) {
				return explain.Seen, "at Build: " + TurnWords(p.Step.Turn) + " since " + strings.ToLower(p.Name), true
			}
		}
	case "piece_left":
		for _, k := range st.Unit.Kit {
			if k.Part == "" && k.LeftReason != "" {
				return explain.Seen, "kit: " + k.Name + " left over", true
			}
		}
	case "received_good":
		switch {
		case st.Received == nil: // and where nothing was run, or cannot be told, it says nothing
		case st.Received.Sum == metrology.In:
			return explain.Seen, "as received: all that was run is in", true
		case st.Received.Sum == metrology.Out:
			return explain.Absent, "as received: out", true
		}
	case "still_fails":
		for _, a := range st.Attempts {
			if a.Closed && a.Verdict == string(metrology.Out) {
				return explain.Seen, "attempt " + strconv.Itoa(a.Number) + " failed", true
			}
		}
	}
	return 0, "", false
}

// BrokenUp reports that pieces of the unit went into the circuit: something is
// missing that nobody accounts for, or a break was seen in a family whose
// debris goes round.
func (st *Weighed) BrokenUp() bool {
	for _, p := range st.Parts {
		if p.Off && p.Missing > 0 && p.Explained == "" {
			return true
		}
	}
	if !st.Family.Debris {
		return false
	}
	for _, f := range st.Findings {
		if e, ok := st.Knowledge.EvidenceByCode(f.Code); ok && f.Likely() && e.BreakUp {
			return true
		}
	}
	return false
}
