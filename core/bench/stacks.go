package bench

import (
	"slices"

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

// ownStack is the stack with this unit's own springs, space and force in place of the sheet's. Where
// another stack belongs than the sheet's, its springs and the force it must give are not this unit's.
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
	if !sp.Needed.IsZero() {
		own.Needed = sp.Needed.Typed
	}
	return &own
}

// Carries is the torque in N·m that a part's friction pack holds under the
// spring stack that presses it, both as removed or both as fitted.
func (st *Stripped) Carries(p *Part, fit bool) (float64, bool) {
	rubs, lacks := st.rubbing(p)
	if p.Stack == nil || p.Stack.Def.Friction == nil || len(lacks) > 0 {
		return 0, false
	}
	for _, by := range st.Parts {
		if by.Code != p.Stack.Def.Friction.PressedBy || by.Stack == nil {
			continue
		}
		if fit {
			return strip.Carries(rubs, p.Stack.FitDoes, by.Stack.FitDoes)
		}
		return strip.Carries(rubs, p.Stack.FoundDoes, by.Stack.FoundDoes)
	}
	return 0, false
}

// rubbing is what a pack of friction plates carries torque by, from this unit's own sizes, or what of it is not
// known.
func (st *Stripped) rubbing(p *Part) (r strip.Rubbing, lacks []string) {
	if p.Stack == nil || p.Stack.Def.Friction == nil {
		return r, nil
	}
	f := p.Stack.Def.Friction
	for path, to := range map[string]*float64{f.Outer: &r.Outer, f.Inner: &r.Inner} {
		size, ok := st.Sizes.At(path)
		if !ok {
			lacks = append(lacks, path)
		}
		*to = size.SI
	}
	slices.Sort(lacks)
	var ok bool
	if r.Friction, ok = p.Part.Rub.Friction.Known(); !ok {
		lacks = append(lacks, p.Code+".friction")
	}
	return r, lacks
}
