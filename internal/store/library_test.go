package store_test

import (
	"context"
	"fmt"
	"testing"
	"time"

	"corvek/core/shop"
	"corvek/core/unit"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The newest version of a family holds, none is lost, and families do not mix.
func TestFamilyVersionsAreKept(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	before, err := s.ShopVersion(ctx)
	require.NoError(t, err)
	for _, v := range []store.FamilyVersion{
		{Code: "check_valve", Text: "one"}, {Code: "vane_pump", Text: "of another"},
		{Code: "check_valve", Text: "two", Reason: "limit of ours"},
	} {
		v.ByName, v.At = "Odd Renfeld", time.Now()
		require.NoError(t, s.SaveFamily(ctx, &v))
		version, err := s.ShopVersion(ctx)
		require.NoError(t, err)
		assert.Greater(t, version, before, "who holds families in memory is told")
		before = version
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
	require.NoError(t, s.SaveInstrument(ctx, &shop.Instrument{Name: "micrometer 2", Kind: "micrometer",
		Resolution: "0.01 mm"}))
	require.NoError(t, s.SaveInstrument(ctx, &shop.Instrument{Name: "bore gauge 1", Kind: "bore gauge",
		Resolution: "0.002 mm"}))
	require.NoError(t, s.SaveInstrument(ctx, &shop.Instrument{Name: "micrometer 2", Kind: "micrometer",
		Resolution: "0.001 mm", DueOn: &due}))
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
		j := sheet(tag)
		j.Units[0].Family = family
		if handed {
			j.HandedOverAt = time.Now()
		}
		for i, cause := range causes {
			j.Units[0].Conclusions = append(j.Units[0].Conclusions, &unit.Conclusion{Round: i + 1, Cause: cause})
		}
		create(t, s, j)
	}
	closed("T-1", "check_valve", true, "contamination")
	closed("T-2", "check_valve", true, "contamination", "seat_worn") // round 2 overrules round 1
	closed("T-3", "check_valve", true, "contamination")
	closed("T-4", "check_valve", false, "contamination") // still open
	closed("T-5", "check_valve", true, "")               // cause not found
	closed("T-6", "vane_pump", true, "aeration")
	got, err := s.ConcludedCauses(ctx)
	require.NoError(t, err)
	assert.Equal(t, map[string]map[string]int{"check_valve": {"contamination": 2, "seat_worn": 1},
		"vane_pump": {"aeration": 1}}, got)
}

// The board shows the first jobs of each group and how many there are; it is
// searched by words, and closed jobs are found by month.
func TestBoard(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	empty, err := s.Empty(ctx)
	require.NoError(t, err)
	assert.True(t, empty)
	for i := range 12 {
		j := sheet(fmt.Sprintf("T-%d", i+1))
		j.Title = fmt.Sprintf("Winch %d", i+1)
		j.PromisedOn = unit.Date(fmt.Sprintf("2031-05-%02d", 20-i))
		j.Units[0].Serial = fmt.Sprintf("S%%_%d", i+1)
		switch {
		case i < 2:
			j.Waiting = "parts"
		case i > 9:
			j.HandedOverAt = time.Date(2031, time.Month(i-6), 2, 9, 0, 0, 0, time.UTC)
		}
		create(t, s, j)
	}
	groups, err := s.InHand(ctx, store.Sought{}, 3, "", 50)
	require.NoError(t, err)
	require.Len(t, groups, 2)
	assert.Equal(t, 8, groups["technician"].Total)
	require.Len(t, groups["technician"].Cards, 3)
	assert.Equal(t, "T-10", groups["technician"].Cards[0].Tag, "promised first")
	groups, err = s.InHand(ctx, store.Sought{}, 3, "technician", 50)
	require.NoError(t, err)
	assert.Len(t, groups["technician"].Cards, 8, "a group opens further")
	for find, want := range map[string]int{"winch": 10, "WINCH ostrey": 10, "t-3": 1, "s%_4": 1, "%": 10,
		"nothing like it": 0} {
		groups, err = s.InHand(ctx, store.Sought{Find: find}, 50, "", 50)
		require.NoError(t, err)
		n := 0
		for _, g := range groups {
			n += g.Total
		}
		assert.Equal(t, want, n, find)
	}
	done, err := s.Closed(ctx, store.Sought{Month: "2031-04"}, 10)
	require.NoError(t, err)
	require.Len(t, done, 1)
	assert.Equal(t, "T-11", done[0].Tag)
	done, err = s.Closed(ctx, store.Sought{Find: "winch"}, 10)
	require.NoError(t, err)
	assert.Len(t, done, 2)
	months, err := s.ClosedMonths(ctx)
	require.NoError(t, err)
	assert.Equal(t, []store.Month{{Month: "2031-05", Jobs: 1}, {Month: "2031-04", Jobs: 1}}, months)
	customers, err := s.Customers(ctx, "FISH")
	require.NoError(t, err)
	require.Len(t, customers, 1)
	assert.Equal(t, "Ostrey Fish Meal", customers[0].Name)
	for tag, want := range map[string]bool{"T-1": true, "T-99": false} {
		taken, err := s.TagTaken(ctx, tag)
		require.NoError(t, err)
		assert.Equal(t, want, taken)
	}
}

// A month begins and ends at midnight in UTC, months without a job are stepped
// over, and no more than two years of them are offered.
func TestClosedMonthsStepOverEmptyOnes(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	months, err := s.ClosedMonths(ctx)
	require.NoError(t, err)
	assert.Empty(t, months)
	closed := func(n int, at time.Time) {
		j := sheet(fmt.Sprintf("T-%d", n))
		j.HandedOverAt = at
		create(t, s, j)
	}
	create(t, s, sheet("T-0")) // in hand
	edge := time.Date(2031, 4, 1, 0, 0, 0, 0, time.UTC)
	closed(1, edge.Add(-time.Second)) // the last of March
	closed(2, edge)                   // the first of April
	closed(3, edge.AddDate(0, 1, 0).Add(-time.Second))
	closed(4, edge.AddDate(0, 7, 0))
	months, err = s.ClosedMonths(ctx)
	require.NoError(t, err)
	assert.Equal(t, []store.Month{{Month: "2031-11", Jobs: 1}, {Month: "2031-04", Jobs: 2},
		{Month: "2031-03", Jobs: 1}}, months)
	for _, m := range months {
		done, err := s.Closed(ctx, store.Sought{Month: m.Month}, 50)
		require.NoError(t, err)
		assert.Len(t, done, m.Jobs, "as many as the month says: %s", m.Month)
	}
	for i := range 30 {
		closed(10+i, edge.AddDate(0, -i-1, 3))
	}
	months, err = s.ClosedMonths(ctx)
	require.NoError(t, err)
	require.Len(t, months, 24)
	assert.Equal(t, "2031-11", months[0].Month)
	assert.Equal(t, "2031-03", months[2].Month)
	assert.Equal(t, 2, months[2].Jobs)
}

// The newest change of a field is found by the field's address alone.
func TestLastChangeOfAField(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-1"))
	set := func(who, after string) {
		require.NoError(t, s.Update(ctx, "T-1", func(j *unit.Job, h store.History) (*store.Change, error) {
			j.Title = after
			return &store.Change{Job: j, Entries: []unit.Entry{{Who: who, At: time.Now(), Action: "set",
				Field: "job/title", After: after}}}, nil
		}))
	}
	last := func(field string) (who string, ok bool) {
		_ = s.Update(ctx, "T-1", func(_ *unit.Job, h store.History) (*store.Change, error) {
			var err error
			who, _, ok, err = h.Last(field)
			require.NoError(t, err)
			return nil, store.ErrUnchanged
		})
		return who, ok
	}
	_, ok := last("job/title")
	assert.False(t, ok)
	set("Iva", "b")
	set("Odd", "c")
	who, ok := last("job/title")
	assert.True(t, ok)
	assert.Equal(t, "Odd", who)
	g, err := s.Glance(ctx, 0, "T-1")
	require.NoError(t, err)
	assert.Equal(t, int64(3), g.Job)
	assert.Nil(t, g.Person)
}
