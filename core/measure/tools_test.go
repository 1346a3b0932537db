package measure_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/measure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTooCoarse(t *testing.T) {
	for _, c := range []struct {
		name string
		s    measure.Spec
		want bool
	}{
		{"a vernier on five microns", measure.Spec{Method: family.MethodValue, Lower: size("20.000 mm"),
			Upper: size("20.005 mm"), Resolution: size("0.02 mm")}, true},
		{"a micrometer on twenty microns", measure.Spec{Method: family.MethodValue, Nominal: size("20 mm"),
			Lower: size("19.98 mm"), Resolution: size("0.001 mm")}, false},
		{"exactly a quarter", measure.Spec{Method: family.MethodValue, Upper: size("0.04 mm"),
			Resolution: size("0.01 mm")}, false},
		{"a vernier on twenty microns up", measure.Spec{Method: family.MethodValue, Nominal: size("20 mm"),
			Upper: size("20.02 mm"), Resolution: size("0.02 mm")}, true},
		{"a vernier on twenty microns down", measure.Spec{Method: family.MethodValue, Nominal: size("20 mm"),
			Lower: size("19.98 mm"), Resolution: size("0.02 mm")}, true},
		{"leaves", measure.Spec{Method: family.MethodFeeler, Upper: size("1 thou"), Resolution: size("1 thou")}, false},
		{"no limit", measure.Spec{Method: family.MethodValue, Resolution: size("1 mm")}, false},
	} {
		assert.Equal(t, c.want, c.s.TooCoarse(), c.name)
	}
}

// No shipped family asks for a reading with a tool that cannot judge its limit.
func TestShippedToolsAreFineEnough(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, f := range lib.List() {
		for _, p := range f.Parts {
			for _, ft := range p.Features {
				s := measure.Spec{Method: ft.Method, Nominal: size(ft.Nominal), Lower: size(ft.Lower),
					Upper: size(ft.Upper), Resolution: size(ft.Resolution)}
				assert.False(t, s.TooCoarse(), "%s %s.%s: %s", f.Code, p.Code, ft.Code, ft.Resolution)
			}
		}
	}
}
