package practice_test

import (
	"slices"
	"testing"

	"corvek/core/hidden"
	"corvek/core/practice"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

// The course has ten lessons in the order of the stations, each with something to read, its caution, a drill that there
// is, and a case that there is.
func TestTheCourseIsWhole(t *testing.T) {
	course := practice.Course()
	assert.Len(t, course, 10)
	at, codes := 0, map[string]bool{}
	for _, l := range course {
		station := slices.Index(unit.Stations, l.Station)
		assert.GreaterOrEqual(t, station, at, l.Code)
		at = station
		assert.False(t, codes[l.Code])
		codes[l.Code] = true
		assert.NotEmpty(t, l.Title)
		assert.GreaterOrEqual(t, len(l.Says), 4, l.Code)
		assert.NotEmpty(t, l.Caution, l.Code)
		name, _ := l.Of()
		assert.NotEmpty(t, name, l.Code)
		_, known := hidden.KindByCode(l.Kind)
		assert.True(t, known, l.Code)
	}
}
