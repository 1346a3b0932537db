package job_test

import (
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/proof"
	"corvek/core/unit"
	"corvek/demo/demotest"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What the stand runs on is asked once a shift, and belongs to the test: flow proves nothing without it.
func TestWhatATestRanOn(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	now := time.Date(2031, 5, 20, 23, 55, 0, 0, time.UTC) // midnight falls into the shift
	s.Now = func() time.Time { return now }
	tag := jobtest.Built(t, s, "axial_piston_pump")
	jobtest.Test(t, s, tag, &now)
	ref := func(name string) string {
		st := load(t, s, tag)
		return st.Unit.AttemptRef(st.Attempt().Number, name).String()
	}
	again := bench.Change{Words: "nothing, run once more"}
	require.NoError(t, s.NextAttempt(t.Context(), iva, tag, 1, again))
	told := load(t, s, tag).Attempt().RanOn
	assert.Equal(t, "Bench 1", told.Stand, "told this shift")
	assert.Equal(t, "mineral oil VG 46", told.Oil)
	assert.Equal(t, "17/15/12", told.Clean)
	assert.True(t, told.Temperature.IsZero(), "how warm it is changes by the hour")
	runTest(t, s, tag, &now)

	now = now.Add(24 * time.Hour)
	require.NoError(t, s.NextAttempt(t.Context(), iva, tag, 1, again))
	assert.Equal(t, unit.RanOn{}, load(t, s, tag).Attempt().RanOn, "asked anew in another shift")
	for _, c := range []struct{ name, value, says string }{
		{"", "", "nobody says which oil it was run on"},
		{"ran_on_oil", "hydraulic oil", "nobody says how warm the oil was"},
		{"ran_on_temperature", "50 °C", "the viscosity of the oil is not known"},
		{"ran_on_viscosity", "30 cSt", "nobody says how clean the oil was"},
		{"ran_on_clean", "17/15/12", ""},
	} {
		if c.name != "" {
			put(t, s, tag, ref(c.name), c.value)
		}
		st := load(t, s, tag)
		text := jobtest.Reads(t, st, "p100")["flow"]
		if st.Attempt().Attempt.Point("p100") == nil {
			put(t, s, tag, st.Unit.PointRef(st.Attempt().Number, "p100", "flow").String(), text)
		}
		weak := ""
		for _, p := range load(t, s, tag).Attempt().Points {
			if p.Test.Code == "p100" {
				weak = p.Figure("flow").Weak
			}
		}
		assert.Equal(t, c.says, weak, c.name)
	}
	_, err := s.Set(t.Context(), iva, tag, job.Edit{Field: ref("ran_on_clean"), Value: "13/16/18", Base: "17/15/12"})
	assert.ErrorContains(t, err, "18/16/13")
}

// What a stand shows that did not say what it is shows nothing of the unit.
func TestAnUnknownStandProvesNothing(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	now := time.Date(2031, 5, 20, 23, 55, 0, 0, time.UTC) // midnight falls into the shift
	s.Now = func() time.Time { return now }
	tag := jobtest.Built(t, s, "external_gear_pump")
	jobtest.Test(t, s, tag, &now)
	require.NoError(t, s.NextAttempt(t.Context(), iva, tag, 1, bench.Change{Words: "nothing, run once more"}))
	st := load(t, s, tag)
	require.NoError(t, s.TakePoint(t.Context(), iva, tag, 1, job.Reading{Step: "p100", Source: unit.SourceUnknown,
		Stand: "east", Shown: jobtest.Shown(t, st, "p100")}))
	require.NoError(t, s.CloseAttempt(t.Context(), iva, tag, 1))
	claim, missing := load(t, s, tag).Claim()
	assert.Equal(t, proof.Tested, claim)
	assert.Contains(t, strings.Join(missing, "\n"), "read from a stand that did not say what it is")
}

// Where the shop keeps gauges, a pressure or a flow that was typed says which was read; several can be
// named, and each figure is taken with the one that can read it.
func TestWhichGaugeAFigureWasReadWith(t *testing.T) {
	t.Parallel()
	s := demotest.Jobs(t)
	tag := jobtest.Built(t, s, "check_valve")
	require.NoError(t, s.NextAttempt(t.Context(), iva, tag, 1, bench.Change{}))
	assert.Equal(
		t,
		"turbine meter 120",
		load(t, s, tag).Attempt().FlowMeter,
		"told today at another job, of the one stand",
	)
	jobtest.RunsOn(t, s, tag)
	st := load(t, s, tag)
	put(t, s, tag, st.Unit.AttemptRef(1, "pressure_gauge").String(), "")
	put(t, s, tag, st.Unit.AttemptRef(1, "flow_meter").String(), "")
	for name, text := range jobtest.Reads(t, st, "back") {
		put(t, s, tag, st.Unit.PointRef(1, "back", name).String(), text)
	}
	weak := func() (pressure, leak string) {
		for _, p := range load(t, s, tag).Attempt().Points {
			if p.Test.Code == "back" {
				return p.Figure("pressure").Weak, p.Figure("leakage").Weak
			}
		}
		return "", ""
	}
	pressure, leak := weak()
	assert.Equal(t, "nobody says which gauge it was read with", pressure)
	assert.Equal(t, "nobody says which gauge it was read with", leak)
	put(t, s, tag, st.Unit.AttemptRef(1, "pressure_gauge").String(), "stand gauge 400")
	put(t, s, tag, st.Unit.AttemptRef(1, "flow_meter").String(), "turbine meter 120")
	pressure, leak = weak()
	assert.Empty(t, pressure)
	assert.Equal(t, "read below a fifth of the range of turbine meter 120", leak)
	put(t, s, tag, st.Unit.AttemptRef(1, "flow_meter").String(), "turbine meter 120, jug and watch")
	_, leak = weak()
	assert.Empty(t, leak, "the jug reads what the meter cannot")
}
