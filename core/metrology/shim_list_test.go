package metrology_test

import (
	"strings"
	"testing"

	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestShimsFitted(t *testing.T) {
	for text, want := range map[string][]float64{
		"": nil, " , ;": nil, "0.10 mm": {1e-4}, "0.10 mm, 0.05 mm": {1e-4, 5e-5},
		"4 thou; 0.05 mm": {4 * 25.4e-6, 5e-5}, "0.10 mm\n0.10 mm": {1e-4, 1e-4},
	} {
		got, err := metrology.ParseShims(text)
		require.NoError(t, err, text)
		assert.InDeltaSlice(t, want, got, 1e-12, text)
	}
	for _, text := range []string{"0.10", "thick", "0.10 mm, 2 bar", "0.10 mm x2"} {
		_, err := metrology.ParseShims(text)
		assert.Error(t, err, text)
	}
}

func TestShimsAtHand(t *testing.T) {
	for text, want := range map[string][]metrology.ShimStock{
		"": nil, "0.05 mm": {{Thickness: 5e-5, Count: 1}}, "0.05 mm x2": {{Thickness: 5e-5, Count: 2}},
		"0.05 mm × 2, 0.02 mm x10": {{Thickness: 5e-5, Count: 2}, {Thickness: 2e-5, Count: 10}},
		"2 thou x200":              {{Thickness: 2 * 25.4e-6, Count: 200}},
	} {
		got, err := metrology.ParseShimStock(text)
		require.NoError(t, err, text)
		require.Len(t, got, len(want), text)
		for i := range want {
			assert.InDelta(t, want[i].Thickness, got[i].Thickness, 1e-12, text)
			assert.Equal(t, want[i].Count, got[i].Count, text)
		}
	}
	for text, says := range map[string]string{
		"0.05 mm x": "whole number", "0.05 mm x0": "whole number", "0.05 mm x-1": "whole number",
		"0.05 mm x201": "whole number", "0.05 mm x1.5": "whole number", "0.05 x2": "unit", "x2": "",
	} {
		_, err := metrology.ParseShimStock(text)
		require.Error(t, err, text)
		assert.ErrorContains(t, err, says, text)
	}
}

// FuzzShimStock reads anything typed: it is refused, or every shim is a length
// and there is at least one of it.
func FuzzShimStock(f *testing.F) {
	f.Add("0.05 mm x2, 0.02 mm")
	f.Add("4 thou;;x")
	f.Fuzz(func(t *testing.T, text string) {
		stock, err := metrology.ParseShimStock(text)
		if err != nil {
			return
		}
		assert.LessOrEqual(t, len(stock), strings.Count(text, ",")+strings.Count(text, ";")+strings.Count(text, "\n")+1)
		for _, s := range stock {
			assert.True(t, s.Count >= 1 && s.Count <= 200)
			assert.False(t, s.Thickness != s.Thickness, "not a number")
		}
	})
}
