package family

import (
	"bytes"
	"embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"corvek/core/order"

	"go.yaml.in/yaml/v3"
)

//go:embed assemblies/*.yaml
var assemblyFiles embed.FS

// Assembly is a group of parts that many kinds of unit have: a relief valve, a shaft
// seal, a rotating group. It brings all that belongs to it: what is measured on its
// parts, how oil leaks past them, what is asked of it on the stand.
type Assembly struct {
	Code     string   `yaml:"assembly"`
	Name     string   `yaml:"name"`
	Parts    []Part   `yaml:"parts"` // in the order they come off
	Leaks    []Leak   `yaml:"leaks"`
	Relief   *Relief  `yaml:"relief"`
	Symptoms []string `yaml:"symptoms"`
	Cautions []string `yaml:"cautions"`
	Gauge    []string `yaml:"gauge"`
	Tests    []Test   `yaml:"tests"` // before the watch for leaks
	Owes     []Owed   `yaml:"owes"`
	Order    Ordering `yaml:"order"`

	file string
}

// Use puts an assembly into a family.
type Use struct {
	Assembly string               `yaml:"use"`
	As       string               `yaml:"as"`     // begins the codes of its parts; without it they keep their own
	Name     string               `yaml:"name"`   // what it is called here
	Branch   string               `yaml:"branch"` // where it hangs beside the axis
	Times    int                  `yaml:"times"`
	Without  []string             `yaml:"without"` // parts of it that are not here
	Change   map[string]yaml.Node `yaml:"change"`  // by part: what differs
	line     int
}

// Line is what stands in the list of parts: a part of the family's own, or an
// assembly.
type Line struct {
	Part  *Part
	Use   *Use
	After string // of a line that a variant adds: the part it comes off after
}

// UnmarshalYAML tells a part from an assembly.
func (l *Line) UnmarshalYAML(n *yaml.Node) error {
	own := *n
	own.Content = nil
	for i := 0; i+1 < len(n.Content); i += 2 {
		switch n.Content[i].Value {
		case "after":
			l.After = n.Content[i+1].Value
			continue
		case "use":
			l.Use = &Use{line: n.Line}
		}
		own.Content = append(own.Content, n.Content[i], n.Content[i+1])
	}
	if l.Use == nil {
		l.Part = &Part{}
		return own.Decode(l.Part)
	}
	if err := own.Decode(l.Use); err != nil {
		return err
	}
	return unknownKeys(&own, "use as name branch times without change")
}

// code is what this one of the assembly is called in the unit.
func (u *Use) code() string {
	if u.As != "" {
		return u.As
	}
	return u.Assembly
}

// Instance is an assembly as it stands in a family.
type Instance struct {
	Code     string // pocket_2
	Assembly string // disc_valve_pocket
	Name     string
	Base     string // the code without the number of a repeated one
	Parts    []string
}

// Assemblies are the shipped assemblies, by code.
var Assemblies = sync.OnceValues(func() (map[string]*Assembly, error) {
	entries, err := assemblyFiles.ReadDir("assemblies")
	if err != nil {
		return nil, err
	}
	out := map[string]*Assembly{}
	for _, e := range entries {
		text, err := assemblyFiles.ReadFile("assemblies/" + e.Name())
		if err != nil {
			return nil, err
		}
		a, err := loadAssembly(e.Name(), text)
		if err != nil {
			return nil, err
		}
		if out[a.Code] != nil || a.Code == "" || a.Name == "" || len(a.Parts) == 0 {
			return nil, fmt.Errorf("%s: an assembly needs a code of its own, a name and parts", e.Name())
		}
		out[a.Code] = a
	}
	return out, nil
})

func loadAssembly(file string, text []byte) (*Assembly, error) {
	a := &Assembly{file: "assemblies/" + file}
	if _, err := bounded(text); err != nil {
		return nil, fmt.Errorf("%s%w", a.file, err)
	}
	dec := yaml.NewDecoder(bytes.NewReader(text))
	dec.KnownFields(true)
	if err := dec.Decode(a); err != nil {
		return nil, fmt.Errorf("%s: %s", a.file, strings.TrimPrefix(err.Error(), "yaml: "))
	}
	for i := range a.Parts {
		a.Parts[i].file = a.file
	}
	within := func(code string) bool { return a.has(strings.TrimSuffix(code, order.Tight)) }
	if code := a.Order.strange(within); code != "" {
		return nil, fmt.Errorf("%s: order: there is no part %q", a.file, code)
	}
	for i := range a.Leaks {
		a.Leaks[i].file = a.file
	}
	return a, nil
}

// copied is the part with nothing shared that a change would write through.
func (p *Part) copied() Part {
	c := *p
	c.Features, c.Reworks = slices.Clone(p.Features), slices.Clone(p.Reworks)
	for i := range c.Features {
		c.Features[i].Rule, c.Features[i].Mate = c.Features[i].Rule.copied(), c.Features[i].Mate.copied()
	}
	if p.Bolt != nil {
		bolt := *p.Bolt
		c.Bolt = &bolt
	}
	if p.Stack != nil {
		stack := *p.Stack
		if s := p.Stack.Spring; s != nil {
			spring := *s
			stack.Spring = &spring
		}
		if f := p.Stack.Friction; f != nil {
			friction := *f
			stack.Friction = &friction
		}
		c.Stack = &stack
	}
	return c
}

// change writes what differs over a part: a key that is given replaces what was
// there, a feature is changed by its code or added.
func (p *Part) change(n *yaml.Node) error {
	if err := unknownKeys(n, partKeys); err != nil {
		return err
	}
	rest := *n
	rest.Content = nil
	var features *yaml.Node
	for i := 0; i+1 < len(n.Content); i += 2 {
		if n.Content[i].Value == "features" {
			features = n.Content[i+1]
			continue
		}
		rest.Content = append(rest.Content, n.Content[i], n.Content[i+1])
	}
	type plain Part
	if err := rest.Decode((*plain)(p)); err != nil {
		return err
	}
	if features == nil {
		return nil
	}
	for _, fn := range features.Content {
		var is struct {
			Code string `yaml:"code"`
		}
		if err := fn.Decode(&is); err != nil {
			return err
		}
		ft, known := p.FeatureByCode(is.Code)
		if !known {
			p.Features = append(p.Features, Feature{})
			ft = &p.Features[len(p.Features)-1]
		}
		if err := fn.Decode(ft); err != nil {
			return err
		}
	}
	return nil
}
