package job

import (
	"strings"

	"slices"

	"corvek/core/field"
	"corvek/core/metrology"
	"corvek/core/search"
)

// mostChanges is how many changes are offered after a failed test.
const mostChanges = 5

// Change is what was changed before an attempt, and a second change made at once with it.
type Change struct {
	Words, Kind, Part              string
	Second, SecondKind, SecondPart string
}

// checked looks at what was typed of a change.
func (c Change) checked() (Change, error) {
	var err error
	if c.Words, err = short("one_change", c.Words, ""); err != nil {
		return c, err
	}
	if c.Second, err = short("second_change", c.Second, ""); err != nil {
		return c, err
	}
	for name, kind := range map[string]string{"change_kind": c.Kind, "second_kind": c.SecondKind} {
		if kind != "" && !slices.Contains(search.Kinds, search.Kind(kind)) {
			return c, field.Errorf(name, "is not a kind of change")
		}
	}
	if c.Second == "" && (c.SecondPart != "" || c.SecondKind != "") {
		return c, field.Errorf("second_change", "say what the second change was")
	}
	return c, nil
}

// placed finds the part and the kind of a change that is one of those offered, and names what
// hides a fault.
func (st *State) placed(c Change) (Change, error) {
	for name, part := range map[string]string{"change_part": c.Part, "second_part": c.SecondPart} {
		if part != "" && st.ByCode[part] == nil {
			return c, field.Errorf(name, "is not a part of this unit")
		}
	}
	for _, o := range st.Changes() {
		if c.Kind == "" && c.Part == "" && strings.EqualFold(o.Words, c.Words) {
			c.Kind, c.Part = o.Kind, o.Part
		}
	}
	if search.Masks(c.Words) {
		c.Kind = string(search.Mask)
	}
	if search.Masks(c.Second) {
		c.SecondKind = string(search.Mask)
	}
	return c, nil
}

// Changes are single changes that fit this unit after a failed test: what the named cause
// asks for and where it points first, then what is on the unit and can be changed alone.
func (st *State) Changes() (out []Change) {
	add := func(kind search.Kind, part *PartState, words string) {
		c := Change{Words: words, Kind: string(kind)}
		if part != nil {
			c.Part = part.Code
		}
		out = append(out, c)
	}
	if st.Cause != nil && st.Cause.Remedy != "" {
		add(search.Renew, st.PointedAt(), strings.ToLower(st.Cause.Remedy))
	}
	if p := st.PointedAt(); p != nil {
		add(search.Inspect, p, strings.ToLower(p.Name)+" out, looked at and in again")
	}
	if r := st.Family.Relief; r != nil {
		add(search.Adjust, st.ByCode[r.Part], "relief shimmed")
	}
	if st.Family.Action == "cylinder" {
		add(search.Clean, nil, "bled again")
	}
	for _, p := range st.Parts {
		if p.Def.Kind == "lip_seal" || p.Def.Kind == "piston_seal" {
			add(search.Renew, p, strings.ToLower(p.Name)+" fitted again")
		}
	}
	for _, p := range st.Parts {
		if p.Def.Kind == "spool" || p.Def.Kind == "poppet" {
			add(search.Clean, p, strings.ToLower(p.Name)+" washed and worked free")
		}
	}
	return out[:min(len(out), mostChanges)]
}

// Failed are the steps that the last test of the round did not pass, in words.
func (st *State) Failed() (out []string) {
	a := st.Attempt()
	if a == nil || !a.Closed {
		return nil
	}
	for _, p := range a.Points {
		switch p.Verdict {
		case metrology.Out:
			out = append(out, p.Test.Name+" out")
		case metrology.Undecided:
			out = append(out, p.Test.Name+" undecided")
		}
	}
	return out
}
