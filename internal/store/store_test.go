package store_test

import (
	"context"
	"sync"
	"testing"
	"time"

	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func job(tag string) *store.Job {
	return &store.Job{
		Tag: tag, Title: "Press pump", Customer: store.Customer{Name: "Ostrey Fish Meal"}, ReceivedOn: time.Now(), Policy: "on_condition", Waiting: "hands", Station: "receive",
		Units: []store.Unit{{
			Ordinal: 1, Family: "external_gear_pump", Name: "Pump", Speed: "1450 rpm",
			Rounds: []store.Round{{Number: 1, OpenedAt: time.Now()}},
			Parts: []store.Part{{Code: "rear_plate", Name: "Rear plate", Ordinal: 1, Expected: 1,
				Features: []store.Feature{{Code: "side_clearance", Upper: "7 thou", Readings: []store.Reading{{Round: 1, Stage: "found", Slot: "leaf:7 thou", Value: "goes", At: time.Now()}}}}}},
		}},
	}
}

func TestJobComesBackWhole(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	require.NoError(t, s.CreateJob(ctx, job(""), "Iva", "created"))
	jobs, err := s.Jobs(ctx)
	require.NoError(t, err)
	require.Len(t, jobs, 1)
	assert.Equal(t, "T-0401", jobs[0].Tag)
	got, err := s.Job(ctx, "T-0401")
	require.NoError(t, err)
	assert.Equal(t, "Ostrey Fish Meal", got.Customer.Name)
	r := got.Units[0].Parts[0].Features[0].Readings[0]
	assert.Equal(t, "leaf:7 thou", r.Slot)
	_, err = s.Job(ctx, "T-9999")
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestTagsSkipThoseTaken(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	require.NoError(t, s.CreateJob(ctx, job("T-0401"), "x", "imported"))
	second := job("")
	require.NoError(t, s.CreateJob(ctx, second, "x", "created"))
	assert.Equal(t, "T-0402", second.Tag)
	assert.Error(t, s.CreateJob(ctx, job("T-0401"), "x", "imported"), "a tag is unique")
}

func TestWritersTakeTurns(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	require.NoError(t, s.CreateJob(ctx, job("T-1"), "x", "created"))
	var wg sync.WaitGroup
	for range 8 {
		wg.Go(func() {
			assert.NoError(t, s.WithJob(ctx, "T-1", func(tx *store.Tx) error {
				return tx.DB.Exec("UPDATE jobs SET title = title || 'x' WHERE id = ?", tx.Job.ID).Error
			}))
		})
	}
	wg.Wait()
	got, err := s.Job(ctx, "T-1")
	require.NoError(t, err)
	assert.Equal(t, "Press pumpxxxxxxxx", got.Title)
	assert.Equal(t, int64(9), got.Version)
}

func TestFailedWriteLeavesNothing(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	require.NoError(t, s.CreateJob(ctx, job("T-1"), "x", "created"))
	err := s.WithJob(ctx, "T-1", func(tx *store.Tx) error {
		require.NoError(t, tx.Record("Iva", "set", "title", "a", "b"))
		return assert.AnError
	})
	require.ErrorIs(t, err, assert.AnError)
	got, _ := s.Job(ctx, "T-1")
	assert.Equal(t, int64(1), got.Version)
	history, err := s.History(ctx, got.ID, 10)
	require.NoError(t, err)
	assert.Len(t, history, 1, "only the creation")
}

func TestRecordIsAppendOnly(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	require.NoError(t, s.CreateJob(ctx, job("T-1"), "x", "created"))
	_, err := s.Pool.Exec(ctx, "UPDATE record_entries SET who = 'nobody'")
	assert.ErrorContains(t, err, "append-only")
}

func TestMigrateTwice(t *testing.T) {
	s := storetest.New(t)
	assert.NoError(t, s.Migrate(context.Background()))
}

func TestPeople(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	require.NoError(t, s.SavePerson(ctx, &store.Person{SignIn: "iva", Name: "Iva Brask", Initials: "IB", Role: "lead", PasswordHash: "h"}))
	require.NoError(t, s.SavePerson(ctx, &store.Person{SignIn: "iva", Name: "Iva B.", Initials: "IB", Role: "technician", PasswordHash: "h2"}))
	p, err := s.PersonBySignIn(ctx, "iva")
	require.NoError(t, err)
	assert.Equal(t, "technician", p.Role)
	assert.Error(t, s.SavePerson(ctx, &store.Person{SignIn: "x", Role: "king"}))
}
