package machine_test

import (
	"testing"

	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/machine"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type answers = map[string]string

func conclude(t *testing.T, code string, said answers, symptoms ...string) machine.Gauge {
	t.Helper()
	lib, err := family.Shipped()
	require.NoError(t, err)
	base, err := explain.Shipped()
	require.NoError(t, err)
	f := lib[code]
	require.NotNil(t, f, code)
	return machine.Conclude(f, base.For(code).Of(f.HasOf(func(string) bool { return true })), said, symptoms)
}

// What keeps a unit shut, written from the trade: what is told of shaft, feed and pressure is one story, a sound part
// of the machine points nowhere, and what another unit showed decides.
func TestWhatKeepsAUnitShut(t *testing.T) {
	const pump, gear = "axial_piston_pump", "external_gear_pump"
	for _, c := range []struct {
		name     string
		family   string
		said     answers
		symptoms []string
		nobody   bool
		want     machine.Hold
		ask      string
	}{
		{"nobody asked", pump, nil, nil, false, machine.HoldNotTold, "pressure_builds"},
		{"nobody is there to ask", pump, nil, nil, true, machine.HoldNone, ""},
		{"the inlet is good, and nothing else is told", pump, answers{"inlet": "good"}, nil, false, machine.HoldNotTold,
			"pressure_builds"},
		{"three things are whole", pump, answers{"inlet": "good", "drive_turns": "yes", "feed_pressure": "good"}, nil,
			false, machine.HoldNone, ""},
		{"the inlet is shut", pump, answers{"inlet": "choked"}, nil, true, machine.HoldElsewhere, ""},
		{"the inlet is shut and nothing comes", pump, answers{"inlet": "choked", "pressure_builds": "none"}, nil, false,
			machine.HoldElsewhere, ""},
		{"the inlet is shut and it falls short", gear, answers{"inlet": "choked", "pressure_builds": "some"}, nil,
			false,
			machine.HoldElsewhere, ""},
		{"it is not driven, whatever else is good", pump, answers{"inlet": "good", "drive_turns": "no"}, nil, false,
			machine.HoldElsewhere, ""},
		{"a good feed does not point at the pump behind it", pump, answers{"feed_pressure": "good"}, nil, false,
			machine.HoldNotTold, ""},
		{"another one did the same", pump, answers{"new_unit": "same", "inlet": "good"}, nil, true, machine.HoldCleared,
			""},
		{"another one did the same, and it builds nothing", pump, answers{"new_unit": "same",
			"pressure_builds": "none", "inlet": "good"}, nil, false, machine.HoldCleared, ""},
		{"another one cured it", gear, answers{"new_unit": "cured", "drive_turns": "yes", "inlet": "good"}, nil, false,
			machine.HoldNone, ""},
		{"another one was not tried: nothing follows", pump, answers{"new_unit": "not_tried"}, nil, false,
			machine.HoldNotTold, "pressure_builds"},
		{"on stroke at once: vent the signal line", pump, answers{"on_stroke": "yes", "inlet": "good"}, nil, false,
			machine.HoldFirst, "vent_signal"},
		{"vented, and it stays high", pump, answers{"on_stroke": "yes", "vent_signal": "stays"}, nil, false,
			machine.HoldNone, ""},
		{"vented, and it falls: the pump is acquitted", pump, answers{"on_stroke": "yes", "vent_signal": "falls"}, nil,
			false, machine.HoldCleared, ""},
		{"vented and falls, with no pressure before it was tried", pump, answers{"pressure_builds": "none",
			"on_stroke": "yes", "vent_signal": "falls"}, nil, false, machine.HoldCleared, ""},
		{"it builds to its relief", gear, answers{"pressure_builds": "full"}, nil, false, machine.HoldElsewhere, ""},
		{"a gauge that was wrong", pump, answers{"known_gauge": "differs"}, nil, false, machine.HoldElsewhere, ""},
		{"shut at its own ports it still drifts", "double_acting_cylinder", answers{"load_holds": "drifts"}, nil, false,
			machine.HoldNone, ""},
		{"shut at its own ports it holds", "double_acting_cylinder", answers{"load_holds": "holds"}, nil, false,
			machine.HoldCleared, ""},
		{"shut at the cylinder the load holds: the valve", "check_valve", answers{"cylinder_shut": "holds"}, nil, false,
			machine.HoldNone, ""},
		{"shut at the cylinder it drifts: not the valve", "check_valve", answers{"cylinder_shut": "drifts"}, nil, false,
			machine.HoldCleared, ""},
		{"a dead adjuster", "relief_valve", answers{"adjuster": "dead", "known_gauge": "same"}, nil, false,
			machine.HoldNone, ""},
		{"the clutch drags with no load", "winch_brake_pack", answers{"creep_way": "no_load"}, nil, false,
			machine.HoldNone, ""},
		{"supply air falls away", "gas_booster", answers{"air_supply": "falls"}, nil, false, machine.HoldElsewhere, ""},
		{"a sump gains: what came in is asked first", gear, answers{"drive_turns": "yes"}, []string{"sump_rises"},
			false,
			machine.HoldFirst, "gained_what"},
		{"it gains fuel", gear, answers{"gained_what": "fuel"}, []string{"sump_rises"}, false, machine.HoldElsewhere,
			""},
		{"it gains the other sump's oil", gear, answers{"gained_what": "oil"}, []string{"sump_rises"}, false,
			machine.HoldNone, ""},
		{"an answer nobody offers", pump, answers{"pressure_builds": "maybe"}, nil, false, machine.HoldNotTold,
			"pressure_builds"},
	} {
		g := conclude(t, c.family, c.said, c.symptoms...)
		assert.Equal(t, c.want, g.Holds(c.nobody), "%s: %.2f away, ask %q", c.name, g.Away, g.Ask)
		if c.ask != "" {
			assert.Equal(t, c.ask, g.Ask, c.name)
		}
	}
}

// In no family does any one answer leave a unit shut without a reason and without a question.
func TestEveryAnswerLeadsOn(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, f := range lib.List() {
		for _, code := range f.Gauge {
			q, _ := family.QuestionByCode(code)
			for _, a := range q.Answers {
				g := conclude(t, f.Code, answers{code: a.Code})
				switch g.Holds(false) {
				case machine.HoldCleared, machine.HoldElsewhere:
					assert.NotEmpty(t, g.Because, "%s: %s=%s", f.Code, code, a.Code)
					assert.NotEqual(t, family.AtUnit, a.Points, "%s: %s=%s", f.Code, code, a.Code)
				case machine.HoldFirst, machine.HoldNotTold:
					assert.NotEmpty(t, g.Ask, "%s: %s=%s", f.Code, code, a.Code)
					assert.NotEqual(t, code, g.Ask, "%s: %s=%s asks itself again", f.Code, code, a.Code)
				case machine.HoldNone:
					assert.NotEqual(t, family.Elsewhere, a.Points, "%s: %s=%s", f.Code, code, a.Code)
				}
			}
		}
	}
}
