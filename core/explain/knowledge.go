// Package explain weighs what was found against what could have caused it.
//
// It is Bayes' rule with the likelihoods said in words: how often would this
// mark be there if that were the cause. A cause that says nothing of a mark
// leaves it at its background rate. Marks are taken as independent given the
// cause. A measured figure counts by degree: the nearer it is to its limit and
// beyond, the more it counts as seen (virtual evidence, J. Pearl, Probabilistic
// Reasoning in Intelligent Systems, 1988, section 2.3).
package explain

import (
	"math"
	"strings"
)

// Word is a frequency said in words.
type Word string

// frequencies fixes the figures behind the words.
var frequencies = map[Word]float64{
	"almost_always": 0.95, "usual": 0.75, "sometimes": 0.40, "seldom": 0.12, "almost_never": 0.02,
	Hardly: 0.002,
}

// Hardly is the background of a telltale: hardly anything but its own cause leaves it.
const Hardly Word = "hardly_ever"

// P is the probability behind the word.
func (w Word) P() float64 { return frequencies[w] }

// Text writes the word for a reader.
func (w Word) Text() string { return strings.ReplaceAll(string(w), "_", " ") }

// Evidence is something that can be looked for.
type Evidence struct {
	Code       string   `yaml:"code"`
	Text       string   `yaml:"text"`
	Part       string   `yaml:"part"`  // family part it is found on
	Needs      []string `yaml:"needs"` // one of these is on the unit: an assembly, a part, a @kind
	Look       string   `yaml:"look"`  // how to look
	Tool       string   `yaml:"tool"`
	At         Reach    `yaml:"at"`       // what must be done to the unit before it can be looked at
	Runs       bool     `yaml:"runs"`     // the unit must run for it
	There      bool     `yaml:"there"`    // at its machine, and not on the unit
	Before     Reach    `yaml:"before"`   // too late for it once the unit has come so far
	Question   string   `yaml:"question"` // one question tells it and others of the same name
	After      []string `yaml:"after"`    // asked only once one of these was seen: before, it makes no sense
	Minutes    float64  `yaml:"minutes"`  // of the look itself
	Onset      string   `yaml:"onset"`    // sudden, hours or gradual
	Background Word     `yaml:"background"`
	BreakUp    bool     `yaml:"break_up"` // pieces went round with the oil
	Destroys   bool     `yaml:"destroys"` // looking spoils what others would look at
	Unwashed   bool     `yaml:"unwashed"` // gone once its part was wiped, washed or freed
	Age        string   `yaml:"age"`      // how a fresh mark is told from an old one
	Good       bool     `yaml:"good"`     // it tells that something is as it should be
	From       From     `yaml:"from"`     // where it comes from by itself
	Also       []From   `yaml:"also"`     // and where else: one of them is enough
}

// From ties evidence to what other stations already know. One field is set, or a
// mark beside one that measures the same.
type From struct {
	Used       string   `yaml:"used"`                    // part.feature: share of the allowance used
	Grade      string   `yaml:"grade"`                   // part.feature: grade by touch
	Mark       *MarkOn  `yaml:"mark" json:",omitzero"`   // as noted on a part
	Missing    string   `yaml:"missing"`                 // part whose count does not tie
	Symptom    string   `yaml:"symptom"`                 // symptom of the complaint
	Efficiency string   `yaml:"efficiency"`              // test step as received
	Odd        string   `yaml:"odd"`                     // part.feature: one piece unlike its sisters
	Gauge      Answered `yaml:"gauge" json:",omitzero"`  // a question asked at the machine
	Stack      string   `yaml:"stack"`                   // part whose stack is not as it should be
	Word       Answered `yaml:"word" json:",omitzero"`   // a step of the test as received
	Facing     *PartOf  `yaml:"facing" json:",omitzero"` // that came out the wrong way round
	Fluid      string   `yaml:"fluid"`                   // water, burnt, metal or gained: what the drained fluid told
	Work       string   `yaml:"bench"`                   // stiff, piece_left, still_fails, received_good: at the bench
	Stuck      *PartOf  `yaml:"stuck" json:",omitzero"`  // that did not come off freely
	Never      *PartOf  `yaml:"never" json:",omitzero"`  // that belongs on the unit and was never fitted
	Step       string   `yaml:"step"`                    // of the test: out of its limits as received, or later
	Off        Sided    `yaml:"off" json:",omitzero"`    // part.feature=low: measured beyond a limit on that side
}

// OfStep is the code of the test step that it comes from, and the side on which that is out: low, high, or "" for
// either.
func (f From) OfStep() (code, side string) {
	code, side, _ = strings.Cut(f.Step, "=")
	return code, side
}

// Froms are all places where it comes from by itself.
func (e *Evidence) Froms() []From { return append([]From{e.From}, e.Also...) }

// Asks reports a mark that asks for an explanation: what is on every machine, or is good, does not.
func (e *Evidence) Asks() bool {
	return e.From.Symptom != "" || !e.Good && e.Background.P() < Word("sometimes").P()
}

// Telltale reports a mark that hardly anything but its own cause leaves. It is sure
// enough to be told from anything else, so that alone it outweighs what is usual.
func (e *Evidence) Telltale() bool { return e.Background == Hardly }

// The slips of an eye that looked: a mark that is there is passed over, and one that is not there is taken for
// something else. What is hardly ever there by itself is also hardly ever imagined: a false sight is at most as
// likely as a quarter of the mark's own background.
const (
	passedOver = 0.02
	imagined   = 0.25 // of the background
	mostFalse  = 0.02
)

// falseSight is how often the mark is said to be there and is not.
func (e *Evidence) falseSight() float64 { return math.Min(mostFalse, imagined*e.Background.P()) }

// likelihood is how likely a finding of some strength is where the mark is there with probability p: by the slips of
// an eye where it was surely seen or surely not, by degree in between.
func (e *Evidence) likelihood(p, strength float64) float64 {
	said := (1-passedOver)*p + e.falseSight()*(1-p)
	switch {
	case strength == Seen:
		return said
	case strength == Absent:
		return 1 - said
	}
	return soft(p, strength)
}

// Empty reports that nothing but looking brings this evidence.
func (f From) Empty() bool { return f == From{} }

// Cause is a root cause.
type Cause struct {
	Code       string          `yaml:"code"`
	Name       string          `yaml:"name"`
	Where      string          `yaml:"where"` // inside, outside, assembly or handling
	Onset      string          `yaml:"onset"`
	Prior      Word            `yaml:"prior"`
	Points     map[string]Word `yaml:"points"`
	Leads      []string        `yaml:"leads_to"` // what it brings about when nobody stops it
	Cautions   []string        `yaml:"cautions"`
	Chain      []Link          `yaml:"chain"` // from complaint to root
	Remedy     string          `yaml:"remedy"`
	Renews     []string        `yaml:"renews"` // parts and @kinds that the remedy renews
	Prevention string          `yaml:"prevention"`
	Action     string          `yaml:"action"`    // outside the unit, before it runs again
	Needs      []string        `yaml:"needs"`     // one of these is on the unit: an assembly, a part, a @kind
	LeftOver   bool            `yaml:"left_over"` // named when nothing else explains it, as fair wear is
	Machine    AtMachine       `yaml:"machine"`   // what it says of the unit before it is opened
}

// AtMachine is what a cause says of the unit while it is still on its machine.
type AtMachine string

// What is said. Of most causes nothing: they are looked for in the unit.
const (
	UnitSound    AtMachine = "sound" // the unit itself is whole, and is not opened for it
	MachineFirst AtMachine = "first" // it is settled at the machine before the unit is opened
)

// Places where a cause can lie, and how a reader is told.
var places = map[string]string{"inside": "inside the unit", "outside": "outside the unit",
	"assembly": "at assembly", "handling": "in handling or operation"}

// Lies says where the cause lies.
func (c *Cause) Lies() string { return Lies(c.Where) }

// Lies says in words where a cause lies: inside, outside, assembly or handling.
func Lies(where string) string { return places[where] }

// Link is one step of a why-chain with the evidence it rests on.
type Link struct {
	Text  string   `yaml:"text"`
	Cites []string `yaml:"cites"`
}

// Knowledge is what is known of one family's failures.
type Knowledge struct {
	Family   string
	Evidence []Evidence
	Causes   []Cause
	Together float64 // prior probability that two root causes met; 0 leaves pairs out

	counts map[string]int    // how often the shop concluded each cause
	alias  map[string]string // marks that are kept under another code

	situation *Situation // how far the unit has come; nil: all can be reached
}

// EvidenceByCode finds an item of evidence.
func (k *Knowledge) EvidenceByCode(code string) (*Evidence, bool) {
	code = k.known(code)
	for i := range k.Evidence {
		if k.Evidence[i].Code == code {
			return &k.Evidence[i], true
		}
	}
	return nil, false
}

// CauseByCode finds a cause.
func (k *Knowledge) CauseByCode(code string) (*Cause, bool) {
	for i := range k.Causes {
		if k.Causes[i].Code == code {
			return &k.Causes[i], true
		}
	}
	return nil, false
}

// WithCounts is the same knowledge with the shop's own closed jobs counted in:
// how often each cause was concluded for the family.
func (k *Knowledge) WithCounts(counts map[string]int) *Knowledge {
	if len(counts) == 0 {
		return k
	}
	c := *k
	c.counts = counts
	return &c
}

// Base is the knowledge of all families. Families without their own use the general one.
type Base map[string]*Knowledge

// For gives the knowledge for a family.
func (b Base) For(family string) *Knowledge {
	if k := b[family]; k != nil {
		return k
	}
	return b["general"]
}
