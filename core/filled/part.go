package filled

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/fastener"
	"corvek/core/leakage"
	"corvek/core/quantity"
	"corvek/core/seal"
	"corvek/core/unit"
)

// parts are the subjects for which a rule holds.
func parts(holds func(*bench.Part) bool) func(*bench.State) []Subject {
	return func(st *bench.State) (out []Subject) {
		for _, p := range st.Parts {
			if holds(p) {
				out = append(out, Subject{p.Code, p.Name})
			}
		}
		return out
	}
}

func ofKind(kinds ...string) func(*bench.State) []Subject {
	return parts(func(p *bench.Part) bool { return slices.Contains(kinds, p.Def.Kind) })
}

var packs = parts(func(p *bench.Part) bool { return p.Stack != nil && p.Stack.Def.Friction != nil })

var bolted = parts(func(p *bench.Part) bool {
	j, bolted := build.JointOf(p.Def, p.Part.Joint)
	return bolted && j.Bolts
})

var soft = parts(func(p *bench.Part) bool { return p.Part.Seal.Material != "" })

// leaks are the paths of a shape by which this unit leaks.
func leaks(shape leakage.Shape) func(*bench.State) []Subject {
	return func(st *bench.State) (out []Subject) {
		for _, l := range st.Family.Leaks {
			if leakage.Shape(l.Shape) == shape {
				out = append(out, Subject{l.Feature, l.Name})
			}
		}
		return out
	}
}

// path is the leak path of a feature as it was found, with its sizes.
func (f *from) path(about string) (leakage.Path, bool) {
	for _, l := range f.Family.Leaks {
		at := slices.IndexFunc(f.State.Found.Paths, func(p leakage.Path) bool { return p.Name == l.Name })
		if l.Feature == about && at >= 0 {
			return f.State.Found.Paths[at], true
		}
	}
	return leakage.Path{}, false
}

// leak gives what every gap is asked, and the path where its sizes are known.
func (f *from) leak(about string) (leakage.Path, bool) {
	f.size("pressure_drop", f.Unit.DutyPressure, "duty pressure")
	if f.Duty.HasViscosity {
		f.put("dynamic_viscosity", fmt.Sprintf("%.4g Pa·s", f.Duty.Viscosity),
			"viscosity at duty, times the density of its fluid")
	}
	p, known := f.path(about)
	if known {
		f.si("length", p.Length, quantity.Length, "own size of the unit")
	}
	return p, known
}

func annularLeak(f *from, about string) {
	p, known := f.leak(about)
	if !known {
		return
	}
	f.si("diameter", p.Diameter, quantity.Length, "own size of the unit")
	f.si("clearance", 2*p.Gap, quantity.Length, p.Name+", as found")
	f.si("eccentricity", p.Eccentricity, quantity.Number, "guidance of the family")
}

func planeLeak(f *from, about string) {
	p, known := f.leak(about)
	if !known {
		return
	}
	f.si("width", p.Width, quantity.Length, "own size of the unit")
	f.si("gap", p.Gap, quantity.Length, p.Name+", as found, its share on one side")
}

// found gives a reading of a feature of the part, as new or as found.
func (f *from) found(name string, p *bench.Part, feature string) {
	for _, x := range p.Features {
		if x.Code == feature && x.Found.HasValue {
			f.si(name, x.Found.Value, quantity.Length, x.Def.Name+" of "+p.Name+", as found")
		}
	}
}

func coilSpring(f *from, about string) {
	p := f.ByCode[about]
	f.found("free_length", p, "free_length")
	c := p.Part.Coil
	of := " of " + p.Name + ", as told or measured"
	if c.Rate.IsZero() {
		f.size("wire", c.Wire, "wire"+of)
		f.size("mean_diameter", c.Mean, "mean diameter"+of)
		f.size("active_coils", c.Turns, "active coils"+of)
	} else {
		f.size("rate", c.Rate, "rate"+of)
	}
	if s, known := f.Sizes.At(about + ".installed"); known {
		f.si("installed_length", s.SI, quantity.Length, "length as it sits")
	}
	if r := f.Family.Relief; r != nil && r.Part == about {
		if s, known := f.Sizes.At(r.Seat); known {
			f.si("seat_diameter", s.SI, quantity.Length, f.SizeName(r.Seat))
		}
	}
}

func springCheck(f *from, about string) {
	p := f.ByCode[about]
	f.found("measured", p, "free_length")
	for _, x := range p.Features {
		if x.Code == "free_length" && x.Found.HasNominal {
			f.si("nominal", x.Found.Nominal, quantity.Length, "as new")
		}
	}
}

func discStack(f *from, about string) {
	p := f.ByCode[about]
	of := "own springs of " + p.Name
	s := p.Part.Spring
	f.size("outside", s.Outside, of)
	f.size("inside", s.Inside, of)
	f.size("thickness", s.Thickness, of)
	f.size("cone_height", s.Cone, of)
	f.size("installed_height", s.Space, "height they are held at")
	f.size("needed_force", s.Needed, "force it must give")
	if p.Stack == nil {
		return
	}
	pieces, whence := p.Stack.Fit, "as fitted"
	if len(pieces) == 0 {
		pieces, whence = p.Stack.Found, "as it came out"
	}
	var text strings.Builder
	for _, piece := range pieces {
		if piece.Facing != 0 {
			text.WriteByte(piece.Facing)
		}
	}
	f.put("stack", text.String(), whence)
}

func frictionPack(f *from, about string) {
	p := f.ByCode[about]
	pieces, whence := p.Stack.Fit, "plates as fitted"
	if len(pieces) == 0 {
		pieces, whence = p.Stack.Found, "plates as they came out"
	}
	var text strings.Builder
	for _, piece := range pieces {
		switch piece.Def.Kind {
		case "friction":
			text.WriteByte('f')
		case "separator", "plate":
			text.WriteByte('s')
		}
	}
	f.put("plates", text.String(), whence)
	f.size("friction", p.Part.Rub.Friction, "friction of its lining: "+p.Part.Rub.Source)
	by := p.Stack.Def.Friction
	for input, path := range map[string]string{"outer": by.Outer, "inner": by.Inner} {
		if s, known := f.Sizes.At(path); known {
			f.si(input, s.SI, quantity.Length, f.SizeName(path))
		}
	}
	if press := f.ByCode[by.PressedBy]; press != nil && press.Stack != nil {
		does := press.Stack.FoundDoes
		if len(press.Stack.Fit) > 0 {
			does = press.Stack.FitDoes
		}
		if does.Force > 0 {
			f.si("force", does.Force, quantity.Force, "what "+press.Name+" gives at its height")
		}
	}
	slices.SortFunc(f.out, func(a, b Input) int { return strings.Compare(a.Name, b.Name) })
}

func boltTorque(f *from, about string) {
	p := f.ByCode[about]
	j, _ := build.JointOf(p.Def, p.Part.Joint)
	f.put("thread", j.Thread, "thread of "+p.Name)
	class := j.Class
	if class == "" && j.Thread != "" {
		class = "unknown"
	}
	f.put("class", class, "head mark of "+p.Name)
	if j.Thread != "" {
		k, how := fastener.KOiled, "oiled"
		if j.Dry {
			k, how = fastener.KDry, "dry"
		}
		f.si("k", k, quantity.Number, "goes in "+how)
	}
}

func boltPattern(f *from, about string) {
	p := f.ByCode[about]
	j, _ := build.JointOf(p.Def, p.Part.Joint)
	if j.Circle > 1 {
		f.put("count", fmt.Sprint(j.Circle), p.Name+" on one circle")
	}
	if t, err := build.Tighten(j); err == nil && t.Torque > 0 {
		f.si("torque", t.Torque, quantity.Torque, t.Source)
	}
}

func (f *from) seal(about string) *unit.Seal { return &f.ByCode[about].Part.Seal }

func ringFind(f *from, about string) {
	s := f.seal(about)
	f.size("inside", s.Inside, "inside of the old one, measured")
	f.size("section", s.Section, "section of the old one, measured")
}

func ringGland(f *from, about string) {
	ringFind(f, about)
	f.size("hardness", f.seal(about).Hardness, "hardness of the ring")
	f.size("pressure", f.Unit.DutyPressure, "duty pressure")
}

func lipFind(f *from, about string) {
	s := f.seal(about)
	f.size("shaft", s.Shaft, "shaft it runs on")
	if s.Bore.IsZero() && !s.Outside.IsZero() {
		f.size("seal_outside", s.Outside, "outside of the removed one, which has relaxed")
		f.put("seal_state", "old", "it was removed")
	} else {
		f.size("bore", s.Bore, "bore of the housing")
	}
	f.size("width", s.Width, "width of the old one")
}

func lipOffset(f *from, about string) {
	l := f.ByCode[about].Part.Lip
	f.size("groove_from_face", l.Groove, "near edge of the groove")
	f.size("groove_width", l.Width, "width of the groove")
	f.size("seal_width", f.seal(about).Width, "width of the seal")
	f.size("lip_position", l.Position, "lip from the seal's outer face")
	f.size("bore_depth", l.Bore, "depth of the bore")
	f.size("shoulder_depth", l.Shoulder, "shoulder the seal stops at")
}

func shelfLife(f *from, about string) {
	s := f.seal(about)
	f.put("elastomer", s.Material, "material of "+f.ByCode[about].Name)
	f.put("cure_date", s.Cure, "cure date on the bag")
}

func compatible(f *from, about string) {
	f.put("elastomer", f.seal(about).Material, "material of "+f.ByCode[about].Name)
	if fluid, known := seal.NamedFluid(f.Unit.Fluid); known {
		f.put("fluid", fluid, "fluid of the unit")
	}
	f.size("temperature", f.Unit.Temperature, "temperature at duty")
}
