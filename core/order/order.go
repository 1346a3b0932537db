// Package order tells in which orders a unit can be taken apart and put together, from what stands in whose way.
// It is the directional blocking of assembly planning (Wilson and Latombe, Artificial Intelligence 71, 1994): a part
// moves when one of its ways is free, and taking a part out only ever frees ways.
package order

import (
	"fmt"
	"slices"
	"strings"
)

// Tight is the ending of the code of a fastener that is tightened: in, and something else besides. It comes off
// (is loosened) before the fastener and before all that it closes.
const Tight = "!"

// Part is a part with what can stand in its way.
type Part struct {
	Code string
	Ways [][]string // one of them must be free of these parts; none: it is open on all sides
	Held []string   // and none of these may be there: what it sits in, lies behind, is closed by
}

// Order is what stands in whose way in one unit.
type Order struct {
	parts  []Part
	at     map[string]int
	blocks [][]block // what each part stands in the way of
}

// block is that a part stands in a way of another; in all of them where it holds it.
type block struct{ part, way int }

const allWays = -1

// New takes the parts of a unit in the order in which they are listed. What is named and is not on the unit stands
// in nobody's way. Parts that keep one another in for ever are refused.
func New(parts []Part) (*Order, error) {
	o := &Order{at: map[string]int{}}
	for _, p := range parts {
		if _, twice := o.at[p.Code]; twice {
			return nil, fmt.Errorf("%s stands twice in the order", p.Code)
		}
		o.at[p.Code] = len(o.parts)
		o.parts = append(o.parts, p)
	}
	strange := func(code string) bool { return !o.Has(code) }
	for i := range o.parts {
		p := &o.parts[i]
		p.Held = slices.DeleteFunc(slices.Clone(p.Held), strange)
		p.Ways = slices.Clone(p.Ways)
		for k := range p.Ways {
			p.Ways[k] = slices.DeleteFunc(slices.Clone(p.Ways[k]), strange)
		}
	}
	o.blocks = make([][]block, len(o.parts))
	for i := range o.parts {
		for _, c := range o.parts[i].Held {
			o.blocks[o.at[c]] = append(o.blocks[o.at[c]], block{i, allWays})
		}
		for k, way := range o.parts[i].Ways {
			for _, c := range way {
				if c != o.parts[i].Code {
					o.blocks[o.at[c]] = append(o.blocks[o.at[c]], block{i, k})
				}
			}
		}
	}
	if stuck := o.stuck(o.all(), func(string) bool { return false }); len(stuck) > 0 {
		return nil, fmt.Errorf("these keep one another in: %s", strings.Join(stuck, ", "))
	}
	return o, nil
}

// Set is a set of codes that are on the unit.
type Set map[string]bool

func (o *Order) all() Set {
	s := Set{}
	for _, p := range o.parts {
		s[p.Code] = true
	}
	return s
}

// Codes are the parts in the order in which they were listed, fasteners and their tightening apart.
func (o *Order) Codes() (out []string) {
	for _, p := range o.parts {
		out = append(out, p.Code)
	}
	return out
}

// Has reports that something is a part of the order.
func (o *Order) Has(code string) bool { _, ok := o.at[code]; return ok }

// InWay names what keeps a part of a unit from moving while these parts are on it, by the way with the fewest in it;
// nothing where it comes off, or goes in.
func (o *Order) InWay(on Set, code string) []string {
	i, known := o.at[code]
	if !known {
		return nil
	}
	p := &o.parts[i]
	present := func(codes []string) (out []string) {
		for _, c := range codes {
			if on[c] && c != code {
				out = append(out, c)
			}
		}
		return out
	}
	held := present(p.Held)
	var least []string
	for k, way := range p.Ways {
		if in := present(way); k == 0 || len(in) < len(least) {
			least = in
		}
	}
	for _, c := range least {
		if !slices.Contains(held, c) {
			held = append(held, c)
		}
	}
	return held
}

// free reports that nothing keeps a part from moving.
func (o *Order) free(on Set, code string) bool {
	p := &o.parts[o.at[code]]
	blocked := func(list []string) bool {
		return slices.ContainsFunc(list, func(c string) bool { return on[c] && c != code })
	}
	if blocked(p.Held) {
		return false
	}
	return len(p.Ways) == 0 || slices.ContainsFunc(p.Ways, func(way []string) bool { return !blocked(way) })
}

// stuck takes everything off a set that can come off, but what is kept, and gives what is left of the rest. Each part
// is looked at once, and again when something leaves its way.
func (o *Order) stuck(on Set, kept func(string) bool) (left []string) {
	type count struct {
		held int
		ways []int
	}
	in := make([]count, len(o.parts)) // how much stands in each way
	for i := range o.parts {
		in[i].ways = make([]int, len(o.parts[i].Ways))
	}
	for i := range o.parts {
		if on[o.parts[i].Code] {
			for _, b := range o.blocks[i] {
				if b.way == allWays {
					in[b.part].held++
				} else {
					in[b.part].ways[b.way]++
				}
			}
		}
	}
	free := func(i int) bool {
		return in[i].held == 0 && (len(in[i].ways) == 0 || slices.Contains(in[i].ways, 0))
	}
	out := make([]bool, len(o.parts))
	var todo []int
	look := func(i int) {
		if code := o.parts[i].Code; on[code] && !out[i] && !kept(code) && free(i) {
			out[i] = true
			todo = append(todo, i)
		}
	}
	for i := range o.parts {
		look(i)
	}
	for len(todo) > 0 {
		i := todo[len(todo)-1]
		todo = todo[:len(todo)-1]
		for _, b := range o.blocks[i] {
			if b.way == allWays {
				in[b.part].held--
			} else {
				in[b.part].ways[b.way]--
			}
			look(b.part)
		}
	}
	for i := range o.parts {
		if code := o.parts[i].Code; on[code] && !out[i] && !kept(code) {
			left = append(left, code)
		}
	}
	return left
}

// ClosedOut are the parts that are not in and cannot all get in while these are: each of them goes in before some
// part that is in, in every order that there is. A set with no such parts can be built on.
func (o *Order) ClosedOut(in Set) []string {
	return o.stuck(o.all(), func(code string) bool { return in[code] })
}

// Over are the parts that putting one in would close out: what belongs under it and is not in yet. What another part
// has closed out already is not said again. Nothing where it goes in rightly.
func (o *Order) Over(in Set, code string) (out []string) {
	before := o.ClosedOut(in)
	after := Set{}
	for c, is := range in {
		after[c] = is
	}
	after[code] = true
	for _, c := range o.ClosedOut(after) {
		if !slices.Contains(before, c) && c != code {
			out = append(out, c)
		}
	}
	return out
}

// Apart is what comes out to get at a part, in an order in which it can, the part last: as few as are found by
// looking along each way to its end. A part that is not on the unit needs nothing.
func (o *Order) Apart(on Set, code string) []string {
	if !on[code] || !o.Has(code) {
		return nil
	}
	var best Set
	longest := 0
	for _, p := range o.parts {
		longest = max(longest, len(p.Ways))
	}
	for _, pick := range o.picks(longest) {
		if out := o.freed(on, code, pick); out != nil {
			if out = o.pruned(on, out, code); best == nil || len(out) < len(best) {
				best = out
			}
		}
	}
	if best == nil {
		best = o.pruned(on, o.all(), code)
	}
	return o.sequence(on, best)
}

// picks are rules by which each part that is in the way is moved: always the first way, always the second, and the
// way that has least in it.
func (o *Order) picks(ways int) (out []func(*Part, Set) []string) {
	for k := range max(1, ways) {
		out = append(out, func(p *Part, _ Set) []string {
			if len(p.Ways) == 0 {
				return nil
			}
			return p.Ways[min(k, len(p.Ways)-1)]
		})
	}
	return append(out, func(p *Part, left Set) (least []string) {
		n := -1
		for _, way := range p.Ways {
			in := 0
			for _, c := range way {
				if left[c] {
					in++
				}
			}
			if n < 0 || in < n {
				n, least = in, way
			}
		}
		return least
	})
}

// freed is the set of parts that come out when each moves by the way that is picked for it.
func (o *Order) freed(on Set, code string, pick func(*Part, Set) []string) Set {
	out, left := Set{}, Set{}
	for c, is := range on {
		left[c] = is
	}
	todo := []string{code}
	for len(todo) > 0 {
		c := todo[0]
		todo = todo[1:]
		if out[c] || !on[c] {
			continue
		}
		out[c] = true
		delete(left, c)
		p := &o.parts[o.at[c]]
		todo = append(todo, p.Held...)
		todo = append(todo, pick(p, left)...)
	}
	if o.sequence(on, out) == nil {
		return nil
	}
	return out
}

// sequence is an order in which a set of parts comes off, nil where it does not.
func (o *Order) sequence(on, out Set) (order []string) {
	left := Set{}
	for c, is := range on {
		left[c] = is
	}
	for len(order) < len(out) {
		moved := false
		for _, p := range o.parts {
			if out[p.Code] && left[p.Code] && o.free(left, p.Code) {
				delete(left, p.Code)
				order = append(order, p.Code)
				moved = true
			}
		}
		if !moved {
			return nil
		}
	}
	return order
}

// pruned leaves in what need not come out after all.
func (o *Order) pruned(on, out Set, code string) Set { // what is left is needed, so the part itself comes last
	for c := range out {
		if !on[c] {
			delete(out, c)
		}
	}
	for again := true; again; {
		again = false
		for _, p := range o.parts {
			if p.Code == code || !out[p.Code] {
				continue
			}
			delete(out, p.Code)
			if o.sequence(on, out) == nil {
				out[p.Code] = true
			} else {
				again = true
			}
		}
	}
	return out
}
