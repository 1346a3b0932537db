package entry_test

import (
	"strings"
	"testing"

	"corvek/core/entry"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

// Where a value stands in the JSON of its thing is what the type says.
func TestPaths(t *testing.T) {
	for _, x := range []struct {
		scope      unit.Scope
		name, path string
	}{
		{unit.ScopeJob, "title", "title"},
		{unit.ScopeJob, "answer_on", "quote.answered_on"},
		{unit.ScopeUnit, "setting_low", "setting.low"},
		{unit.ScopeUnit, "gauge", "gauge"},
		{unit.ScopePart, "stack_space", "spring.space"},
		{unit.ScopePart, "joint_torque", "joint.torque"},
		{unit.ScopePart, "seal_standard", "seal.standard"},
		{unit.ScopePart, "order_due", "order.due"},
		{unit.ScopePiece, "standard", "seal.standard"},
		{unit.ScopePiece, "place", "part"},
		{unit.ScopePoint, "flow", "figures.flow"},
		{unit.ScopePartMark, "grade", "grade"},
		{unit.ScopeRework, "back", "back"},
	} {
		f, ok := entry.Find(x.scope, x.name)
		if assert.True(t, ok, x.name) {
			assert.Equal(t, x.path, strings.Join(f.Path(), "."), "%s %s", x.scope, x.name)
		}
	}
	// No two fields of a thing stand at one place.
	for _, scope := range []unit.Scope{unit.ScopeJob, unit.ScopePicture, unit.ScopeUnit, unit.ScopeEvidence,
		unit.ScopeConclusion, unit.ScopeCause, unit.ScopeLoose, unit.ScopePiece, unit.ScopeAttempt, unit.ScopePoint,
		unit.ScopeLimit, unit.ScopePart, unit.ScopePartMark, unit.ScopeDecision, unit.ScopeRework, unit.ScopeStep,
		unit.ScopeFeature} {
		seen := map[string]string{}
		for _, f := range entry.Fields(scope) {
			at := strings.Join(f.Path(), ".")
			assert.Empty(t, seen[at], "%s %s", scope, f.Name)
			seen[at] = f.Name
		}
	}
}
