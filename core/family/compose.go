package family

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"go.yaml.in/yaml/v3"
)

// Change is what differs on a variant from its family.
type Change struct {
	Parts   map[string]yaml.Node `yaml:"parts"`   // by part
	Without []string             `yaml:"without"` // parts or assemblies that it has not
	With    []Line               `yaml:"with"`    // parts or assemblies that it has besides
	Tests   map[string]yaml.Node `yaml:"tests"`   // by step
	Relief  yaml.Node            `yaml:"relief"`
	Accept  yaml.Node            `yaml:"accept"`
	Owes    []Owed               `yaml:"owes"` // claims that it owes besides
	More    map[string]int       `yaml:"more"` // how often more each assembly stands in it
}

// UnmarshalYAML refuses keys that mean nothing.
func (c *Change) UnmarshalYAML(n *yaml.Node) error {
	type plain Change
	if err := n.Decode((*plain)(c)); err != nil {
		return err
	}
	return unknownKeys(n, "parts without with tests relief accept owes more")
}

// Empty reports that the variant changes nothing.
func (c *Change) Empty() bool {
	return c == nil ||
		len(c.Parts)+len(c.Without)+len(c.With)+len(c.Tests)+len(c.Owes)+len(c.More) == 0 && c.Relief.IsZero() &&
			c.Accept.IsZero()
}

// MostTimes is how often an assembly can stand in a unit.
const MostTimes = 24

// As gives the family as one unit of it is: with what its variant changes, and with
// the assemblies that it has more of. A variant that is not one of the family's
// changes nothing.
func (f *Family) As(variant string, more map[string]int) (*Family, error) {
	v := f.VariantNamed(variant)
	if f.written == nil || (v == nil || v.Change.Empty()) && len(more) == 0 {
		return f, nil
	}
	var change *Change
	if v != nil {
		change = v.Change
	}
	return f.written.compose(change, more)
}

// VariantNamed finds a variant by its code or its name.
func (f *Family) VariantNamed(name string) *Variant {
	for i := range f.VariantRules {
		if v := &f.VariantRules[i]; name != "" && (v.Code == name || v.Name == name) {
			return v
		}
	}
	return nil
}

// Repeats reports whether an assembly can stand once more in the unit.
func (f *Family) Repeats(base string) bool {
	return slices.ContainsFunc(f.Instances, func(i Instance) bool { return i.Base == base })
}

// compose puts a family together from its own parts and its assemblies, for one
// variant and with further assemblies of a kind.
func (f *Family) compose(change *Change, more map[string]int) (*Family, error) {
	g := *f
	g.written = f
	g.Parts, g.Instances = nil, nil
	g.Leaks, g.Tests, g.Owes = slices.Clone(f.Leaks), slices.Clone(f.Tests), slices.Clone(f.Owes)
	g.Symptoms, g.Cautions = slices.Clone(f.Symptoms), slices.Clone(f.Cautions)
	g.Gauge = slices.Clone(f.Gauge)
	lines := slices.Clone(f.Lines)
	if change != nil {
		var err error
		if lines, err = f.with(lines, change.With); err != nil {
			return nil, err
		}
		if more, err = f.more(lines, more, change.More); err != nil {
			return nil, err
		}
	}
	var err error
	if lines, more, err = f.besides(lines, more); err != nil {
		return nil, err
	}
	for _, l := range lines {
		if l.Part != nil {
			g.Parts = append(g.Parts, f.own(l.Part))
			continue
		}
		if err := g.put(l.Use, more[l.Use.code()]); err != nil {
			return nil, err
		}
	}
	if change != nil {
		if err := g.changed(change); err != nil {
			return nil, err
		}
	}
	g.ownSteps(more)
	g.ownFeatures(more)
	g.usual()
	return &g, nil
}

// usual fills in what goes without saying.
func (f *Family) usual() {
	f.owesItsTest()
	if len(f.Axes) == 0 {
		f.Axes = []float64{0}
	}
	for i := range f.Parts {
		f.Parts[i].usual()
		f.Parts[i].saved()
	}
}

func (p *Part) usual() {
	if p.Count <= 0 {
		p.Count = 1
	}
	for i := range p.Features {
		ft := &p.Features[i]
		if ft.LimitSource == "" {
			ft.LimitSource = SourceNone
		}
		if ft.Rows == 0 {
			ft.Rows = 1
		}
		if ft.Cols == 0 {
			ft.Cols = 1
		}
	}
}

// own is a part of the family's own. One without a shape takes what its kind brings.
func (f *Family) own(written *Part) Part {
	p := written.copied()
	if p.file == "" {
		p.file = f.file
	}
	if k, known := KindByCode(p.Kind); known && p.Shape.W == 0 {
		p.Shape = k.Shape
		p.Renew = p.Renew || k.Soft
		if len(p.Facings) == 0 {
			p.Facings = k.Facings
		}
		if len(p.Checks) == 0 {
			p.Checks = k.Checks
		}
		if len(p.Features) == 0 {
			p.Features = slices.Clone(k.Features)
		}
	} else if known && p.Springs() && len(p.Features) == 0 { // what goes back measured has something to be measured
		p.Features = slices.Clone(k.Features)
	}
	return p
}

// besides puts behind the others the assemblies of the library that a unit has and its family does not.
func (f *Family) besides(lines []Line, more map[string]int) ([]Line, map[string]int, error) {
	all, err := Assemblies()
	if err != nil {
		return nil, nil, err
	}
	var out map[string]int
	for _, code := range slices.Sorted(maps.Keys(more)) {
		a := all[code]
		if a == nil || more[code] < 1 ||
			slices.ContainsFunc(lines, func(l Line) bool { return l.Use != nil && l.Use.code() == code }) {
			continue
		}
		if out == nil {
			out = maps.Clone(more)
		}
		lines = append(lines, Line{Use: &Use{Assembly: code, As: code, Branch: a.Name}})
		out[code]-- // it stands once by its line
	}
	if out == nil {
		return lines, more, nil
	}
	return lines, out, nil
}

// more adds up what a variant and what a unit has more of.
func (f *Family) more(lines []Line, of, change map[string]int) (map[string]int, error) {
	sum := maps.Clone(of)
	for code, n := range change {
		if !slices.ContainsFunc(lines, func(l Line) bool { return l.Use != nil && l.Use.code() == code }) {
			return nil, f.wrong(0, "more: there is no assembly %q", code)
		}
		if sum == nil {
			sum = map[string]int{}
		}
		sum[code] += n
	}
	return sum, nil
}

// with puts the lines of a variant behind the parts they come off after.
func (f *Family) with(lines, more []Line) ([]Line, error) {
	for _, l := range more {
		at := slices.IndexFunc(lines, func(x Line) bool {
			return x.Part != nil && x.Part.Code == l.After || x.Use != nil && x.Use.code() == l.After
		})
		if l.After != "" && at < 0 {
			return nil, f.wrong(l.line(), "with: there is no part or assembly %q to come after", l.After)
		}
		if l.After == "" {
			at = len(lines) - 1
		}
		lines = slices.Insert(lines, at+1, l)
	}
	return lines, nil
}

func (l Line) line() int {
	if l.Use != nil {
		return l.Use.line
	}
	return l.Part.line
}

func (f *Family) wrong(line int, format string, args ...any) error {
	return fmt.Errorf("%s:%d: %s", f.file, line, fmt.Sprintf(format, args...))
}

// put adds an assembly with all that belongs to it, as often as it is there.
func (f *Family) put(u *Use, more int) error {
	all, err := Assemblies()
	if err != nil {
		return err
	}
	a := all[u.Assembly]
	if a == nil {
		return f.wrong(u.line, "there is no assembly %q", u.Assembly)
	}
	for _, code := range append(slices.Clone(u.Without), keys(u.Change)...) {
		if !a.has(code) {
			return f.wrong(u.line, "the assembly %s has no part %q", a.Code, code)
		}
	}
	times := max(1, u.Times)
	if times+more > MostTimes || more < 0 {
		return f.wrong(u.line, "an assembly stands at most %d times in a unit", MostTimes)
	}
	for n := 1; n <= times+more; n++ {
		if err := f.putOne(a, u, n, times); err != nil {
			return err
		}
	}
	f.Symptoms, f.Cautions = added(f.Symptoms, a.Symptoms), added(f.Cautions, a.Cautions)
	f.Gauge = added(f.Gauge, a.Gauge)
	return nil
}

// putOne adds the n-th of an assembly that the family has so many times.
func (f *Family) putOne(a *Assembly, u *Use, n, times int) error {
	in := Instance{Code: u.code(), Assembly: a.Code, Name: a.Name, Base: u.code()}
	if u.Name != "" {
		in.Name = u.Name
	}
	prefix, ending := "", ""
	if u.As != "" {
		prefix = u.As + "_"
	}
	branch := u.Branch
	if n > 1 || times > 1 {
		in.Code += "_" + strconv.Itoa(n)
		in.Name += " " + strconv.Itoa(n)
		prefix, ending = in.Code+".", ", "+strings.ToLower(in.Name)
		if branch != "" {
			branch += " " + strconv.Itoa(n)
		}
	}
	for i := range a.Parts {
		if slices.Contains(u.Without, a.Parts[i].Code) {
			continue
		}
		p := a.Parts[i].copied()
		if n, ok := u.Change[p.Code]; ok {
			if err := p.change(&n); err != nil {
				return f.wrong(n.Line, "%s: %s", p.Code, strings.TrimPrefix(err.Error(), "yaml: "))
			}
		}
		p.Code, p.Name, p.Assembly = prefix+p.Code, p.Name+ending, in.Code
		for i := range p.Features {
			p.Features[i].Rule.within(prefix, a.has)
			p.Features[i].Mate.within(prefix, a.has)
		}
		if p.Branch == "" {
			p.Branch = branch
		}
		if p.Set != "" && ending != "" {
			p.Set += ending
		}
		if p.Stack != nil && p.Stack.Friction != nil {
			f := p.Stack.Friction
			f.PressedBy, f.Outer, f.Inner = prefix+f.PressedBy, prefix+f.Outer, prefix+f.Inner
		}
		in.Parts = append(in.Parts, p.Code)
		f.Parts = append(f.Parts, p)
	}
	f.Order = f.Order.with(a.Order.within(prefix, a.has))
	for _, l := range a.Leaks {
		if part, _ := CutFeature(l.Feature); slices.Contains(u.Without, part) {
			continue
		}
		l.Feature, l.Name = prefix+l.Feature, l.Name+ending
		for _, text := range []*string{&l.Width, &l.Diameter, &l.Length} {
			*text = sumWithin(*text, prefix, a.has)
		}
		f.Leaks = append(f.Leaks, l)
	}
	if a.Relief != nil && f.Relief == nil {
		r := *a.Relief
		r.Part, r.Installed, r.Seat = prefix+r.Part, prefix+r.Installed, prefix+r.Seat
		f.Relief = &r
	}
	for _, t := range a.Tests {
		if n > 1 || times > 1 {
			t.Code, t.Name = in.Code+"_"+t.Code, t.Name+ending
		}
		t.Assembly = in.Code
		f.test(t)
	}
	for _, o := range a.Owes {
		f.owe(o, in, n > 1 || times > 1, ending)
	}
	f.Instances = append(f.Instances, in)
	return nil
}

// has reports that the assembly has a part.
func (a *Assembly) has(part string) bool {
	return slices.ContainsFunc(a.Parts, func(p Part) bool { return p.Code == part })
}

// test adds a step before the watch for leaks, unless it is there already.
func (f *Family) test(t Test) {
	if _, there := f.TestByCode(t.Code); there {
		return
	}
	at := slices.IndexFunc(f.Tests, func(t Test) bool { return slices.Contains(t.Words, "drips") })
	if at < 0 {
		at = len(f.Tests)
	}
	f.Tests = slices.Insert(f.Tests, at, t)
}

// changed makes the composed family that of a variant.
func (f *Family) changed(c *Change) error {
	for _, code := range keys(c.Parts) {
		n := c.Parts[code]
		p, ok := f.PartByCode(code)
		if !ok {
			return f.wrong(n.Line, "there is no part %q to change", code)
		}
		if err := p.change(&n); err != nil {
			return f.wrong(n.Line, "%s: %s", code, strings.TrimPrefix(err.Error(), "yaml: "))
		}
	}
	for _, code := range keys(c.Tests) {
		n := c.Tests[code]
		t, ok := f.TestByCode(code)
		if !ok {
			var added Test // a variant can take a shared step besides
			if err := n.Decode(&added); err != nil || added.Code != code {
				return f.wrong(n.Line, "there is no step %q to change", code)
			}
			f.Tests = append(f.Tests, added)
			continue
		}
		if err := n.Decode(t); err != nil {
			return f.wrong(n.Line, "%s: %s", code, strings.TrimPrefix(err.Error(), "yaml: "))
		}
	}
	f.Owes = append(f.Owes, c.Owes...)
	for _, code := range c.Without {
		if err := f.without(code); err != nil {
			return err
		}
	}
	if !c.Relief.IsZero() {
		r := Relief{}
		if f.Relief != nil {
			r = *f.Relief
		}
		if err := c.Relief.Decode(&r); err != nil {
			return f.wrong(c.Relief.Line, "relief: %s", strings.TrimPrefix(err.Error(), "yaml: "))
		}
		f.Relief = &r
	}
	if !c.Accept.IsZero() {
		if err := c.Accept.Decode(&f.Accept); err != nil {
			return f.wrong(c.Accept.Line, "accept: %s", strings.TrimPrefix(err.Error(), "yaml: "))
		}
	}
	return nil
}

// without takes a part or an assembly out, with what hangs on it.
func (f *Family) without(code string) error {
	gone := func(p *Part) bool { return p.Code == code || p.Assembly == code }
	n := len(f.Parts)
	f.Parts = slices.DeleteFunc(f.Parts, func(p Part) bool { return gone(&p) })
	if len(f.Parts) == n {
		return f.wrong(0, "without: there is no part or assembly %q", code)
	}
	f.Instances = slices.DeleteFunc(f.Instances, func(i Instance) bool { return i.Code == code })
	there := func(part string) bool { _, ok := f.PartByCode(part); return ok }
	f.Leaks = slices.DeleteFunc(f.Leaks, func(l Leak) bool {
		part, _ := CutFeature(l.Feature)
		return !there(part)
	})
	f.Tests = slices.DeleteFunc(f.Tests, func(t Test) bool { return t.Assembly == code })
	f.Owes = slices.DeleteFunc(f.Owes, func(o Owed) bool { return o.Assembly == code })
	if f.Relief != nil && !there(f.Relief.Part) {
		f.Relief = nil
	}
	return nil
}

// CutFeature parts "part.feature"; the code of a part may itself hold a point.
func CutFeature(path string) (part, feature string) {
	at := strings.LastIndexByte(path, '.')
	if at < 0 {
		return path, ""
	}
	return path[:at], path[at+1:]
}

func added(list, more []string) []string {
	for _, x := range more {
		if !slices.Contains(list, x) {
			list = append(list, x)
		}
	}
	return list
}

func keys(m map[string]yaml.Node) (out []string) {
	for k := range m {
		out = append(out, k)
	}
	slices.Sort(out)
	return out
}
