package bench

import (
	"corvek/core/explain"
)

// Inferred is the unit with what its evidence says of the causes. That is worked out where it
// is first asked for, and once for all states that rest on the same evidence: a reading that
// tells nothing new does not pay for it.
type Inferred struct {
	*Weighed
	inference *inference
}

func inferred(w *Weighed) *Inferred {
	if !w.anythingTold() {
		return &Inferred{Weighed: w, inference: &inference{}}
	}
	return &Inferred{Weighed: w, inference: w.memo.inference(w.Knowledge, w.Findings)}
}

// Explained weighs the causes by what was found.
func (st *Inferred) Explained() explain.Explanation {
	if st.inference.explained == nil {
		return explain.Explanation{}
	}
	return st.inference.explained()
}

// Next is what to look at next, what tells most a minute first.
func (st *Inferred) Next() []explain.Check {
	if st.inference.next == nil {
		return nil
	}
	return st.inference.next()
}

// Stories are the two likeliest ways to tell the case, with what decides between them.
func (st *Inferred) Stories() (stories []explain.Story, decider *explain.Evidence) {
	if st.inference.stories == nil {
		return nil, nil
	}
	return st.inference.stories()
}

// WouldChange is what would turn the ranking over.
func (st *Inferred) WouldChange() []explain.Turn {
	if st.inference.turns == nil {
		return nil
	}
	return st.inference.turns()
}
