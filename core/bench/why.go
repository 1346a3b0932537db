package bench

import (
	"strings"

	"corvek/core/explain"
	"corvek/core/unit"
)

// Why is the chain from the complaint to a cause. Of the concluded one it goes on to what
// contributed to it and to its own roots; where nobody named any it says that it stops.
func (st *Weighed) Why(c *explain.Cause) []explain.LinkState {
	links := st.Knowledge.Chain(c, st.Findings)
	if c != st.Cause {
		return links
	}
	further := false
	for _, n := range st.Causes() {
		if n.Number == 0 || n.Role == unit.RoleFirst {
			continue
		}
		further = true
		links = append(links, explain.LinkState{Text: n.Name, Told: "named by the bench, " +
			strings.ReplaceAll(n.Role, "_", " ")})
	}
	if !further {
		links = append(links, explain.LinkState{Text: "Why “" + strings.ToLower(c.Name) + "”?", Open: true})
	}
	return links
}

// rivalsLooked is how many of the likeliest other roots must have been looked for before
// fair wear is called.
const rivalsLooked = 3

// NotLookedFor are the likelier roots that nobody looked for, where a cause is concluded
// that is only what is left once they were; none otherwise.
func (st *Inferred) NotLookedFor() []*explain.Cause {
	if st.Cause == nil || !st.Cause.LeftOver {
		return nil
	}
	return st.Knowledge.Unlooked(st.Explained(), st.Findings, rivalsLooked)
}
