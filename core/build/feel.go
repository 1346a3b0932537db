package build

import "fmt"

// Turning torque rises by friction of seals and bearings as a unit is built; a jump means
// that something is clamped. Shop guidance: half as much again, and at least 0.2 N·m.
const (
	riseShare = 1.5
	riseLeast = 0.2 // N·m
)

// Rose reports that the turning torque jumped from one joint to the next, in N·m.
func Rose(before, after float64) bool {
	return after > before*riseShare && after-before >= riseLeast
}

// Suspect names the first step after which the shaft went stiff, by feel or by its turning
// torque: whatever went in there is the place to look. Empty when it never did.
func Suspect(steps []Step) string {
	before, known := 0.0, false
	for _, s := range steps {
		if s.Turn.Bad() {
			if at := AtRound(s.Round); at != "" {
				return fmt.Sprintf("%s since %s, %s", s.Turn, s.Name, at)
			}
			return fmt.Sprintf("%s since %s went in", s.Turn, s.Name)
		}
		if s.Torque <= 0 {
			continue
		}
		if known && Rose(before, s.Torque) {
			return fmt.Sprintf("harder to turn since %s went in, %.2g N·m after %.2g", s.Name, s.Torque, before)
		}
		before, known = s.Torque, true
	}
	return ""
}

// StiffAt is the index of the step that Suspect names, −1 when there is none.
func StiffAt(steps []Step) int {
	for i := range steps {
		if Suspect(steps[:i+1]) != "" {
			return i
		}
	}
	return -1
}

// Slides reports that a part of the kind, in a unit that acts so, is moved by hand over its
// whole way once it is in: nothing turns there, so that the slide is the feel.
func Slides(action, kind string) bool {
	switch action {
	case "valve":
		return kind == "spool"
	case "cylinder":
		return kind == "piston"
	}
	return false
}
