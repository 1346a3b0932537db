package job_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/unit"
	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Anything can be measured on any part by any method, of the family and of one that was found on the bench; it is
// judged by what is typed of it, and the next unit of the model is measured so too.
func TestAnythingIsMeasuredOnAnyPart(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/model", "GX-99")
	extra, err := s.AddPart(t.Context(), iva, tag, 1, "body", "Liner", "bush", 1)
	require.NoError(t, err)
	for i, method := range family.OwnMethods {
		for _, part := range []string{"front_cover", extra} {
			o := family.OwnFeature{
				Part:  part,
				Name:  "Own place " + string(rune('a'+i)),
				By:    method,
				Wears: "shaft",
				Rows:  1,
				Cols:  2,
			}
			require.NoError(t, s.AddFeature(t.Context(), iva, tag, 1, o), "%s on %s", method, part)
			require.ErrorContains(t, s.AddFeature(t.Context(), iva, tag, 1, o), "already")
		}
	}
	require.Error(t, s.AddFeature(t.Context(), iva, tag, 1, family.OwnFeature{Part: "body", Name: " ", By: "value",
		Rows: 1, Cols: 1}))
	require.Error(
		t,
		s.AddFeature(t.Context(), iva, tag, 1, family.OwnFeature{Part: "body", Name: "x", By: "eye", Rows: 1,
			Cols: 1}),
	)
	for _, part := range []string{"front_cover", extra} {
		at := "u1/part/" + part + "/feature/own_own_place_a/"
		put(t, s, tag, at+"lower", "19.95 mm")
		put(t, s, tag, at+"standing", "maker")
		put(t, s, tag, at+"source", "sheet 4, page 2")
		put(t, s, tag, at+"found/v1", "19.90 mm")
		p := load(t, s, tag).ByCode[part]
		found := false
		for _, f := range p.Features {
			if f.Code == "own_own_place_a" {
				found = true
				assert.Equal(t, metrology.Out, f.Found.Verdict, part)
			}
		}
		assert.True(t, found, part)
	}
	keepAll(t, s, tag)
	next, err := s.Create(t.Context(), iva, job.NewJob{Customer: "Mill", Title: "Next", Complaint: "weak",
		Family: "external_gear_pump", Model: "gx 99"})
	require.NoError(t, err)
	for _, f := range load(t, s, next).ByCode["front_cover"].Features {
		if f.Code == "own_own_place_a" {
			assert.Equal(t, "19.95 mm", f.Lower.Typed)
			assert.Equal(t, unit.NewSheet, f.LimitSource)
			return
		}
	}
	t.Error("the next unit is not measured there")
}
