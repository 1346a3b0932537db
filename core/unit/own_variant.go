package unit

import (
	"fmt"
	"strings"

	"corvek/core/family"

	"go.yaml.in/yaml/v3"
)

// fileMap is a mapping of a family file.
type fileMap = map[string]any

// OwnVariant writes what makes this unit another than its family down as a variant of
// it, as a family file has it: parts it lacks and parts it has besides, other numbers
// of pieces, and limits, joints and stacks that were typed here.
func (u *Unit) OwnVariant(plain *family.Family, code, name string) (string, error) {
	change := fileMap{}
	parts, after := fileMap{}, ""
	var without []string
	var with []fileMap
	named := map[string]bool{}
	for i := range plain.Parts {
		named[plain.Parts[i].Code] = true
	}
	more := u.MoreOf()
	for _, p := range u.Parts {
		def, usual := plain.PartByCode(p.Code)
		switch {
		case usual && !p.OnUnit():
			without = append(without, p.Code)
			continue
		case !p.OnUnit() || !usual && p.inMore(more):
			continue
		case !usual:
			line := p.asLine(named)
			if after != "" {
				line["after"] = after
			}
			with = append(with, line)
			after = line["code"].(string)
		default:
			if own := p.asChange(def); len(own) > 0 {
				parts[p.Code] = own
			}
			after = p.Code
		}
	}
	all := fileMap{"parts": parts, "without": without, "with": with, "more": more}
	for key, v := range all {
		if fmt.Sprint(v) != "map[]" && fmt.Sprint(v) != "[]" {
			change[key] = v
		}
	}
	text, err := yaml.Marshal(fileMap{"code": code, "name": name, "suffix": []string{strings.TrimSpace(u.Model)},
		"change": change})
	return string(text), err
}

// inMore reports that the part came with an assembly that stands once more.
func (p *Part) inMore(more map[string]int) bool {
	base, _, repeated := strings.Cut(p.Code, ".")
	at := strings.LastIndexByte(base, '_')
	return repeated && at > 0 && more[base[:at]] > 0
}

// asLine is a part that the family has not, as a line of a family file. Its kind
// brings the rest.
func (p *Part) asLine(named map[string]bool) fileMap {
	code := family.CodeOf(p.Name)
	if code == "" {
		code = "part"
	}
	for n := 2; named[code]; n++ {
		code = fmt.Sprintf("%s_%d", strings.TrimRight(code, "_0123456789"), n)
	}
	named[code] = true
	kind := p.Kind
	if kind == "" {
		kind = "plug"
	}
	line := fileMap{"code": code, "name": p.Name, "kind": kind, "count": p.Expected}
	if p.Branch != "" {
		line["branch"] = p.Branch
	}
	return line
}

// asChange is what differs on a part of the family.
func (p *Part) asChange(def *family.Part) fileMap {
	own := fileMap{}
	if p.Expected != def.Count {
		own["count"] = p.Expected
	}
	bolt := fileMap{}
	for key, text := range map[string]string{"thread": p.Joint.Thread,
		"class": strings.ReplaceAll(p.Joint.Class, "_", " "), "torque": p.Joint.Torque.Typed} {
		if text != "" {
			bolt[key] = text
		}
	}
	if len(bolt) > 0 {
		own["bolt"] = bolt
	}
	if stack := p.asStack(def); len(stack) > 0 {
		own["stack"] = stack
	}
	var features []fileMap
	for _, f := range p.Features {
		usual, known := def.FeatureByCode(f.Code)
		if !known {
			continue
		}
		was := newFeature(usual)
		if f.Lower == was.Lower && f.Upper == was.Upper && f.New == was.New {
			continue
		}
		line := fileMap{
			"code":     f.Code,
			"lower":    f.Lower.Typed,
			"upper":    f.Upper.Typed,
			"standing": string(f.LimitFrom()),
		}
		if f.New.Holds() {
			line["as_new"], line["as_new_to"] = f.New.Low.Typed, f.New.High.Typed
		}
		if f.Source != "" {
			line["source"] = f.Source
		}
		features = append(features, line)
	}
	if len(features) > 0 {
		own["features"] = features
	}
	return own
}

func (p *Part) asStack(def *family.Part) fileMap {
	stack := fileMap{}
	if def.Stack == nil {
		return stack
	}
	switch p.StackFrom {
	case StackAsRemoved:
		stack["as"] = p.Removed()
	case StackVariant, StackDrawing:
		stack["as"] = p.StackRight
	}
	if s := p.Spring; !s.Outside.IsZero() && !s.Inside.IsZero() && !s.Thickness.IsZero() && !s.Cone.IsZero() {
		stack["spring"] = fileMap{"outside": s.Outside.Typed, "inside": s.Inside.Typed, "thickness": s.Thickness.Typed,
			"cone": s.Cone.Typed}
	}
	if !p.Spring.Space.IsZero() {
		stack["installed"] = p.Spring.Space.Typed
	}
	return stack
}
