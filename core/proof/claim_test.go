package proof_test

import (
	"strings"
	"testing"
	"time"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// duty is a step of the pump that was read whole, held its time and is as it was.
func duty(t *testing.T) *proof.Shown {
	step := shared(t, "p100")
	r := press()
	row := read(t, "", map[string]string{"pressure": "175 bar", "flow": "43.5 L/min", "speed": "1450 rpm",
		"temperature": "50 C"})
	return &proof.Shown{Test: step, Attempt: 1, Read: true, Closed: true, Judged: proof.JudgeStep(step, row, r),
		Held: 5 * time.Minute, Hold: 5 * time.Minute}
}

var delivers = family.Owed{Code: "delivers", Says: "delivers at duty", By: []string{"p100"}}

func tell(s *proof.Shown) proof.Told {
	t, _ := proof.Tell(delivers, func(string) *proof.Shown { return s }, everything)
	return t
}

// A claim is shown by a step that was read whole, inside its limits, at its pressure, for its time,
// on the unit as it is; each thing that is missing to that is named.
func TestAClaimNamesWhatIsMissing(t *testing.T) {
	good := tell(duty(t))
	require.Empty(t, good.Why)
	claim, missing := proof.Trial{Claims: []proof.Told{good}}.Judge()
	assert.Equal(t, proof.Proved, claim)
	assert.Empty(t, missing)

	r := press()
	judged := func(figures map[string]string) func(*proof.Shown) {
		return func(s *proof.Shown) { s.Judged = proof.JudgeStep(s.Test, read(t, "", figures), r) }
	}
	whole := map[string]string{"pressure": "175 bar", "flow": "43.5 L/min", "speed": "1450 rpm", "temperature": "50 C"}
	but := func(figure, value string) func(*proof.Shown) {
		figures := map[string]string{}
		for k, v := range whole {
			figures[k] = v
		}
		if figures[figure] = value; value == "" {
			delete(figures, figure)
		}
		return judged(figures)
	}
	for says, bend := range map[string]func(*proof.Shown){
		"not done":         func(s *proof.Shown) { s.Read = false },
		"only an exercise": func(s *proof.Shown) { s.Read, s.Exercise = false, true },
		"not possible on this stand: no drive of that size": func(s *proof.Shown) {
			s.Read, s.NotPossible = false, "no drive of that size"
		},
		"its hold was not run to the end": func(s *proof.Shown) { s.Held = 299 * time.Second },
		"its test still goes on":          func(s *proof.Shown) { s.Closed = false },
		"since then: Ball, fitted yes, now nothing": func(s *proof.Shown) {
			s.Moved = []string{"Ball, fitted yes, now nothing"}
		},
		"not read: speed":              but("speed", ""),
		"not read: temperature":        but("temperature", ""),
		"out of its limits":            but("flow", "38 L/min"),
		"its pressure was not reached": but("pressure", "150 bar"),
		"flow: more than can be":       but("flow", "60 L/min"),
	} {
		s := duty(t)
		bend(s)
		bent := tell(s)
		require.Len(t, bent.Why, 1, says)
		assert.Contains(t, bent.Why[0], says)
		assert.True(t, strings.HasPrefix(bent.Why[0], "duty pressure: "))
		claim, missing = proof.Trial{Claims: []proof.Told{good, bent}}.Judge()
		assert.Equal(t, proof.Tested, claim, says)
		assert.Len(t, missing, 1)
		assert.Contains(t, missing[0], "delivers at duty (duty pressure: ")
	}
	for says, trial := range map[string]proof.Trial{
		"the test is still going on": {Open: true}, "not all parts are fitted": {Unfitted: 1},
		"a bolt is loose": {Stops: []string{"a bolt is loose"}},
	} {
		trial.Claims = []proof.Told{good}
		claim, missing = trial.Judge()
		assert.Equal(t, proof.Tested, claim, says)
		assert.Equal(t, []string{says}, missing)
	}
}

// What was run on the simulated stand is an exercise, and what was not run at all is not tested,
// however it ended.
func TestNothingRunIsNothingProved(t *testing.T) {
	s := duty(t)
	s.Read = false
	claim, missing := proof.Trial{Claims: []proof.Told{tell(s)}}.Judge()
	assert.Equal(t, proof.NotTested, claim)
	assert.Empty(t, missing)
	s.Exercise = true
	claim, _ = proof.Trial{Claims: []proof.Told{tell(s)}}.Judge()
	assert.Equal(t, proof.Exercise, claim)
	claim, _ = proof.Trial{}.Judge()
	assert.Equal(t, proof.NotTested, claim)
}

// everything is a job that tells whatever a claim's level follows from.
func everything(string) bool { return true }

// What a claim's level follows from and nobody told keeps it open, whatever was read; what has another
// level beside it does not.
func TestANeedThatNobodyToldKeepsAClaimOpen(t *testing.T) {
	s := duty(t)
	claim := delivers
	claim.Needs, claim.May = []string{"duty_pressure", "need_flow"}, []string{"need_flow"}
	for told, why := range map[string][]string{"duty_pressure": nil, "need_flow": {"duty pressure not known"}} {
		c, owed := proof.Tell(claim, func(string) *proof.Shown { return s }, func(f string) bool { return f == told })
		assert.True(t, owed)
		assert.Equal(t, why, c.Why, told)
	}
}

// What is not on the unit is not owed; what is not possible here is owed, settled and not shown.
func TestWhatIsNotHereAndWhatIsNotPossible(t *testing.T) {
	s := duty(t)
	s.NotHere = "it turns right only"
	_, owed := proof.Tell(delivers, func(string) *proof.Shown { return s }, everything)
	assert.False(t, owed)

	s = duty(t)
	s.Read, s.NotPossible = false, "the drive is too small"
	told := tell(s)
	assert.False(t, told.Shown())
	assert.True(t, told.Settled())
	s.NotPossible = ""
	told = tell(s)
	assert.False(t, told.Settled())
	s = duty(t)
	s.Moved, s.NotPossible = []string{"Ball renewed"}, "no time"
	told = tell(s)
	assert.False(t, told.Settled(), "what was read and fell is not settled by a reason given before")
}

// A limit that nobody can name the source of, that came after its figure, or that is looser than
// what ships, carries no claim; where the figure holds against what ships, the claim rests on that.
func TestALimitThatIsTypedCarriesNoClaimByItself(t *testing.T) {
	step := shared(t, "case_flow") // at most 8 % of 46.4 L/min: 3.71 L/min
	judge := func(flow string, own *unit.StepLimit, late bool) *proof.Figured {
		r := press()
		r.Own = func(_, figure string) *unit.StepLimit {
			if figure == "case_flow" {
				return own
			}
			return nil
		}
		r.Late = func(_, _ string) bool { return late }
		j := proof.JudgeStep(step, read(t, "", map[string]string{"pressure": "175 bar", "case_flow": flow}), r)
		return j.Figure("case_flow")
	}
	limit := func(most, source string) *unit.StepLimit {
		return &unit.StepLimit{Most: flowOf(t, most), Source: source}
	}
	for _, c := range []struct {
		flow    string
		own     *unit.StepLimit
		late    bool
		verdict metrology.Verdict
		weak    string
	}{
		{"2 L/min", nil, false, metrology.In, ""},
		{"2 L/min", limit("6 L/min", ""), true, metrology.In, ""},
		{"5 L/min", limit("6 L/min", "the book, page 3"), false, metrology.In, "looser than guidance"},
		{"5 L/min", limit("4 L/min", "the book, page 3"), false, metrology.Out, "looser than guidance"},
	} {
		f := judge(c.flow, c.own, c.late)
		assert.Equal(t, c.verdict, f.Verdict, "%+v", c)
		if c.weak == "" {
			assert.Empty(t, f.Weak, "%+v", c)
		} else {
			assert.Contains(t, f.Weak, c.weak, "%+v", c)
		}
	}

	// A figure for which nothing ships goes by the unit's own limit alone.
	standby := &family.Test{Code: "standby", Reads: []family.Read{{Figure: "standby"}}}
	bar := func(own *unit.StepLimit, late bool) *proof.Figured {
		r := proof.Rules{Own: func(_, _ string) *unit.StepLimit { return own },
			Late: func(_, _ string) bool { return late }}
		j := proof.JudgeStep(standby, read(t, "", map[string]string{"standby": "22 bar"}), r)
		return j.Figure("standby")
	}
	own := &unit.StepLimit{
		Least:  pressureOf(t, "20 bar"),
		Most:   pressureOf(t, "24 bar"),
		Source: "agreed with the mill",
	}
	assert.Empty(t, bar(own, false).Weak)
	assert.Contains(t, bar(own, true).Weak, "typed after it was read")
	own.Source = ""
	assert.Contains(t, bar(own, false).Weak, "nobody says")
	assert.Equal(t, metrology.In, bar(own, false).Verdict)
}

// A gauge out of date, or read in the lowest fifth of its range, carries no claim.
func TestAGaugeThatCarriesNoClaim(t *testing.T) {
	g := proof.Gauge{Name: "Gauge 3", FullScale: 400e5, Resolution: 2e5}
	assert.Empty(t, g.Weak(pressureOf(t, "80 bar")))
	assert.Equal(t, "read below a fifth of the range of Gauge 3", g.Weak(pressureOf(t, "79 bar")))
	g.Overdue = "1 May 2031"
	assert.Equal(t, "Gauge 3 is out of date since 1 May 2031", g.Weak(pressureOf(t, "80 bar")))
	assert.Empty(t, proof.Gauge{}.Weak(pressureOf(t, "1 bar")))
}
