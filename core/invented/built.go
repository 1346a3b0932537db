package invented

import (
	"fmt"
	"time"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/entry"
	"corvek/core/unit"
)

// Value is a value as it is typed, with its address.
type Value struct {
	Ref  unit.Ref
	Text string
}

// Built is what is entered of a build without a fault, filled at a time.
func Built(st *bench.State, now time.Time) (out []Value) {
	u := st.Unit
	for _, p := range st.InOrder() {
		say := func(name, text string) { out = append(out, Value{u.StepRef(p.Code, name), text}) }
		joint := p.Part.Joint
		if p.Def.Bolt != nil && joint.Thread == "" && joint.Torque.IsZero() { // read off the head, or out of the book
			for _, v := range jointOf(u, p) {
				out = append(out, v)
				switch v.Ref.Name {
				case "thread":
					joint.Thread = v.Text
				case "class":
					joint.Class = v.Text
				}
			}
		}
		if _, right := build.FittingWays(p.Def); right != "" {
			say("facing", right)
		}
		if p.AsksFeel() {
			say("turn", "free")
		}
		if must, asked := st.CountsIn(p); asked {
			say("count", fmt.Sprint(must))
		}
		switch {
		case p.Stack == nil:
		case p.Def.Stack.As != "":
			say("stack_fit", p.Def.Stack.As)
		default:
			say("stack_fit", "shim=0.10mm")
		}
		if st.Track(p).Worn() {
			say("press", "1.5 mm")
		}
		if j, bolted := build.JointOf(p.Def, joint); bolted {
			tight, err := build.Tighten(j)
			switch {
			case err != nil || tight.Unknown:
			case tight.Torque > 0:
				say("torque", fmt.Sprintf("%.1f N·m", tight.Torque))
			default:
				say("torque", "60 N·m")
			}
		}
		if p.Def.Reaches {
			say("cycled", entry.Yes)
		}
		for _, w := range p.Going() {
			out = append(out, Value{u.ReworkRef(p.Code, w.Code, "flat_how"), unit.FlatBlued})
		}
		say("done", entry.Yes)
	}
	for _, f := range st.Filling() {
		out = append(out, Value{u.FillRef(f.Code), now.UTC().Format("2006-01-02T15:04:05Z")})
	}
	return out
}
