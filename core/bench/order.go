package bench

import (
	"slices"
	"strings"

	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/order"
	"corvek/core/unit"
)

// Ordered is what stands in whose way among the parts that are on a unit, listed as they came off. What the relations
// of a family say was looked through when it was read; parts less than it has only free ways.
func Ordered(u *unit.Unit, f *family.Family) *order.Order {
	var parts []*family.Part
	for _, p := range u.Parts {
		if p.OnUnit() {
			parts = append(parts, p.Def(f))
		}
	}
	o, err := f.Ordered(parts)
	if err != nil { // a part that was put in at the bench has a code of its own
		o, _ = order.New(nil)
	}
	return o
}

// LeftAlone are the parts that are not to be taken out and never were, with what lies behind them and was not taken
// out either: they are on the unit as it came.
func LeftAlone(u *unit.Unit, f *family.Family) order.Set {
	alone := order.Set{}
	for _, p := range u.Parts {
		if p.OnUnit() && !p.Off && p.Def(f).DoNot != "" {
			alone[p.Code] = true
		}
	}
	if len(alone) == 0 {
		return alone
	}
	o := Ordered(u, f)
	for _, p := range u.Parts {
		if p.OnUnit() && !p.Off && len(o.InWay(alone, p.Code)) > 0 {
			alone[p.Code] = true
		}
	}
	return alone
}

// InPlace is what is fitted on a unit as it is built, and what is tightened there.
func InPlace(u *unit.Unit, f *family.Family) order.Set {
	in, alone := order.Set{}, LeftAlone(u, f)
	for _, p := range u.Parts {
		if !p.OnUnit() {
			continue
		}
		def, step := p.Def(f), p.Built(u.Round())
		if step == nil {
			step = &unit.Step{}
		}
		place(in, p, def, step, alone[p.Code])
	}
	return in
}

// place puts a part into a set as far as it is in: not, in, or tightened too.
func place(in order.Set, p *unit.Part, def *family.Part, step *unit.Step, alone bool) {
	there := step.Done || alone
	in[p.Code] = there
	in[p.Code+order.Tight] = there && def.Tightened() && (alone || tightened(def, p, step))
}

// inPlace is the same of the parts as they were read.
func (st *Stripped) inPlace() order.Set {
	in := order.Set{}
	for _, p := range st.Parts {
		place(in, p.Part, p.Def, &p.Step, p.Alone)
	}
	return in
}

// tightened reports that a fastener is more than in: its torque was noted, or none is asked of it.
func tightened(def *family.Part, p *unit.Part, step *unit.Step) bool {
	j, bolted := build.JointOf(def, p.Joint)
	return !bolted || p.Joint.Snug || !j.Bolts && j.Angle != "" || !step.Torque.IsZero()
}

// StillOn is what is on a unit as it is taken apart; a fastener is loosened as it comes.
func StillOn(u *unit.Unit) order.Set {
	on := order.Set{}
	for _, p := range u.Parts {
		on[p.Code] = p.OnUnit() && !p.Off
	}
	return on
}

// InOrder are the parts in the order in which they are fitted: as they came off, the other way round, where that
// goes, and what is soft last touched.
func (st *Decided) InOrder() []*Part { return st.inOrder(st.order.Build(nil, st.wish(), st.soft)) }

// ToFit are the parts that are not fitted yet, in an order in which they go in beside what is.
func (st *Decided) ToFit() []*Part {
	left := st.inOrder(st.order.Build(st.inPlace(), st.wish(), st.soft))
	return slices.DeleteFunc(left, func(p *Part) bool { return p.Step.Done })
}

// inOrder are the parts of an order; a fastener that is tightened to something stands where it is, for in one act it
// goes in and is tightened.
func (st *Decided) inOrder(codes []string) (out []*Part) {
	for _, code := range codes {
		name, tight := strings.CutSuffix(code, order.Tight)
		p := st.ByCode[name]
		if p == nil {
			continue
		}
		j, bolted := build.JointOf(p.Def, p.Part.Joint)
		later := bolted && !p.Part.Joint.Snug && (j.Bolts || j.Angle == "") &&
			slices.Contains(codes, name+order.Tight)
		if tight == later {
			out = append(out, p)
		}
	}
	return out
}

// wish is the order of taking off, turned round; a fastener is tightened once it is in.
func (st *Stripped) wish() (out []string) {
	for _, code := range slices.Backward(st.order.Codes()) {
		out = append(out, code)
	}
	return out
}

// soft reports a seal or another part that suffers from being handled.
func (st *Stripped) soft(code string) bool {
	p := st.ByCode[code]
	if p == nil {
		return false
	}
	k, known := family.KindByCode(p.Def.Kind)
	return p.Def.Renew || known && k.Soft
}

// Under are the parts that must be in before one and are not.
func (st *Decided) Under(p *Part) (out []*Part) {
	in := st.inPlace()
	in[p.Code] = false
	for _, code := range st.order.Over(in, p.Code) {
		if x := st.ByCode[code]; x != nil {
			out = append(out, x)
		}
	}
	return out
}

// InTheWay are the parts that are still on and keep one from coming off.
func (st *Stripped) InTheWay(p *AsFound) (out []*AsFound) {
	on := StillOn(st.Unit)
	on[p.Code] = true
	for _, code := range st.order.InWay(on, p.Code) {
		out = append(out, st.ByCode[code])
	}
	return out
}

// OffOrder are all parts in an order in which they come off: as they are listed, where that goes.
func (st *Stripped) OffOrder() (out []*AsFound) {
	all := order.Set{}
	for _, p := range st.Parts {
		all[p.Code] = true
	}
	for _, code := range st.order.Strip(all, nil, func(string) bool { return false }) {
		if p := st.ByCode[code]; p != nil {
			out = append(out, p)
		}
	}
	return out
}

// OffNext are the parts that are still on, in an order in which they come off.
func (st *Stripped) OffNext() (out []*AsFound) {
	for _, code := range st.order.Strip(StillOn(st.Unit), nil, func(string) bool { return false }) {
		if p := st.ByCode[code]; p != nil && !p.Alone {
			out = append(out, p)
		}
	}
	return out
}

// FittedOver says what must be in before a part that is fitted or tightened, and is not; "" where it went in rightly.
func FittedOver(u *unit.Unit, f *family.Family, p *unit.Part) string {
	o, in := Ordered(u, f), InPlace(u, f)
	tight := p.Code + order.Tight
	isTight := in[tight]
	in[p.Code], in[tight] = false, false
	open := o.Over(in, p.Code)
	in[p.Code] = true
	if isTight {
		for _, code := range o.Over(in, tight) {
			if !slices.Contains(open, code) {
				open = append(open, code)
			}
		}
	}
	var words []string
	for _, code := range open {
		name, loose := strings.CutSuffix(code, order.Tight)
		x := u.Part(name)
		switch {
		case x == nil, loose && slices.Contains(open, name):
		case loose:
			words = append(words, strings.ToLower(x.Name)+", tightened")
		default:
			words = append(words, strings.ToLower(x.Name))
		}
	}
	return strings.Join(words, ", ")
}

// Apart are the parts that come out again to get at one, the part itself last: what is in its way and no more.
func Apart(u *unit.Unit, f *family.Family, code string) (out []string) {
	for _, c := range Ordered(u, f).Apart(InPlace(u, f), code) {
		if !strings.HasSuffix(c, order.Tight) {
			out = append(out, c)
		}
	}
	return out
}
