package proof_test

import (
	"testing"

	"corvek/core/proof"

	"github.com/stretchr/testify/assert"
)

// PROVED is what is left when nothing is missing; each thing that is missing is named.
func TestAClaimNamesWhatIsMissing(t *testing.T) {
	good := proof.Trial{Tested: true, Closed: true, Passed: true, Steps: []proof.TrialStep{
		{Name: "Duty pressure", Done: true, Applicable: true, Held: 60, Hold: 60}, {Name: "Fast", Applicable: false}}}
	claim, missing := good.Judge()
	assert.Equal(t, proof.Proved, claim)
	assert.Empty(t, missing)
	for says, bend := range map[string]func(*proof.Trial){
		"the test is still going on":                     func(t *proof.Trial) { t.Closed = false },
		"the test was not passed":                        func(t *proof.Trial) { t.Passed = false },
		"not all parts are fitted":                       func(t *proof.Trial) { t.Unfitted = 1 },
		"Duty pressure: not done":                        func(t *proof.Trial) { t.Steps[0].Done = false },
		"Duty pressure: its hold was not run to the end": func(t *proof.Trial) { t.Steps[0].Held = 59.9 },
		"a bolt is loose": func(t *proof.Trial) {
			t.Stops = []string{"a bolt is loose"}
		},
	} {
		bent := good
		bent.Steps = append([]proof.TrialStep(nil), good.Steps...)
		bend(&bent)
		claim, missing = bent.Judge()
		assert.Equal(t, proof.Tested, claim, says)
		assert.Equal(t, []string{says}, missing)
	}
	claim, _ = proof.Trial{Simulated: true}.Judge()
	assert.Equal(t, proof.Exercise, claim)
	claim, _ = proof.Trial{Closed: true, Passed: true}.Judge()
	assert.Equal(t, proof.NotTested, claim, "nothing was run")
}
