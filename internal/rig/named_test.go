package rig

import (
	"context"
	"net/url"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// called is a stand that calls itself something, and ends with end.
func called(t *testing.T, name, addr string) (setup Setup, end func()) {
	t.Helper()
	ctx, cancel := context.WithCancel(t.Context())
	t.Cleanup(cancel)
	stand, err := serve(ctx, name, addr, 1)
	require.NoError(t, err)
	nodes, err := ParseNodes(SimulatedNodes())
	require.NoError(t, err)
	return Setup{Name: "east", Endpoint: stand.Endpoint, Nodes: nodes}, cancel
}

// What a stand is, it says itself; one that says nothing is neither real nor an exercise.
func TestAStandSaysWhatItIs(t *testing.T) {
	t.Parallel()
	for name, simulated := range map[string]bool{ProductName: true, "Quayside bench 3": false, "": false, "  ": false} {
		setup, _ := called(t, name, "127.0.0.1:0")
		link, err := Dial(t.Context(), setup)
		require.NoError(t, err)
		defer link.Close()
		assert.Equal(t, simulated, link.Simulated(), name)
		assert.Equal(t, name == "" || name == "  ", link.Said == "", name)
	}
}

// Where another stand answers at the address of one that was lost, nothing of it is taken for the first.
func TestAnotherStandIsNotTakenForTheFirst(t *testing.T) {
	t.Parallel()
	setup, end := called(t, "Quayside bench 3", "127.0.0.1:0")
	link, err := Dial(t.Context(), setup)
	require.NoError(t, err)
	run := Start(link, nil, 1)
	t.Cleanup(run.Close)
	until := func(what string, ok func(Frame) bool) Frame {
		frames, done := run.Watch()
		defer done()
		for {
			select {
			case f := <-frames:
				if ok(f) {
					return f
				}
			case <-time.After(30 * time.Second):
				require.Fail(t, "never "+what, "%+v", run.Now())
			}
		}
	}
	until("read", func(f Frame) bool { return f.State == Idle && !f.At.IsZero() })
	end()
	until("lost", func(f Frame) bool { return f.State == Lost })
	at, err := url.Parse(setup.Endpoint)
	require.NoError(t, err)
	require.Eventually(t, func() bool { // the address is free again
		ctx, cancel := context.WithCancel(t.Context())
		t.Cleanup(cancel)
		_, err := serve(ctx, ProductName, at.Host, 1)
		return err == nil
	}, 20*time.Second, 100*time.Millisecond)
	f := until("told", func(f Frame) bool { return f.Why != "" && f.Why[:4] == "what" })
	assert.Equal(t, Lost, f.State)
	assert.Contains(t, f.Why, "what answers now is another stand: "+ProductName+", was Quayside bench 3")
}
