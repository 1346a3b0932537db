// Package measure turns what was entered for one feature (leaves, readings, a
// grade) into a figure, a verdict and what would settle it.
//
// Entries come as slots: "leaf:7 thou" holds goes, drags or stops; "v1", "v2"
// hold readings; "r1c2" a reading of the grid; "grade" 0 to 4.
package measure

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// What a leaf can do.
const (
	Goes  = "goes"
	Drags = "drags"
	Stops = "stops"
)

// Spec is a feature with what holds on this unit.
type Spec struct {
	Method       family.Method
	New          unit.AsNew
	Lower, Upper quantity.Quantity  // limits given on this unit, which win over the rule
	LimitSource  family.LimitSource // of those
	Rule, Mate   *family.Rule
	Sizes        Sizes  // of the unit, that rules go by
	Measured     string // total or each, "" while nobody said it
	AsksEach     bool   // it must be said
	LimitFor     string
	Wears        string
	Resolution   quantity.Quantity
	Tool         metrology.Tool
	Permitted    quantity.Quantity // largest error of the instrument, where it is certified
	Setting      quantity.Quantity // of the ring or block that it is set by
	Growth       float64           // of the part, per K
	Apart        float64           // K of the part from 20 °C
	Rows, Cols   int
	Leaves       []string
	WorstGrade   int
	Sample       int // readings that are enough; 0 where every place is filled
}

// Needed is how many readings the set must have.
func (s Spec) Needed() int {
	all := len(s.Slots())
	if s.Sample > 0 {
		return min(s.Sample, all)
	}
	return all
}

// unknownWarmth is how far a part of unknown temperature is taken to lie from 20 °C, in K.
const unknownWarmth = 3

// SpecOf is how a feature of a unit is measured: its family's way, with what holds on the unit.
func SpecOf(u *unit.Unit, p *family.Part, def *family.Feature, f *unit.Feature) Spec {
	s := Spec{
		Method:      def.Method,
		New:         f.New,
		Lower:       f.Lower,
		Upper:       f.Upper,
		LimitSource: f.LimitFrom(),
		Rule:        def.Rule,
		Mate:        def.Mate,
		Sizes:       SizesOf(u),
		Measured:    f.Measured,
		LimitFor:    f.LimitFor,
		AsksEach:    def.AsksEach(),
		Wears:       def.Wears,
		Resolution:  f.Resolution,
		Tool:        metrology.Tool(f.Tool),
		Permitted:   f.Permitted,
		Setting:     f.Setting,
		Growth:      metrology.Steel,
		Apart:       unknownWarmth,
		Rows:        def.Rows,
		Cols:        def.Cols,
		Leaves:      def.Leaves,
		WorstGrade:  def.Worst,
		Sample:      def.Sample,
	}
	if s.Tool == "" {
		s.Tool, _ = metrology.ToolNamed(f.Instrument)
	}
	if p.Kind == "body" || p.Kind == "cover" || p.Kind == "gland" {
		s.Growth = metrology.Aluminium // of iron it grows less: the doubt is on the safe side
	}
	if t, ok := u.PartsTemperature.Known(); ok {
		s.Apart = math.Abs(t - roomKelvin)
	}
	return s
}

// After is how a feature is judged once it is built: by the size that a rework brought it to, where one did.
func (s Spec) After(u *unit.Unit, f *unit.Feature) Spec {
	s.Sizes = SizesAfter(u)
	if !f.Made.Low.IsZero() {
		s.New = f.Made.AsNew()
	}
	return s
}

// roomKelvin is the temperature that sizes hold at, 20 °C (ISO 1).
const roomKelvin = 293.15

// known reports that a size was given and can be read.
func known(q quantity.Quantity) bool { return !q.IsZero() && !math.IsNaN(q.SI) }

// Result is what the entries say.
type Result struct {
	Any      bool // something was entered
	Complete bool // every place of the sheet is filled
	ToGo     int  // places still empty, where the rest is in
	Count    int

	HasValue bool
	Value    float64 // m; the worst reading, the middle of an interval, or the least of an open one
	Interval metrology.Interval
	IsLeaves bool
	Summary  metrology.Summary
	Grade    int // −1: none

	Bound               // what it is held against
	Nominal     float64 // the size as new, the middle of its band
	HasNominal  bool
	IsSize      bool    // its readings are sizes, and not gaps or swings
	Uncertainty float64 // of a reading
	Finer       bool    // the instrument cannot tell what may be worn, so nothing is judged
	Lines       []Line  // what is judged beside the size
	Deciding    string  // which of them decides, "" the size
	Unsaid      bool    // nobody said whether a clearance is the whole or that of each side
	Lacks       []string
	Judgement   metrology.Judgement
	Verdict     metrology.Verdict // empty without entries or limits
	Used        float64           // share of the allowance used; valid with HasUsed
	HasUsed     bool
	NextLeaf    float64 // m, valid with HasNext
	Coarse      bool    // the leaves leave the whole band open
	HasNext     bool
	Settle      string // what would settle an open verdict

	Odd    int       // sister that stands out, counted from 1; 0 for none
	OddBy  float64   // how far it is from the middle one, m
	Fits   []float64 // clearance of each measured pair, m; NaN where a half is missing
	Bow    float64   // half of a TIR, m
	HasBow bool

	Faults     map[string]string // by slot: what is wrong with an entry
	Questioned []string          // slots whose figure lies far from the unit's own size
}

// Figure reports that the value is a figure to reckon with: not one of leaves of which none has
// stopped yet, which only says how large a gap is at least, and none of which nobody said of what.
func (r Result) Figure() bool { return r.HasValue && !r.Unsaid && !(r.IsLeaves && !r.Interval.Bounded) }

// CheckEntry refuses an entry that cannot stand in the slot.
func CheckEntry(s Spec, slot, value string) *field.Error {
	if value == "" {
		return nil
	}
	switch {
	case strings.HasPrefix(slot, "leaf:"):
		if !slices.Contains([]string{Goes, Drags, Stops}, value) {
			return field.Errorf(slot, "a leaf goes, drags or stops")
		}
		if _, err := quantity.Parse(strings.TrimPrefix(slot, "leaf:"), quantity.Length); err != nil {
			return field.Errorf(slot, "the leaf's thickness %s", err)
		}
	case slot == "grade":
		if n, err := strconv.Atoi(value); err != nil || n < 0 || n >= len(family.Grades) {
			return field.Errorf(slot, "a grade is one of the five drawn")
		}
	default:
		q, err := quantity.Parse(strings.TrimSuffix(value, unit.QuestionMark), quantity.Length)
		if err != nil {
			return field.Errorf(slot, "%s", err)
		}
		if q.SI < 0 {
			return field.Errorf(slot, "a length cannot be below zero")
		}
	}
	return nil
}

// IsFigure reports that a slot holds a figure and not a leaf or a grade.
func IsFigure(slot string) bool { return slot != "grade" && !strings.HasPrefix(slot, "leaf:") }

// ValidSlot reports that the feature has such a slot.
func ValidSlot(s Spec, slot string) bool {
	if leaf, ok := strings.CutPrefix(slot, "leaf:"); ok {
		_, err := quantity.Parse(leaf, quantity.Length)
		return s.Method == family.MethodFeeler && err == nil
	}
	return slices.Contains(s.Slots(), slot)
}

// Slots lists the places of the sheet in the order they are filled.
func (s Spec) Slots() []string {
	var out []string
	switch s.Method {
	case family.MethodFeeler:
		for _, l := range s.Leaves {
			out = append(out, "leaf:"+l)
		}
	case family.MethodGrade:
		out = []string{"grade"}
	case family.MethodGrid:
		for r := 1; r <= s.Rows; r++ {
			for c := 1; c <= s.Cols; c++ {
				out = append(out, fmt.Sprintf("r%dc%d", r, c))
			}
		}
	case family.MethodFit:
		for i := 1; i <= max(1, s.Cols); i++ {
			out = append(out, fmt.Sprintf("h%d", i), fmt.Sprintf("s%d", i))
		}
	default:
		for i := 1; i <= max(1, s.Rows)*max(1, s.Cols); i++ {
			out = append(out, fmt.Sprintf("v%d", i))
		}
	}
	return out
}

// Evaluate works out the readings of a feature.
func Evaluate(s Spec, entries []*unit.Reading) (r Result) {
	r = Result{Grade: -1, Faults: map[string]string{}, IsSize: s.IsSize()}
	if s.New.Holds() {
		r.Nominal, r.HasNominal = s.New.Middle(), true
	}
	var kept []*unit.Reading
	defer r.ask()
	defer r.unsaid(s)
	for _, e := range entries {
		if e.Value == "" {
			continue
		}
		if e.Questioned() {
			r.Questioned = append(r.Questioned, e.Slot)
			continue
		}
		if IsFigure(e.Slot) && !known(e.Size) || !IsFigure(e.Slot) && CheckEntry(s, e.Slot, e.Value) != nil {
			fault := CheckEntry(s, e.Slot, e.Value)
			if fault == nil {
				fault = field.Errorf(e.Slot, "cannot be read")
			}
			r.Faults[e.Slot] = fault.Text
			continue
		}
		kept = append(kept, e)
	}
	r.Any, r.Count = len(kept) > 0, len(kept)
	r.Bound = s.bound(kept)
	if r.Bound.Lacks != "" {
		r.Lacks = []string{r.Bound.Lacks}
	}
	r.Uncertainty = s.instrument(s.near(kept))
	r.Complete = r.Count >= len(s.Slots())
	if !r.Any {
		return r
	}
	switch s.Method {
	case family.MethodFeeler:
		r.leaves(s, kept)
	case family.MethodGrade:
		r.grade(s, kept)
	case family.MethodFit:
		r.fits(s, kept)
	default:
		r.figures(s, kept)
		r.bow(s)
		r.beside(s, kept)
	}
	r.conclude(s)
	return r
}

// near is about how large what is measured is: its size as new, else the middle reading.
func (s Spec) near(entries []*unit.Reading) float64 {
	if s.New.Holds() {
		return s.New.Middle()
	}
	if all := readings(entries, ""); len(all) > 0 {
		return median(all)
	}
	return 0
}

// unsaid leaves a clearance open while nobody said whether it is the whole or that of each side.
func (r *Result) unsaid(s Spec) {
	if !s.AsksEach || s.Measured != "" || !r.Any {
		return
	}
	r.Unsaid = true
	r.Verdict, r.HasUsed, r.HasNext = metrology.Undecided, false, false
	r.Settle = "say whether that is the whole clearance or that of each side"
}

// ask leaves a feature without a verdict while one of its figures is questioned.
func (r *Result) ask() {
	if len(r.Questioned) == 0 {
		return
	}
	r.Any = true
	r.Verdict, r.HasUsed, r.HasNext = metrology.Undecided, false, false
	r.Settle = "a figure lies far from this unit's own size: tap it or type it again if it is so"
}

func (r *Result) leaves(s Spec, entries []*unit.Reading) {
	var l metrology.Leaves
	for _, e := range entries {
		q, _ := quantity.Parse(strings.TrimPrefix(e.Slot, "leaf:"), quantity.Length)
		switch e.Value {
		case Goes:
			l.Goes = append(l.Goes, q.SI)
		case Drags:
			l.Drags = append(l.Drags, q.SI)
		case Stops:
			l.Stops = append(l.Stops, q.SI)
		}
	}
	iv, err := l.Interval()
	if err != nil {
		r.Faults["leaves"] = err.Error()
		r.Settle = err.Error()
		r.Verdict = metrology.Undecided
		return
	}
	r.IsLeaves, r.Interval = true, iv
	r.Complete = iv.Bounded
	r.HasValue = true
	r.Value = iv.AtLeast
	if mid, ok := iv.Midpoint(); ok {
		r.Value = mid
	}
	r.Verdict = iv.Judge(r.Limits)
	r.Coarse = iv.Coarse(r.Limits)
	if leaf, ok := iv.NextLeaf(r.Limits, l.Tried(), nil); ok {
		r.NextLeaf, r.HasNext = leaf, true
		r.Settle = "try the next leaf"
		if !iv.Bounded {
			r.Settle = "go on until a leaf stops"
		}
	} else if r.Verdict == metrology.Undecided {
		r.Settle = "no leaf lies between; measure it another way"
	}
	r.use(r.Value)
}

func (r *Result) grade(s Spec, entries []*unit.Reading) {
	r.Grade, _ = strconv.Atoi(entries[0].Value)
	r.Verdict = metrology.In
	if r.Grade >= s.WorstGrade {
		r.Verdict = metrology.Out
	}
}

func (r *Result) figures(s Spec, entries []*unit.Reading) {
	values := map[string]float64{}
	var all []float64
	for _, e := range entries {
		values[e.Slot] = e.Size.SI
		all = append(all, e.Size.SI)
	}
	r.Summary = metrology.Summarise(all)
	if s.Method == family.MethodGrid && r.Complete {
		grid := make([][]float64, s.Rows)
		for i := range grid {
			for c := 1; c <= s.Cols; c++ {
				grid[i] = append(grid[i], values[fmt.Sprintf("r%dc%d", i+1, c)])
			}
		}
		r.Summary = metrology.SummariseGrid(grid)
	}
	if s.Method == family.MethodSisters {
		r.sisters(s, values)
	}
	r.judge(s, all)
}

// judge takes the reading that decides and holds it against the limits.
func (r *Result) judge(s Spec, all []float64) {
	r.HasValue = true
	r.Value = r.worst(s, all)
	if r.Limits.Empty() {
		return
	}
	allowance := s.Allowance(r.Limits)
	if metrology.TooFine(allowance, r.Uncertainty) {
		r.Finer, r.Settle = true, finer(allowance, r.Uncertainty)
		return
	}
	r.Judgement = metrology.Judge(r.Value, r.Limits, r.doubt(s), true)
	r.Verdict = r.Judgement.Verdict
	if r.Verdict == metrology.Undecided {
		r.Settle = "nearer to the limit than the instrument can tell; use a finer one"
	}
	// What is out is out; in is a set only when all of it was measured.
	if left := s.Needed() - r.Count; r.Verdict == metrology.In && left > 0 {
		r.Verdict, r.ToGo = metrology.Undecided, left
		r.Settle = fmt.Sprintf("%d in so far, %d to go", r.Count, left)
	}
	r.use(r.Value)
}

// doubt is the uncertainty of the verdict: of the reading, of a size as new that was measured here by the same
// instrument, and of the limit that follows from a band.
func (r *Result) doubt(s Spec) float64 {
	u := r.Uncertainty
	if n := s.New; n.Holds() && r.By != "" && (n.From == unit.NewUnworn || n.From == unit.NewSister ||
		n.From == unit.NewRework) {
		u *= math.Sqrt2
	}
	return u + r.Slack
}

// worst is the reading nearest to, or farthest beyond, a limit; without limits
// it is the one that wear shows in.
func (r *Result) worst(s Spec, all []float64) float64 {
	if r.Limits.Empty() {
		return r.Summary.Worst(metrology.Kind(s.Wears))
	}
	worst, least := all[0], math.Inf(1)
	for _, v := range all {
		j := metrology.Judge(v, r.Limits, 0, false)
		m := math.Inf(1)
		if r.Limits.HasLower {
			m = j.MarginLower
		}
		if r.Limits.HasUpper {
			m = math.Min(m, j.MarginUpper)
		}
		if m < least {
			worst, least = v, m
		}
	}
	return worst
}

// use works out the share of the allowance that is gone. With a nominal figure
// the allowance runs from it to the limit on the side of the deviation; a
// clearance without one runs from its lower to its upper limit.
func (r *Result) use(v float64) {
	l := r.Limits
	switch {
	case r.HasNominal && v >= r.Nominal && l.HasUpper && l.Upper > r.Nominal:
		r.Used, r.HasUsed = (v-r.Nominal)/(l.Upper-r.Nominal), true
	case r.HasNominal && v <= r.Nominal && l.HasLower && l.Lower < r.Nominal:
		r.Used, r.HasUsed = (r.Nominal-v)/(r.Nominal-l.Lower), true
	case r.HasNominal:
		r.Used, r.HasUsed = 0, true
	case r.IsSize: // what was there to wear is not known
	case l.HasLower && l.HasUpper:
		r.Used, r.HasUsed = math.Max(0, (v-l.Lower)/(l.Upper-l.Lower)), true
	case l.HasUpper && l.Upper > 0:
		r.Used, r.HasUsed = v/l.Upper, true
	}
}

// Total gives a clearance as the whole play, whichever way it was taken.
func (r Result) Total(measured string) float64 {
	if measured == string(metrology.Each) {
		return 2 * r.Value
	}
	return r.Value
}
