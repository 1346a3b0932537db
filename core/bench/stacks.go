package bench

import (
	"corvek/core/family"
	"corvek/core/strip"
	"corvek/core/unit"
)

// Stack is a part's pack as it came off and as it goes back.
type Stack struct {
	Def   *family.StackDef
	Right []family.Piece // as it belongs; empty where that is not known

	Found, Fit           []family.Piece
	FoundFault, FitFault string             // what cannot be read
	FoundDiff, FitDiff   []strip.Difference // from what belongs
	Changed              []strip.Difference // fitted, from what was removed
	FoundDoes, FitDoes   strip.Delivery
}

// newStack reads a part's stack as removed, as it belongs, and as fitted: none stands
// for another.
func newStack(family *family.StackDef, row *unit.Part, round int) *Stack {
	def := ownStack(family, row)
	s := &Stack{Def: def}
	var err error
	if s.Found, err = def.Read(row.Removed()); err != nil {
		s.FoundFault = err.Error()
	}
	if s.Fit, err = def.Read(row.Fitted(round)); err != nil {
		s.FitFault = err.Error()
	}
	switch row.StackFrom {
	case unit.StackFamily:
		s.Right, _ = def.Read(def.As)
	case unit.StackAsRemoved:
		s.Right = s.Found
	case unit.StackUnknown: // nothing is called wrong
	default:
		s.Right, _ = def.Read(row.StackRight)
	}
	if len(s.Right) > 0 && len(s.Found) > 0 {
		s.FoundDiff = strip.CompareStacks(s.Found, s.Right)
	}
	if len(s.Right) > 0 && len(s.Fit) > 0 {
		s.FitDiff = strip.CompareStacks(s.Fit, s.Right)
	}
	if len(s.Found) > 0 && len(s.Fit) > 0 {
		s.Changed = strip.CompareStacks(s.Fit, s.Found)
	}
	s.FoundDoes, s.FitDoes = strip.Deliver(def, s.Found), strip.Deliver(def, s.Fit)
	return s
}

// ownStack is the family's stack with this unit's own springs and space. Where
// another stack belongs than the family's, its springs and the force it must give
// are not this unit's.
func ownStack(def *family.StackDef, row *unit.Part) *family.StackDef {
	own := *def
	if row.StackFrom != unit.StackFamily {
		own.Spring, own.Needed = nil, ""
	}
	sp := row.Spring
	if !sp.Outside.IsZero() && !sp.Inside.IsZero() && !sp.Thickness.IsZero() && !sp.Cone.IsZero() {
		own.Spring = &family.DiscSize{Outside: sp.Outside.Typed, Inside: sp.Inside.Typed,
			Thickness: sp.Thickness.Typed, Cone: sp.Cone.Typed}
	}
	if !sp.Space.IsZero() {
		own.Installed = sp.Space.Typed
	}
	return &own
}

// Carries is the torque in N·m that a part's friction pack holds under the
// spring stack that presses it, both as removed or both as fitted.
func (st *Stripped) Carries(p *Part, fit bool) (float64, bool) {
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
