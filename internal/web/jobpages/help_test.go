package jobpages

import (
	"testing"

	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

// Every station has its help, short enough to be read at the bench.
func TestEveryStationHasItsHelp(t *testing.T) {
	for _, station := range unit.Stations {
		lines := stationHelp[station]
		assert.GreaterOrEqual(t, len(lines), 4, station)
		assert.LessOrEqual(t, len(lines), 10, station)
		for _, l := range lines {
			assert.LessOrEqual(t, len([]rune(l)), 130, l)
		}
	}
	assert.Nil(t, helpFor("", ""))
}
