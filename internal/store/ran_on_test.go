package store_test

import (
	"context"
	"testing"
	"time"

	"corvek/core/unit"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a stand runs on is taken from this job's own last test, else from his own, else from that of
// the one stand that ran; where several did, it is asked.
func TestRanSince(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	ran := func(tag, by, stand string, at time.Time, source string) {
		j := sheet(tag)
		j.Units[0].Attempts = []*unit.Attempt{{Number: 1, Round: 1, Source: source, By: by, At: at,
			RanOn: unit.RanOn{Stand: stand, Oil: "mineral oil VG 46", Clean: "18/16/13"}}}
		create(t, s, j)
	}
	morning := noon.Add(-4 * time.Hour)
	told := func(tag, who string) string {
		r, err := s.RanSince(ctx, tag, who, morning)
		require.NoError(t, err)
		return r.RanOn.Stand
	}
	ran("T-0500", "Iva", "yesterday's", morning.Add(-time.Hour), unit.SourceTyped)
	ran("T-0501", "Iva", "practice", noon, unit.SourceSimulated)
	assert.Empty(t, told("T-0501", "Iva"), "nobody told it since")
	ran("T-0502", "Mirre", "east", noon, unit.SourceTyped)
	assert.Equal(t, "east", told("T-0501", "Iva"), "the one stand that ran")
	ran("T-0503", "Tove", "west", noon.Add(-time.Hour), unit.SourceStand)
	assert.Empty(t, told("T-0501", "Iva"), "which of two, nobody knows")
	assert.Equal(t, "west", told("T-0501", "Tove"), "her own")
	assert.Equal(t, "east", told("T-0502", "Tove"), "the job's own comes first")
}
