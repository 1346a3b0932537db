package explain

import (
	"bytes"
	"embed"
	"fmt"
	"maps"
	"slices"
	"strings"
	"sync"

	"go.yaml.in/yaml/v3"
)

//go:embed knowledge/*.yaml
var shipped embed.FS

// file is one knowledge file: a group that others include, or the knowledge of
// some families. What it says itself comes before what it includes.
type file struct {
	Group    string                     `yaml:"group"`
	Family   string                     `yaml:"family"`
	Families []string                   `yaml:"families"`
	Include  []string                   `yaml:"include"`
	Without  []string                   `yaml:"without"` // causes and evidence of the included that do not apply
	Evidence []Evidence                 `yaml:"evidence"`
	Causes   []Cause                    `yaml:"causes"`
	Adds     map[string]map[string]Word `yaml:"adds"` // further points of included causes

	name string
}

// together is how likely two independent root causes meet in one unit.
const together = 0.05

// Shipped gives the knowledge that comes with the product. It is read once; nobody
// may change it.
func Shipped() (Base, error) {
	base, err := loadShipped()
	return maps.Clone(base), err
}

var loadShipped = sync.OnceValues(func() (Base, error) {
	entries, err := shipped.ReadDir("knowledge")
	if err != nil {
		return nil, err
	}
	groups := map[string]*file{}
	var all []*file
	for _, e := range entries {
		text, err := shipped.ReadFile("knowledge/" + e.Name())
		if err != nil {
			return nil, err
		}
		f, err := read(e.Name(), text)
		if err != nil {
			return nil, err
		}
		if f.Group != "" {
			groups[f.Group] = f
		}
		all = append(all, f)
	}
	base := Base{}
	for _, f := range all {
		k := &Knowledge{Together: together, alias: map[string]string{}}
		if err := f.into(k, groups, nil, 0); err != nil {
			return nil, err
		}
		if err := k.check(f.name); err != nil {
			return nil, err
		}
		names := f.Families
		if f.Family != "" {
			names = append(names, f.Family)
		}
		if f.Group != "" {
			names = append(names, f.Group)
		}
		for _, name := range names {
			own := *k
			own.Family = name
			base[name] = &own
		}
	}
	return base, nil
})

func read(name string, text []byte) (*file, error) {
	f := &file{name: name}
	dec := yaml.NewDecoder(bytes.NewReader(text))
	dec.KnownFields(true)
	if err := dec.Decode(f); err != nil {
		return nil, fmt.Errorf("%s: %s", name, strings.TrimPrefix(err.Error(), "yaml: "))
	}
	if f.Group == "" && f.Family == "" && len(f.Families) == 0 {
		return nil, fmt.Errorf("%s: says of no family and is no group", name)
	}
	return f, nil
}

// into adds the file and what it includes to k; the first to say a code wins.
func (f *file) into(k *Knowledge, groups map[string]*file, without []string, depth int) error {
	if depth > 6 {
		return fmt.Errorf("%s: includes itself", f.name)
	}
	for _, e := range f.Evidence {
		_, there := k.EvidenceByCode(e.Code)
		switch same := k.duplicateOf(e.From); {
		case there || slices.Contains(without, e.Code):
		case same != "":
			k.alias[e.Code] = same
		default:
			k.Evidence = append(k.Evidence, e)
		}
	}
	for _, c := range f.Causes {
		if slices.Contains(without, c.Code) {
			continue
		}
		if own, there := k.CauseByCode(c.Code); there {
			// What the family says of its cause goes first; what the group knows of it besides holds too.
			for code, w := range c.Points {
				if _, says := own.Points[code]; !says {
					own.Points[code] = w
				}
			}
			continue
		}
		c.Points = maps.Clone(c.Points)
		if c.Points == nil {
			c.Points = map[string]Word{}
		}
		k.Causes = append(k.Causes, c)
	}
	inner := append(slices.Clone(without), f.Without...)
	for _, name := range f.Include {
		g := groups[name]
		if g == nil {
			return fmt.Errorf("%s: includes %q, which is no group", f.name, name)
		}
		if err := g.into(k, groups, inner, depth+1); err != nil {
			return err
		}
	}
	for code, points := range f.Adds {
		c, ok := k.CauseByCode(code)
		if !ok && slices.Contains(inner, code) {
			continue
		}
		if !ok {
			return fmt.Errorf("%s: adds to %q, which is no cause here", f.name, code)
		}
		maps.Copy(c.Points, points)
	}
	if depth == 0 {
		k.onsets()
		k.prune(inner)
		k.oneName()
	}
	return nil
}

// The two answers to how it came.
const (
	cameSlowly = "came_slowly"
	cameAtOnce = "came_at_once"
)

// byOnset is how often a trouble of an onset came slowly, and at once.
var byOnset = map[string][2]Word{"gradual": {"usual", "seldom"}, "hours": {"sometimes", "sometimes"},
	"sudden": {"seldom", "usual"}}

// onsets lets each cause that says nothing else speak of how the trouble came, as its own onset has it.
func (k *Knowledge) onsets() {
	for _, e := range k.Evidence {
		if e.Code != cameSlowly && e.Code != cameAtOnce {
			continue
		}
		for i := range k.Causes {
			c := &k.Causes[i]
			words, known := byOnset[c.Onset]
			if _, says := c.Points[e.Code]; !known || says {
				continue
			}
			c.Points[e.Code] = words[0]
			if e.Code == cameAtOnce {
				c.Points[e.Code] = words[1]
			}
		}
	}
}

// duplicateOf gives the mark that a symptom or an answer from the machine is already, under
// another code: said once, it counts once.
func (k *Knowledge) duplicateOf(from From) string {
	i := slices.IndexFunc(k.Evidence, func(e Evidence) bool {
		return from.Symptom != "" && e.From.Symptom == from.Symptom ||
			from.Gauge.Asked() && e.From.Gauge == from.Gauge
	})
	if i < 0 {
		return ""
	}
	return k.Evidence[i].Code
}

// known is the code under which a mark is kept.
func (k *Knowledge) known(code string) string {
	if as, other := k.alias[code]; other {
		return as
	}
	return code
}

// oneName lets the causes speak of every mark by the one code it is kept under. What a
// cause says of it by that code comes before what it says of it by another.
func (k *Knowledge) oneName() {
	for i := range k.Causes {
		c := &k.Causes[i]
		points := map[string]Word{}
		for _, code := range slices.Sorted(maps.Keys(c.Points)) {
			as := k.known(code)
			if _, own := c.Points[as]; !own || as == code {
				points[as] = c.Points[code]
			}
		}
		c.Points = points
		for _, l := range c.Chain {
			for j, code := range l.Cites {
				l.Cites[j] = k.known(code)
			}
		}
	}
}

// prune takes away what refers to evidence that was left out on purpose.
func (k *Knowledge) prune(without []string) {
	for i := range k.Causes {
		c := &k.Causes[i]
		for _, code := range without {
			delete(c.Points, code)
		}
		links := make([]Link, len(c.Chain))
		for j, l := range c.Chain {
			l.Cites = slices.DeleteFunc(slices.Clone(l.Cites),
				func(code string) bool { return slices.Contains(without, code) })
			links[j] = l
		}
		c.Chain = links
	}
}

func (k *Knowledge) check(file string) error {
	for _, e := range k.Evidence {
		if e.Minutes <= 0 || frequencies[e.Background] == 0 || e.Text == "" || e.Look == "" {
			return fmt.Errorf("%s: evidence %q needs text, look, minutes and a background frequency", file, e.Code)
		}
		if !slices.Contains(Places, e.At) {
			return fmt.Errorf("%s: evidence %q: at is asked, outside, opened or stripped", file, e.Code)
		}
		if !slices.Contains([]string{"sudden", "hours", "gradual"}, e.Onset) {
			return fmt.Errorf("%s: evidence %q: onset is sudden, hours or gradual", file, e.Code)
		}
	}
	for _, c := range k.Causes {
		if frequencies[c.Prior] == 0 {
			return fmt.Errorf("%s: cause %q: prior %q is not a frequency", file, c.Code, c.Prior)
		}
		if c.Lies() == "" {
			return fmt.Errorf("%s: cause %q lies inside, outside, in assembly or in handling", file, c.Code)
		}
		for code, w := range c.Points {
			if _, ok := k.EvidenceByCode(code); !ok || frequencies[w] == 0 {
				return fmt.Errorf("%s: cause %q: %q: %q is no evidence or no frequency", file, c.Code, code, w)
			}
		}
		for _, l := range c.Chain {
			for _, code := range l.Cites {
				if _, ok := k.EvidenceByCode(code); !ok {
					return fmt.Errorf("%s: cause %q cites unknown evidence %q", file, c.Code, code)
				}
			}
		}
	}
	return nil
}
