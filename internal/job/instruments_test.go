package job_test

import (
	"context"
	"testing"

	"corvek/core/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestToolOutOfCalibrationIsTold(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	due := s.Now().AddDate(0, 0, -3)
	require.NoError(t, s.Store.SaveInstrument(context.Background(),
		&shop.Instrument{Name: "micrometer", Kind: "outside", Resolution: "0.001 mm", DueOn: &due}))
	tag := newUnit(t, s, "master_cylinder")
	f := partOf(t, load(t, s, tag), "piston").Features[0]
	put(t, s, tag, of(f, "found/h1"), "22.04 mm")
	assert.Contains(t, stops(load(t, s, tag), "measure"), "micrometer was due for calibration")
	require.NoError(t, s.Store.SaveInstrument(context.Background(),
		&shop.Instrument{Name: "Vernier 2", Kind: "calipers", Resolution: "0.02 mm"}))
	put(t, s, tag, of(f, "instrument"), "vernier 2")
	assert.Equal(t, "0.02 mm", partOf(t, load(t, s, tag), "piston").Features[0].Resolution.Typed,
		"a tool brings its resolution")
	put(t, s, tag, of(f, "instrument"), "micrometer")
	later := s.Now().AddDate(1, 0, 0)
	require.NoError(t, s.Store.SaveInstrument(context.Background(),
		&shop.Instrument{Name: "micrometer", Kind: "outside", Resolution: "0.001 mm", DueOn: &later}))
	assert.NotContains(t, stops(load(t, s, tag), "measure"), "calibration")
}
