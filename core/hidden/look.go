package hidden

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/invented"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Seen is what a look shows. What is entered of it is up to who looked.
type Seen struct {
	Of      string  // what was looked at
	Says    string  // in words
	Value   string  // as it would be entered; "" where nothing is to be entered, or a figure is to be read
	Reads   bool    // a figure is to be read off an instrument
	Size    float64 // that it stands at, in m: the true one with the error of the instrument
	On      string  // the kind of instrument, as core/practice has it
	Minutes float64
	Gone    bool // it could have been told, and cannot any more
}

// Bench is a unit of practice as it lies there now.
type Bench struct {
	Case   *Case
	True   *bench.State // the unit as it is, when it came
	Record *bench.State // what was written of it
	Looked []Looked     // in order
}

// Looked is a look that was taken.
type Looked struct {
	Field   string // its address
	Gone    bool   // it was too late
	Minutes float64
	Reached explain.Reach // how far apart the unit was
}

// Look answers a look at a field of the record. What cannot be looked at as the unit lies there gives a *field.Error.
func (b *Bench) Look(ref unit.Ref) (Seen, error) {
	no := func(format string, args ...any) (Seen, error) {
		return Seen{}, field.Errorf(ref.String(), format, args...)
	}
	feeds := b.feeds(ref)
	if why := b.closed(ref, feeds); why != "" {
		return no("%s", why)
	}
	s := Seen{Of: b.Named(ref), Minutes: b.minutes(ref, feeds)}
	if what := b.spoiled(ref, feeds); what != "" {
		s.Gone, s.Says = true, what
		return s, nil
	}
	switch ref.Scope {
	case unit.ScopeJob:
		return b.complaint(s, ref)
	case unit.ScopeUnit, unit.ScopePart, unit.ScopeFeature:
		return b.asItIs(s, ref)
	case unit.ScopeEvidence, unit.ScopePartMark:
		if ref.Name != "state" {
			return no("that is yours to say")
		}
		return b.mark(s, ref, feeds), nil
	case unit.ScopeReading:
		return b.reading(s, ref)
	case unit.ScopePoint:
		return b.point(s, ref)
	case unit.ScopeStep:
		return b.felt(s, ref)
	}
	return no("nothing is to be looked at there: that is yours to say")
}

// value is what stands at an address of a job.
func (b *Bench) value(j *unit.Job, ref unit.Ref) (string, bool) {
	place, f, err := entry.Resolve(j, ref, &entry.Shop{Family: b.True.Families, Knowledge: all{}.of})
	if err != nil {
		return "", false
	}
	return f.Get(place), true
}

// all is for addresses of marks that were found in what is known already.
type all struct{}

func (all) of(string) entry.Knowledge { return all{} }
func (all) KnowsMark(string) bool     { return true }
func (all) KnowsCause(string) bool    { return true }

// feeds are the marks of which a field tells.
func (b *Bench) feeds(ref unit.Ref) (out []*explain.Evidence) {
	p := b.True.ByCode[ref.Part]
	is := func(f explain.From) bool {
		switch ref.Scope {
		case unit.ScopeJob:
			return ref.Name == "symptom" && f.Symptom == ref.Code
		case unit.ScopeUnit:
			return ref.Name == "gauge" && f.Gauge.To == ref.Code || ref.Name == "drained_look" && f.Fluid != ""
		case unit.ScopePoint:
			step, _ := f.OfStep()
			return ref.Number == 0 && (f.Word.To == ref.Code || step == ref.Code || f.Efficiency == ref.Code)
		case unit.ScopeReading:
			path := ref.Part + "." + ref.Feature
			return slices.Contains([]string{f.Used, f.Grade, f.Odd, f.Off.Path}, path)
		case unit.ScopePart:
			return p != nil && partTells(f, ref.Name, p.Code, p.Def.Kind)
		}
		return false
	}
	k := b.True.Knowledge
	switch {
	case ref.Scope == unit.ScopeEvidence:
		if e, known := k.EvidenceByCode(ref.Code); known {
			out = append(out, e)
		}
		return out
	case ref.Scope == unit.ScopePartMark && p != nil:
		if e := k.Marked(p.Code, p.Def.Kind, ref.Code); e != nil {
			out = append(out, e)
		}
		return out
	}
	for i := range k.Evidence {
		if slices.ContainsFunc(k.Evidence[i].Froms(), is) {
			out = append(out, &k.Evidence[i])
		}
	}
	return out
}

func partTells(f explain.From, name, code, kind string) bool {
	switch name {
	case "found":
		return f.Missing == code
	case "stack_found":
		return f.Stack == code
	case "facing":
		return f.Facing != nil && f.Facing.Of(code, kind)
	case "stuck":
		return f.Stuck != nil && f.Stuck.Of(code, kind)
	}
	return false
}

// closed says why something cannot be looked at as the unit lies there, "" where it can.
func (b *Bench) closed(ref unit.Ref, feeds []*explain.Evidence) string {
	if ref.Part != "" && ref.Scope != unit.ScopeStep {
		p := b.Record.ByCode[ref.Part]
		switch {
		case p == nil:
			return "it is not on this unit"
		case ref.Stage == unit.StageBuilt && !p.Step.Done:
			return "it is not fitted yet"
		case !p.Off && ref.Scope == unit.ScopePart && len(b.Record.InTheWay(p.AsFound)) == 0:
			return "" // it is seen as it is lifted off
		case !p.Off && !p.Alone:
			return "it is still on the unit: take it off first"
		}
		return ""
	}
	at := b.Record.Situation()
	for _, e := range feeds {
		switch {
		case b.covered(e.Part) && e.At.Opening() > 0:
			return "it is still on the unit: take it off first"
		case e.At.Opening() > at.Reached.Opening():
			return "it cannot be seen yet: the unit is not so far apart"
		}
	}
	return ""
}

// covered reports that a part is on the unit still.
func (b *Bench) covered(part string) bool {
	p := b.Record.ByCode[part]
	return p != nil && !p.Off && !p.Alone
}

// spoiled says that something could have been told and cannot any more, "" where it can.
func (b *Bench) spoiled(ref unit.Ref, feeds []*explain.Evidence) string {
	if ref.Scope != unit.ScopeReading && slices.ContainsFunc(b.Looked, func(l Looked) bool {
		return l.Field == ref.String() && !l.Gone
	}) {
		return "" // it was looked at in time
	}
	at := b.Record.Situation()
	for _, e := range feeds {
		switch {
		case e.Unwashed && b.washed(e, ref.Part):
			return "Wiped before anybody looked: nothing can be told of it any more."
		case ref.Scope == unit.ScopePart && e.Before != "" && b.washed(e, ref.Part):
			return "It was wiped and laid aside: nobody knows any more how it came off."
		case ref.Scope == unit.ScopePart:
		case e.Runs && !at.MayRun && ref.Scope != unit.ScopePoint:
			return "It would have to run for that, and it is apart."
		case !at.Can(e) && !e.Runs:
			return "Too late: that is seen before the unit is taken so far apart."
		}
	}
	return ""
}

// washed reports that the part of a mark was wiped: it was measured, or moved for another look. What belongs to no part
// goes with the first that was wiped.
func (b *Bench) washed(e *explain.Evidence, part string) bool {
	if part == "" {
		part = e.Part
	}
	for _, l := range b.Looked {
		ref, err := unit.ParseRef(l.Field)
		if err != nil {
			continue
		}
		if ref.Scope == unit.ScopeReading && (part == "" || ref.Part == part) {
			return true
		}
		for _, o := range b.feeds(ref) {
			if o.Destroys && o.Code != e.Code && o.Part == e.Part && e.Part != "" {
				return true
			}
		}
	}
	return false
}

// What a look takes that no mark says the minutes of, and one more of a mark that was looked at already.
const (
	told    = 0.5 // what stands in the complaint
	short   = 2
	again   = 0.5
	allOver = 4 // of a part
)

// minutes are what a look costs: what the mark of which it tells takes, once.
func (b *Bench) minutes(ref unit.Ref, feeds []*explain.Evidence) float64 {
	for _, l := range b.Looked {
		was, err := unit.ParseRef(l.Field)
		if err == nil && (was == ref || was.Part == ref.Part && was.Feature == ref.Feature && ref.Feature != "") {
			return again
		}
	}
	if ref.Scope == unit.ScopeJob {
		return told
	}
	longest := 0.0
	for _, e := range feeds {
		longest = max(longest, b.Record.Situation().Cost(e))
	}
	if longest == 0 {
		return short
	}
	return longest
}

func (b *Bench) complaint(s Seen, ref unit.Ref) (Seen, error) {
	if ref.Name != "symptom" {
		return s, field.Errorf(ref.String(), "what was told stands there already")
	}
	s.Says = "“No, not that.”"
	if slices.Contains(b.True.Job.Symptoms, ref.Code) {
		s.Says, s.Value = "“Yes, that.”", entry.Yes
	}
	return s, nil
}

// asItIs reads off the unit what its record has a field for.
func (b *Bench) asItIs(s Seen, ref unit.Ref) (Seen, error) {
	v, known := b.value(b.Case.True, ref)
	if !known {
		return s, field.Errorf(ref.String(), "nothing is to be looked at there")
	}
	s.Value = v
	switch {
	case ref.Name == "sound":
		return b.over(s, ref), nil
	case ref.Name == "gauge":
		q, _ := family.QuestionByCode(ref.Code)
		a, _ := q.AnswerByCode(v)
		s.Says = "“" + sentence(a.Say) + "”"
		if !family.Answered(v) {
			s.Says = "“Nobody tried that.”"
		}
	case v == "":
		s.Says = "There is nothing to be seen of it."
	case ref.Name == "found":
		s.Says = "You count " + v + "."
	case ref.Name == "stuck":
		s.Says = "It came off " + v + "."
	default:
		s.Says = sentence(v)
	}
	return s, nil
}

// over looks a part all over: what marks it bears is seen at once, but for those that went when it was wiped.
func (b *Bench) over(s Seen, ref unit.Ref) Seen {
	var marks []string
	s.Minutes = allOver
	p := b.True.ByCode[ref.Part]
	for _, m := range p.Seen {
		e := b.True.Knowledge.Marked(p.Code, p.Def.Kind, m.Code)
		if e == nil || !e.Unwashed || !b.washed(e, p.Code) {
			marks = append(marks, strings.ToLower(m.Text()))
		}
	}
	s.Says, s.Value = "No mark on it.", entry.Yes
	if len(marks) > 0 {
		s.Says, s.Value = "You see: "+strings.Join(marks, "; ")+".", ""
	}
	return s
}

func sentence(text string) string {
	if text == "" {
		return ""
	}
	return strings.ToUpper(text[:1]) + text[1:] + "."
}

// mark answers a look for a mark by how it is in truth, wherever that stands.
func (b *Bench) mark(s Seen, ref unit.Ref, feeds []*explain.Evidence) Seen {
	there, known := false, false
	if ref.Scope == unit.ScopePartMark {
		known = true
		for _, m := range b.True.ByCode[ref.Part].Seen {
			there = there || m.Code == ref.Code
		}
	}
	for _, e := range feeds {
		if ref.Scope == unit.ScopePartMark {
			break
		}
		there, known = b.there(e.Code)
	}
	switch {
	case !known:
		s.Says = "It cannot be told."
	case there:
		s.Says, s.Value = "It is there.", unit.MarkSeen
	default:
		s.Says, s.Value = "It is not there.", unit.MarkAbsent
	}
	return s
}

// there reports that a mark is there, and whether that can be told at all.
func (b *Bench) there(code string) (there, known bool) {
	f, known := b.finding(code)
	return f.Likely(), known
}

// finding is what the unit truly tells of a mark.
func (b *Bench) finding(code string) (f explain.Finding, known bool) {
	at := slices.IndexFunc(b.True.Findings, func(f explain.Finding) bool { return f.Code == code })
	if at < 0 {
		return f, false
	}
	return b.True.Findings[at], true
}

// reading answers a measurement: with a figure on an instrument, with how a leaf goes, by touch.
func (b *Bench) reading(s Seen, ref unit.Ref) (Seen, error) {
	var f *bench.Feature
	for _, o := range b.True.ByCode[ref.Part].Features {
		if o.Code == ref.Feature {
			f = o
		}
	}
	if f == nil {
		return s, field.Errorf(ref.String(), "nothing was made up of that: it is a feature of your own")
	}
	text := b.stands(f, ref)
	switch f.Def.Method {
	case family.MethodGrade:
		s.Value = text
		s.Says = "By touch: " + family.Grades[int(text[0]-'0')] + "."
		return s, nil
	case family.MethodFeeler:
		s.Value = text
		s.Says = "The leaf " + text + "."
		return s, nil
	}
	q, err := quantity.Parse(text, quantity.Length)
	if err != nil {
		return s, field.Errorf(ref.String(), "it cannot be measured")
	}
	s.Reads, s.On = true, instrumentFor(f, q.SI)
	s.Size = q.SI + b.error(ref)*errorOf[s.On]
	return s, nil
}

// stands is what the unit is at a place now: as it came, or as it was built.
func (b *Bench) stands(f *bench.Feature, ref unit.Ref) string {
	p := b.Record.ByCode[ref.Part]
	if ref.Stage == unit.StageBuilt && (p.Choice() == decide.Replace || p.Choice() == decide.Rework) {
		if f.Def.Method == family.MethodFit {
			return invented.Good(f, ref.Name)
		}
		return invented.Worn(f, ref.Name, asNew)
	}
	if text := f.Entry(unit.StageFound, ref.Name); text != "" {
		return text
	}
	return invented.Good(f, ref.Name) // a leaf of his own, say
}

// asNew is how much of its limits a part has used that was made new.
const asNew = 0.4

// error is the error of a measurement in shares of the most that its instrument makes: the same place read with the
// same instrument once more gives nearly the same.
func (b *Bench) error(ref unit.Ref) float64 {
	n := 0
	for _, l := range b.Looked {
		if l.Field == ref.String() {
			n++
		}
	}
	r := chance(b.Case.Seed, "reading", ref.String(), fmt.Sprint(n))
	return math.Max(-1, math.Min(1, r.NormFloat64()/2))
}

// The kinds of instrument, as core/practice has them, and the most that each errs by in these hands, in m.
const (
	caliper    = "vernier_caliper"
	micrometer = "micrometer"
	depth      = "depth_micrometer"
	boreGauge  = "bore_gauge"
	dial       = "dial_indicator"
	comparator = "comparator" // of mating parts, with a display
)

var errorOf = map[string]float64{caliper: 20e-6, micrometer: 2e-6, depth: 8e-6, boreGauge: 4e-6, dial: 4e-6,
	comparator: 0.5e-6}

// Errs is the most that what is read off an instrument of a kind differs from the true size, in m, reading and all.
func Errs(kind string) float64 { return errorOf[kind] + readTo[kind] }

var readTo = map[string]float64{caliper: 25e-6, micrometer: 0.5e-6, depth: 5e-6, boreGauge: 5e-6, dial: 5e-6,
	comparator: 0.5e-6}

// instrumentFor is what such a feature is measured with.
func instrumentFor(f *bench.Feature, m float64) string {
	has := func(words ...string) bool {
		return slices.ContainsFunc(words, func(w string) bool { return strings.Contains(f.Code, w) })
	}
	switch {
	case f.Def.Method == family.MethodFit:
		return comparator
	case m < 0.45e-3:
		return dial
	case has("length", "height", "span") || m > 150e-3:
		return caliper
	case f.Def.Method == family.MethodDepth || has("depth", "core"):
		return depth
	case f.Def.Wears == "bore" || has("bore"):
		return boreGauge
	}
	return micrometer
}
