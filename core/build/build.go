// Package build puts a unit together from its strip record: the reverse order,
// the torque of every fastener with where it comes from, and what the turn of
// the shaft after each step tells.
package build

// Turn is how the shaft turned by hand after a step.
type Turn string

// The feels of a shaft.
const (
	Free  Turn = "free"
	Drag  Turn = "uniform_drag"
	Tight Turn = "tight_spot"
	Stiff Turn = "stiff"

	Falls  Turn = "falls"  // of its own weight, oiled
	Glides Turn = "glides" // moved by a finger
)

// Turns are the feels of what turns, Slidings of what slides, best first.
var (
	Turns    = []Turn{Free, Drag, Tight, Stiff}
	Slidings = []Turn{Falls, Glides, Free, Tight, Stiff}
)

// Rounds are the rounds in which a joint is tightened, the shaft turned by hand after each.
var Rounds = []string{"hand", "half", "full"}

// roundWords are the rounds as they are told.
var roundWords = map[string]string{"hand": "drawn up by hand", "half": "at half the torque", "full": "at full torque"}

// AtRound tells at which round of tightening something was, "" where nobody said.
func AtRound(round string) string { return roundWords[round] }

// Bad reports a feel that must be cleared before the next step.
func (t Turn) Bad() bool { return t == Tight || t == Stiff }

// Step is the state of one fitting step.
type Step struct {
	Name   string
	Done   bool
	Turn   Turn    // empty: not asked
	Round  string  // of tightening, at which it went so
	Torque float64 // N·m to turn it by hand, 0 where nobody measured
	Asks   bool    // a turn check is due after it
}
