package rig_test

import (
	"context"
	"sync"
	"testing"
	"time"

	"corvek/core/leakage"
	"corvek/core/mount"
	"corvek/core/proof"
	"corvek/core/trace"
	"corvek/internal/rig"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// pump is 32 cc/rev at 1450 rpm and 175 bar with side gaps as they were found: 7.00 L/min of
// leak at 40 mPa·s.
func pump() mount.Mounted {
	d := proof.Duty{Displacement: 32e-6, Speed: 1450, Pressure: 175e5, HasDisplacement: true, HasSpeed: true,
		HasPressure: true}
	return mount.Mounted{Tag: "T-1", Action: "pump", Duty: d, SealOK: true, Model: proof.Model{Displacement: 32e-6,
		Speed: 1450, Viscosity: 0.04002, Paths: []leakage.Path{{Name: "sides", Shape: leakage.ShapePlane, Count: 4,
			Width: 0.014, Length: 0.022, Gap: 0.10795e-3, Share: 1}}}}
}

// kept is a recorder that holds what it is given.
type kept struct {
	mu      sync.Mutex
	samples int
	notes   []string
}

func (k *kept) Keep(trace.Sample) { k.mu.Lock(); k.samples++; k.mu.Unlock() }
func (k *kept) Note(_ time.Time, text string) {
	k.mu.Lock()
	k.notes = append(k.notes, text)
	k.mu.Unlock()
}
func (k *kept) Close() {}

// mounted is a stand over OPC UA with the pump on it, read ten times a second.
func mounted(t *testing.T, pace float64) (*rig.Server, *rig.Run, *kept) {
	ctx, cancel := context.WithCancel(context.Background())
	t.Cleanup(cancel)
	stand, err := rig.Serve(ctx, "127.0.0.1:0", pace)
	require.NoError(t, err)
	nodes, err := rig.ParseNodes(rig.SimulatedNodes())
	require.NoError(t, err)
	link, err := rig.Dial(ctx, rig.Setup{Name: "practice", Endpoint: stand.Endpoint, Nodes: nodes})
	require.NoError(t, err)
	require.True(t, link.Simulated(), "it says of itself what it is")
	require.True(t, link.Drives())
	require.NoError(t, link.Mount(ctx, pump()))
	rec := &kept{}
	run := rig.Start(link, rec, 1)
	t.Cleanup(run.Close)
	return stand, run, rec
}

func program(d proof.Duty) proof.Program {
	return proof.Program{Pressure: d.Pressure, Speed: d.Speed, Ramp: time.Second, Hold: time.Minute,
		Guard: proof.GuardFor(d, d.Pressure)}
}

// frames follows a run until ok, or fails.
func frames(t *testing.T, run *rig.Run, what string, ok func(rig.Frame) bool) rig.Frame {
	t.Helper()
	c, done := run.Watch()
	defer done()
	late := time.After(30 * time.Second)
	for {
		select {
		case f := <-c:
			if ok(f) {
				return f
			}
		case <-late:
			require.Fail(t, "never "+what, "%+v", run.Now())
		}
	}
}

func TestThePumpRunsOnTheStand(t *testing.T) {
	t.Parallel()
	stand, run, rec := mounted(t, 40)
	run.Program("p100", program(pump().Duty))
	frames(t, run, "steady", func(f rig.Frame) bool { return f.State == rig.Holding && f.Steady })
	on, _ := stand.Driven()
	assert.True(t, on)
	now := run.Trace()
	flow, _, ok := now.Last(trace.SteadyOver).Mean("flow")
	require.True(t, ok)
	temperature, _, _ := now.Last(trace.SteadyOver).Mean("temperature")
	assert.InDelta(t, 46.4-7.00, flow*6e4, 1.0, "7.00 L/min of leak at 46 °C, here at %.0f", temperature)
	require.NoError(t, run.Stop(context.Background(), "by hand"))
	frames(t, run, "stopped", func(f rig.Frame) bool { return f.State == rig.Stopped && f.Why == "by hand" })
	on, _ = stand.Driven()
	assert.False(t, on)
	rec.mu.Lock()
	defer rec.mu.Unlock()
	assert.Greater(t, rec.samples, 20)
	assert.Equal(t, []string{"start p100", "stopped: by hand"}, rec.notes)
}

func TestAStandThatMisbehavesIsStoppedAndTold(t *testing.T) {
	t.Parallel()
	for fault, says := range map[string]string{mount.FaultRunaway: "past its limit", mount.FaultJump: "jumped"} {
		t.Run(fault, func(t *testing.T) {
			t.Parallel()
			stand, run, _ := mounted(t, 1)
			run.Program("p100", program(pump().Duty))
			frames(t, run, "held", func(f rig.Frame) bool { return f.State == rig.Holding && f.Steady })
			stand.Fault(fault)
			f := frames(t, run, "stopped", func(f rig.Frame) bool { return f.State == rig.Stopped })
			assert.Contains(t, f.Why, says)
			require.Eventually(t, func() bool { on, _ := stand.Driven(); return !on }, 2*time.Second, period)
		})
	}
}

const period = 50 * time.Millisecond

// A stand that answers no more is told within a second, lets its drive go by itself, and is
// found again.
func TestALostStandIsTold(t *testing.T) {
	t.Parallel()
	stand, run, rec := mounted(t, 5)
	run.Program("p100", program(pump().Duty))
	frames(t, run, "held", func(f rig.Frame) bool { return f.State == rig.Holding })
	stand.Fault(mount.FaultSilent)
	from := time.Now()
	f := frames(t, run, "lost", func(f rig.Frame) bool { return f.State == rig.Lost })
	assert.Less(t, time.Since(from), time.Second)
	assert.Contains(t, f.Why, "answers no more")
	require.Eventually(t, func() bool { on, _ := stand.Driven(); return !on }, 3*time.Second, period,
		"nobody beats any more")
	stand.Fault()
	f = frames(t, run, "back", func(f rig.Frame) bool { return f.State != rig.Lost })
	assert.Equal(t, rig.Stopped, f.State, "it does not go on by itself")
	rec.mu.Lock()
	defer rec.mu.Unlock()
	assert.Len(t, rec.notes, 2)
}

func TestTheSimulatedStandStaysAtHome(t *testing.T) {
	_, err := rig.Serve(context.Background(), "0.0.0.0:0", 1)
	assert.ErrorContains(t, err, "loopback only")
	_, err = rig.Dial(context.Background(), rig.Setup{Name: "none", Endpoint: "opc.tcp://127.0.0.1:1"})
	assert.ErrorContains(t, err, "does not answer")
}
