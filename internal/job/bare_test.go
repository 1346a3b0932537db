package job_test

import (
	"context"
	"testing"

	"corvek/core/build"
	"corvek/core/origin"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// With no size typed nothing of a unit is a length, a force, a torque or a pressure, for every family and each of
// its variants, by where it comes from and not by how it is printed: no limit but films and spreads out of tables,
// no leak, no relief, no stack, no torque.
func TestABareFamilyKnowsNoSize(t *testing.T) {
	t.Parallel() // hundreds of writes, in a store of its own
	s, ctx := emptyShop(t), context.Background()
	for _, f := range whole.Of(t, s.Families().List()) {
		variants := []string{""}
		for _, v := range f.VariantRules {
			variants = append(variants, v.Code)
		}
		for _, variant := range variants {
			tag := newUnit(t, s, f.Code)
			put(t, s, tag, "u1/duty_pressure", "175 bar")
			put(t, s, tag, "u1/viscosity", "46 cSt")
			if variant != "" {
				put(t, s, tag, "u1/variant", variant)
			}
			require.NoError(t, s.TakeOffRest(ctx, iva, tag, 1))
			st := load(t, s, tag)
			name := f.Code + "/" + variant + " "
			for _, p := range st.Parts {
				for _, ft := range p.Features {
					table := ft.Def.Rule != nil && ft.Def.Rule.Most != ""
					assert.Equal(t, table, !ft.Found.Limits.Empty(), name+ft.Path())
					assert.False(t, ft.New.Holds(), name+ft.Path())
					assert.False(t, ft.Found.HasUsed, name+ft.Path())
					assert.True(t, ft.Lower.IsZero() && ft.Upper.IsZero(), name+ft.Path())
				}
				if p.Stack != nil {
					assert.Nil(t, p.Stack.Def.Spring, name+p.Code)
					assert.Empty(t, p.Stack.Def.Installed+p.Stack.Def.Needed, name+p.Code)
				}
				if j, bolted := build.JointOf(p.Def, p.Part.Joint); bolted {
					assert.Empty(t, j.Thread+j.Class, name+p.Code)
					tight, err := build.Tighten(j)
					require.NoError(t, err)
					assert.Zero(t, tight.Torque, name+p.Code)
				}
				assert.Equal(t, unit.Spring{}, p.Spring, name+p.Code)
				assert.Equal(t, unit.Coil{}, p.Part.Coil, name+p.Code)
			}
			for _, x := range st.Figures() {
				switch x.Dim {
				case quantity.Length, quantity.Force, quantity.Torque, quantity.Pressure:
					told := x.Origin == origin.Typed && x.Name == "Working pressure"
					assert.True(t, told || x.Origin == origin.Table || x.Origin == origin.Instrument,
						"%s%s is from %s", name, x.Name, x.Origin)
				}
			}
			assert.False(t, st.Leak.Known, name)
			assert.Zero(t, st.Found.Relief.Cracking, name)
			assert.Zero(t, st.Rebuilt.Relief.Cracking, name)
			assert.Empty(t, st.Found.Paths, name)
		}
	}
}
