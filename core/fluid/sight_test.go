package fluid_test

import (
	"testing"

	"corvek/core/fluid"

	"github.com/stretchr/testify/assert"
)

func TestSightOfDrainedFluid(t *testing.T) {
	for _, c := range []struct {
		text string
		want fluid.Sight
	}{
		{"", fluid.Sight{}},
		{"clear", fluid.Sight{Clear: true}},
		{"Milky, bright flakes at the bottom", fluid.Sight{Milky: true, Metal: true}},
		{"dark, burnt", fluid.Sight{Burnt: true}},
		{"clear, no metal", fluid.Sight{Clear: true}},
		{"not milky; without any water", fluid.Sight{}},
		{"BLACK, with bronze in it", fluid.Sight{Burnt: true, Metal: true}},
		{"smells of fuel", fluid.Sight{}},
	} {
		assert.Equal(t, c.want, fluid.SightOf(c.text), c.text)
	}
}

func FuzzSightOf(f *testing.F) {
	f.Add("milky, no metal")
	f.Fuzz(func(t *testing.T, text string) {
		s := fluid.SightOf(text)
		if s.Clear && (s.Milky || s.Burnt || s.Metal) {
			t.Fatalf("%q is clear and is not", text)
		}
	})
}
