package store_test

import (
	"context"
	"math"
	"testing"
	"time"

	"corvek/core/trace"
	"corvek/core/workshop"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var noon = time.Date(2031, 5, 20, 12, 0, 0, 0, time.UTC)

// chunk is ten seconds of two channels, the n-th of a run.
func chunk(n int) *trace.Trace {
	t := &trace.Trace{Channels: []string{"pressure", "flow"}}
	for i := range 100 {
		at := noon.Add(time.Duration(n*100+i) * 100 * time.Millisecond)
		t.Samples = append(t.Samples, trace.Sample{At: at, Values: []float64{1e5 * float64(n), math.NaN()}})
	}
	return t
}

func TestARecordingIsKept(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-0501"))
	id, err := s.OpenRecording(ctx, "T-0501", store.Recording{Unit: 1, Attempt: 2, Stand: "east", Source: "simulated",
		Channels: "pressure flow", ByName: "Iva Brask", StartedAt: noon})
	require.NoError(t, err)
	for n := range 4 {
		require.NoError(t, s.AddChunk(ctx, id, n, chunk(n)))
	}
	require.NoError(t, s.AddNote(ctx, id, noon.Add(time.Second), "start p100"))
	list, err := s.Recordings(ctx, "T-0501", 1)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, 400, list[0].Samples)
	assert.True(t, list[0].Simulated())
	assert.InDelta(t, 39.9, list[0].EndedAt.Sub(list[0].StartedAt).Seconds(), 1e-6)

	r, ok, err := s.Recording(ctx, "T-0501", id)
	require.NoError(t, err)
	require.True(t, ok)
	outlines, err := s.Outlines(ctx, r)
	require.NoError(t, err)
	require.Len(t, outlines, 4)
	assert.InDelta(t, 3e5, outlines[3].High[0], 1)
	assert.True(t, math.IsNaN(outlines[3].High[1]))
	part, err := s.Samples(ctx, r, noon.Add(15*time.Second), noon.Add(16*time.Second), 1000)
	require.NoError(t, err)
	assert.Len(t, part.Samples, 11)
	assert.InDelta(t, 1e5, part.Samples[0].Values[0], 1)
	few, err := s.Samples(ctx, r, noon, noon.Add(time.Hour), 7)
	require.NoError(t, err)
	assert.Len(t, few.Samples, 7)
	notes, err := s.RecordingNotes(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, "start p100", notes[0].Note)

	_, ok, err = s.Recording(ctx, "T-0502", id)
	require.NoError(t, err)
	assert.False(t, ok, "another job's recording is not shown")
	for _, bend := range []string{"UPDATE recordings SET source = 'stand'", "DELETE FROM recording_chunks",
		"UPDATE recording_notes SET note = ''"} {
		_, err := s.Pool.Exec(ctx, bend)
		assert.Error(t, err, bend)
	}
}

func TestStandsOfTheShop(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	save := func(stand store.Stand) { require.NoError(t, s.SaveStand(ctx, stand, "Odd Lead", "stand east")) }
	save(store.Stand{Name: "east", Endpoint: "opc.tcp://a:1", Nodes: "x"})
	save(store.Stand{Name: "east", Endpoint: "opc.tcp://b:1", Nodes: "y"})
	list, err := s.Stands(ctx)
	require.NoError(t, err)
	assert.Equal(t, []store.Stand{{Name: "east", Endpoint: "opc.tcp://b:1", Nodes: "y"}}, list)
	for range 2 { // said twice, it is one place
		save(store.Stand{Name: "east", Endpoint: "opc.tcp://b:1", Nodes: "y",
			Place: &workshop.Place{Name: "east", Kind: "stand"}})
	}
	list, err = s.Stands(ctx)
	require.NoError(t, err)
	require.NotNil(t, list[0].Place)
	assert.Equal(t, "east", list[0].Place.Name)
	require.NoError(t, s.DropPlace(ctx, list[0].Place.ID, "Odd Lead", "a place taken out"))
	list, err = s.Stands(ctx)
	require.NoError(t, err)
	assert.Nil(t, list[0].PlaceID, "the stand is read all the same")
	require.NoError(t, s.DropStand(ctx, "east", "Odd Lead", "read no more"))
	list, err = s.Stands(ctx)
	require.NoError(t, err)
	assert.Empty(t, list)
}

// Eight hours at ten samples a second and 24 channels are 2,880 chunks.
func BenchmarkOutlinesOfADay(b *testing.B) {
	s, ctx := storetest.New(b), context.Background()
	create(b, s, sheet("T-0501"))
	channels := ""
	for range 24 {
		channels += "pressure "
	}
	r := store.Recording{Unit: 1, Attempt: 1, Stand: "east", Channels: channels, StartedAt: noon}
	var err error
	r.ID, err = s.OpenRecording(ctx, "T-0501", r)
	require.NoError(b, err)
	for n := range 2880 {
		t := &trace.Trace{Channels: r.Codes()}
		for i := range 100 {
			at := noon.Add(time.Duration(n*100+i) * 100 * time.Millisecond)
			t.Samples = append(t.Samples, trace.Sample{At: at, Values: make([]float64, 24)})
		}
		require.NoError(b, s.AddChunk(ctx, r.ID, n, t))
	}
	for b.Loop() {
		outlines, err := s.Outlines(ctx, r)
		require.NoError(b, err)
		require.Len(b, trace.Join(outlines, 800), 720)
	}
}
