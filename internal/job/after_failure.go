package job

import (
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/search"
)

// checkedChange looks at what was typed of a change.
func checkedChange(c bench.Change) (bench.Change, error) {
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

// placedChange finds the part and the kind of a change that is one of those offered, and names what
// hides a fault.
func placedChange(st *bench.State, c bench.Change) (bench.Change, error) {
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
