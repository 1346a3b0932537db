package job_test

import (
	"testing"

	"corvek/core/metrology"
	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A journal ground 0.25 mm under is as new at what it was brought to, and what it came with stays as it was: out by
// the size it had, in by the size it has.
func TestAReworkMakesANewSizeAsNew(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	const at = "u1/part/drive_gear/feature/journal/"
	put(t, s, tag, at+"new_low", "20.000 mm")
	put(t, s, tag, at+"new_from", "unworn")
	for _, slot := range []string{"r1c1", "r1c2", "r2c1", "r2c2"} {
		put(t, s, tag, at+"found/"+slot, "19.950 mm")
		put(t, s, tag, at+"built/"+slot, "19.748 mm")
	}
	journal := func() (found, built metrology.Verdict) {
		f := load(t, s, tag).ByCode["drive_gear"].Features[0]
		require.Equal(t, "journal", f.Code)
		return f.Found.Verdict, f.Built.Verdict
	}
	found, built := journal()
	assert.Equal(t, metrology.Out, found)
	assert.Equal(t, metrology.Out, built, "nobody said to what it was brought")
	put(t, s, tag, at+"made_low", "19.750 mm")
	put(t, s, tag, at+"made_source", "grinder's slip 44")
	found, built = journal()
	assert.Equal(t, metrology.Out, found, "it came worn, and that stays")
	assert.Equal(t, metrology.In, built)
	f := load(t, s, tag).ByCode["drive_gear"].Features[0]
	assert.InDelta(t, 19.750e-3, f.Built.Nominal, 1e-12)
	assert.InDelta(t, 20e-3, f.Found.Nominal, 1e-12)
	_, err := s.Set(t.Context(), iva, tag, job.Edit{Field: at + "made_high", Value: "19.70 mm"})
	assert.ErrorContains(t, err, "lower end")
}
