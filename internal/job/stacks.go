package job

import (
	"strings"

	"corvek/core/family"
	"corvek/core/strip"
	"corvek/core/unit"
)

// StackState is a part's pack as it came off and as it goes back.
type StackState struct {
	Def   *family.StackDef
	Right []family.Piece // as the family has it; empty where it does not say

	Found, Fit           []family.Piece
	FoundFault, FitFault string // what cannot be read
	FoundDiff, FitDiff   []strip.Difference
	FoundDoes, FitDoes   strip.Delivery
}

func newStack(def *family.StackDef, foundText, fitText string) *StackState {
	s := &StackState{Def: def}
	s.Right, _ = def.Read(def.As)
	var err error
	if s.Found, err = def.Read(foundText); err != nil {
		s.FoundFault = err.Error()
	}
	if s.Fit, err = def.Read(fitText); err != nil {
		s.FitFault = err.Error()
	}
	if len(s.Right) > 0 {
		if len(s.Found) > 0 {
			s.FoundDiff = strip.CompareStacks(s.Found, s.Right)
		}
		if len(s.Fit) > 0 {
			s.FitDiff = strip.CompareStacks(s.Fit, s.Right)
		}
	}
	s.FoundDoes, s.FitDoes = strip.Deliver(def, s.Found), strip.Deliver(def, s.Fit)
	return s
}

// Carries is the torque in N·m that a part's friction pack holds under the
// spring stack that presses it, both as removed or both as fitted.
func (st *State) Carries(p *PartState, fit bool) (float64, bool) {
	if p.Stack == nil || p.Stack.Def.Friction == nil {
		return 0, false
	}
	for _, by := range st.Parts {
		if by.Code != p.Stack.Def.Friction.PressedBy || by.Stack == nil {
			continue
		}
		if fit {
			return strip.Carries(p.Stack.Def.Friction, p.Stack.FitDoes, by.Stack.FitDoes)
		}
		return strip.Carries(p.Stack.Def.Friction, p.Stack.FoundDoes, by.Stack.FoundDoes)
	}
	return 0, false
}

// stopStacks asks for every stack as it came off, and holds what is to be
// fitted against the family's stack and against what it must deliver.
func (st *State) stopStacks() {
	for _, p := range st.Parts {
		s := p.Stack
		if s == nil || !p.Off {
			continue
		}
		name := p.Name
		switch {
		case s.FoundFault != "":
			st.stopPart(p, "strip", unit.StopStack, "%s: the stack as removed %s", name, s.FoundFault)
		case len(s.Found) == 0:
			st.stopPart(p, "strip", unit.StopStack, "%s: order and facing as removed not noted", name)
		case hasUnfaced(s.Found):
			st.stopPart(p, "strip", unit.StopStack, "%s: a facing as removed is not noted", name)
		}
		if !p.Step.Done {
			continue
		}
		switch {
		case len(s.Fit) == 0:
			st.stopPart(p, "build", unit.StopStack, "%s: order and facing as fitted not noted", name)
		case len(s.FitDiff) > 0:
			var says []string
			for _, d := range s.FitDiff {
				says = append(says, d.Text)
			}
			st.stopPart(p, "build", unit.StopStack, "%s: %s", name, strings.Join(says, "; "))
		case s.FitDoes.Fault != "":
			st.stopPart(p, "build", unit.StopStack, "%s: %s", name, s.FitDoes.Fault)
		case s.FitDoes.Needed > 0 && !s.FitDoes.Enough():
			st.stopPart(p, "build", unit.StopStack, "%s delivers %.0f N of the %.0f N it must", name,
				s.FitDoes.Force, s.FitDoes.Needed)
		}
	}
}

func hasUnfaced(pieces []family.Piece) bool {
	for _, p := range pieces {
		if p.Def.Faced && p.Facing == 0 {
			return true
		}
	}
	return false
}
