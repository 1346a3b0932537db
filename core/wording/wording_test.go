package wording

import (
	"strings"
	"testing"

	"corvek/core/entry"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

// Every word is for a field that the table has, and an example is one that its
// field accepts.
func TestWordsBelongToFields(t *testing.T) {
	field := func(key string) *entry.Field {
		scope, name, _ := strings.Cut(key, "/")
		f, ok := entry.Find(unit.Scope(scope), name)
		assert.True(t, ok, key)
		return f
	}
	for key := range choices {
		assert.Equal(t, entry.Choice, field(key).Kind, key)
	}
	for key := range suggestions {
		assert.Contains(t, []entry.Kind{entry.Line, entry.Area}, field(key).Kind, key)
	}
	for key, example := range examples {
		f := field(key)
		if f.Kind == entry.Timer {
			continue // a time from now, kept as a moment
		}
		place := &entry.Place{Job: &unit.Job{}, Unit: &unit.Unit{}, Part: &unit.Part{}, Piece: &unit.Piece{}}
		assert.NoError(t, f.Set(place, example), key)
	}
	for _, code := range entry.Waits {
		assert.NotEqual(t, code, Choice(unit.ScopeJob, "waiting", code), "a wait has a name of its own")
	}
	assert.Equal(t, "tight spot", Choice(unit.ScopeStep, "turn", "tight_spot"))
}
