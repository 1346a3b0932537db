package family

import (
	_ "embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"corvek/core/quantity"

	"go.yaml.in/yaml/v3"
)

// Test is one step of the bench test, used for the as-received figures too. It is passed
// when what is seen is good and every figure that is held against something is inside.
type Test struct {
	Code     string   `yaml:"code"`
	Name     string   `yaml:"name"`
	How      string   `yaml:"how"`      // what is done, or under what condition
	Pressure float64  `yaml:"pressure"` // set: share of its level that must be reached
	At       Tight    `yaml:"at"`       // of what pressure that is a share
	Any      bool     `yaml:"any"`      // of the figures that can be left out one must be there
	Way      string   `yaml:"way"`      // right or left: asked only of a unit that turns this way
	With     []string `yaml:"with"`     // steps that can be held at once with it
	Seen     bool     `yaml:"-"`        // what is seen is judged, and its figures are the condition
	Reads    []Read   `yaml:"reads"`    // what is read
	Words    []string `yaml:"words"`    // what can be seen
	Good     []string `yaml:"good"`
	Hold     string   `yaml:"hold"`
	Medium   string   `yaml:"medium"` // "" the unit's own fluid
	After    string   `yaml:"after"`  // standard or textbook that the step is done after
	Unsaid   string   `yaml:"unsaid"` // what it does not show, though one might think so
	Pours    string   `yaml:"pours"`  // oil goes in by portions and pushes a part of this size: part.feature
	Received bool     `yaml:"received"`
	Caution  string   `yaml:"caution"`
	Assembly string   `yaml:"-"` // code of the assembly it asks of, "" of the whole unit
}

// Tight is the pressure that a step is run at.
type Tight string

// The pressures that steps are run at.
const (
	AtDuty    Tight = ""        // the unit's duty
	AtHighest Tight = "highest" // the highest that it sees: what its relief lets come, else duty
	AtRodEnd  Tight = "rod_end" // what the load makes of duty on the annulus: duty times cap over annulus
	AtStated  Tight = "stated"  // what was stated for it

	AtComplaint Tight = "complaint" // at which it was complained of, else duty
)

var tights = []Tight{AtDuty, AtHighest, AtRodEnd, AtStated}

// Judging is what a figure is held against.
type Judging string

// The ways to judge a figure.
const (
	ByLimit        Judging = ""             // its limits, where there are any
	ByEfficiency   Judging = "efficiency"   // the family's band of volumetric efficiency
	BySetting      Judging = "setting"      // what a relief is set to
	ByDisplacement Judging = "displacement" // flow over speed against the displacement
	BySlip         Judging = "slip"         // what a motor takes beyond displacement times speed
	ByTwin         Judging = "twin"         // how far two outlets differ, as a share of their mean
	ByDecay        Judging = "decay"        // what a shut-in pressure lost, temperature told apart
	ByRatio        Judging = "ratio"        // held pressure over supply pressure
	ByReseat       Judging = "reseat"       // closing pressure as a share of the cracking pressure
	ByOverall      Judging = "overall"      // what comes out of what goes in, hydraulic against shaft power
	ByShot         Judging = "shot"         // what was caught over the strokes that gave it
)

var judgings = []Judging{ByLimit, ByEfficiency, BySetting, ByDisplacement, BySlip, ByTwin, ByDecay, ByRatio, ByReseat,
	ByOverall, ByShot}

// Read is a figure of a step with what it must be. With Of the limits are shares of it.
type Read struct {
	Figure string  `yaml:"read"`
	Least  string  `yaml:"least"`
	Most   string  `yaml:"most"`
	Of     string  `yaml:"of"` // one of the shares
	By     Judging `yaml:"by"`
	Need   string  `yaml:"need"` // what the job needs of it besides, where that is told
	May    bool    `yaml:"may"`  // can be left out
}

// What limits can be shares of, besides a figure that the job needs.
const (
	OfDuty   = "duty"   // the duty pressure
	OfStart  = "start"  // the pressure at the start of the step
	OfTheory = "theory" // the theoretical flow
	OfTorque = "torque" // the theoretical torque
	OfLeak   = "leak"   // the leak that the machine can bear: told, or allowed creep times area over its time
	OfLayer  = "layer"  // line pull times the radius of its layer, with its factor
)

// shares are what limits can be shares of.
var shares = []string{"", OfDuty, OfStart, OfTheory, OfTorque, OfLeak, OfLayer}

// UnmarshalYAML reads "flow" and "(flow)" as well: a figure without limits, the latter one
// that can be left out.
func (r *Read) UnmarshalYAML(n *yaml.Node) error {
	if n.Kind == yaml.ScalarNode {
		code := strings.Trim(n.Value, "()")
		*r = Read{Figure: code, May: code != n.Value}
		return nil
	}
	type plain Read
	if err := n.Decode((*plain)(r)); err != nil {
		return err
	}
	return unknownKeys(n, "read least most of by need may")
}

// Relative reports that the limits are shares and no figures of their own.
func (r Read) Relative() bool { return r.Of != "" || r.By != ByLimit && r.By != BySetting }

// ReadOf finds a figure of the step.
func (t *Test) ReadOf(figure string) (Read, bool) {
	at := slices.IndexFunc(t.Reads, func(r Read) bool { return r.Figure == figure })
	if at < 0 {
		return Read{}, false
	}
	return t.Reads[at], true
}

// Judges reports that the step holds a figure against something in this way.
func (t *Test) Judges(by Judging) bool {
	return slices.ContainsFunc(t.Reads, func(r Read) bool { return r.By == by })
}

// steps.yaml holds the steps that many plans share.
//
//go:embed steps.yaml
var stepsText []byte

var sharedSteps = sync.OnceValues(func() (map[string]*yaml.Node, error) {
	var list []yaml.Node
	if err := yaml.Unmarshal(stepsText, &list); err != nil {
		return nil, err
	}
	out := map[string]*yaml.Node{}
	for i := range list {
		var is struct {
			Code string `yaml:"code"`
		}
		if err := list[i].Decode(&is); err != nil {
			return nil, fmt.Errorf("steps.yaml: %w", err)
		}
		if out[is.Code] != nil {
			return nil, fmt.Errorf("steps.yaml: the step %s is there twice", is.Code)
		}
		out[is.Code] = &list[i]
	}
	return out, nil
})

const testKeys = "code name how pressure at any way with reads words good hold medium after unsaid pours " +
	"received caution"

// UnmarshalYAML reads a step: written out, or a shared one by its code alone, or a shared
// one with what differs here, under "as".
func (t *Test) UnmarshalYAML(n *yaml.Node) error {
	type plain Test
	if n.Kind == yaml.ScalarNode {
		return t.shared(n.Value, n.Line)
	}
	var uses struct {
		As   string `yaml:"as"`
		Kind string `yaml:"kind"`
	}
	if err := n.Decode(&uses); err != nil {
		return err
	}
	rest := *n
	if uses.As != "" {
		if err := t.shared(uses.As, n.Line); err != nil {
			return err
		}
		rest.Content = nil
		for i := 0; i+1 < len(n.Content); i += 2 {
			if n.Content[i].Value != "as" {
				rest.Content = append(rest.Content, n.Content[i], n.Content[i+1])
			}
		}
	}
	if err := rest.Decode((*plain)(t)); err != nil {
		return err
	}
	if t.Reads == nil {
		t.Reads = readsOfKind[uses.Kind]
	}
	if uses.Kind == "leak" && t.Words == nil {
		t.Words, t.Good = []string{"dry", "sweats", "drips", "runs"}, []string{"dry"}
	}
	return unknownKeys(&rest, testKeys+" kind")
}

// readsOfKind is what a step read that was written before steps said so themselves: a shop's
// own families have such.
var readsOfKind = map[string][]Read{
	"flow":   {{Figure: "pressure"}, {Figure: "flow", By: ByEfficiency}},
	"relief": {{Figure: "pressure", By: BySetting}},
}

func (t *Test) shared(code string, line int) error {
	steps, err := sharedSteps()
	if err != nil {
		return err
	}
	n := steps[code]
	if n == nil {
		return fmt.Errorf("line %d: there is no shared test step %q", line, code)
	}
	type plain Test
	if err := n.Decode((*plain)(t)); err != nil {
		return fmt.Errorf("steps.yaml: %w", err)
	}
	return unknownKeys(n, testKeys)
}

// Accept gives the figures the final test is judged by.
type Accept struct {
	EfficiencyFree float64 `yaml:"efficiency_free"` // volumetric, at no pressure
	EfficiencyDuty float64 `yaml:"efficiency_duty"` // volumetric, at duty pressure
	ReliefLow      float64 `yaml:"relief_low"`      // share of duty pressure
	ReliefHigh     float64 `yaml:"relief_high"`
}

// TestByCode finds a step of the test plan. The step of the complaint comes as it is
// before anything was told: whatever its condition can be is read.
func (f *Family) TestByCode(code string) (*Test, bool) {
	for i := range f.Tests {
		if f.Tests[i].Code == code {
			return &f.Tests[i], true
		}
	}
	if code == ComplaintTest {
		t := anyComplaint
		return &t, true
	}
	return nil, false
}

// test looks a step of the plan through.
func (c *checker) test(t Test) {
	line := c.at["tests"]
	if t.Code == "" || t.Name == "" {
		c.fail(line, "a test step needs a code and a name")
	}
	if t.Code == ComplaintTest {
		c.fail(line, "test %s: the step of the complaint is written for each job", t.Code)
	}
	if len(t.Reads) > len(Figures) {
		c.fail(line, "test %s: reads more than there is", t.Code)
	}
	for _, g := range t.Good {
		if !slices.Contains(t.Words, g) {
			c.fail(line, "test %s: %q is good and not among its words", t.Code, g)
		}
	}
	if len(t.Words) > 0 && len(t.Good) == 0 {
		c.fail(line, "test %s: none of its words is good", t.Code)
	}
	if !slices.Contains(tights, t.At) || t.At != AtDuty && t.Pressure == 0 {
		c.fail(line, "test %s: at is highest, rod_end or stated, of a step with a pressure", t.Code)
	}
	if t.Way != "" && t.Way != "right" && t.Way != "left" {
		c.fail(line, "test %s: way is right or left", t.Code)
	}
	if t.Any && !slices.ContainsFunc(t.Reads, func(r Read) bool { return r.May }) {
		c.fail(line, "test %s: none of its figures can be left out", t.Code)
	}
	c.quantity(line, "test "+t.Code+" hold", t.Hold, quantity.Time)
	if t.Caution != "" {
		c.cautions(line, []string{t.Caution})
	}
	if t.Pours != "" {
		c.pours(line, t)
	}
	seen := map[string]bool{}
	for _, r := range t.Reads {
		if seen[r.Figure] {
			c.fail(line, "test %s: reads %s twice", t.Code, r.Figure)
		}
		seen[r.Figure] = true
		c.read(line, t, r)
	}
}

// pours looks through a step that takes oil by portions: what it pushes has a size, and both are read.
func (c *checker) pours(line int, t Test) {
	part, feature := CutFeature(t.Pours)
	p, known := c.f.PartByCode(part)
	if known {
		_, known = p.FeatureByCode(feature)
	}
	if !known {
		c.fail(line, "test %s: pours names %q, which is no size of a part", t.Code, t.Pours)
	}
	for _, figure := range []string{"volume", "stroke"} {
		if _, reads := t.ReadOf(figure); !reads {
			c.fail(line, "test %s: a step that takes oil by portions reads %s", t.Code, figure)
		}
	}
}

func (c *checker) read(line int, t Test, r Read) {
	f, known := FigureByCode(r.Figure)
	if !known {
		c.fail(line, "test %s: %q is no figure of the stand", t.Code, r.Figure)
	}
	if !slices.Contains(judgings, r.By) {
		c.fail(line, "test %s: a figure is not judged by %q", t.Code, r.By)
	}
	if !slices.Contains(shares, r.Of) && !isNeed(r.Of) {
		c.fail(line, "test %s: a limit is no share of %q", t.Code, r.Of)
	}
	if r.Need != "" && !isNeed(r.Need) {
		c.fail(line, "test %s: %q is nothing that a job needs", t.Code, r.Need)
	}
	dim := f.Dim
	if r.Relative() {
		dim = quantity.Number
	}
	c.quantity(line, "test "+t.Code+" least "+r.Figure, r.Least, dim)
	c.quantity(line, "test "+t.Code+" most "+r.Figure, r.Most, dim)
}
