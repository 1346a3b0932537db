package job

import (
	"fmt"
	"strconv"
	"strings"
	"time"

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
	"corvek/internal/store"
)

// The stages a reading belongs to.
const (
	StageFound = "found"
	StageBuilt = "built"
)

// State is one unit of a job with everything worked out from it.
type State struct {
	Job       *store.Job
	Unit      *store.Unit
	Family    *family.Family
	Knowledge *explain.Knowledge
	Round     *store.Round

	Parts  []*PartState // in the order they came off
	ByCode map[string]*PartState
	ByID   map[uint]*PartState

	Duty        Duty
	Found       proof.Model // with the clearances as found
	Rebuilt     proof.Model // with the best knowledge after the work
	Gaps        []GapState
	Leak        LeakState
	Shims       *ShimState
	Findings    []explain.Finding
	Noted       map[string]store.Evidence // what was last said of each mark by hand, by code
	Sources     map[string]string         // evidence code → where an automatic finding comes from
	Explain     explain.Explanation
	Stories     []explain.Story // the two likeliest ways to tell the case
	Decider     *explain.Evidence
	WouldChange []explain.Turn
	Cause       *explain.Cause // concluded
	Conclude    store.Conclusion

	Places    []kit.Place
	KitIssues []kit.Issue
	Attempts  []*AttemptState // without the as-received one
	Received  *AttemptState
	Economy   Economy
	Stops     map[string][]Stop

	Gauge        family.Gauge
	Variant      family.Resolution
	Balance      *calc.Output // nil until enough is known
	BalanceFault string
	Tools        map[string]store.Instrument // by name, small letters
	now          time.Time
}

// Duty is the unit's duty in base units; the Has flags tell what is known.
type Duty struct {
	Displacement, Speed, Pressure, Viscosity, Density    float64
	HasDisplacement, HasSpeed, HasPressure, HasViscosity bool
}

// Theory reports whether a theoretical flow can be given.
func (d Duty) Theory() bool { return d.HasDisplacement && d.HasSpeed }

// PartState is a part with its layers.
type PartState struct {
	*store.Part
	Def      *family.Part
	Features []*FeatureState
	Worst    metrology.Verdict
	Missing  int // pieces not accounted for
	Loose    int
	Proposal decide.Proposal
	Decision store.Decision
	Step     store.BuildStep
	Place    *kit.Place
	Filled   int
	Stack    *StackState // nil where order and facing of a pack do not matter
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

// Routes are the reworks that apply when the part is reworked.
func (p *PartState) Routes() []family.Rework {
	var out []family.Rework
	for _, r := range p.Def.Reworks {
		for _, f := range p.Features {
			if f.Code == r.For && f.Found.Verdict == metrology.Out {
				out = append(out, r)
			}
		}
	}
	return out
}

// FeatureState is a feature with what its readings say.
type FeatureState struct {
	*store.Feature
	Def     *family.Feature
	Part    *PartState
	Spec    measure.Spec
	Found   measure.Result
	Built   measure.Result
	entries map[string]map[string]string // stage → slot → value
}

// Path is the name used by leaks and knowledge: part.feature.
func (f *FeatureState) Path() string { return f.Part.Code + "." + f.Code }

// Entry is what was typed in a slot.
func (f *FeatureState) Entry(stage, slot string) string { return f.entries[stage][slot] }

// Result is the evaluation of a stage.
func (f *FeatureState) Result(stage string) measure.Result {
	if stage == StageBuilt {
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

// Compute works out the state of one unit, counted from 1.
func (s *Service) Compute(j *store.Job, unit int) (*State, error) {
	if unit < 1 || unit > len(j.Units) {
		return nil, fmt.Errorf("job %s has no unit %d: %w", j.Tag, unit, store.ErrNotFound)
	}
	u := &j.Units[unit-1]
	f := s.Families()[u.Family]
	if f == nil {
		return nil, fmt.Errorf("the family %q of unit %s is not in the library", u.Family, u.Name)
	}
	st := &State{Job: j, Unit: u, Family: f, Knowledge: s.Knowledge.For(f.Code).WithCounts(s.concluded(f.Code)),
		now: s.Now(), ByCode: map[string]*PartState{}, ByID: map[uint]*PartState{}, Sources: map[string]string{}}
	st.Round = &u.Rounds[len(u.Rounds)-1]
	if tools := s.shelf.tools.Load(); tools != nil {
		st.Tools = *tools
	}
	st.readParts()
	st.readDuty()
	st.identify()
	st.balance()
	st.propose()
	st.shims()
	st.models()
	st.attempts()
	st.explain()
	st.kit()
	st.economy()
	st.stops()
	return st, nil
}

func (st *State) readParts() {
	loose := map[uint]int{}
	for _, l := range st.Unit.LooseItems {
		if l.PartID != nil {
			loose[*l.PartID] += l.Count
		}
	}
	for i := range st.Unit.Parts {
		row := &st.Unit.Parts[i]
		def, ok := st.Family.PartByCode(row.Code)
		if !ok {
			def = extraPart(row)
		}
		p := &PartState{Part: row, Def: def, Loose: loose[row.ID]}
		p.Missing = stripPart(p).Missing()
		if def.Stack != nil {
			p.Stack = newStack(def.Stack, row.StackFound, row.StackFit)
		}
		for k := range row.Features {
			if fd, ok := def.FeatureByCode(row.Features[k].Code); ok {
				fs := newFeature(&row.Features[k], fd, p)
				p.Features = append(p.Features, fs)
				p.Worst = metrology.Worst(p.Worst, fs.Found.Verdict)
			}
		}
		p.Decision = latest(row.Decisions, func(d store.Decision) int { return d.Round })
		for _, b := range row.BuildSteps {
			if b.Round == st.Round.Number {
				p.Step = b
			}
		}
		st.Parts = append(st.Parts, p)
		st.ByCode[row.Code], st.ByID[row.ID] = p, p
	}
}

// extraPart draws a part that the family does not know by what it was said to
// look like.
func extraPart(row *store.Part) *family.Part {
	kind := row.Kind
	if kind == "" {
		kind = "plug"
	}
	return &family.Part{Code: row.Code, Name: row.Name, Kind: kind, Branch: row.Branch, Count: row.Expected, Shape: family.Shape{W: 20, OD: 40, ID: 24, Top: 30, Base: -30, Step: 6,
		Shaft: []family.Segment{{L: 8, D: 20}, {L: 12, D: 36}}}}
}

// latest gives the row of the highest round, the zero row when there is none.
func latest[T any](rows []T, round func(T) int) T {
	var best T
	top := -1
	for _, r := range rows {
		if n := round(r); n > top {
			best, top = r, n
		}
	}
	return best
}

func newFeature(row *store.Feature, def *family.Feature, p *PartState) *FeatureState {
	fs := &FeatureState{Feature: row, Def: def, Part: p, entries: map[string]map[string]string{StageFound: {}, StageBuilt: {}}}
	fs.Spec = measure.Spec{
		Method: def.Method, Nominal: def.Nominal, Lower: row.Lower, Upper: row.Upper, Measured: row.Measured, LimitFor: row.LimitFor,
		Wears: def.Wears, Resolution: row.Resolution, Rows: def.Rows, Cols: def.Cols, Leaves: def.Leaves, WorstGrade: def.Worst,
	}
	// A later round's readings replace those of an earlier one as a whole:
	// mixing leaves of before and after a rework would contradict itself.
	newest := map[string]int{}
	for _, r := range row.Readings {
		newest[r.Stage] = max(newest[r.Stage], r.Round)
	}
	lists := map[string][]measure.Entry{}
	for _, r := range row.Readings {
		if r.Round == newest[r.Stage] {
			fs.entries[r.Stage][r.Slot] = r.Value
			lists[r.Stage] = append(lists[r.Stage], measure.Entry{Slot: r.Slot, Value: r.Value})
		}
	}
	fs.Found = measure.Evaluate(fs.Spec, lists[StageFound])
	fs.Built = measure.Evaluate(fs.Spec, lists[StageBuilt])
	return fs
}

// Life is how fast a feature wears and how long it still has, where the hours
// run, the size when new and the limit are known.
func (st *State) Life(f *FeatureState) (l metrology.Life, ok bool) {
	r := f.Found
	hours, known := parseHours(st.Unit.Hours)
	if !known || hours <= 0 || !r.HasValue || !r.HasNominal || r.IsLeaves {
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

// parseHours reads hours run, a bare figure counting as hours.
func parseHours(text string) (float64, bool) {
	if text == "" {
		return 0, false
	}
	q, err := quantity.ParseDefault(text, quantity.Time, "h")
	return q.SI / 3600, err == nil
}

// parse reads a stored quantity; ok is false for an empty or unreadable one.
func parse(text string, d quantity.Dimension) (float64, bool) {
	if text == "" {
		return 0, false
	}
	q, err := quantity.Parse(text, d)
	return q.SI, err == nil
}

func (st *State) readDuty() {
	d, u := &st.Duty, st.Unit
	d.Displacement, d.HasDisplacement = parse(u.Displacement, quantity.Displacement)
	d.Speed, d.HasSpeed = parse(u.Speed, quantity.Rotation)
	d.Pressure, d.HasPressure = parse(u.DutyPressure, quantity.Pressure)
	d.Density = fluid.UsualDensity
	if rho, ok := parse(u.Density, quantity.Density); ok {
		d.Density = rho
	}
	if nu, ok := parse(u.Viscosity, quantity.KinematicViscosity); ok {
		d.Viscosity, d.HasViscosity = nu*d.Density, true
	}
}

func (st *State) propose() {
	parts := make([]decide.Part, len(st.Parts))
	for i, p := range st.Parts {
		dp := decide.Part{Code: p.Code, Name: p.Name, Renew: p.Def.Renew, Wearing: p.Def.Wearing, Set: p.Def.Set}
		if p.Off && p.Explained == "" {
			dp.Short = max(0, p.Missing)
		}
		if p.Off && p.Explained != "" && p.Missing > 0 {
			dp.Short = p.Missing
		}
		for _, f := range p.Features {
			dp.Findings = append(dp.Findings, decide.Finding{Code: f.Code, Name: f.Def.Name, Verdict: f.Found.Verdict, Must: f.Def.MustHave,
				HasLimit: !f.Found.Limits.Empty() || f.Def.Method == family.MethodGrade})
		}
		for _, r := range p.Def.Reworks {
			dp.Routes = append(dp.Routes, decide.Route{Code: r.Code, Name: r.Name, For: r.For, Hours: r.Hours, Days: r.Days})
		}
		parts[i] = dp
	}
	for i, prop := range decide.Propose(parts, decide.Policy(st.Job.Policy)) {
		st.Parts[i].Proposal = prop
	}
}

func (st *State) kit() {
	var pieces []kit.Piece
	for _, k := range st.Unit.KitPieces {
		pieces = append(pieces, kit.Piece{ID: k.ID, Name: k.Name, Count: k.Count, Place: deref(k.PartID), LeftReason: k.LeftReason})
	}
	for _, p := range st.Parts {
		if p.Choice() != decide.Replace {
			continue
		}
		st.Places = append(st.Places, kit.Place{ID: p.ID, Name: p.Name, Need: p.Expected})
		p.Filled = kit.Filled(p.ID, pieces)
	}
	for i := range st.Places {
		st.ByID[st.Places[i].ID].Place = &st.Places[i]
	}
	st.KitIssues = kit.Check(st.Places, pieces)
}

func deref(id *uint) uint {
	if id == nil {
		return 0
	}
	return *id
}

func found(p *PartState) (n int, counted bool) {
	n, err := strconv.Atoi(p.Found)
	return n, err == nil
}
