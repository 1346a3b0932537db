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

// Asked is what the plan of a unit's test follows from.
type Asked struct {
	Family   *family.Family
	On       func(part string) bool // which parts are on the unit
	Rotation string                 // right, left or both, "" where nobody said
	Symptoms []string
	Words    string // the complaint, as it was told

	Condition family.Condition // of the complaint
}

// Plan gives the steps of the test of a unit: what its family and the assemblies that are on it ask
// for, in the directions that it turns, and the complaint's own condition at the end.
func Plan(a Asked) []PlanStep {
	out := make([]PlanStep, 0, len(a.Family.Tests)+1)
	for _, t := range a.Family.Tests {
		s := PlanStep{Test: t, Skipped: notHere(a.Family, t, a.On)}
		if t.Way != "" && a.Rotation != "" && a.Rotation != "both" && a.Rotation != t.Way {
			s.Skipped = "it turns " + a.Rotation + " only"
		}
		out = append(out, s)
	}
	if t, told := family.OfComplaint(a.Symptoms, a.Words); told {
		out = append(out, PlanStep{Test: t.Under(a.Condition)})
	}
	return out
}

// Owed gives what the unit owes: what its family and assemblies say, and that the complaint is gone.
func Owed(a Asked) []family.Owed {
	out := a.Family.Owes[:len(a.Family.Owes):len(a.Family.Owes)]
	if t, told := family.OfComplaint(a.Symptoms, a.Words); told {
		out = append(out, family.Owed{Code: family.ComplaintTest, By: []string{family.ComplaintTest},
			Says: "what was complained of is gone in its own condition" + strings.TrimPrefix(t.Name, "The complaint")})
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
