package family

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"corvek/core/order"

	"go.yaml.in/yaml/v3"
)

// Ordering says what stands in whose way, by the codes of parts; the code of an assembly stands for all its parts,
// and a code with ! for the tightening of a fastener. Parts that a unit has not stand in nobody's way.
type Ordering struct {
	Behind  []Chain             `yaml:"behind"`  // each part lies behind those before it, seen from one side
	Through []Chain             `yaml:"through"` // the same, and open from the other end too
	Inside  map[string][]string `yaml:"inside"`  // what sits in or on a part and goes in with it, by that part
	Either  map[string][]Chain  `yaml:"either"`  // ways of a part, of which one must be free, by that part
	Closes  map[string][]string `yaml:"closes"`  // what must be in before a fastener is tightened, by the fastener
}

// Chain are parts from the outside in; those of one place stand beside one another.
type Chain [][]string

// UnmarshalYAML reads a list in which a place is a code or a list of them.
func (c *Chain) UnmarshalYAML(n *yaml.Node) error {
	if n.Kind != yaml.SequenceNode {
		return fmt.Errorf("line %d: a list of parts from the outside in is expected", n.Line)
	}
	for _, place := range n.Content {
		var group []string
		if place.Kind == yaml.ScalarNode {
			group = []string{place.Value}
		} else if err := place.Decode(&group); err != nil {
			return err
		}
		*c = append(*c, group)
	}
	return nil
}

// UnmarshalYAML refuses keys that mean nothing.
func (o *Ordering) UnmarshalYAML(n *yaml.Node) error {
	type plain Ordering
	if err := n.Decode((*plain)(o)); err != nil {
		return err
	}
	return unknownKeys(n, "behind through inside either closes")
}

// named gives every code that is written, each to be replaced by what f gives.
func (o *Ordering) named(f func(code string) string) Ordering {
	list := func(codes []string) []string {
		out := make([]string, len(codes))
		for i, c := range codes {
			out[i] = f(c)
		}
		return out
	}
	chains := func(all []Chain) (out []Chain) {
		for _, c := range all {
			var chain Chain
			for _, group := range c {
				chain = append(chain, list(group))
			}
			out = append(out, chain)
		}
		return out
	}
	named := Ordering{Behind: chains(o.Behind), Through: chains(o.Through), Inside: map[string][]string{},
		Either: map[string][]Chain{}, Closes: map[string][]string{}}
	for _, code := range slices.Sorted(maps.Keys(o.Inside)) {
		named.Inside[f(code)] = list(o.Inside[code])
	}
	for _, code := range slices.Sorted(maps.Keys(o.Either)) {
		named.Either[f(code)] = chains(o.Either[code])
	}
	for _, code := range slices.Sorted(maps.Keys(o.Closes)) {
		named.Closes[f(code)] = list(o.Closes[code])
	}
	return named
}

// with is this and another one's beside it.
func (o *Ordering) with(other Ordering) Ordering {
	sum := o.named(func(code string) string { return code })
	sum.Behind = append(sum.Behind, other.Behind...)
	sum.Through = append(sum.Through, other.Through...)
	for code, list := range other.Inside {
		sum.Inside[code] = append(sum.Inside[code], list...)
	}
	for code, ways := range other.Either {
		sum.Either[code] = append(sum.Either[code], ways...)
	}
	for code, list := range other.Closes {
		sum.Closes[code] = append(sum.Closes[code], list...)
	}
	return sum
}

// within begins the codes of the parts of an assembly with its prefix.
func (o *Ordering) within(prefix string, has func(string) bool) Ordering {
	return o.named(func(code string) string {
		if has(strings.TrimSuffix(code, order.Tight)) {
			return prefix + code
		}
		return code
	})
}

// Tightened reports that the part is a fastener: in, or tightened besides.
func (p *Part) Tightened() bool {
	k, known := KindByCode(p.Kind)
	return p.Bolt != nil || known && k.Bolted
}

// Ordered is what stands in whose way among parts of a unit of the family, in the order in which they are given. The
// tightening of a fastener stands before the fastener.
func (f *Family) Ordered(parts []*Part) (*order.Order, error) {
	r := &resolved{of: map[string]*order.Part{}, whole: map[string][]string{}}
	for _, p := range parts {
		if p.Tightened() {
			r.add(p.Code + order.Tight)
		}
		r.add(p.Code)
		if p.Tightened() {
			r.hold(p.Code, p.Code+order.Tight)
		}
		if p.Assembly != "" {
			r.whole[p.Assembly] = append(r.whole[p.Assembly], p.Code)
		}
	}
	for _, i := range f.Instances {
		if i.Base != i.Code {
			r.whole[i.Base] = append(r.whole[i.Base], r.whole[i.Code]...)
		}
	}
	r.resolve(&f.Order)
	list := make([]order.Part, len(r.list))
	for i, code := range r.list {
		list[i] = *r.of[code]
	}
	return order.New(list)
}

// resolved are the parts of one unit with what stands in the way of each.
type resolved struct {
	of    map[string]*order.Part
	list  []string
	whole map[string][]string // parts of an assembly
}

func (r *resolved) add(code string) {
	r.of[code] = &order.Part{Code: code}
	r.list = append(r.list, code)
}

// codes are the parts that a list of codes means on this unit.
func (r *resolved) codes(list []string) (out []string) {
	for _, code := range list {
		if r.of[code] != nil {
			out = append(out, code)
		} else {
			out = append(out, r.whole[code]...)
		}
	}
	return out
}

func (r *resolved) hold(code string, by ...string) {
	if p := r.of[code]; p != nil {
		for _, b := range by {
			if b != code && !slices.Contains(p.Held, b) {
				p.Held = append(p.Held, b)
			}
		}
	}
}

func (r *resolved) resolve(o *Ordering) {
	next := map[string][]string{} // what lies right behind a part
	for _, chain := range o.Behind {
		before := []string{}
		for _, group := range chain {
			codes := r.codes(group)
			for _, code := range codes {
				r.hold(code, before...)
			}
			if len(codes) > 0 && len(before) > 0 {
				last := before[len(before)-1]
				next[last] = append(next[last], codes...)
			}
			before = append(before, codes...)
		}
	}
	r.through(o.Through)
	for _, host := range slices.Sorted(maps.Keys(o.Inside)) { // the words that tell it stay the same
		hosts := r.codes([]string{host})
		for _, code := range r.codes(o.Inside[host]) {
			r.hold(code, hosts...)
		}
	}
	for _, either := range slices.Sorted(maps.Keys(o.Either)) {
		for _, code := range r.codes([]string{either}) {
			for _, way := range o.Either[either] {
				r.of[code].Ways = append(r.of[code].Ways, r.codes(slices.Concat(way...)))
			}
		}
	}
	for _, code := range r.list {
		tight := code + order.Tight
		if r.of[tight] == nil {
			continue
		}
		closed, said := o.Closes[code]
		closes := r.codes(closed)
		if !said {
			closes = next[code]
		}
		for _, c := range closes {
			r.hold(c, tight)
		}
	}
}

// through gives each part of the chains that are open at both ends its two ways.
func (r *resolved) through(chains []Chain) {
	front, rear := map[string][]string{}, map[string][]string{}
	for _, chain := range chains {
		var groups [][]string
		for _, g := range chain {
			groups = append(groups, r.codes(g))
		}
		for i, group := range groups {
			for _, code := range group {
				front[code] = append(front[code], slices.Concat(groups[:i]...)...)
				rear[code] = append(rear[code], slices.Concat(groups[i+1:]...)...)
			}
		}
	}
	for code := range front {
		r.of[code].Ways = append(r.of[code].Ways, front[code], rear[code])
	}
}

// ordering refuses parts that keep one another in.
func (c *checker) ordering() {
	if _, err := c.f.Ordered(c.f.all()); err != nil {
		c.fail(c.at["order"], "order: %v", err)
	}
}

func (f *Family) all() []*Part {
	out := make([]*Part, len(f.Parts))
	for i := range f.Parts {
		out[i] = &f.Parts[i]
	}
	return out
}

// orders looks for parts in an ordering that none of a family's forms has.
func (f *Family) orders(line int, forms []*Family) error {
	known := map[string]bool{}
	for _, g := range forms {
		for _, p := range g.all() {
			known[p.Code], known[p.Code+order.Tight] = true, p.Tightened() || known[p.Code+order.Tight]
		}
		for _, i := range g.Instances {
			known[i.Code], known[i.Base] = true, true
		}
	}
	if code := f.Order.strange(func(c string) bool { return known[c] }); code != "" {
		return f.wrong(line, "order: there is no part or assembly %q", code)
	}
	return nil
}

// strange is a code of the ordering that is not known, "" where all are.
func (o *Ordering) strange(known func(string) bool) (code string) {
	o.named(func(c string) string {
		if code == "" && !known(c) {
			code = c
		}
		return c
	})
	return code
}
