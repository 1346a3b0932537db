package entry_test

import (
	"strings"
	"testing"
	"time"

	"corvek/core/entry"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// addresses are one of each field that the bench's job has a place for.
func addresses(t *testing.T, j *unit.Job, shop *entry.Shop) []unit.Ref {
	t.Helper()
	u := j.Units[0]
	u.Attempts = append(u.Attempts, &unit.Attempt{Number: 1, Round: 1})
	front := map[unit.Scope]func(name string) unit.Ref{
		unit.ScopeJob:        unit.JobRef,
		unit.ScopeUnit:       u.Ref,
		unit.ScopePart:       func(name string) unit.Ref { return u.PartRef("rear_plate", name) },
		unit.ScopeDecision:   func(name string) unit.Ref { return u.DecisionRef("rear_plate", name) },
		unit.ScopeStep:       func(name string) unit.Ref { return u.StepRef("rear_plate", name) },
		unit.ScopeEvidence:   func(name string) unit.Ref { return u.EvidenceRef("fine_lines", name) },
		unit.ScopeConclusion: u.ConclusionRef,
		unit.ScopeLoose:      func(name string) unit.Ref { return u.LooseRef(1, name) },
		unit.ScopePiece:      func(name string) unit.Ref { return u.PieceRef(1, name) },
		unit.ScopeAttempt:    func(name string) unit.Ref { return u.AttemptRef(1, name) },
		unit.ScopePoint:      func(name string) unit.Ref { return u.PointRef(1, "p100", name) },
	}
	var out []unit.Ref
	for scope, ref := range front {
		for _, f := range entry.Fields(scope) {
			if f.Name == "gauge" || f.Name == "identity" || f.Name == "flush" || f.Name == "more" {
				continue // addressed by their questions, below
			}
			if _, _, err := entry.Resolve(j, ref(f.Name), shop); err == nil && !f.Derived {
				out = append(out, ref(f.Name))
			}
		}
	}
	out = append(out, u.GaugeRef("new_unit"), u.FlushRef("tank"), u.MoreRef("relief"))
	require.Greater(t, len(out), 50)
	return out
}

// Every answer that a field offers is accepted and stands there afterwards; one
// that it does not offer is refused.
func TestEveryAnswerOfferedIsTaken(t *testing.T) {
	j, shop := bench(t)
	tried := 0
	for _, ref := range addresses(t, j, shop) {
		p, f, err := entry.Resolve(j, ref, shop)
		require.NoError(t, err)
		if f.Choices == nil {
			continue
		}
		offered := f.Choices(p)
		for _, code := range offered {
			if err := set(j, shop, ref.String(), code); err != nil {
				t.Errorf("%s offers %q and refuses it: %v", ref, code, err)
				continue
			}
			tried++
			assert.Equal(t, code, get(t, j, shop, ref.String()), "%s", ref)
		}
		assert.Error(t, set(j, shop, ref.String(), "none of these"), "%s", ref)
		if err := set(j, shop, ref.String(), ""); f.Required {
			assert.ErrorContains(t, err, "cannot be left empty", "%s", ref)
		} else {
			assert.NoError(t, err, "%s", ref)
		}
	}
	assert.Greater(t, tried, 30)
}

// What a field gives out, it takes in again unchanged: pages, documents and the
// store hand the same text round.
func TestWhatAFieldGivesItTakes(t *testing.T) {
	j, shop := bench(t)
	for ref, text := range map[string]string{
		"u1/speed": "1450 rpm", "u1/duty_pressure": "2538 psi", "u1/temperature": "58 °C", "u1/hours": "11400 h",
		"u1/shims_fitted": "0.10 mm, 0.05 mm", "job/promised_on": "2031-05-27", "job/labour_hours": "6.5 h",
		"job/parts_cost": "310", "u1/part/rear_plate/step/torque": "38 N·m", "u1/part/rear_plate/off": entry.Yes,
		"u1/part/rear_plate/feature/side_clearance/upper": "7 thou", "u1/attempt/1/point/p100/flow": "44.1 L/min",
	} {
		if strings.HasPrefix(ref, "u1/attempt") {
			j.Units[0].Attempts = append(j.Units[0].Attempts, &unit.Attempt{Number: 1, Round: 1})
		}
		require.NoError(t, set(j, shop, ref, text), ref)
		given := get(t, j, shop, ref)
		assert.Equal(t, text, given, ref)
		before := j.Clone()
		r, err := unit.ParseRef(ref)
		require.NoError(t, err)
		p, f, err := entry.Resolve(j, r, shop)
		require.NoError(t, err)
		require.NoError(t, f.Load(p, given), ref)
		assert.Equal(t, before, j, ref)
	}
}

// How long something soaks is told as a time from now and kept as a moment.
func TestTimerIsAMoment(t *testing.T) {
	now := time.Date(2031, 5, 14, 12, 0, 0, 0, time.UTC)
	for text, want := range map[string]string{
		"": "", "0": "", "4 h": "2031-05-14T16:00:00Z", "4": "2031-05-14T16:00:00Z",
		"90 min": "2031-05-14T13:30:00Z", " 30 min ": "2031-05-14T12:30:00Z", "1440 h": "2031-07-13T12:00:00Z",
	} {
		got, err := entry.Until(text, now)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	for text, says := range map[string]string{"-1 h": "from now", "1441 h": "60 days", "soon": "", "3 bar": ""} {
		_, err := entry.Until(text, now)
		require.Error(t, err, text)
		assert.ErrorContains(t, err, says, text)
	}
	j, shop := bench(t)
	require.NoError(t, set(j, shop, "job/timer_until", "2031-05-14T16:00:00Z"))
	assert.Equal(t, time.Date(2031, 5, 14, 16, 0, 0, 0, time.UTC), j.TimerUntil)
	assert.ErrorContains(t, set(j, shop, "job/timer_until", "tomorrow"), "is a moment like")
	require.NoError(t, set(j, shop, "job/timer_until", ""))
	assert.True(t, j.TimerUntil.IsZero())
}
