package unit_test

import (
	"testing"

	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

func TestWhoIsToBeTold(t *testing.T) {
	for _, c := range []struct {
		promised, told unit.Date
		stands, tell   bool
	}{
		{"", "", true, false}, {"2031-05-14", "", false, false}, {"2031-05-14", "", true, true},
		{"2031-05-14", "2031-05-14", true, false}, {"2031-05-16", "2031-05-14", false, true},
		{"", "2031-05-14", false, false},
	} {
		assert.Equal(t, c.tell, unit.ToTell(c.promised, c.told, c.stands), "%+v", c)
	}
	assert.True(t, unit.HandedTo("Iva", "Iva", "bolts loose"))
	assert.False(t, unit.HandedTo("Iva", "Iva", ""), "he said that he read it")
	assert.False(t, unit.HandedTo("Iva", "Odd", "bolts loose"))
}
