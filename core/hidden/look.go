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
	*Truth
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
	if !Shows(ref) {
		return no("nothing is to be looked at there: that is yours to say")
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
		return b.complaint(s, ref), nil
	case unit.ScopeEvidence:
		return s.is(b.there(ref.Code)), nil
	case unit.ScopePartMark:
		there := slices.ContainsFunc(b.True.ByCode[ref.Part].Seen, func(m bench.SeenMark) bool {
			return m.Code == ref.Code
		})
		return s.is(there, true), nil
	case unit.ScopeReading:
		return b.reading(s, ref)
	case unit.ScopePoint:
		return b.point(s, ref)
	case unit.ScopeStep:
		return b.felt(s), nil
	}
	return b.asItIs(s, ref)
}

// feeds are the marks of which a field tells.
func (b *Bench) feeds(ref unit.Ref) []*explain.Evidence { return b.tells[place(ref)] }

// closed says why something cannot be looked at as the unit lies there, "" where it can.
func (b *Bench) closed(ref unit.Ref, feeds []*explain.Evidence) string {
	if ref.Part != "" && ref.Scope != unit.ScopeStep {
		p := b.Record.ByCode[ref.Part]
		switch {
		case p == nil:
			return "it is not on this unit"
		case b.True.ByCode[ref.Part] == nil:
			return "nothing was made up of that: it is a part of your own"
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
	if ref.Scope != unit.ScopeReading && b.inTime(ref) {
		return ""
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

// inTime reports that something was looked at before it went: by itself, or with its part all over.
func (b *Bench) inTime(ref unit.Ref) bool {
	with := ref.String()
	if ref.Scope == unit.ScopePartMark {
		with = b.allOver(ref.Part)
	}
	for i, l := range b.Looked {
		switch {
		case l.Gone:
		case l.Field == ref.String():
			return true
		case l.Field == with:
			e := b.True.Knowledge.Marked(ref.Part, b.True.ByCode[ref.Part].Def.Kind, ref.Code)
			if e == nil || !e.Unwashed || !b.until(i).washed(e, ref.Part) {
				return true
			}
		}
	}
	return false
}

// allOver is the address at which a part is looked all over.
func (b *Bench) allOver(part string) string { return b.True.Unit.PartRef(part, "sound").String() }

// until is the unit as it lay there when so many looks were taken.
func (b *Bench) until(n int) *Bench {
	c := *b
	c.Looked = b.Looked[:n]
	return &c
}

// told are the marks that a look told, the one that was taken after so many others: with a part that is looked all over
// those that it bears, and those that it does not, but for what was wiped by then.
func (b *Bench) told(ref unit.Ref, after int) []*explain.Evidence {
	p := b.True.ByCode[ref.Part]
	if ref.Name != "sound" || p == nil {
		return b.feeds(ref)
	}
	var out []*explain.Evidence
	for at, tells := range b.tells {
		if at.Scope != unit.ScopePartMark || at.Part != ref.Part {
			continue
		}
		for _, e := range tells {
			if !slices.Contains(out, e) && !(e.Unwashed && b.until(after).washed(e, p.Code)) {
				out = append(out, e)
			}
		}
	}
	slices.SortFunc(out, func(a, b *explain.Evidence) int { return strings.Compare(a.Code, b.Code) })
	return out
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
	told  = 0.5 // what stands in the complaint
	short = 2
	again = 0.5
	whole = 4 // a part, all over
)

// minutes are what a look costs: what the mark of which it tells takes, once.
func (b *Bench) minutes(ref unit.Ref, feeds []*explain.Evidence) float64 {
	for _, l := range b.Looked {
		was, err := unit.ParseRef(l.Field)
		if err == nil && (was == ref || was.Part == ref.Part && was.Feature == ref.Feature && ref.Feature != "" ||
			ref.Scope == unit.ScopePartMark && l.Field == b.allOver(ref.Part)) {
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

func (b *Bench) complaint(s Seen, ref unit.Ref) Seen {
	s.Says = "“No, not that.”"
	if slices.Contains(b.True.Job.Symptoms, ref.Code) {
		s.Says, s.Value = "“Yes, that.”", entry.Yes
	}
	return s
}

// asItIs reads off the unit what its record has a field for.
func (b *Bench) asItIs(s Seen, ref unit.Ref) (Seen, error) {
	place, f, err := entry.Resolve(b.Case.True, ref, b.Shop.Entry)
	if err != nil {
		return s, err
	}
	v := f.Get(place)
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
	s.Minutes = whole
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

// is says that a mark is there, or not, or that nobody can tell.
func (s Seen) is(there, known bool) Seen {
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
