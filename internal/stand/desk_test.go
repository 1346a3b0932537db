package stand_test

import (
	"context"
	"sync"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/unit"
	"corvek/demo/demotest"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/rig"
	"corvek/internal/stand"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var iva = people.Actor{Name: "Iva Brask", Initials: "IB", Role: people.RoleTechnician}

// connected is a practice stand at work for T-0417, whose test has begun.
func connected(t *testing.T) (*job.Service, *stand.Desk, *stand.Session, *rig.Server) {
	jobs, ctx := demotest.Jobs(t), t.Context()
	practice, err := rig.Serve(ctx, "127.0.0.1:0", 20)
	require.NoError(t, err)
	require.NoError(t, jobs.Store.SaveStand(ctx, store.Stand{Name: "practice", Endpoint: practice.Endpoint,
		Nodes: rig.SimulatedNodes()}, "Odd Lead", "to practise on"))
	jobtest.ToTheStand(t, jobs, "T-0417")
	require.NoError(t, jobs.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{}))
	desk := stand.NewDesk(jobs, 20)
	t.Cleanup(desk.Close)
	require.NoError(t, desk.Connect(ctx, iva, state(t, jobs), "practice"))
	w := desk.Of("T-0417", 1)
	require.NotNil(t, w)
	return jobs, desk, w, practice
}

func state(t *testing.T, jobs *job.Service) *bench.State {
	t.Helper()
	st, err := jobs.Load(t.Context(), "T-0417", 1)
	require.NoError(t, err)
	return st
}

// Figures are from a stand only where it said what it is.
func TestWhereFiguresAreFrom(t *testing.T) {
	for from, w := range map[string]stand.Session{unit.SourceSimulated: {Said: rig.ProductName, Simulated: true},
		unit.SourceStand: {Said: "Quayside bench 3"}, unit.SourceUnknown: {}} {
		assert.Equal(t, from, w.Source())
	}
}

// A stand works for one unit, is recorded, and lets go of all who watch when it is let go: none
// waits for a frame that never comes.
func TestWhoWatchesIsToldOfTheEnd(t *testing.T) {
	jobs, desk, w, _ := connected(t)
	assert.Equal(t, "T-0417", desk.WorksFor("practice"))
	assert.ErrorContains(t, desk.Connect(t.Context(), iva, state(t, jobs), "practice"), "works for T-0417")
	assert.ErrorContains(t, desk.Connect(t.Context(), iva, state(t, jobs), "none"), `"none"`)
	var told sync.WaitGroup
	for range 5 {
		frames, done := w.Watch()
		told.Go(func() {
			defer done()
			for range frames { // until it is closed
			}
		})
	}
	require.NoError(t, w.Drive(t.Context(), iva, state(t, jobs), "p100"))
	first, done := w.Watch()
	<-first // something was shown, and is kept
	done()
	desk.Close()
	told.Wait()
	assert.Nil(t, desk.Of("T-0417", 1))
	frames, left := w.Watch()
	defer left()
	_, goes := <-frames
	assert.False(t, goes, "what has ended shows nothing more")
	assert.ErrorContains(t, desk.Connect(t.Context(), iva, state(t, jobs), "practice"), "being stopped")
	list, err := jobs.Store.Recordings(t.Context(), "T-0417", 1)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, w.Recording, list[0].ID)
	assert.Positive(t, list[0].Samples)
}

// While a stand is lost and found again, pages ask it what it can: nothing of it races.
func TestALostStandIsAskedMeanwhile(t *testing.T) {
	_, _, w, practice := connected(t)
	ctx, cancel := context.WithTimeout(t.Context(), 30*time.Second)
	defer cancel()
	frames, done := w.Watch()
	defer done()
	practice.Fault("silent")
	var asks sync.WaitGroup
	stop := make(chan struct{})
	asks.Go(func() {
		for {
			select {
			case <-stop:
				return
			default:
				w.Drives()
				w.Channels()
			}
		}
	})
	until := func(state rig.State) {
		for {
			select {
			case f, goes := <-frames:
				require.True(t, goes)
				if f.State == state {
					return
				}
			case <-ctx.Done():
				require.FailNow(t, "never "+string(state))
			}
		}
	}
	until(rig.Lost)
	practice.Fault("")
	until(rig.Stopped)
	close(stop)
	asks.Wait()
}

// A stand that is at work from one instance of the program is refused to the other, until it is let go.
func TestAStandWorksFromOneInstance(t *testing.T) {
	jobs, _, w, _ := connected(t)
	other := stand.NewDesk(jobs, 20)
	t.Cleanup(other.Close)
	err := other.Connect(t.Context(), iva, state(t, jobs), "practice")
	require.ErrorContains(t, err, "at work from another bench")
	w.Leave()
	require.NoError(t, other.Connect(t.Context(), iva, state(t, jobs), "practice"))
}
