package bench

import (
	"sync"

	"corvek/core/explain"
	"corvek/core/search"
)

// Inferred is the unit with what its evidence says of the causes. That is worked out where it
// is first asked for, and once for all states that rest on the same evidence: a reading that
// tells nothing new does not pay for it.
type Inferred struct {
	*Weighed
	inference *inference
	ways      func() map[string][]string // what comes off on the way to each part
	searched  func() *search.Search      // what the attempts come to
	left      func() []Left
}

func inferred(w *Weighed) *Inferred {
	st := &Inferred{Weighed: w, inference: untold, ways: sync.OnceValue(w.waysTo)}
	if w.anythingTold() {
		st.inference = w.memo.inference(w.Knowledge, w.Findings)
	}
	st.searched = sync.OnceValue(st.weighTries)
	st.left = sync.OnceValue(st.workLeft)
	return st
}

// untold is what follows where nothing was told: no cause is made up.
var untold = &inference{
	explained: func() (x explain.Explanation) { return x },
	next:      func() []explain.Check { return nil },
	stories:   func() ([]explain.Story, *explain.Evidence) { return nil, nil },
	turns:     func() []explain.Turn { return nil },
}

// Explained weighs the causes by what was found.
func (st *Inferred) Explained() explain.Explanation { return st.inference.explained() }

// Next is what to look at next, what tells most a minute first.
func (st *Inferred) Next() []explain.Check { return st.inference.next() }

// Stories are the two likeliest ways to tell the case, with what decides between them.
func (st *Inferred) Stories() ([]explain.Story, *explain.Evidence) { return st.inference.stories() }

// WouldChange is what would turn the ranking over.
func (st *Inferred) WouldChange() []explain.Turn { return st.inference.turns() }
