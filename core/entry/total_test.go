package entry

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A count over several places is its total; a blank, a word or half a sum is not a count.
func TestACountOverSeveralPlacesIsItsTotal(t *testing.T) {
	for text, want := range map[string]string{"4 × 6": "24", "4x6": "24", "3 + 3 + 2": "8", "2*9+1": "19", "17": "17",
		"": "", "4 ×": "4 ×", "four": "four", "99999 x 99999": "99999 x 99999", "3 +": "3 +", "-4": "-4"} {
		assert.Equal(t, want, total(text), text)
	}
}
