package proof

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/metrology"
)

// Claim is what may be said of a unit after its test.
type Claim string

// The claims, strongest first.
const (
	Proved    Claim = "proved"
	Tested    Claim = "tested_not_proved"
	Exercise  Claim = "exercise" // on the simulated stand: nothing was run
	NotTested Claim = "not_tested"
)

// Shown is what was last read at a step of the test, and all that must be so for it to show anything.
type Shown struct {
	Test        *family.Test
	NotHere     string // why the unit owes nothing of it, worked out from what is on it
	NotPossible string // why it could not be run, as somebody said
	Attempt     int    // that read it last, 0 for none
	Read        bool   // figures of this unit were taken, by a person or a real stand
	Exercise    bool   // figures were taken, but on the simulated stand
	Closed      bool   // that attempt is over
	Judged      Judged
	Word        string   // what was seen
	From, By    []string // where the figures are from, and who took them
	Held, Hold  time.Duration
	Moved       []string // what is another than it was when this was read
	Needed      []string // what was needed otherwise when it was read or closed: it is judged by today's
}

// Why says what keeps the step from showing what it is for; nothing where it shows it.
func (s *Shown) Why() (why []string) {
	switch {
	case s.NotHere != "":
		return nil
	case !s.Read && s.NotPossible != "":
		return []string{"not possible on this stand: " + s.NotPossible}
	case !s.Read && s.Exercise:
		return []string{"only an exercise"}
	case !s.Read:
		return []string{"not done"}
	}
	say := func(format string, args ...any) { why = append(why, fmt.Sprintf(format, args...)) }
	switch j := &s.Judged; {
	case j.Short:
		say("its pressure was not reached")
	case j.Verdict == metrology.Out:
		say("out of its limits")
	case len(j.Missing) > 0:
		say("not read: %s", strings.ToLower(strings.Join(j.Missing, ", ")))
	case j.Verdict != metrology.In && !j.weak():
		say("%s", j.undecided())
	}
	for i := range s.Judged.Figures {
		if f := &s.Judged.Figures[i]; f.Weak != "" {
			say("%s: %s", lead(f.Name), f.Weak)
		} else if f.Needs != "" && !f.Q.IsZero() && !f.May && s.Judged.Verdict == metrology.In {
			say("%s not known", f.Needs)
		}
	}
	if len(why) == 0 && !s.Test.Seen && !s.Judged.held() {
		say("there is no limit to hold it against")
	}
	if s.Held < s.Hold {
		say("its hold was not run to the end")
	}
	if !s.Closed {
		say("its test still goes on")
	}
	for _, m := range s.Moved {
		say("since then: %s", m)
	}
	return why
}

// undecided says why a step that was read whole has no verdict.
func (j *Judged) undecided() string {
	if j.Needs != "" {
		return j.Needs + " not known"
	}
	for i := range j.Figures {
		switch f := &j.Figures[i]; {
		case f.Needs != "" && !f.Q.IsZero():
			return f.Needs + " not known"
		case f.Verdict == metrology.Undecided:
			return lead(f.Name) + " is too near its limit to be called"
		}
	}
	if !j.Judgeable() {
		return "there is no limit to hold it against"
	}
	return "it is too near its limit to be called"
}

// weak reports that a figure of the step carries no claim, which is said of it by itself.
func (j *Judged) weak() bool {
	return slices.ContainsFunc(j.Figures, func(f Figured) bool { return f.Weak != "" })
}

// held reports that something of the step is held against a level: a figure, or the pressure that it
// was run at. A step that reads nothing by need is told by its words alone.
func (j *Judged) held() bool {
	must := false
	for i := range j.Figures {
		f := &j.Figures[i]
		if f.Verdict != "" || f.Figure == "pressure" && j.Target > 0 {
			return true
		}
		must = must || !f.May
	}
	return !must
}

// Told is one claim that the unit owes, with what keeps it from being shown.
type Told struct {
	family.Owed
	Why   []string // nothing where it is shown
	Steps []*Shown // that show it
}

// Shown reports that the claim may be made.
func (t *Told) Shown() bool { return len(t.Why) == 0 }

// Out reports that a step that shows it is out of its limits.
func (t *Told) Out() bool {
	return slices.ContainsFunc(t.Steps, func(s *Shown) bool { return s.Read && s.Judged.Verdict == metrology.Out })
}

// Settled reports that the claim is shown, or that somebody said of each step that keeps it from
// that why it is not possible here. A need that nobody told holds nobody up.
func (t *Told) Settled() bool {
	for _, s := range t.Steps {
		if len(s.Why()) > 0 && (s.Read || s.NotPossible == "") {
			return false
		}
	}
	return true
}

// Tell holds a claim against the steps that show it, and against what the job tells of its level. ok is
// false where the unit does not owe it: nothing that it asks of is on the unit.
func Tell(o family.Owed, step func(code string) *Shown, told func(field string) bool) (t Told, ok bool) {
	t = Told{Owed: o}
	for _, code := range o.By {
		s := step(code)
		if s == nil || s.NotHere != "" {
			continue
		}
		t.Steps = append(t.Steps, s)
		for _, why := range s.Why() {
			t.Why = append(t.Why, lead(s.Test.Name)+": "+why)
		}
	}
	for _, need := range o.Lacks(told) {
		if words := family.NeedWords(need) + " not known"; !strings.Contains(strings.Join(t.Why, "\n"), words) {
			t.Why = append(t.Why, words)
		}
	}
	return t, len(t.Steps) > 0
}

// lead is a name as it stands within a sentence.
func lead(name string) string { return strings.ToLower(name[:1]) + name[1:] }

// Trial is all that the head of the papers rests on.
type Trial struct {
	Claims   []Told
	Open     bool // a test still goes on
	Unfitted int
	Stops    []string // of Strip, Measure, Build and Prove: open or merely waived
}

// Judge gives what may be claimed, and all that keeps it from being proved.
func (t Trial) Judge() (c Claim, missing []string) {
	read, exercise := false, false
	for i := range t.Claims {
		for _, s := range t.Claims[i].Steps {
			read, exercise = read || s.Read, exercise || s.Exercise
		}
	}
	switch {
	case !read && exercise:
		return Exercise, []string{"figures from the simulated stand say nothing of this unit"}
	case !read:
		return NotTested, nil
	}
	for i := range t.Claims {
		if c := &t.Claims[i]; !c.Shown() {
			missing = append(missing, c.Says+" ("+strings.Join(c.Why, ", ")+")")
		}
	}
	if len(t.Claims) == 0 {
		missing = append(missing, "nothing is claimed of such a unit")
	}
	if t.Open {
		missing = append(missing, "the test is still going on")
	}
	if t.Unfitted > 0 {
		missing = append(missing, "not all parts are fitted")
	}
	missing = append(missing, t.Stops...)
	if len(missing) > 0 {
		return Tested, missing
	}
	return Proved, nil
}
