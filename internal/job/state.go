package job

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"sync"

	"corvek/core/build"
	"corvek/core/calc"
	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/fluid"
	"corvek/core/kit"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/shop"
	"corvek/core/unit"
	"corvek/internal/store"
)

// State is one unit of a job with everything worked out from it.
type State struct {
	Shop shop.Letterhead // at the head of the papers
	// Families gives the family of a unit, as it is for that unit.
	Families  func(u *unit.Unit) *family.Family
	Job       *unit.Job
	Unit      *unit.Unit
	Family    *family.Family     // as it is for this unit
	Plain     *family.Family     // as it is for most
	Knowledge *explain.Knowledge // of what is on this unit
	Known     *explain.Knowledge // of its family
	Round     int                // at work

	Parts  []*PartState // that are on this unit, in the order they came off
	Absent []*unit.Part // of the family's, that are not
	ByCode map[string]*PartState

	Duty     Duty
	Found    proof.Model // with the clearances as found
	Rebuilt  proof.Model // with the best knowledge after the work
	Gaps     []GapState
	Leak     LeakState
	Shims    *ShimState
	Findings []explain.Finding
	Noted    map[string]unit.Mark // what was last said of each mark by hand, by code
	Sources  map[string]string    // evidence code → where an automatic finding comes from
	Cause    *explain.Cause       // concluded
	Conclude unit.Conclusion

	lessons   []shop.Lesson   // that earlier jobs left for this variant
	overhaul  []decide.Choice // what each part would come to in a full overhaul
	explained func() explain.Explanation
	next      func() []explain.Check
	told      func() ([]explain.Story, *explain.Evidence)
	turns     func() []explain.Turn

	Places    []kit.Place
	KitIssues []kit.Issue
	Pieces    []*PieceState
	Mixed     string          // note on rubbers that do not bear the same grease
	Attempts  []*AttemptState // without the as-received one
	Received  *AttemptState
	Stops     map[string][]Stop

	Gauge        family.Gauge
	Variant      family.Resolution
	Balance      *calc.Output // nil until enough is known
	BalanceFault string
	Tools        map[string]shop.Instrument // by name, small letters
	today        unit.Date
	kept         sync.Map // drawings by their key
}

// Kept gives what was drawn from the state before under the key, or draws it. Of a
// drawing that came to nothing, nothing is kept.
func (st *State) Kept(key string, draw func() string) string {
	if s, ok := st.kept.Load(key); ok {
		return s.(string)
	}
	s := draw()
	if s != "" {
		st.kept.Store(key, s)
	}
	return s
}

// Duty is the unit's duty in base units; the Has flags tell what is known.
type Duty struct {
	proof.Duty
	Density float64 // kg/m3
}

// Theory reports whether a theoretical flow can be given.
func (d Duty) Theory() bool { return d.HasDisplacement && d.HasSpeed }

// PartState is a part with its layers.
type PartState struct {
	*unit.Part
	Def      *family.Part
	Features []*FeatureState
	Worst    metrology.Verdict
	Missing  int // pieces not accounted for
	Loose    int // whole ones found loose
	Seen     []SeenMark

	LooseBits int  // pieces of broken ones found loose
	slides    bool // moved by hand once it is in: a spool of a valve, a piston of a cylinder
	Proposal  decide.Proposal
	Decision  unit.Decision
	Step      unit.Step
	Place     *kit.Place
	Filled    int
	Stack     *StackState // nil where order and facing of a pack do not matter
}

// Choice is what is done with the part: a person's choice, else the proposal.
func (p *PartState) Choice() decide.Choice {
	if p.Decision.Choice != "" {
		return decide.Choice(p.Decision.Choice)
	}
	return p.Proposal.Choice
}

// Used is the largest share of an allowance used on the part.
func (p *PartState) Used() (used float64, ok bool) {
	for _, f := range p.Features {
		if f.Found.HasUsed && f.Found.Any && (!ok || f.Found.Used > used) {
			used, ok = f.Found.Used, true
		}
	}
	return used, ok
}

// FeatureState is a feature with what its readings say.
type FeatureState struct {
	*unit.Feature
	Def     *family.Feature
	Part    *PartState
	Spec    measure.Spec
	Found   measure.Result
	Built   measure.Result
	entries map[string]map[string]*unit.Reading // stage → slot
}

// Path is the name used by leaks and knowledge: part.feature.
func (f *FeatureState) Path() string { return f.Part.Code + "." + f.Code }

// Entry is what was typed in a slot.
func (f *FeatureState) Entry(stage, slot string) string {
	if r := f.entries[stage][slot]; r != nil {
		return r.Value
	}
	return ""
}

// Size is the figure in a slot, in m; ok is false where there is none.
func (f *FeatureState) Size(stage, slot string) (m float64, ok bool) {
	r := f.entries[stage][slot]
	if r == nil {
		return 0, false
	}
	return known(r.Size)
}

// Result is the evaluation of a stage.
func (f *FeatureState) Result(stage string) measure.Result {
	if stage == unit.StageBuilt {
		return f.Built
	}
	return f.Found
}

// ExtraLeaves are leaves tried that are not in the usual set.
func (f *FeatureState) ExtraLeaves(stage string) []string {
	var out []string
	for slot := range f.entries[stage] {
		leaf, ok := strings.CutPrefix(slot, "leaf:")
		if !ok {
			continue
		}
		known := false
		for _, l := range f.Def.Leaves {
			known = known || l == leaf
		}
		if !known {
			out = append(out, leaf)
		}
	}
	return out
}

// compute works out the state of one unit, counted from 1, with what the shop knows.
func (s *Service) compute(c *catalog, j *unit.Job, number int) (*State, error) {
	u := j.Unit(number)
	if u == nil {
		return nil, fmt.Errorf("job %s has no unit %d: %w", j.Tag, number, store.ErrNotFound)
	}
	f := c.familyOf(u)
	if f == nil {
		return nil, fmt.Errorf("the family %q of unit %s is not in the library", u.Family, u.Name)
	}
	st := &State{
		Shop: c.head, Job: j, Unit: u, Family: f, Tools: c.tools, lessons: lessonsFor(c.lessons, j.Tag, u),
		Families: c.familyOf, Plain: c.lib[u.Family],
		Known: s.Knowledge.For(f.Code), Knowledge: s.Knowledge.For(f.Code).WithCounts(c.counts[f.Code]),
		Round: u.Round(), ByCode: map[string]*PartState{}, Sources: map[string]string{},
		today: unit.DateOf(s.moment()),
	}
	st.readParts()
	st.Knowledge = st.Knowledge.Of(st.has())
	st.readDuty()
	st.identify()
	st.balance()
	st.Knowledge = st.Knowledge.In(st.situation())
	st.propose()
	st.shims()
	st.models()
	st.attempts()
	st.weigh()
	st.kit()
	st.stops()
	return st, nil
}

func (st *State) readParts() {
	loose, bits := map[string]int{}, map[string]int{}
	for _, l := range st.Unit.Loose {
		if l.Bit {
			bits[l.Part] += l.Count
		} else {
			loose[l.Part] += l.Count
		}
	}
	for _, row := range st.Unit.Parts {
		def := row.Def(st.Family)
		if !row.OnUnit() {
			st.Absent = append(st.Absent, row)
			continue
		}
		p := &PartState{Part: row, Def: def, Loose: loose[row.Code], LooseBits: bits[row.Code],
			slides: build.Slides(st.Family.Action, def.Kind)}
		p.Seen = st.seen(p)
		p.Missing = stripPart(p).Missing()
		if def.Stack != nil {
			p.Stack = newStack(def.Stack, row, st.Round)
		}
		for _, f := range row.Features {
			if fd, ok := def.FeatureByCode(f.Code); ok {
				fs := newFeature(f, fd, p)
				p.Features = append(p.Features, fs)
				p.Worst = metrology.Worst(p.Worst, fs.Found.Verdict)
			}
		}
		if d := row.Decision(); d != nil {
			p.Decision = *d
		}
		if b := row.Built(st.Round); b != nil {
			p.Step = *b
		}
		st.Parts = append(st.Parts, p)
		st.ByCode[row.Code] = p
	}
}

func newFeature(row *unit.Feature, def *family.Feature, p *PartState) *FeatureState {
	fs := &FeatureState{Feature: row, Def: def, Part: p, Spec: measure.SpecOf(def, row),
		entries: map[string]map[string]*unit.Reading{}}
	for _, stage := range []string{unit.StageFound, unit.StageBuilt} {
		fs.entries[stage] = map[string]*unit.Reading{}
		for _, r := range row.Newest(stage) {
			fs.entries[stage][r.Slot] = r
		}
	}
	fs.Found = measure.Judge(def, row, unit.StageFound)
	fs.Built = measure.Judge(def, row, unit.StageBuilt)
	return fs
}

// Life is how fast a feature wears and how long it still has, where the hours
// run, the size when new and the limit are known.
func (st *State) Life(f *FeatureState) (l metrology.Life, ok bool) {
	r := f.Found
	seconds, ok := known(st.Unit.Hours)
	hours := seconds / 3600
	if !ok || hours <= 0 || !r.HasValue || !r.HasNominal || r.IsLeaves {
		return l, false
	}
	limit := 0.0
	switch {
	case f.Def.Wears == "bore" && r.Limits.HasUpper:
		limit = r.Limits.Upper
	case f.Def.Wears == "shaft" && r.Limits.HasLower:
		limit = r.Limits.Lower
	default:
		return l, false
	}
	if limit == r.Nominal {
		return l, false
	}
	return metrology.WearLife(r.Nominal, limit, r.Value, hours), true
}

// known gives a size in base units; ok is false for one that was not given or
// that cannot be read any more.
func known(q quantity.Quantity) (si float64, ok bool) {
	if q.IsZero() || math.IsNaN(q.SI) {
		return 0, false
	}
	return q.SI, true
}

func (st *State) readDuty() {
	d, u := &st.Duty, st.Unit
	d.Displacement, d.HasDisplacement = known(u.Displacement)
	d.Speed, d.HasSpeed = known(u.Speed)
	d.Pressure, d.HasPressure = known(u.DutyPressure)
	d.Density = fluid.DensityOf(u.Fluid)
	if rho, ok := known(u.Density); ok {
		d.Density = rho
	}
	if nu, ok := known(u.Viscosity); ok {
		d.Viscosity, d.HasViscosity = nu*d.Density, true
	}
}

func found(p *PartState) (n int, counted bool) {
	n, err := strconv.Atoi(p.Found)
	return n, err == nil
}
