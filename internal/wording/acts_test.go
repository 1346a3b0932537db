package wording

import (
	"testing"

	"corvek/core/stops"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

func TestTheActOfAStop(t *testing.T) {
	for text, c := range map[string]struct {
		kind unit.StopKind
		act  string
	}{
		"No complaint written down": {unit.StopComplaint, "write down what is wrong with it"},
		"Caution not read: hot oil": {unit.StopCaution, "read the caution: hot oil"},
		"Not checked at the machine yet; ask there: Is the pipe free?": {unit.StopGauges,
			"ask at the machine: is the pipe free?"},
		"Front side plate: face by touch not measured": {unit.StopNotMeasured,
			"measure front side plate: face by touch"},
		"Retaining ring: no piece for this place":          {unit.StopPlace, "say what came for retaining ring"},
		"26 parts are still on the unit":                   {unit.StopStillOn, "take the next part off"},
		"Front needles: 33 of 34, one not found":           {unit.StopShort, "Front needles: 33 of 34, one not found"},
		"Only an exercise on the simulated stand: no test": {unit.StopProved, "run the bench test"},
	} {
		assert.Equal(t, c.act, Act(stops.Stop{StopCode: unit.StopCode{Kind: c.kind}, Text: text}))
	}
}
