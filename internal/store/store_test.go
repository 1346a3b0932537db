package store_test

import (
	"context"
	"fmt"
	"sync"
	"testing"
	"time"

	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

// sheet is a job with one unit, one part and one leaf tried.
func sheet(tag string) *unit.Job {
	u := &unit.Unit{Number: 1, Family: "external_gear_pump", Name: "Pump",
		Gauge: map[string]string{"inlet": "good"}, Identity: map[string]string{}}
	u.Speed, _ = quantity.Parse("1450 rpm", quantity.Rotation)
	u.Rounds = []*unit.Round{{Number: 1, OpenedAt: time.Now()}}
	leaf := &unit.Reading{Round: 1, Stage: unit.StageFound, Slot: "leaf:7 thou", Value: "goes", At: time.Now()}
	limit, _ := quantity.Parse("7 thou", quantity.Length)
	u.Parts = []*unit.Part{{
		Code: "rear_plate", Name: "Rear plate", Expected: 1,
		Features: []*unit.Feature{{Code: "side_clearance", Upper: limit, Readings: []*unit.Reading{leaf}}},
	}}
	return &unit.Job{
		Tag: tag, Title: "Press pump", Customer: unit.Customer{Name: "Ostrey Fish Meal"},
		ReceivedOn: unit.DateOf(time.Now()),
		Policy:     "on_condition", Waiting: "technician", Station: "receive", Units: []*unit.Unit{u},
	}
}

// create keeps a job as a command would.
func create(t testing.TB, s *store.Store, j *unit.Job) *unit.Job {
	t.Helper()
	require.NoError(t, s.Create(context.Background(), &store.Change{Job: j,
		Entries: []unit.Entry{{Who: "x", At: time.Now(), Action: "created"}}}))
	return j
}

// update changes a job as a command would.
func update(s *store.Store, tag string, f func(*unit.Job)) error {
	return s.Update(context.Background(), tag, func(j *unit.Job, _ store.History) (*store.Change, error) {
		f(j)
		return &store.Change{Job: j, Entries: []unit.Entry{{Who: "x", At: time.Now(), Action: "set"}}}, nil
	})
}

func TestJobComesBackWhole(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	j := create(t, s, sheet(""))
	assert.Equal(t, "T-0401", j.Tag)
	other, err := store.Open(ctx, storetest.URLOf(s)) // with nothing in its memory
	require.NoError(t, err)
	defer other.Close()
	got, err := other.Job(ctx, "T-0401")
	require.NoError(t, err)
	assert.Equal(t, "Ostrey Fish Meal", got.Customer.Name)
	u := got.Units[0]
	assert.Equal(t, "1450 rpm", u.Speed.Typed)
	assert.InDelta(t, 1450, u.Speed.SI, 1e-9, "read once, when it is loaded")
	assert.Equal(t, map[string]string{"inlet": "good"}, u.Gauge)
	assert.Equal(t, "leaf:7 thou", u.Parts[0].Features[0].Readings[0].Slot)
	assert.InDelta(t, 177.8e-6, u.Parts[0].Features[0].Upper.SI, 1e-12)
	_, err = s.Job(ctx, "T-9999")
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestTagsSkipThoseTaken(t *testing.T) {
	s := storetest.New(t)
	create(t, s, sheet("T-0401"))
	assert.Equal(t, "T-0402", create(t, s, sheet("")).Tag)
	create(t, s, sheet("T-0900"))
	create(t, s, sheet("W-2000"))
	assert.Equal(t, "T-0901", create(t, s, sheet("")).Tag, "a newer job has no lower number")
	create(t, s, sheet("T-999999"))
	assert.Equal(t, "T-1000000", create(t, s, sheet("")).Tag)
	assert.Equal(t, "T-1000001", create(t, s, sheet("")).Tag)
	assert.ErrorIs(
		t,
		s.Create(
			context.Background(),
			&store.Change{Job: sheet("T-0401"), Entries: []unit.Entry{{Who: "x", At: time.Now(), Action: "set"}}},
		),
		store.ErrTagTaken,
		"a tag is unique",
	)
}

func TestWritersTakeTurns(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-1"))
	var wg sync.WaitGroup
	for range 8 {
		wg.Go(func() { assert.NoError(t, update(s, "T-1", func(j *unit.Job) { j.Title += "x" })) })
	}
	wg.Wait()
	got, err := s.Job(ctx, "T-1")
	require.NoError(t, err)
	assert.Equal(t, "Press pumpxxxxxxxx", got.Title)
	assert.Equal(t, int64(9), got.Version)
}

// Two programs on one database see one another's writes, each with its own memory.
func TestTwoProgramsOnOneJob(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-1"))
	other, err := store.Open(ctx, storetest.URLOf(s))
	require.NoError(t, err)
	defer other.Close()
	for i := range 6 {
		writer, reader := s, other
		if i%2 == 1 {
			writer, reader = other, s
		}
		title := fmt.Sprintf("title %d", i)
		require.NoError(t, update(writer, "T-1", func(j *unit.Job) { j.Title = title }))
		got, err := reader.Job(ctx, "T-1")
		require.NoError(t, err)
		assert.Equal(t, title, got.Title)
	}
}

func TestFailedWriteLeavesNothing(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-1"))
	err := s.Update(ctx, "T-1", func(j *unit.Job, _ store.History) (*store.Change, error) {
		j.Title = "half done"
		j.Units[0].Parts[0].Features[0].Readings = nil
		return nil, assert.AnError
	})
	require.ErrorIs(t, err, assert.AnError)
	require.NoError(t, s.Update(ctx, "T-1", func(*unit.Job, store.History) (*store.Change, error) {
		return nil,
			store.ErrUnchanged
	}))
	got, _ := s.Job(ctx, "T-1")
	assert.Equal(t, int64(1), got.Version)
	assert.Equal(t, "Press pump", got.Title)
	assert.Len(t, got.Units[0].Parts[0].Features[0].Readings, 1, "what a writer held was a copy")
	entries, err := s.Record(ctx, "T-1", 10)
	require.NoError(t, err)
	assert.Len(t, entries, 1, "only the creation")
}

// A record longer than a piece comes whole, oldest first, each line once.
func TestTheWholeRecordComesInPieces(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-1"))
	create(t, s, sheet("T-2"))
	const lines = 1203
	require.NoError(t, s.Update(ctx, "T-1", func(j *unit.Job, _ store.History) (*store.Change, error) {
		j.Title = "much was written"
		change := &store.Change{Job: j}
		for n := range lines - 1 {
			change.Entries = append(change.Entries, unit.Entry{Who: "Iva", At: time.Now(), Action: fmt.Sprint(n)})
		}
		return change, nil
	}))
	length, err := s.RecordLength(ctx, "T-1")
	require.NoError(t, err)
	assert.Equal(t, int64(lines), length)
	n := -1
	for e, err := range s.Lines(ctx, "T-1") {
		require.NoError(t, err)
		if n >= 0 {
			require.Equal(t, fmt.Sprint(n), e.Action)
		}
		n++
	}
	assert.Equal(t, lines-1, n)
	for range s.Lines(ctx, "T-1") {
		break // a reader may stop
	}
	gone, cancel := context.WithCancel(ctx)
	cancel()
	for _, err := range s.Lines(gone, "T-1") {
		assert.Error(t, err, "a record that cannot be read is not one that is short")
	}
}

// Only rows that differ are written, and every kind of row comes, changes and goes.
func TestEveryKindOfRowComesAndGoes(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-1"))
	size, _ := quantity.Parse("12 N·m", quantity.Torque)
	now := time.Now().UTC().Truncate(time.Millisecond)
	full := func(j *unit.Job, note string) {
		u := j.Units[0]
		p := u.Parts[0]
		u.Accounts = []*unit.Account{{Number: 1, Teller: "Mate", Words: note}}
		u.Loose = []*unit.Loose{{Number: 1, What: "chip", Count: 2, Part: "rear_plate", Note: note}}
		u.Marks = []*unit.UnitMark{{Mark: unit.Mark{Round: 1, Code: "fine_lines", State: unit.MarkSeen,
			Origin: unit.OriginFound, Note: note}}}
		u.Conclusions = []*unit.Conclusion{{Round: 1, Cause: "dirt", Statement: note}}
		u.Kit = []*unit.Piece{{Number: 3, Code: "K-1", Name: "ring", Count: 1, Part: "rear_plate", LeftReason: note}}
		u.Attempts = []*unit.Attempt{{Number: 0, Round: 1, Source: unit.SourceTyped, Note: note, At: now,
			Points: []*unit.Point{{Code: "p100", Word: note}}}}
		p.Decisions = []*unit.Decision{{Round: 1, Choice: "keep", Reason: note}}
		p.Steps = []*unit.Step{{Round: 1, Done: true, Torque: size, Note: note, By: "Iva"}}
		j.Acknowledgements = []*unit.Acknowledgement{{Caution: "pressure", By: "Iva", At: now}}
		j.Waivers = []*unit.Waiver{{Code: "u1/strip/short/rear_plate", Text: "short", Reason: note, By: "Odd", At: now}}
		j.Worked = []*unit.Worked{{Number: 1, Calculator: "mesh", Note: note, Inputs: "{}", Answer: "{}", At: now}}
		j.Pictures = []*unit.Picture{{Number: 1, Name: "a.jpg", MediaType: "image/jpeg", Caption: note, Unit: 1,
			Part: "rear_plate", Marks: []*unit.PictureMark{{Number: 1, X: .5, Y: .25, Note: note}}}}
	}
	again := func() *unit.Job {
		other, err := store.Open(ctx, storetest.URLOf(s))
		require.NoError(t, err)
		defer other.Close()
		j, err := other.Job(ctx, "T-1")
		require.NoError(t, err)
		return j
	}
	for _, note := range []string{"first", "second"} {
		require.NoError(t, s.Update(ctx, "T-1", func(j *unit.Job, _ store.History) (*store.Change, error) {
			full(j, note)
			return &store.Change{Job: j, Contents: map[int]store.Content{1: {Bytes: []byte("whole"),
				Thumb: []byte("small")}}, Entries: []unit.Entry{{Who: "x", At: time.Now(), Action: "set"}}}, nil
		}))
		want := again()
		got := want.Clone()
		full(got, note)
		assert.Equal(t, storetest.Bare(got), storetest.Bare(want), note)
		holds, err := s.VerifyJob(ctx, "T-1")
		require.NoError(t, err)
		assert.Empty(t, holds.Faults, "what is loaded has the fingerprint of what was written")
	}
	content, kind, err := s.Picture(ctx, "T-1", 1)
	require.NoError(t, err)
	assert.Equal(t, [3]string{"whole", "small", "image/jpeg"},
		[3]string{string(content.Bytes), string(content.Thumb), kind})
	require.NoError(t, update(s, "T-1", func(j *unit.Job) {
		j.Units[0].Parts, j.Units[0].Attempts, j.Units[0].Marks = nil, nil, nil
		j.Pictures, j.Waivers, j.Acknowledgements, j.Worked = nil, nil, nil, nil
	}))
	got := again()
	assert.Empty(t, got.Units[0].Parts)
	assert.Empty(t, got.Pictures)
	assert.Len(t, got.Units[0].Kit, 1, "what was not touched stays")
	_, _, err = s.Picture(ctx, "T-1", 1)
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestRecordIsAppendOnly(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-1"))
	owner := storetest.Owner(t, s)
	for _, bend := range []string{"UPDATE record_entries SET who = 'nobody'", "DELETE FROM record_entries",
		"TRUNCATE record_entries", "TRUNCATE record_head", "DELETE FROM record_head"} {
		_, err := owner.Exec(ctx, bend)
		assert.ErrorContains(t, err, "append-only", bend)
	}
}

func TestMigrateTwice(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	assert.NoError(t, storetest.Migrate(ctx, storetest.OwnerURLOf(s)))
	version, err := store.Version(ctx, storetest.OwnerURLOf(s))
	require.NoError(t, err)
	assert.Equal(t, store.Newest(), version)
}

// Closed jobs teach causes and stand in the months: what is held of them is asked anew when one is
// closed, and when it is opened again.
func TestTheShopStepsWithItsClosedJobs(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-1"))
	months := func() (n int) {
		list, err := s.ClosedMonths(ctx)
		require.NoError(t, err)
		for _, m := range list {
			n += m.Jobs
		}
		return n
	}
	assert.Zero(t, months())
	require.NoError(t, update(s, "T-1", func(j *unit.Job) { j.HandedOverAt = time.Now() }))
	assert.Equal(t, 1, months())
	require.NoError(t, update(s, "T-1", func(j *unit.Job) { j.HandedOverAt = time.Time{} }))
	assert.Zero(t, months())
}
