package proof

import (
	"strings"

	"corvek/core/family"
)

// PlanStep is a step of the test of one unit.
type PlanStep struct {
	family.Test
	Skipped string // why it does not apply to this unit, "" where it does
}

// Plan gives the steps of the test of a unit: what its family and the assemblies that
// are on it ask for, and the complaint's own condition at the end. on tells which parts
// are on the unit.
func Plan(f *family.Family, on func(part string) bool, symptoms []string, words string) []PlanStep {
	out := make([]PlanStep, 0, len(f.Tests)+1)
	for _, t := range f.Tests {
		out = append(out, PlanStep{Test: t, Skipped: notHere(f, t, on)})
	}
	if t, told := family.OfComplaint(symptoms, words); told {
		out = append(out, PlanStep{Test: t})
	}
	return out
}

// notHere says that what a step asks of is not on the unit.
func notHere(f *family.Family, t family.Test, on func(part string) bool) string {
	if t.Judges(family.BySetting) && f.Relief != nil && !on(f.Relief.Part) {
		return "its relief is not on this unit"
	}
	if t.Assembly == "" {
		return ""
	}
	for i := range f.Parts {
		if p := &f.Parts[i]; p.Assembly == t.Assembly && on(p.Code) {
			return ""
		}
	}
	name := strings.ReplaceAll(t.Assembly, "_", " ")
	for _, in := range f.Instances {
		if in.Code == t.Assembly {
			name = strings.ToLower(in.Name)
		}
	}
	return "its " + name + " is not on this unit"
}
