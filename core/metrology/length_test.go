package metrology

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Worked by hand: 2·√((4² + 0.5² + (11.5e-6·20000·3)²)/3) µm and the like.
func TestUncertaintyOfALength(t *testing.T) {
	for _, c := range []struct {
		name string
		l    Length
		um   float64
	}{
		{"a micrometer at 20 mm, 3 K off", Length{0.020, 1e-6, 4e-6, 0, Steel, 3}, 4.7224},
		{"a micrometer at 320 mm, at 20 °C", Length{0.320, 1e-6, 10e-6, 0, Steel, 0}, 11.5614},
		{"aluminium of 100 mm at 40 °C", Length{0.100, 1e-6, 6e-6, 0, Aluminium, 20}, 53.5693},
		{"calipers of 0.02 mm", Length{0.050, 20e-6, 30e-6, 0, Steel, 0}, 36.5148},
	} {
		assert.InDelta(t, c.um, c.l.Expanded()*1e6, 5e-4, c.name)
	}
	// A bore gauge of 6 µm set by a ring of 2 µm that shows 1 µm: 2·√((36 + 4 + 1/4)/3) = 7.326 µm.
	assert.InDelta(t, 7.326, Length{Permitted: 6e-6, Setting: 2e-6, Resolution: 1e-6}.Expanded()*1e6, 1e-3)
	assert.InDelta(t, ExpandedFromResolution(1e-5), Length{Resolution: 1e-5}.Expanded(), 1e-15)
}

func TestPermittedErrors(t *testing.T) {
	for _, c := range []struct {
		name string
		mm   float64
		um   float64
	}{
		{"Micrometer 0-25", 20, 4}, {"outside micrometer", 30, 4}, {"mic no. 3", 60, 5}, {"micrometer", 110, 6},
		{"micrometer", 310, 10}, {"Calipers", 80, 30}, {"digital calipers", 320, 40}, {"bore gauge", 80, 7},
		{"depth micrometer", 10, 5}, {"depth gauge", 10, 30}, {"dial indicator", 0.1, 8}, {"air gauge", 20, 1},
		{"feeler leaves", 0.1, 5}, {"straight-edge and leaves", 0.1, 5},
	} {
		tool, known := ToolNamed(c.name)
		assert.True(t, known, c.name)
		assert.InDelta(t, c.um, tool.Permitted(c.mm/1e3)*1e6, 1e-9, c.name)
	}
	_, known := ToolNamed("the red one")
	assert.False(t, known)
}

func TestAnAllowanceIsJudgedFromFourTimesTheUncertaintyOn(t *testing.T) {
	assert.True(t, TooFine(19e-6, 5e-6))
	assert.False(t, TooFine(20e-6, 5e-6))
	assert.False(t, TooFine(0, 5e-6), "no allowance is no narrow one")
}
