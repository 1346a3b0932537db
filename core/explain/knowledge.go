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
	"bytes"
	"embed"
	"fmt"
	"strings"

	"go.yaml.in/yaml/v3"
)

//go:embed knowledge/*.yaml
var shipped embed.FS

// Word is a frequency said in words.
type Word string

// frequencies fixes the figures behind the words.
var frequencies = map[Word]float64{
	"almost_always": 0.95, "usual": 0.75, "sometimes": 0.40, "seldom": 0.12, "almost_never": 0.02,
}

// P is the probability behind the word.
func (w Word) P() float64 { return frequencies[w] }

// Text writes the word for a reader.
func (w Word) Text() string { return strings.ReplaceAll(string(w), "_", " ") }

// Evidence is something that can be looked for.
type Evidence struct {
	Code       string  `yaml:"code"`
	Text       string  `yaml:"text"`
	Part       string  `yaml:"part"` // family part it is found on
	Look       string  `yaml:"look"` // how to look
	Tool       string  `yaml:"tool"`
	Minutes    float64 `yaml:"minutes"`
	Onset      string  `yaml:"onset"` // sudden, hours or gradual
	Background Word    `yaml:"background"`
	BreakUp    bool    `yaml:"break_up"` // pieces went round with the oil
	From       From    `yaml:"from"`     // where it comes from by itself
}

// From ties evidence to what other stations already know. One field is set.
type From struct {
	Used       string `yaml:"used"`       // part.feature: share of the allowance used
	Grade      string `yaml:"grade"`      // part.feature: grade by touch
	Missing    string `yaml:"missing"`    // part whose count does not tie
	Symptom    string `yaml:"symptom"`    // symptom of the complaint
	Efficiency string `yaml:"efficiency"` // test step as received
}

// Empty reports that nothing but looking brings this evidence.
func (f From) Empty() bool { return f == From{} }

// Cause is a root cause.
type Cause struct {
	Code       string          `yaml:"code"`
	Name       string          `yaml:"name"`
	Where      string          `yaml:"where"` // inside, outside or assembly
	Onset      string          `yaml:"onset"`
	Prior      Word            `yaml:"prior"`
	Points     map[string]Word `yaml:"points"`
	Chain      []Link          `yaml:"chain"` // from complaint to root
	Remedy     string          `yaml:"remedy"`
	Prevention string          `yaml:"prevention"`
	Action     string          `yaml:"action"` // outside the unit, before it runs again
}

// Link is one step of a why-chain with the evidence it rests on.
type Link struct {
	Text  string   `yaml:"text"`
	Cites []string `yaml:"cites"`
}

// Knowledge is what is known of one family's failures.
type Knowledge struct {
	Family   string     `yaml:"family"`
	Evidence []Evidence `yaml:"evidence"`
	Causes   []Cause    `yaml:"causes"`
}

// EvidenceByCode finds an item of evidence.
func (k *Knowledge) EvidenceByCode(code string) (*Evidence, bool) {
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

// Base is the knowledge of all families. Families without their own use the general one.
type Base map[string]*Knowledge

// For gives the knowledge for a family.
func (b Base) For(family string) *Knowledge {
	if k := b[family]; k != nil {
		return k
	}
	return b["general"]
}

// Shipped loads the knowledge that comes with the product.
func Shipped() (Base, error) {
	entries, err := shipped.ReadDir("knowledge")
	if err != nil {
		return nil, err
	}
	base := Base{}
	for _, e := range entries {
		text, err := shipped.ReadFile("knowledge/" + e.Name())
		if err != nil {
			return nil, err
		}
		k, err := load(e.Name(), text)
		if err != nil {
			return nil, err
		}
		base[k.Family] = k
	}
	return base, nil
}

func load(file string, text []byte) (*Knowledge, error) {
	k := &Knowledge{}
	dec := yaml.NewDecoder(bytes.NewReader(text))
	dec.KnownFields(true)
	if err := dec.Decode(k); err != nil {
		return nil, fmt.Errorf("%s: %s", file, strings.TrimPrefix(err.Error(), "yaml: "))
	}
	for _, e := range k.Evidence {
		if e.Minutes <= 0 || frequencies[e.Background] == 0 || e.Text == "" {
			return nil, fmt.Errorf("%s: evidence %q needs text, minutes and a background frequency", file, e.Code)
		}
	}
	for _, c := range k.Causes {
		if frequencies[c.Prior] == 0 {
			return nil, fmt.Errorf("%s: cause %q: prior %q is not a frequency", file, c.Code, c.Prior)
		}
		for code, w := range c.Points {
			if _, ok := k.EvidenceByCode(code); !ok || frequencies[w] == 0 {
				return nil, fmt.Errorf("%s: cause %q: %q: %q is no evidence or no frequency", file, c.Code, code, w)
			}
		}
		for _, l := range c.Chain {
			for _, code := range l.Cites {
				if _, ok := k.EvidenceByCode(code); !ok {
					return nil, fmt.Errorf("%s: cause %q cites unknown evidence %q", file, c.Code, code)
				}
			}
		}
	}
	return k, nil
}
