package family

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"sync"
	"unicode"
)

// A step of the test that one unit has beyond its family stands among what it has more of, under a code of its own:
// a shared step as step:prime, one in the shop's own words as step:own:bleeds_itself, with the figures it reads behind
// it: step:own:bleeds_itself:time:pressure.
const (
	stepMark = "step:"
	ownMark  = "own:"
)

// MostOwnSteps of one unit, and the longest name of one.
const (
	MostOwnSteps = 12
	mostStepName = 60
	mostOwnReads = 4
)

// SharedSteps are the steps that any unit can be given, by code; they are read once, and nobody writes to them.
var SharedSteps = sync.OnceValues(func() (out []Test, err error) {
	steps, err := sharedSteps()
	if err != nil {
		return nil, err
	}
	for _, code := range slices.Sorted(maps.Keys(steps)) {
		var t Test
		if err := t.shared(code, 0); err != nil {
			return nil, err
		}
		out = append(out, t)
	}
	return out, nil
})

// SharedStepCode is under what a unit has a shared step more.
func SharedStepCode(step string) string { return stepMark + step }

// OwnStepCode is under what a unit has a step in the shop's own words, with the figures that are read.
func OwnStepCode(name string, figures []string) (string, error) {
	words := slug(name)
	switch {
	case words == "":
		return "", fmt.Errorf("say in a few words what the step shows")
	case len([]rune(words)) > mostStepName:
		return "", fmt.Errorf("is longer than %d letters", mostStepName)
	case len(figures) > mostOwnReads:
		return "", fmt.Errorf("reads at most %d figures", mostOwnReads)
	}
	code := stepMark + ownMark + words
	for _, f := range figures {
		if _, known := FigureByCode(f); !known {
			return "", fmt.Errorf("%q is no figure that is read on the stand", f)
		}
		code += ":" + f
	}
	return code, nil
}

// StepOfCode reads what a unit has more as a step of its test; ok is false where it is none.
func StepOfCode(code string) (t Test, ok bool) {
	step, is := strings.CutPrefix(code, stepMark)
	if !is {
		return t, false
	}
	own, is := strings.CutPrefix(step, ownMark)
	if !is {
		return t, t.shared(step, 0) == nil
	}
	parts := strings.Split(own, ":")
	words := strings.ReplaceAll(parts[0], "_", " ")
	if words == "" || len(parts) > mostOwnReads+1 {
		return t, false
	}
	first := []rune(words)
	t = Test{Code: "own_" + parts[0], Name: string(unicode.ToUpper(first[0])) + string(first[1:]), Received: true}
	for _, f := range parts[1:] {
		if _, known := FigureByCode(f); !known {
			return t, false
		}
		t.Reads = append(t.Reads, Read{Figure: f})
	}
	t.Words, t.Good = []string{"as it should be", "not as it should be"}, []string{"as it should be"}
	return t, true
}

// ownSteps gives the family the steps that one unit has beyond it.
func (f *Family) ownSteps(more map[string]int) {
	given := 0
	for _, code := range slices.Sorted(maps.Keys(more)) {
		if t, is := StepOfCode(code); is && more[code] > 0 && given < MostOwnSteps {
			given++
			f.test(t)
		}
	}
}
