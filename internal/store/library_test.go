package store_test

import (
	"context"
	"testing"
	"time"

	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The newest version of a family holds, none is lost, and families do not mix.
func TestFamilyVersionsAreKept(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	newest, err := s.NewestFamily(ctx)
	require.NoError(t, err)
	assert.Zero(t, newest, "the shop wrote none yet")
	for _, v := range []store.FamilyVersion{{Code: "check_valve", Text: "one"}, {Code: "vane_pump", Text: "of another"}, {Code: "check_valve", Text: "two", Reason: "limit of ours"}} {
		v.ByName, v.At = "Odd Renfeld", time.Now()
		require.NoError(t, s.SaveFamily(ctx, &v))
		newest, err = s.NewestFamily(ctx)
		require.NoError(t, err)
		assert.Equal(t, v.ID, newest)
	}
	now, err := s.FamiliesNow(ctx)
	require.NoError(t, err)
	texts := map[string]string{}
	for _, v := range now {
		texts[v.Code] = v.Text
	}
	assert.Equal(t, map[string]string{"check_valve": "two", "vane_pump": "of another"}, texts)
	history, err := s.FamilyHistory(ctx, "check_valve")
	require.NoError(t, err)
	require.Len(t, history, 2)
	assert.Equal(t, "two", history[0].Text, "newest first")
	assert.Equal(t, "limit of ours", history[0].Reason)
}

// A tool of the same name is renewed, not doubled: a new due date after it was
// calibrated.
func TestInstrumentIsRenewed(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	due := time.Date(2031, 5, 14, 0, 0, 0, 0, time.UTC)
	require.NoError(t, s.SaveInstrument(ctx, &store.Instrument{Name: "micrometer 2", Kind: "micrometer", Resolution: "0.01 mm"}))
	require.NoError(t, s.SaveInstrument(ctx, &store.Instrument{Name: "bore gauge 1", Kind: "bore gauge", Resolution: "0.002 mm"}))
	require.NoError(t, s.SaveInstrument(ctx, &store.Instrument{Name: "micrometer 2", Kind: "micrometer", Resolution: "0.001 mm", DueOn: &due}))
	all, err := s.Instruments(ctx)
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, "bore gauge 1", all[0].Name)
	assert.Equal(t, "0.001 mm", all[1].Resolution)
	require.NotNil(t, all[1].DueOn)
	assert.Equal(t, due.Format(time.DateOnly), all[1].DueOn.Format(time.DateOnly))
}

// Only the last conclusion of a unit that was handed over teaches anything.
func TestOnlyClosedJobsTeach(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	closed := func(tag, family string, handed bool, causes ...string) {
		j := job(tag)
		j.Units[0].Family = family
		if handed {
			now := time.Now()
			j.HandedOverAt = &now
		}
		for i, cause := range causes {
			j.Units[0].Conclusions = append(j.Units[0].Conclusions, store.Conclusion{Round: i + 1, Cause: cause})
		}
		require.NoError(t, s.CreateJob(ctx, j, "x", "imported"))
	}
	closed("T-1", "check_valve", true, "contamination")
	closed("T-2", "check_valve", true, "contamination", "seat_worn") // round 2 overrules round 1
	closed("T-3", "check_valve", true, "contamination")
	closed("T-4", "check_valve", false, "contamination") // still open
	closed("T-5", "check_valve", true, "")               // cause not found
	closed("T-6", "vane_pump", true, "aeration")
	got, err := s.ConcludedCauses(ctx)
	require.NoError(t, err)
	assert.Equal(t, map[string]map[string]int{"check_valve": {"contamination": 2, "seat_worn": 1}, "vane_pump": {"aeration": 1}}, got)
}

// Rows that come along with a job are tied to their parts by the part's code;
// a code that is not there leaves the row untied, and nothing else is touched.
func TestTiesByPartCode(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	j := job("T-1")
	j.Units[0].LooseItems = []store.LooseItem{{What: "needle", Place: "tank", Count: 1}, {What: "flake", Place: "filter", Count: 3}}
	j.Units[0].KitPieces = []store.KitPiece{{Number: "K1", Name: "plate", Count: 1}}
	j.Attachments = []store.Attachment{{Name: "a.jpg", MediaType: "image/jpeg", Content: []byte("whole"), Thumb: []byte("small"), Marks: []store.PictureMark{{Number: 1, X: .5, Y: .5}}}}
	require.NoError(t, s.CreateJob(ctx, j, "Iva", "imported"))
	u := &j.Units[0]
	require.NoError(t, s.Tie(ctx, j, []store.PartTie{
		{Unit: 0, Code: "rear_plate", Loose: &u.LooseItems[0]}, {Unit: 0, Code: "no_such_part", Loose: &u.LooseItems[1]}, {Unit: 0, Code: "rear_plate", Piece: &u.KitPieces[0]},
		{Unit: 0, Code: "rear_plate", Attachment: &j.Attachments[0]}, {Unit: 0, Code: "rear_plate", Mark: &j.Attachments[0].Marks[0]},
	}, []store.RecordEntry{{Who: "Iva Brask", Action: "set", Field: "unit.1.speed", After: "1450 rpm", At: time.Now()}}))
	got, err := s.Job(ctx, "T-1")
	require.NoError(t, err)
	plate := got.Units[0].Parts[0].ID
	for _, l := range got.Units[0].LooseItems {
		if l.What == "needle" {
			require.NotNil(t, l.PartID)
			assert.Equal(t, plate, *l.PartID)
		} else {
			assert.Nil(t, l.PartID)
		}
	}
	require.NotNil(t, got.Units[0].KitPieces[0].PartID)
	whole, err := s.Attachment(ctx, j.Attachments[0].ID)
	require.NoError(t, err)
	assert.Equal(t, "whole", string(whole.Content))
	assert.Equal(t, plate, *whole.PartID)
	_, err = s.Attachment(ctx, 999999)
	assert.ErrorIs(t, err, store.ErrNotFound)
	history, err := s.History(ctx, got.ID, 10)
	require.NoError(t, err)
	assert.Equal(t, "unit.1.speed", history[0].Field, "the record travels with the job")
}

// What a job stands at is remembered without an entry or a new version; the
// newest change of a field is found by the field alone.
func TestStationAndLastChange(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	empty, err := s.Empty(ctx)
	require.NoError(t, err)
	assert.True(t, empty)
	require.NoError(t, s.CreateJob(ctx, job("T-1"), "x", "created"))
	empty, err = s.Empty(ctx)
	require.NoError(t, err)
	assert.False(t, empty)
	for tag, want := range map[string]bool{"T-1": true, "T-2": false} {
		taken, err := s.TagTaken(ctx, tag)
		require.NoError(t, err)
		assert.Equal(t, want, taken)
	}
	require.NoError(t, s.SetStation(ctx, "T-1", "strip"))
	got, err := s.Job(ctx, "T-1")
	require.NoError(t, err)
	assert.Equal(t, "strip", got.Station)
	assert.Equal(t, int64(1), got.Version)
	require.NoError(t, s.WithJob(ctx, "T-1", func(tx *store.Tx) error {
		_, ok := tx.LastChange("title")
		assert.False(t, ok)
		require.NoError(t, tx.Record("Iva", "set", "title", "a", "b"))
		require.NoError(t, tx.Record("Odd", "set", "title", "b", "c"))
		last, ok := tx.LastChange("title")
		assert.True(t, ok)
		assert.Equal(t, [2]string{"Odd", "c"}, [2]string{last.Who, last.After})
		return nil
	}))
	customers, err := s.Customers(ctx)
	require.NoError(t, err)
	require.Len(t, customers, 1)
	require.NoError(t, s.Ping(ctx))
	_, err = s.PersonByID(ctx, 999999)
	assert.ErrorIs(t, err, store.ErrNotFound)
}
