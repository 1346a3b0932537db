package wording

import (
	"strings"

	"corvek/core/stops"
	"corvek/core/unit"
)

// acts say what is done about a stop, where its own words only say what is missing.
var acts = map[unit.StopKind]string{
	unit.StopComplaint:    "write down what is wrong with it",
	unit.StopDisplacement: "write down its displacement",
	unit.StopSpeed:        "write down its speed",
	unit.StopDutyPressure: "write down its duty pressure",
	unit.StopBaseline:     "enter the figures it came with",
	unit.StopStillOn:      "take the next part off",
	unit.StopConclusion:   "look at what comes next, or name the root cause",
	unit.StopUnfitted:     "fit the next part",
	unit.StopProved:       "run the bench test",
}

// parted are words of a stop that its act turns round: what stands before or behind them is
// what the act is about.
var parted = []struct {
	kind       unit.StopKind
	words, act string
}{
	{unit.StopCaution, "Caution not read: ", "read the caution: "},
	{unit.StopGauges, "Not checked at the machine yet; ask there: ", "ask at the machine: "},
	{unit.StopNotMeasured, " not measured", "measure "},
	{unit.StopPlace, ": no piece for this place", "say what came for "},
}

// Act is what is done next about a stop, for the foot of a page.
func Act(s stops.Stop) string {
	if act := acts[s.Kind]; act != "" {
		return act
	}
	for _, p := range parted {
		if s.Kind == p.kind && strings.Contains(s.Text, p.words) {
			about := strings.Replace(s.Text, p.words, "", 1)
			return p.act + strings.ToLower(about[:1]) + about[1:]
		}
	}
	return s.Text
}
