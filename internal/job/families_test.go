package job_test

import (
	"context"
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/invented"
	"corvek/core/measure"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/store/storetest"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// emptyShop is an empty shop.
func emptyShop(t *testing.T) *job.Service {
	t.Helper()
	s, err := job.New(storetest.New(t))
	require.NoError(t, err)
	return s
}

func newUnit(t *testing.T, s *job.Service, code string) string {
	t.Helper()
	tag, err := s.Create(context.Background(), iva, job.NewJob{Customer: "Somebody", Title: "A unit",
		Complaint: "It is weak", Family: code})
	require.NoError(t, err)
	put(t, s, tag, "u1/not_asked", "came in without its machine")
	return tag
}

// stops are the texts of a station's open stops.
func stops(st *bench.State, station string) string {
	var out []string
	for _, s := range st.Stops[station] {
		if s.Waived == nil {
			out = append(out, s.Text)
		}
	}
	return strings.Join(out, "\n")
}

// put sets a field whatever it held before.
func put(t *testing.T, s *job.Service, tag, name, value string) {
	t.Helper()
	err := edit(s, context.Background(), iva, tag, name, value, "")
	if c, is := err.(*job.Conflict); is {
		err = edit(s, context.Background(), iva, tag, name, value, c.Theirs)
	}
	require.NoError(t, err, "%s = %s", name, value)
}

// fill gives every place of every sheet a figure that is in its limits.
func fill(t *testing.T, s *job.Service, tag string) {
	t.Helper()
	jobtest.OwnSizes(t, s, tag, invented.Sizes{})
	st := load(t, s, tag)
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if f.Def.Size {
				continue
			}
			for _, slot := range f.Spec.Slots() {
				v := invented.Good(f, slot)
				require.Nil(t, measure.CheckEntry(f.Spec, slot, v), "%s %s = %s", f.Path(), slot, v)
				require.NoError(t, edit(s, context.Background(), iva, tag, of(f, "found/"+slot), v, ""))
			}
		}
	}
}

// Each family goes from a new job to a full Measure sheet: taken off as
// expected, every place filled, nothing left open but what only hands can say.
func TestEveryFamilyReachesAFullMeasureSheet(t *testing.T) {
	t.Parallel() // hundreds of writes, in a store of its own
	s := emptyShop(t)
	for _, f := range whole.Of(t, s.Families().List()) {
		tag := newUnit(t, s, f.Code)
		require.NoError(t, s.TakeOffRest(context.Background(), iva, tag, 1))
		fill(t, s, tag)
		st := load(t, s, tag)
		for _, p := range st.Parts {
			for _, ft := range p.Features {
				assert.True(t, ft.Found.Complete, "%s %s.%s is not full", f.Code, p.Code, ft.Code)
				assert.Empty(t, ft.Found.Faults, "%s %s.%s", f.Code, p.Code, ft.Code)
				assert.NotEqual(t, "out", string(ft.Found.Verdict), "%s %s.%s", f.Code, p.Code, ft.Code)
			}
		}
		assert.Empty(t, stops(st, "measure"), f.Code)
	}
}

func partOf(t *testing.T, st *bench.State, code string) *bench.Part {
	t.Helper()
	p := st.ByCode[code]
	require.NotNil(t, p, code)
	return p
}
