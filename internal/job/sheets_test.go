package job_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"corvek/core/invented"
	"corvek/core/sheet"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// form is what a unit knows of its model, without the jobs that it was learned on.
func form(t *testing.T, s *job.Service, tag string) *sheet.Sheet {
	t.Helper()
	st := load(t, s, tag)
	of := sheet.Gather(st.Job, st.Unit, st.Family)
	return bare(of)
}

// bare is a sheet without the jobs that it was learned on, in the order of its keys. Whence a size is stands on
// the sheet, and not with the unit that took it from there.
func bare(of *sheet.Sheet) *sheet.Sheet {
	of = of.Clone()
	for i := range of.Values {
		of.Values[i].Source, of.Values[i].Seen = "", nil
	}
	slices.SortFunc(of.Values, func(a, b sheet.Value) int { return strings.Compare(a.Key, b.Key) })
	of.Kit, of.Lessons, of.Maker, of.Model = nil, nil, "", ""
	return of
}

// withoutSources leaves out whence sizes are, which the sheet itself tells.
func withoutSources(of *sheet.Sheet) *sheet.Sheet {
	of.Values = slices.DeleteFunc(of.Values, func(v sheet.Value) bool {
		return strings.HasSuffix(v.Key, "/new_from") || strings.HasSuffix(v.Key, "/new_source")
	})
	return of
}

func keepAll(t *testing.T, s *job.Service, tag string) {
	t.Helper()
	st := load(t, s, tag)
	groups := []string{"form", "kit", "lesson"}
	for _, item := range sheet.Differences(nil, sheet.Gather(st.Job, st.Unit, st.Family)) {
		groups = append(groups, item.Group)
	}
	require.NoError(t, s.KeepSheet(t.Context(), iva, tag, 1, job.Kept{Groups: groups}))
}

// The second unit of a model starts with all that the first one taught, for every family: what is kept of it is
// what was kept of the first. Maker and model are written as people write them.
func TestTheSecondUnitStartsWithAllOfTheFirst(t *testing.T) {
	t.Parallel() // hundreds of writes, in a store of its own
	s, ctx := emptyShop(t), context.Background()
	for _, f := range whole.Of(t, s.Families().List()) {
		t.Run(f.Code, func(t *testing.T) {
			first := newUnit(t, s, f.Code)
			put(t, s, first, "u1/maker", "Nordvik Pumpe")
			put(t, s, first, "u1/model", "NP-"+f.Code+"-12")
			jobtest.OwnSizes(t, s, first, invented.Sizes{})
			for name, text := range invented.Needs {
				if !strings.HasPrefix(name, "need_") {
					put(t, s, first, "u1/"+name, text)
				}
			}
			_, err := s.AddPart(ctx, iva, first, 1, f.Parts[0].Code, "Distance ring", "spacer", 3)
			require.NoError(t, err)
			put(t, s, first, "u1/part/"+f.Parts[0].Code+"/absent", "not made with one")
			want := form(t, s, first)
			require.NotEmpty(t, want.Values)
			require.Len(t, want.Parts, 2)
			keepAll(t, s, first)

			second, err := s.Create(
				ctx,
				iva,
				job.NewJob{Customer: "Mill", Title: "Next", Complaint: "weak", Family: f.Code,
					Maker: "NORDVIK  pumpe", Model: "np " + strings.ReplaceAll(f.Code, "_", " ") + " 12"},
			)
			require.NoError(t, err)
			kept := func() *sheet.Sheet { return bare(s.SheetsOf(load(t, s, second).Unit)[0].Sheet) }
			before := kept()
			assert.Equal(t, withoutSources(want), withoutSources(form(t, s, second)))
			for _, p := range load(t, s, second).Parts {
				for _, ft := range p.Features {
					if ft.New.Holds() {
						assert.Equal(t, unit.NewSheet, ft.New.From, ft.Path())
						assert.Contains(t, ft.New.Source, "Nordvik Pumpe NP-", ft.Path())
					}
				}
			}
			keepAll(t, s, second)
			third, err := s.Create(ctx, iva, job.NewJob{Customer: "Mill", Title: "Third", Complaint: "weak",
				Family: f.Code, Model: "NP-" + f.Code + "-12"})
			require.NoError(t, err)
			assert.Equal(t, withoutSources(want), withoutSources(form(t, s, third)), "without a maker too")
			assert.Equal(t, before, kept(), "kept a second time it is what it was")
		})
	}
}

// The unit wins over its sheet, what a technician keeps waits for a lead where the shop wants it, and a misspelt
// model is asked about.
func TestASheetIsKeptAndUsed(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	first := newUnit(t, s, "external_gear_pump")
	put(t, s, first, "u1/model", "GX-40")
	assert.ErrorContains(t, s.KeepSheet(ctx, iva, first, 1, job.Kept{}), "tick what is to be kept")
	put(t, s, first, "u1/part/drive_gear/feature/journal/new_low", "0.750 in")
	put(t, s, first, "u1/part/drive_gear/feature/journal/new_from", "unworn")
	head, err := s.Store.Letterhead(ctx)
	require.NoError(t, err)
	head.LeadConfirms = true
	require.NoError(t, s.Store.SaveLetterhead(ctx, head, "Odd"))
	require.NoError(t, s.Refresh(ctx))
	keepAll(t, s, first)
	u := &unit.Unit{Family: "external_gear_pump", Model: "gx 40"}
	assert.Empty(t, s.SheetsOf(u), "no lead confirmed it")
	proposed, err := s.Store.SheetsProposed(ctx)
	require.NoError(t, err)
	require.Len(t, proposed, 1)
	assert.ErrorIs(t, s.ConfirmSheet(ctx, iva, proposed[0].ID), people.ErrForbidden)
	require.NoError(t, s.ConfirmSheet(ctx, odd, proposed[0].ID))
	require.Len(t, s.SheetsOf(u), 1)
	assert.True(t, s.SheetsOf(u)[0].Sure)
	almost := s.SheetsOf(&unit.Unit{Family: "external_gear_pump", Model: "GX-4O"})
	require.Len(t, almost, 1)
	assert.False(t, almost[0].Sure, "written almost so: it is asked")

	second := newUnit(t, s, "external_gear_pump")
	put(t, s, second, "u1/model", "GX-4O")
	put(t, s, second, "u1/part/driven_gear/feature/journal/new_low", "19.0 mm")
	require.NoError(t, s.UseSheet(ctx, iva, second, 1, almost[0].ID))
	n := load(t, s, second).Unit.Part("drive_gear").Feature("journal").New
	assert.Equal(t, "0.750 in", n.Low.Typed)
	assert.Contains(t, n.Source, "measured on "+first)
	assert.Equal(t, "19.0 mm", load(t, s, second).Unit.Part("driven_gear").Feature("journal").New.Low.Typed)
	put(t, s, second, "u1/part/drive_gear/feature/journal/new_low", "0.7502 in")
	assert.Empty(t, load(t, s, second).Unit.Part("drive_gear").Feature("journal").New.From,
		"another figure than the sheet's is not the sheet's")
}
