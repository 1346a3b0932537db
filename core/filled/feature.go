package filled

import (
	"maps"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// measured are the features read by one of the methods that have a reading.
func measured(methods ...family.Method) func(*bench.State) []Subject {
	return func(st *bench.State) (out []Subject) {
		for _, p := range st.Parts {
			for _, x := range p.Features {
				if slices.Contains(methods, x.Def.Method) && (x.Found.Any || x.Built.Any) {
					out = append(out, Subject{x.Path(), x.Def.Name + " of " + p.Name})
				}
			}
		}
		return out
	}
}

// at is a feature by part.feature, with what its last reading is called.
func (f *from) at(about string) (x *bench.Feature, stage, whence string) {
	part, code := family.CutFeature(about)
	for _, x := range f.ByCode[part].Features {
		if x.Code == code {
			stage := builtOr(x)
			how := ", as found"
			if stage == unit.StageBuilt {
				how = ", after the build"
			}
			return x, stage, x.Def.Name + " of " + x.Part.Name + how
		}
	}
	return nil, "", ""
}

func (f *from) limits(lower, upper string, l metrology.Limits, d quantity.Dimension, whence string) {
	if l.HasLower {
		f.si(lower, l.Lower, d, whence)
	}
	if l.HasUpper {
		f.si(upper, l.Upper, d, whence)
	}
}

// newest are the readings of a stage by slot, in the order of the slots, as they were typed.
func newest(x *bench.Feature, stage string) (slots, texts []string) {
	all := map[string]string{}
	for _, r := range x.Newest(stage) {
		if !r.Questioned() {
			all[r.Slot] = r.Value
		}
	}
	for _, slot := range slices.Sorted(maps.Keys(all)) {
		slots, texts = append(slots, slot), append(texts, all[slot])
	}
	return slots, texts
}

func readings(f *from, about string) {
	x, stage, whence := f.at(about)
	_, texts := newest(x, stage)
	f.put("readings", strings.Join(texts, ", "), whence)
	if r := x.Result(stage); r.HasNominal {
		f.si("nominal", r.Nominal, quantity.Length, "as new, the middle of its band")
	}
	if x.Def.Wears != "" {
		f.put("kind", x.Def.Wears, "what it is")
	}
}

func judge(f *from, about string) {
	x, stage, whence := f.at(about)
	r := x.Result(stage)
	if r.HasValue {
		f.si("value", r.Value, quantity.Length, whence)
	}
	f.limits("lower", "upper", r.Limits, quantity.Length, "its limit, "+string(r.Source))
	if r.Uncertainty > 0 {
		f.si("uncertainty", r.Uncertainty, quantity.Length, "of the instrument it was read with")
	}
}

func feeler(f *from, about string) {
	x, stage, whence := f.at(about)
	by := map[string][]string{}
	slots, texts := newest(x, stage)
	for i, slot := range slots {
		if leaf, is := strings.CutPrefix(slot, "leaf:"); is {
			by[texts[i]] = append(by[texts[i]], leaf)
		}
	}
	for _, how := range []string{"goes", "stops", "drags"} {
		f.put(how, strings.Join(by[how], ", "), whence)
	}
	f.limits("lower", "upper", x.Result(stage).Limits, quantity.Length, "its limit")
	f.put("measured", x.Measured, "as it was said")
}

func wearLife(f *from, about string) {
	x, stage, whence := f.at(about)
	r := x.Result(stage)
	if r.HasNominal {
		f.si("nominal", r.Nominal, quantity.Length, "as new, the middle of its band")
	}
	if r.HasValue {
		f.si("measured", r.Value, quantity.Length, whence)
	}
	switch {
	case x.Def.Wears == "bore" && r.Limits.HasUpper:
		f.si("limit", r.Limits.Upper, quantity.Length, "its limit")
	case x.Def.Wears == "shaft" && r.Limits.HasLower:
		f.si("limit", r.Limits.Lower, quantity.Length, "its limit")
	}
	f.size("hours", f.Unit.Hours, "hours it ran")
}

func runout(f *from, about string) {
	x, stage, whence := f.at(about)
	r := x.Result(stage)
	if r.HasValue {
		f.si("tir", r.Value, quantity.Length, whence)
	}
	if r.Limits.HasUpper {
		f.si("limit", r.Limits.Upper, quantity.Length, "its limit")
	}
}

func rodBow(f *from, about string) {
	x, stage, whence := f.at(about)
	if r := x.Result(stage); r.HasValue {
		f.si("tir", r.Value, quantity.Length, whence)
	}
}

func gapRatio(f *from, about string) {
	x, _, _ := f.at(about)
	name := x.Def.Name + " of " + x.Part.Name
	if x.Found.HasValue && x.Found.Value > 0 {
		f.si("before", x.Found.Value, quantity.Length, name+", as found")
	}
	if x.Built.HasValue && x.Built.Value > 0 {
		f.si("after", x.Built.Value, quantity.Length, name+", after the build")
	}
}
