package job_test

import (
	"context"
	"fmt"
	"testing"

	"corvek/core/invented"
	"corvek/core/measure"
	"corvek/core/quantity"
	"corvek/internal/job/jobtest"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The same unit typed in mm and in inch comes to the same limits, verdicts, shares and leaks, for every family.
func TestAUnitInInchIsTheSameUnit(t *testing.T) {
	t.Parallel() // hundreds of writes, in a store of its own
	s, ctx := emptyShop(t), context.Background()
	for _, f := range whole.Of(t, s.Families().List()) {
		t.Run(f.Code, func(t *testing.T) {
			metric, inch := newUnit(t, s, f.Code), newUnit(t, s, f.Code)
			jobtest.OwnSizes(t, s, metric, invented.Sizes{})
			jobtest.OwnSizes(t, s, inch, invented.Sizes{Inch: true})
			for _, tag := range []string{metric, inch} {
				put(t, s, tag, "u1/duty_pressure", "175 bar")
				put(t, s, tag, "u1/viscosity", "46 cSt")
			}
			st := load(t, s, metric)
			for _, p := range st.Parts {
				for _, ft := range p.Features {
					if ft.Def.Size {
						continue
					}
					for _, slot := range ft.Spec.Slots() {
						v := invented.Good(ft, slot)
						require.NoError(t, edit(s, ctx, iva, metric, of(ft, "found/"+slot), v, ""))
						if q, err := quantity.Parse(v, quantity.Length); err == nil && measure.IsFigure(slot) {
							v = fmt.Sprintf("%.9f in", q.SI/0.0254)
						}
						require.NoError(t, edit(s, ctx, iva, inch, of(ft, "found/"+slot), v, ""))
					}
				}
			}
			a, b := load(t, s, metric), load(t, s, inch)
			for i, p := range a.Parts {
				for k, ft := range p.Features {
					is, also := ft.Found, b.Parts[i].Features[k].Found
					assert.Equal(t, is.Verdict, also.Verdict, ft.Path())
					assert.Equal(t, is.Finer, also.Finer, ft.Path())
					assert.Equal(t, is.HasUsed, also.HasUsed, ft.Path())
					assert.InDelta(t, is.Used, also.Used, 1e-4, ft.Path())
					assert.InDelta(t, is.Limits.Lower, also.Limits.Lower, 1e-9, ft.Path())
					assert.InDelta(t, is.Limits.Upper, also.Limits.Upper, 1e-9, ft.Path())
				}
			}
			assert.Equal(t, a.Leak.Known, b.Leak.Known)
			assert.InDelta(t, 0, a.Leak.Flow-b.Leak.Flow, 1e-6*(a.Leak.Flow+1e-9))
		})
	}
}
