package proof

// Claim is what may be said of a unit after its test.
type Claim string

// The claims, strongest first.
const (
	Proved    Claim = "proved"
	Tested    Claim = "tested_not_proved"
	Exercise  Claim = "exercise" // on the simulated stand: nothing was run
	NotTested Claim = "not_tested"
)

// Trial is what a claim rests on: the test that counts, and all that must be so
// for it to prove anything.
type Trial struct {
	Tested    bool // figures of this unit were taken, by a person or a real stand
	Simulated bool // figures were taken, but from the simulated stand
	Closed    bool
	Passed    bool
	Unfitted  int
	Steps     []TrialStep
	Stops     []string // of Strip, Measure, Build and Prove: open or merely waived
}

// TrialStep is a step of the plan as it was done. Times are in seconds.
type TrialStep struct {
	Name       string
	Done       bool
	Applicable bool
	Held, Hold float64
}

// Judge gives what may be claimed, and all that keeps it from being proved.
func (t Trial) Judge() (c Claim, missing []string) {
	switch {
	case !t.Tested && t.Simulated:
		return Exercise, []string{"figures from the simulated stand say nothing of this unit"}
	case !t.Tested:
		return NotTested, nil
	}
	if !t.Closed {
		missing = append(missing, "the test is still going on")
	} else if !t.Passed {
		missing = append(missing, "the test was not passed")
	}
	if t.Unfitted > 0 {
		missing = append(missing, "not all parts are fitted")
	}
	for _, s := range t.Steps {
		switch {
		case !s.Applicable:
		case !s.Done:
			missing = append(missing, s.Name+": not done")
		case s.Held < s.Hold:
			missing = append(missing, s.Name+": its hold was not run to the end")
		}
	}
	missing = append(missing, t.Stops...)
	if len(missing) > 0 {
		return Tested, missing
	}
	return Proved, nil
}
