package demo_test

import (
	"context"
	"strings"
	"testing"
	"time"

	"corvek/demo"
	"corvek/demo/demotest"
	"corvek/internal/job"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func loaded(t *testing.T) *job.Service { return demotest.Jobs(t) }

// Each demo job stands where its story says, with its trap armed.
func TestTraps(t *testing.T) {
	s := loaded(t)
	for tag, trap := range map[string]struct{ station, says string }{
		"T-0417": {"strip", "33 of 34"},
		"T-0409": {"kit", "left over"},
		"T-0412": {"measure", "undecided"},
		"T-0405": {"explain", "outside the unit"},
		"T-0398": {"prove", "Not shown yet: holds its load"},
		"T-0421": {"receive", "do not open"},
	} {
		st, err := s.Load(context.Background(), tag, 1)
		require.NoError(t, err)
		texts := ""
		for _, stop := range st.Stops[trap.station] {
			texts += stop.Text + "; "
		}
		assert.Contains(t, texts, trap.says, tag)
	}
	st, err := s.Load(context.Background(), "T-0398", 1)
	require.NoError(t, err)
	assert.Equal(t, "out", st.Attempts[0].Verdict, "a first test that failed")
}

func TestDatesStandAtToday(t *testing.T) {
	s := loaded(t)
	j, err := s.Store.Job(context.Background(), "T-0417")
	require.NoError(t, err)
	assert.WithinDuration(t, time.Now(), j.PromisedOn.Time(), 5*24*time.Hour)
	assert.WithinDuration(t, time.Now(), j.ReceivedOn.Time(), 10*24*time.Hour)
}

func TestEveryReadingOfTheDemoCanBeRead(t *testing.T) {
	s := loaded(t)
	docs, err := demo.Documents()
	require.NoError(t, err)
	readings := 0
	for _, d := range docs {
		st, err := s.Load(context.Background(), d.Tag(), 1)
		require.NoError(t, err)
		for _, p := range st.Parts {
			for _, f := range p.Features {
				assert.Empty(t, f.Found.Faults, "%s %s", d.Tag(), f.Path())
				assert.Empty(t, f.Built.Faults, "%s %s", d.Tag(), f.Path())
				readings += f.Found.Count
			}
		}
	}
	assert.Greater(t, readings, 80)
}

// Where each demo job stands follows from what was done on it.
func TestStations(t *testing.T) {
	s := loaded(t)
	stands := map[string]string{}
	docs, err := demo.Documents()
	require.NoError(t, err)
	for _, d := range docs {
		j, err := s.Store.Job(context.Background(), d.Tag())
		require.NoError(t, err)
		stands[d.Tag()] = j.Station
	}
	assert.Equal(t, map[string]string{
		"T-0388": "handover", "T-0398": "prove", "T-0405": "explain", "T-0409": "kit",
		"T-0412": "measure", "T-0417": "measure", "T-0421": "receive", "T-0426": "strip",
	}, stands)
}

func TestPicturesAreDrawnAndHarmless(t *testing.T) {
	s := loaded(t)
	docs, err := demo.Documents()
	require.NoError(t, err)
	pictures := 0
	for _, d := range docs {
		j, err := s.Store.Job(context.Background(), d.Tag())
		require.NoError(t, err)
		for _, p := range j.Pictures {
			c, _, err := s.Store.Picture(context.Background(), d.Tag(), p.Number)
			require.NoError(t, err)
			assert.True(t, strings.HasPrefix(string(c.Bytes), "<svg"), p.Name)
			assert.NotContains(t, string(c.Bytes), "<script")
			pictures++
		}
	}
	assert.Positive(t, pictures)
}

// What the stand wrote of the finished job agrees with what was typed of it, in the time in
// which each step was held.
func TestTheLogAgreesWithWhatWasTyped(t *testing.T) {
	s := loaded(t)
	ctx := context.Background()
	list, err := s.Store.Recordings(ctx, "T-0388", 1)
	require.NoError(t, err)
	require.Len(t, list, 1)
	j, err := s.Store.Job(ctx, "T-0388")
	require.NoError(t, err)
	held := 0
	for _, p := range j.Units[0].Attempt(list[0].Attempt).Points {
		if p.Held() == 0 || p.Figure("flow").IsZero() {
			continue
		}
		held++
		part, err := s.Store.Samples(ctx, list[0], p.HoldFrom, p.HoldTo, 1000)
		require.NoError(t, err)
		for code, typed := range p.Figures {
			mean, _, ok := part.Mean(code)
			require.True(t, ok, "%s of %s", code, p.Code)
			assert.InEpsilon(t, typed.SI, mean, 0.01, "%s of %s", code, p.Code)
		}
	}
	assert.Equal(t, 4, held, "a quarter, a half, three quarters and the whole of the pressure")
}
