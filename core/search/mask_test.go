package search_test

import (
	"testing"

	"corvek/core/search"

	"github.com/stretchr/testify/assert"
)

func TestMaskingMovesAreNamed(t *testing.T) {
	for _, words := range []string{"Relief raised half a turn", "thicker oil, VG 100", "standby raised to 28 bar",
		"filled with oil of a heavier grade"} {
		assert.True(t, search.Masks(words), words)
	}
	for _, words := range []string{"relief spring renewed", "relief shimmed", "oil changed, same grade",
		"seal fitted again", "raised side plate lapped", "", "no thicker oil, the plates renewed",
		"back to its own grade from the thicker oil", "relief not raised"} {
		assert.False(t, search.Masks(words), words)
	}
}
