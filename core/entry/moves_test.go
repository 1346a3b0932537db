package entry_test

import (
	"os"
	"strings"
	"testing"

	"corvek/core/entry"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var scopes = []unit.Scope{unit.ScopeJob, unit.ScopePicture, unit.ScopeUnit, unit.ScopeEvidence, unit.ScopeConclusion,
	unit.ScopeCause, unit.ScopeLoose, unit.ScopePiece, unit.ScopeAttempt, unit.ScopePoint, unit.ScopeLimit,
	unit.ScopePart, unit.ScopePartMark, unit.ScopeDecision, unit.ScopeRework, unit.ScopeStep, unit.ScopeFeature,
	unit.ScopeReading}

// Every value that can be typed has its row in the table of what it moves, and the table in the
// documentation says the same.
func TestEveryFieldSaysWhatItMoves(t *testing.T) {
	fields := 0
	for _, scope := range scopes {
		for _, f := range entry.Fields(scope) {
			fields++
			assert.NotEmpty(t, f.Moves(), "%s %s: what does it move?", scope, f.Name)
		}
	}
	rows := 0
	for line := range strings.Lines(entry.MovesTable()) {
		if strings.HasPrefix(line, "| ") && !strings.HasPrefix(line, "| of") {
			rows += strings.Count(line, "`")/2 - 1
		}
	}
	assert.Equal(t, fields, rows, "a name in the table that is no field, or is there twice")
	kept, err := os.ReadFile("../../docs/claims.md")
	require.NoError(t, err)
	assert.Contains(t, string(kept), entry.MovesTable(), "go generate ./core/entry")
}

// rowed is a unit with one row of each kind that figures of a test rest on.
func rowed() (*unit.Job, *unit.Unit, *entry.Place) {
	p := &entry.Place{Job: &unit.Job{}, Unit: &unit.Unit{Number: 1, Rounds: []*unit.Round{{Number: 1}}},
		Part: &unit.Part{Code: "ball", Name: "Ball"}, Step: &unit.Step{Round: 1}, Decision: &unit.Decision{Round: 1},
		Rework: &unit.Rework{Route: "lap"}, Limit: &unit.StepLimit{Code: "p100.flow"},
		Piece: &unit.Piece{Number: 1, Code: "K-1", Part: "ball"}, Mark: &unit.Mark{Round: 1, Code: "pitted"},
		Feature: &unit.Feature{Code: "size"}}
	p.Unit.Parts, p.Job.Units = []*unit.Part{p.Part}, []*unit.Unit{p.Unit}
	p.Unit.Limits = []*unit.StepLimit{p.Limit}
	return p.Job, p.Unit, p
}

// What moves a claim is in what its figures rest on: to change any such value is seen there, under a
// key that says what it is.
func TestWhatMovesAClaimIsInItsGround(t *testing.T) {
	tried := 0
	for _, scope := range scopes {
		for _, f := range entry.Fields(scope) {
			switch f.Moves() {
			case entry.MovesUnit, entry.MovesPart, entry.MovesNeed, entry.MovesComplaint:
			default:
				continue
			}
			j, u, p := rowed()
			switch scope { // the row that the value is of
			case unit.ScopePiece:
				u.Kit = []*unit.Piece{p.Piece}
			case unit.ScopeStep:
				p.Part.Steps = []*unit.Step{p.Step}
			case unit.ScopeDecision:
				p.Part.Decisions = []*unit.Decision{p.Decision}
			case unit.ScopeRework:
				p.Part.Reworks = []*unit.Rework{p.Rework}
			case unit.ScopePartMark:
				p.Part.Marks = []*unit.PartMark{{Mark: unit.Mark{Round: 1, Code: "pitted"}}}
				p.Mark = &p.Part.Marks[0].Mark
			case unit.ScopeReading:
				p.Part.Features = []*unit.Feature{p.Feature}
			}
			before := entry.Ground(j, u)
			p.Ref = unit.Ref{Scope: scope, Name: f.Name, Code: "x"}
			change(t, f, p)
			now := entry.Ground(j, u)
			assert.NotEqual(t, before, now, "%s %s", scope, f.Name)
			for key := range now {
				if _, same := before[key]; !same {
					says := entry.StandingOf(key)
					assert.NotEmpty(t, says.Label, key)
					assert.Equal(t, f.Moves(), says.Moves, key)
					assert.Equal(t, map[bool]string{true: "ball"}[says.Moves == entry.MovesPart], says.Part, key)
				}
			}
			tried++
		}
	}
	assert.Greater(t, tried, 70)
}

// change puts another value in a field, without the checks of typing.
func change(t *testing.T, f *entry.Field, p *entry.Place) {
	switch {
	case f.Kind == entry.Reading:
		p.Feature.Readings = []*unit.Reading{{Round: 1, Stage: unit.StageFound, Slot: "v1", Value: "9.9 mm"}}
	case f.Name == "symptom":
		p.Job.Symptoms = []string{"slow"}
	case f.Name == "identity":
		p.Unit.Identity = map[string]string{"x": "yes"}
	case f.Name == "more":
		p.Unit.More = map[string]string{"x": "1"}
	case f.Name == "fill":
		p.Unit.Filled = map[string]string{"x": "2031-05-14T08:00:00Z"}
	case f.Scope == unit.ScopePartMark:
		p.Mark.State = unit.MarkSeen
	case f.Scope == unit.ScopePiece && f.Name == "place":
		p.Piece.Part = ""
	case f.Kind == entry.Flag:
		require.NoError(t, f.Load(p, entry.Yes))
	case f.Kind == entry.Quantity && f.DimAt(p) == quantity.Number:
		require.NoError(t, f.Load(p, "7"))
	default:
		require.NoError(t, f.Load(p, "7"))
	}
}

// The old part's readings and marks say nothing once a new piece lies at its place; what was taken
// out and put in again is another fitting than before.
func TestAGroundIsOfWhatIsFitted(t *testing.T) {
	j, u, p := rowed()
	p.Part.Features = []*unit.Feature{p.Feature}
	p.Feature.Readings = []*unit.Reading{{Round: 1, Stage: unit.StageFound, Slot: "v1", Value: "9.9 mm"}}
	kept := entry.Ground(j, u)
	assert.Contains(t, kept, "part/ball/feature/size/found/v1")
	u.Kit = []*unit.Piece{p.Piece}
	renewed := entry.Ground(j, u)
	assert.NotContains(t, renewed, "part/ball/feature/size/found/v1")
	assert.Equal(t, "K-1", renewed["part/ball/piece/1/number"])

	p.Step.Done, p.Part.Steps = true, []*unit.Step{p.Step}
	fitted := entry.Ground(j, u)
	p.Step.TakeOut()
	p.Step.Done = true
	assert.NotEqual(t, fitted, entry.Ground(j, u))

	same := u.Stands(fitted)
	assert.Equal(t, same, u.Stands(fitted), "what did not move is kept once")
	assert.Equal(t, same+1, u.Stands(kept))
	assert.Equal(t, same+2, u.Stands(fitted), "what moved and moved back was another meanwhile")
}

// A job opened again for what touches the unit is another ground; for its papers alone it is not.
func TestOpenedAgainIsAnotherGround(t *testing.T) {
	j, u, _ := rowed()
	before := entry.Ground(j, u)
	j.Reopenings = []*unit.Reopening{{Number: 1, Touches: unit.TouchesPapers}}
	assert.Equal(t, before, entry.Ground(j, u))
	j.Reopenings = append(j.Reopenings, &unit.Reopening{Number: 2, Touches: unit.TouchesUnit})
	assert.NotEqual(t, before, entry.Ground(j, u))
}
