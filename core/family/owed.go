package family

import (
	_ "embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"go.yaml.in/yaml/v3"
)

// Owed is a claim that a rebuilt unit of the family owes: what is said of it, what the job must
// need for that, and the steps of the test that show it, each of them.
type Owed struct {
	Code     string   `yaml:"code"`
	Says     string   `yaml:"says"`  // as it is read out: "delivers at duty"
	By       []string `yaml:"by"`    // the steps that show it
	Needs    []string `yaml:"needs"` // fields of the unit that its level follows from
	May      []string `yaml:"-"`     // those of them without which there is another level, in brackets in the data
	Assembly string   `yaml:"-"`     // code of the assembly it asks of, "" of the whole unit
	line     int
}

// need is something that a job needs to tell, by the field of its unit.
type need struct{ field, words string }

// needs are what the level of a claim is told by. Fields that begin with need_ say what the machine
// asks; the others are the unit's duty.
var needs = []need{
	{"duty_pressure", "duty pressure"}, {"speed", "speed"}, {"displacement", "displacement"},
	{"setting_low", "relief setting"}, {"need_medium", "what it works with"},
	{"need_flow", "needed flow"},
	{"need_aux_flow", "needed flow of the auxiliary pump"},
	{"need_torque", "needed torque"},
	{"need_line_pull", "needed line pull"},
	{"need_drum", "drum diameter"},
	{"need_rope", "rope diameter"},
	{"need_layer", "layer of the rope"},
	{"need_factor", "factor on the line pull"},
	{"need_load", "load"},
	{"need_load_time", "time with the load"},
	{"need_creep", "allowed creep"},
	{"need_leak", "allowed leak"},
	{"need_shot", "needed shot"},
	{"need_back_low", "lowest back pressure"},
	{"need_back_high", "highest back pressure"},
	{"need_pressure", "stated pressure"},
	{"need_pilot", "pilot pressure"},
	{"need_apart", "how far outlets may differ"},
	{"need_force", "needed force"},
	{"need_stroke", "full stroke"},
	{"need_fill", "most oil that the book lets in"},
	{"need_turns", "turns or strokes until it pumps"},
	{"need_draw_time", "time it may take to draw"},
	{"need_cold", "coldest oil"},
	{"need_hot", "hottest oil"},
	{"need_standing", "how long it stands"},
	{"need_complaint_pressure", "pressure of the complaint"},
	{"need_complaint_temperature", "oil temperature of the complaint"},
	{"need_complaint_time", "time of the complaint"},
}

// Asks are the fields of a unit by which a job tells what its machine asks of it.
func Asks() (out []string) {
	for _, n := range needs {
		if strings.HasPrefix(n.field, "need_") {
			out = append(out, n.field)
		}
	}
	return out
}

// NeedWords say what a need is, in the middle of a sentence.
func NeedWords(field string) string {
	for _, n := range needs {
		if n.field == field {
			return n.words
		}
	}
	return field
}

// OfNeed reports that limits which are shares of it follow from what the job needs.
func OfNeed(of string) bool {
	return of == OfLeak || of == OfLayer || strings.HasPrefix(of, "need_")
}

func isNeed(field string) bool {
	return slices.ContainsFunc(needs, func(n need) bool { return n.field == field })
}

// claims.yaml holds the claims that many families owe.
//
//go:embed claims.yaml
var claimsText []byte

var sharedClaims = sync.OnceValues(func() (map[string]Owed, error) {
	var list []struct {
		Code  string   `yaml:"code"`
		Says  string   `yaml:"says"`
		By    []string `yaml:"by"`
		Needs []string `yaml:"needs"`
	}
	if err := yaml.Unmarshal(claimsText, &list); err != nil {
		return nil, err
	}
	out := map[string]Owed{}
	for _, c := range list {
		if _, twice := out[c.Code]; twice {
			return nil, fmt.Errorf("claims.yaml: the claim %s is there twice", c.Code)
		}
		o := Owed{Code: c.Code, Says: c.Says, By: c.By, Needs: c.Needs}
		o.bare()
		out[c.Code] = o
	}
	return out, nil
})

// UnmarshalYAML reads a claim: written out, a shared one by its code alone, or a shared one with
// what differs here, under "as".
func (o *Owed) UnmarshalYAML(n *yaml.Node) error {
	type plain Owed
	if n.Kind == yaml.ScalarNode {
		return o.shared(n.Value, n.Line)
	}
	rest := *n
	rest.Content = nil
	for i := 0; i+1 < len(n.Content); i += 2 {
		if n.Content[i].Value != "as" {
			rest.Content = append(rest.Content, n.Content[i], n.Content[i+1])
			continue
		}
		if err := o.shared(n.Content[i+1].Value, n.Line); err != nil {
			return err
		}
	}
	if err := rest.Decode((*plain)(o)); err != nil {
		return err
	}
	o.line = n.Line
	o.bare()
	return unknownKeys(&rest, "code says by needs")
}

// bare takes the brackets off the needs that may be unknown.
func (o *Owed) bare() {
	for i, need := range o.Needs {
		if inner, is := strings.CutPrefix(need, "("); is {
			o.Needs[i] = strings.TrimSuffix(inner, ")")
			o.May = append(o.May, o.Needs[i])
		}
	}
}

// Lacks are the needs of the claim that are not told and cannot be left out.
func (o *Owed) Lacks(told func(field string) bool) (out []string) {
	for _, need := range o.Needs {
		if !told(need) && !slices.Contains(o.May, need) {
			out = append(out, need)
		}
	}
	return out
}

func (o *Owed) shared(code string, line int) error {
	claims, err := sharedClaims()
	if err != nil {
		return err
	}
	c, known := claims[code]
	if !known {
		return fmt.Errorf("line %d: there is no shared claim %q", line, code)
	}
	*o = c
	o.By, o.Needs, o.May, o.line = slices.Clone(c.By), slices.Clone(c.Needs), slices.Clone(c.May), line
	return nil
}

// owe adds a claim with the steps of an instance of its assembly.
func (f *Family) owe(o Owed, in Instance, repeated bool, ending string) {
	o.By, o.Needs = slices.Clone(o.By), slices.Clone(o.Needs)
	o.Assembly = in.Code
	if repeated {
		o.Code, o.Says = in.Code+"_"+o.Code, o.Says+ending
		for i := range o.By {
			o.By[i] = in.Code + "_" + o.By[i]
		}
	}
	if !slices.ContainsFunc(f.Owes, func(x Owed) bool { return x.Code == o.Code }) {
		f.Owes = append(f.Owes, o)
	}
}

// owesItsTest lets a family owe each step of its test that none of its claims speaks of: nothing is
// proved by leaving out what is owed.
func (f *Family) owesItsTest() {
	for _, t := range f.Tests {
		if slices.ContainsFunc(f.Owes, func(o Owed) bool { return slices.Contains(o.By, t.Code) }) {
			continue
		}
		f.Owes = append(f.Owes, Owed{Code: t.Code, Says: strings.ToLower(t.Name), By: []string{t.Code},
			Assembly: t.Assembly})
	}
}

// OwedByCode finds a claim.
func (f *Family) OwedByCode(code string) (Owed, bool) {
	at := slices.IndexFunc(f.Owes, func(o Owed) bool { return o.Code == code })
	if at < 0 {
		return Owed{}, false
	}
	return f.Owes[at], true
}

// owed looks the claims through: each has its words, steps of the plan, and needs that a job knows.
func (c *checker) owed() {
	line := c.at["owes"]
	seen := map[string]bool{}
	for _, o := range c.f.Owes {
		switch {
		case o.Code == "" || o.Says == "":
			c.fail(line, "a claim needs a code and what it says")
		case seen[o.Code]:
			c.fail(line, "the claim %s is there twice", o.Code)
		case o.Code == ComplaintTest:
			c.fail(line, "claim %s: that of the complaint is written for each job", o.Code)
		case len(o.By) == 0:
			c.fail(line, "claim %s: no step of the test shows it", o.Code)
		}
		seen[o.Code] = true
		for _, step := range o.By {
			if _, known := c.f.TestByCode(step); !known || step == ComplaintTest {
				c.fail(line, "claim %s: there is no step %q", o.Code, step)
			}
		}
		for _, need := range o.Needs {
			if !isNeed(need) {
				c.fail(line, "claim %s: %q is nothing that a job needs", o.Code, need)
			}
		}
	}
}
