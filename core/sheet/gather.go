package sheet

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// ofModel are the values that belong to a model and not to the unit on the bench or its machine.
var ofModel = map[unit.Scope]string{
	unit.ScopeUnit: `fluid viscosity density displacement speed duty_pressure rated_pressure temperature filtration
		capacity setting_low setting_high setting_source need_flow need_torque need_leak need_shot need_back_low
		need_back_high need_pressure need_pilot need_aux_flow
		need_apart need_force need_stroke need_fill need_turns need_draw_time need_medium`,
	unit.ScopePart: `expected spring_outside spring_inside spring_thickness spring_cone stack_space stack_needed
		stack_right friction friction_source thread class dry joint_torque joint_source joint_angle snug locking
		engaged coil_rate coil_wire coil_mean coil_turns seal_standard seal_size seal_material seal_hardness
		seal_maker_no seal_inside seal_section seal_shaft seal_bore seal_width price`,
	unit.ScopeFeature: "new_low new_high new_from new_source lower upper standing source limit_for",
	unit.ScopeLimit:   "least most source",
}

// OfModel are the fields of a scope that belong to a model.
func OfModel(scope unit.Scope) (out []*entry.Field) {
	for _, name := range strings.Fields(ofModel[scope]) {
		if f, known := entry.Find(scope, name); known {
			out = append(out, f)
		}
	}
	return out
}

// belongs reports that an address is of a value that belongs to a model: a sheet that was written elsewhere puts
// nothing else into a unit, no serial, no count and no figure of a test.
func belongs(ref unit.Ref) bool {
	return slices.Contains(strings.Fields(ofModel[ref.Scope]), ref.Name) && ref.Code == "" ||
		ref.Scope == unit.ScopeLimit && slices.Contains(strings.Fields(ofModel[ref.Scope]), ref.Name)
}

// Item is something that a unit knows of its model.
type Item struct {
	Value
	Group string // by which it is picked
	Was   string // on the sheet, "" where it is not on it
	New   bool   // it is not on the sheet
	Other bool   // the sheet has it otherwise
}

// Gather is what a unit knows of its model, as a sheet that stands on this unit alone. A value that came from a
// sheet and was left as it was is told as it stands there.
func Gather(j *unit.Job, u *unit.Unit, f *family.Family) *Sheet {
	s := &Sheet{Family: u.Family, Maker: strings.TrimSpace(u.Maker), Model: strings.TrimSpace(u.Model),
		Variant: u.Variant}
	for code, n := range u.More {
		if s.More == nil {
			s.More = map[string]string{}
		}
		s.More[code] = n
	}
	g := &gathering{s: s, j: j, u: u, f: f, codes: map[string]string{}}
	g.fields(&entry.Place{Job: j, Unit: u, Family: f}, unit.ScopeUnit, "")
	for _, l := range u.Limits {
		g.fields(&entry.Place{Job: j, Unit: u, Family: f, Limit: l}, unit.ScopeLimit, "limit/"+l.Code+"/")
	}
	g.parts()
	for _, k := range u.Kit {
		s.Kit = append(s.Kit, Piece{Number: k.Code, Name: k.Name, Count: k.Count, Part: g.code(k.Part),
			Left: k.LeftReason})
	}
	if j.Lesson != "" {
		s.Lessons = []Lesson{{j.Tag, j.Lesson}}
	}
	return s
}

type gathering struct {
	s     *Sheet
	j     *unit.Job
	u     *unit.Unit
	f     *family.Family
	codes map[string]string // of parts that the family has not, on the sheet
}

func (g *gathering) code(part string) string {
	if code, odd := g.codes[part]; odd {
		return code
	}
	return part
}

func (g *gathering) fields(p *entry.Place, scope unit.Scope, at string) {
	for _, f := range OfModel(scope) {
		if text := f.Get(p); text != "" {
			g.put(at+f.Name, text)
		}
	}
}

func (g *gathering) put(key, text string) {
	g.s.Values = append(g.s.Values, Value{Key: key, Text: text, Source: g.j.Tag})
}

// parts are those that make the form true, and what is known of each.
func (g *gathering) parts() {
	after := ""
	for _, p := range g.u.Parts {
		_, usual := g.f.PartByCode(p.Code)
		switch {
		case usual && !p.OnUnit():
			g.s.Parts = append(g.s.Parts, Part{Code: p.Code, Absent: p.Absent})
			after = p.Code
			continue
		case !usual && p.Kind != "" && p.OnUnit():
			g.codes[p.Code] = g.odd(p)
			g.s.Parts = append(g.s.Parts, Part{Code: g.code(p.Code), Name: p.Name, Kind: p.Kind, Branch: p.Branch,
				After: after, Count: p.Expected})
		}
		after = g.code(p.Code)
		g.part(p)
	}
}

// odd is the code on the sheet of a part that the family has not.
func (g *gathering) odd(p *unit.Part) string {
	if !strings.HasPrefix(p.Code, "extra-") {
		return p.Code
	}
	code := family.CodeOf(p.Name)
	if code == "" {
		code = "part"
	}
	taken := func(c string) bool {
		return g.u.Part(c) != nil || slices.ContainsFunc(g.s.Parts, func(x Part) bool { return x.Code == c })
	}
	base := code
	for n := 2; taken(code); n++ {
		code = fmt.Sprintf("%s_%d", base, n)
	}
	return code
}

func (g *gathering) part(p *unit.Part) {
	def := p.Def(g.f)
	at := "part/" + g.code(p.Code) + "/"
	place := &entry.Place{Job: g.j, Unit: g.u, Family: g.f, Part: p, Def: def}
	for _, f := range OfModel(unit.ScopePart) {
		text := f.Get(place)
		switch {
		case text == "", f.Name == "expected" && p.From == unit.CountFamily, f.Name == "expected" && p.Kind != "":
		case f.Name == "stack_right":
		default:
			g.put(at+f.Name, text)
		}
	}
	switch {
	case def.Stack == nil:
	case p.StackFrom == unit.StackAsRemoved && p.Removed() != "":
		g.put(at+"stack_right", p.Removed())
	case p.StackRight != "" && (p.StackFrom == unit.StackVariant || p.StackFrom == unit.StackDrawing):
		g.put(at+"stack_right", p.StackRight)
	}
	for _, f := range p.Features {
		if fd, known := def.FeatureByCode(f.Code); known {
			g.feature(&entry.Place{Job: g.j, Unit: g.u, Family: g.f, Part: p, Def: def, Feature: f, FeatureDef: fd}, at)
		}
	}
}

// feature is the size as new and the limit of a feature. What it was measured to on this unit stands behind it.
func (g *gathering) feature(p *entry.Place, at string) {
	f := p.Feature
	at += "feature/" + f.Code + "/"
	measured := middle(f)
	for _, field := range OfModel(unit.ScopeFeature) {
		text := field.Get(p)
		limit := !f.Lower.IsZero() || !f.Upper.IsZero()
		switch {
		case text == "", f.New.Low.IsZero() && strings.HasPrefix(field.Name, "new_"):
		case !limit && (field.Name == "standing" || field.Name == "source" || field.Name == "limit_for"):
		case f.LimitSource == string(family.SourceEarlier) && !strings.HasPrefix(field.Name, "new_"):
		case f.New.From == unit.NewSheet && (field.Name == "new_from" || field.Name == "new_source"):
		case f.LimitSource == string(family.SourceSheet) && (field.Name == "standing" || field.Name == "source"):
		default:
			g.put(at+field.Name, text)
			if field.Name == "new_low" && (f.New.From == unit.NewUnworn || f.New.From == unit.NewSister) {
				g.seen(text)
			}
		}
	}
	if p.FeatureDef.Size && measured != "" {
		if f.New.Low.IsZero() {
			g.put(at+"new_low", measured)
		}
		g.seen(measured)
	}
}

// seen notes what this unit had behind the value put last.
func (g *gathering) seen(text string) {
	v := &g.s.Values[len(g.s.Values)-1]
	v.Seen = []Seen{{g.j.Tag, text}}
}

// middle is the middle reading of a feature as it was typed, "" where nothing was read.
func middle(f *unit.Feature) string {
	read := slices.DeleteFunc(slices.Clone(f.Newest(unit.StageFound)), func(r *unit.Reading) bool {
		return r.Size.IsZero() || r.Questioned()
	})
	if len(read) == 0 {
		return ""
	}
	slices.SortFunc(read, func(a, b *unit.Reading) int {
		switch {
		case a.Size.SI < b.Size.SI:
			return -1
		case a.Size.SI > b.Size.SI:
			return 1
		}
		return 0
	})
	return read[len(read)/2].Value
}

// Differences are what a unit knows beside its sheet: what is new, and what the sheet has otherwise. A nil sheet
// knows nothing.
func Differences(s, of *Sheet) (out []Item) {
	for _, v := range of.Values {
		item := Item{Value: v, New: true}
		if s != nil {
			if old := s.Value(v.Key); old != nil {
				if same(old.Text, v.Text) {
					continue
				}
				item.New, item.Other, item.Was = false, true, old.Text
			}
		}
		item.Group = Group(v.Key)
		out = append(out, item)
	}
	return out
}

// same reports that two texts say one value, whatever its unit.
func same(a, b string) bool {
	if a == b {
		return true
	}
	for _, dim := range []quantity.Dimension{quantity.Length, quantity.Pressure, quantity.Torque, quantity.Flow,
		quantity.Force, quantity.SpringRate, quantity.Volume} {
		qa, errA := quantity.Parse(a, dim)
		qb, errB := quantity.Parse(b, dim)
		if errA == nil && errB == nil {
			return math.Abs(qa.SI-qb.SI) <= 1e-9*math.Abs(qa.SI)
		}
	}
	return false
}

// Group is the key by which values are picked: a size as new goes with its band and source, a limit with its
// other end and whence it is.
func Group(key string) string {
	at := strings.LastIndexByte(key, '/')
	name, feature := key[at+1:], strings.Contains(key, "/feature/")
	switch {
	case feature && strings.HasPrefix(name, "new_"):
		return key[:at+1] + "new_low"
	case feature, strings.HasPrefix(key, "limit/"):
		return key[:at+1] + "limit"
	}
	return key
}

// Keep gives the sheet with what was picked of a unit, by group; "form", "kit" and "lesson" are groups too.
// A nil sheet is begun. What units had is noted for every value that was measured, picked or not.
// Parts, kit and lessons of the unit are taken over whole.
func Keep(s, of *Sheet, picked func(group string) bool) *Sheet {
	out := &Sheet{Family: of.Family, Maker: of.Maker, Model: of.Model}
	if s != nil {
		out = s.Clone()
	}
	for _, v := range of.Values {
		old := out.Value(v.Key)
		if old == nil && picked(Group(v.Key)) {
			out.Values = append(out.Values, Value{Key: v.Key, Text: v.Text, Source: v.Source})
			old = &out.Values[len(out.Values)-1]
		}
		if old == nil {
			continue
		}
		if picked(Group(v.Key)) && !same(old.Text, v.Text) {
			old.Text, old.Source = v.Text, v.Source
		}
		for _, x := range v.Seen {
			old.Seen = slices.DeleteFunc(old.Seen, func(o Seen) bool { return o.Job == x.Job })
			if old.Seen = append(old.Seen, x); len(old.Seen) > MostSeen {
				old.Seen = old.Seen[1:]
			}
		}
	}
	if picked("form") || s == nil {
		out.Variant, out.More, out.Parts = of.Variant, of.More, of.Parts
	}
	if picked("kit") {
		out.Kit = of.Kit
	}
	for _, l := range of.Lessons {
		if picked("lesson") && !slices.Contains(out.Lessons, l) && len(out.Lessons) < MostLessons {
			out.Lessons = append(out.Lessons, l)
		}
	}
	return out
}
