package rig

import (
	"testing"
	"time"

	"corvek/core/proof"
	"corvek/core/trace"

	"github.com/stretchr/testify/assert"
)

// On a ramp of 175 bar a second the pressure is 70 bar further after 0.4 s without a reading:
// no jump. The same change from one reading to the next is one, and stops the drive.
func TestALateReadingIsNoJump(t *testing.T) {
	for _, c := range []struct {
		after time.Duration
		state State
	}{{400 * time.Millisecond, Ramping}, {100 * time.Millisecond, Stopped}} {
		began := time.Now().Add(-500 * time.Millisecond)
		program := proof.Program{Pressure: 175e5, Ramp: time.Minute, Hold: time.Minute,
			Guard: proof.Guard{Jump: 44e5, Pressure: 210e5}}
		r := &Run{watch: map[chan Frame]bool{}, pace: 1, program: &program, guard: program.Guard, started: began}
		r.kept.Channels = []string{"pressure"}
		at := began.Add(50 * time.Millisecond)
		r.take(trace.Sample{At: at, Values: []float64{10e5}})
		r.take(trace.Sample{At: at.Add(c.after), Values: []float64{80e5}})
		assert.Equal(t, c.state, r.frame.State, "%s after the reading before: %s", c.after, r.frame.Why)
	}
}
