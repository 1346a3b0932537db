package practice

import (
	"cmp"
	"fmt"
	"slices"

	"corvek/core/explain"
	"corvek/core/hidden"
)

// Done is a case that somebody worked on until he named what is wrong.
type Done struct {
	Family, Kind string
	Right        bool            // it was that
	Early        bool            // it was not as good as sure by what he had seen
	Late         int             // looks that came too late
	Unsaid       int             // marks of which he left open where they come from
	Missed       []explain.Reach // where he never looked, though it would have told most
}

// Habits are what somebody tends to, by his cases, the latest first. They are his own.
type Habits struct {
	Cases, Right int
	Says         []string // in the trade's words, for him and whom he shows it to; what weighs most first
	Kind         string   // of the case that is chosen for him next
	Family       string
}

// lately is how many cases tell of habits: what somebody did long ago he may not do any more.
const lately = 12

// often is from which share of cases something is a habit, and least from how many: one is none.
const (
	often = 1.0 / 3
	least = 2
)

// steady is how many cases of a kind in a row are named rightly before the next kind comes.
const steady = 2

// HabitsOf tells what somebody tends to, and chooses the next case: one that asks for what he leaves out, else the next
// that is harder. families are those that he can be given.
func HabitsOf(done []Done, families []string) Habits {
	h := Habits{Cases: len(done)}
	for _, d := range done {
		if d.Right {
			h.Right++
		}
	}
	last := done[:min(lately, len(done))]
	count := func(is func(Done) bool) (n int) {
		for _, d := range last {
			if is(d) {
				n++
			}
		}
		return n
	}
	type habit struct {
		n    int
		says string
		kind string
	}
	missed := func(at ...explain.Reach) func(Done) bool {
		return func(d Done) bool {
			return slices.ContainsFunc(d.Missed, func(r explain.Reach) bool { return slices.Contains(at, r) })
		}
	}
	all := []habit{
		{count(func(d Done) bool { return d.Early }), "A cause was named before what had been seen made it as good " +
			"as sure", hidden.Astray},
		{count(missed(explain.Asked, explain.Outside)), "The unit was opened before those at its machine were asked " +
			"and it was looked round there", hidden.Away},
		{count(missed(explain.Opened, explain.Stripped)), "Parts that would have told most were not looked at",
			hidden.Two},
		{count(func(d Done) bool { return d.Late > 0 }), "It was wiped and measured before it was looked at",
			hidden.Earlier},
		{count(func(d Done) bool { return d.Unsaid > 0 }), "Where a mark comes from was left open", ""},
	}
	slices.SortStableFunc(all, func(a, b habit) int { return cmp.Compare(b.n, a.n) })
	for _, x := range all {
		if x.n >= least && float64(x.n) >= often*float64(len(last)) {
			h.Says = append(h.Says, fmt.Sprintf("%s: in %d of the last %d units.", x.says, x.n, len(last)))
			h.Kind = cmp.Or(h.Kind, x.kind)
		}
	}
	if h.Kind == "" {
		h.Kind = harder(done)
	}
	h.Family = leastOf(done, families)
	return h
}

// harder is the first kind of which not so many in a row were named rightly.
func harder(done []Done) string {
	for _, k := range hidden.Kinds {
		row := 0
		for _, d := range done {
			if d.Kind == k.Code {
				if !d.Right {
					break
				}
				row++
			}
		}
		if row < steady {
			return k.Code
		}
	}
	return hidden.Two
}

// leastOf is the family that he worked on least, of those the first.
func leastOf(done []Done, families []string) string {
	n := map[string]int{}
	for _, d := range done {
		n[d.Family]++
	}
	best := ""
	for _, f := range families {
		if best == "" || n[f] < n[best] {
			best = f
		}
	}
	return best
}
