package invented

import (
	"fmt"
	"maps"
	"slices"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/unit"
)

// Needs are what a machine asks of a unit of any family, by field.
var Needs = map[string]string{
	"displacement": "32 cc/rev", "speed": "1450 rpm", "duty_pressure": "175 bar", "viscosity": "46 cSt",
	"fluid": "mineral oil VG 46", "temperature": "50 C", "need_flow": "10 L/min", "need_aux_flow": "5 L/min",
	"need_torque":    "40 N·m",
	"need_line_pull": "20 kN", "need_drum": "300 mm", "need_rope": "16 mm", "need_layer": "2", "need_load": "20 kN",
	"need_load_time": "20 s", "need_creep": "5 mm", "need_leak": "20 ml/min", "need_shot": "0.75 ml",
	"need_back_low": "10 bar", "need_back_high": "60 bar", "need_medium": "dry nitrogen", "need_pressure": "200 bar",
	"need_pilot": "15 bar", "need_apart": "5 %", "need_force": "40 kN", "need_stroke": "300 mm", "need_turns": "3",
	"need_draw_time": "60 s", "need_standing": "8 h", "setting_low": "190 bar", "setting_high": "205 bar",
	"setting_source": "the mill's sheet, page 2",
}

// Told is what stands on the plate of such a unit and what its machine asks of it.
func Told(st *bench.State) (out []Value) {
	for _, name := range slices.Sorted(maps.Keys(Needs)) {
		out = append(out, Value{st.Unit.Ref(name), Needs[name]})
	}
	if st.Family.Action == "pump" {
		out = append(out, Value{st.Unit.Ref("rotation"), "right"})
	}
	return out
}

// Found is a unit on which nothing is missing, each part as its family says.
func Found(st *bench.State) (out []Value) {
	u := st.Unit
	for _, p := range st.Unseen() {
		out = append(out, Value{u.PartRef(p.Code, "sound"), entry.Yes})
	}
	for _, p := range st.Parts {
		say := func(name, text string) { out = append(out, Value{u.PartRef(p.Code, name), text}) }
		say("found", fmt.Sprint(p.Expected))
		if len(p.Def.Facings) > 0 {
			facing := p.Def.Facing
			if facing == "" {
				facing = p.Def.Facings[0]
			}
			say("facing", facing)
		}
		switch {
		case p.Stack == nil:
		case p.Def.Stack.As != "":
			say("stack_found", p.Def.Stack.As)
		default:
			say("stack_found", "shim=0.10mm")
		}
		for _, f := range p.Features {
			for _, slot := range f.Spec.Slots() {
				if !f.Def.Size {
					out = append(out, Value{u.ReadingRef(p.Code, f.Code, unit.StageFound, slot), Good(f, slot)})
				}
			}
		}
	}
	return out
}

// Again are the clearances of a build, measured on it.
func Again(st *bench.State) (out []Value) {
	for _, p := range st.Parts {
		for _, f := range p.Features {
			for _, slot := range f.Spec.Slots() {
				if f.Def.Clearance {
					out = append(out, Value{st.Unit.ReadingRef(p.Code, f.Code, unit.StageBuilt, slot), Good(f, slot)})
				}
			}
		}
	}
	return out
}
