package jobtest

import (
	"context"
	"fmt"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/invented"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/store"

	"github.com/stretchr/testify/require"
)

// Built makes a job for a unit of a family, tells all that its machine asks, takes it apart, counts and
// measures it, and builds it as it belongs: it is ready for the stand, and nothing is open before that.
func Built(t testing.TB, s *job.Service, code string) (tag string) {
	t.Helper()
	tag = Taken(t, s, code)
	require.NoError(t, s.TakeOffRest(context.Background(), who, tag, 1))
	MeasuredAndDecided(t, s, tag)
	ToTheStand(t, s, tag)
	all(t, s, tag, "measured again", invented.Again)
	return tag
}

// Taken makes a job for a unit of a family and tells all that its machine asks.
func Taken(t testing.TB, s *job.Service, code string) (tag string) {
	t.Helper()
	ctx := context.Background()
	tag, err := s.Create(ctx, who, job.NewJob{Customer: "Somebody", Title: "A unit", Complaint: "It is weak",
		Family: code})
	require.NoError(t, err)
	all(t, s, tag, "told", func(st *bench.State) (out []invented.Value) {
		return append(invented.Told(st), value(st.Unit.Ref("not_asked"), "came in without its machine"))
	})
	return tag
}

// MeasuredAndDecided counts and measures a unit that was taken apart, reads its cautions, and lays a piece to every
// place of its kit.
func MeasuredAndDecided(t testing.TB, s *job.Service, tag string) {
	t.Helper()
	ctx := context.Background()
	OwnSizes(t, s, tag, invented.Sizes{})
	all(t, s, tag, "counted and measured", invented.Found)
	st := state(t, s, tag)
	for _, stops := range st.Stops {
		for _, stop := range stops {
			if stop.Kind == unit.StopCaution {
				require.NoError(t, s.Acknowledge(ctx, who, tag, 1, stop.Part))
			}
		}
	}
	for _, place := range st.Places {
		require.NoError(t, s.AddPiece(ctx, who, tag, 1, "", place.Name, place.Need, place.Part))
	}
}

func state(t testing.TB, s *job.Service, tag string) *bench.State {
	t.Helper()
	st, err := s.Load(context.Background(), tag, 1)
	require.NoError(t, err)
	return st
}

func value(ref unit.Ref, text string) invented.Value { return invented.Value{Ref: ref, Text: text} }

// all writes values in one write.
func all(t testing.TB, s *job.Service, tag, action string, of func(*bench.State) []invented.Value) {
	t.Helper()
	ctx := context.Background()
	st := state(t, s, tag)
	shop, err := s.Shop(ctx, who.Name)
	require.NoError(t, err)
	require.NoError(t, s.Store.Update(ctx, tag, func(j *unit.Job, _ store.History) (*store.Change, error) {
		for _, v := range of(st) {
			place, f, err := entry.Resolve(j, v.Ref, shop)
			if err != nil {
				return nil, err
			}
			if err := place.Write(f, f.With(place, v.Text, "")); err != nil {
				return nil, fmt.Errorf("%s: %w", v.Ref, err)
			}
		}
		return &store.Change{Job: j, Entries: []unit.Entry{{Who: who.Name, At: shop.Now, Action: action}}}, nil
	}))
}

// Test runs a whole test of a unit that is ready for it: each step held its time, each figure typed, and
// closed. clock is moved as the holds run.
func Test(t testing.TB, s *job.Service, tag string, clock *time.Time) {
	t.Helper()
	ctx := context.Background()
	change := bench.Change{}
	if state(t, s, tag).Attempt() != nil {
		change.Words = "nothing, run once more"
	}
	require.NoError(t, s.NextAttempt(ctx, who, tag, 1, change))
	RunsOn(t, s, tag)
	Limits(t, s, tag)
	st := state(t, s, tag)
	for _, step := range st.Plan() {
		if step.Skipped == "" {
			held(t, s, tag, &step.Test, clock)
		}
	}
	read := func(st *bench.State, settings bool) (out []invented.Value) {
		for _, step := range st.Plan() {
			if step.Skipped != "" || settings != step.Judges(family.BySetting) {
				continue
			}
			for name, text := range Reads(t, st, step.Code) {
				out = append(out, value(st.Unit.PointRef(st.Attempt().Number, step.Code, name), text))
			}
		}
		return out
	}
	// The highest that a unit sees is what its relief was read at, so that comes first.
	for _, settings := range []bool{true, false} {
		all(t, s, tag, "tested", func(st *bench.State) []invented.Value { return read(st, settings) })
	}
	require.NoError(t, s.CloseAttempt(ctx, who, tag, 1))
}

// StandToday is what a stand runs on and what is read there, by field of an attempt. Its gauges are none
// of the shop's.
var StandToday = map[string]string{"pressure_gauge": "gauge of bench 1", "flow_meter": "meter and jug of bench 1",
	"ran_on_stand": "Bench 1", "ran_on_oil": "mineral oil VG 46",
	"ran_on_temperature": "50 °C", "ran_on_clean": "17/15/12"}

// RunsOn tells of the open test on which stand and oil it is run.
func RunsOn(t testing.TB, s *job.Service, tag string) {
	t.Helper()
	all(t, s, tag, "what the stand runs on", func(st *bench.State) (out []invented.Value) {
		for name, text := range StandToday {
			out = append(out, value(st.Unit.AttemptRef(st.Attempt().Number, name), text))
		}
		return out
	})
}

// Limits types those of figures that nothing else limits, before they are read, with who says so.
func Limits(t testing.TB, s *job.Service, tag string) {
	t.Helper()
	all(t, s, tag, "limits", func(st *bench.State) (out []invented.Value) {
		for _, step := range st.Plan() {
			for _, l := range LimitsOf(t, st, &step.Test) {
				ref := func(name string) unit.Ref { return st.Unit.LimitRef(step.Code, l.Figure, name) }
				out = append(
					out,
					value(ref("least"), l.Least),
					value(ref("most"), l.Most),
					value(ref("source"), l.Source),
				)
			}
		}
		return out
	})
}

// Limit is what a figure of a step must be, as it is typed.
type Limit struct{ Figure, Least, Most, Source string }

// LimitsOf are the limits that an honest test types at a step: of figures that nothing else limits.
func LimitsOf(t testing.TB, st *bench.State, step *family.Test) (out []Limit) {
	t.Helper()
	judged := len(step.Words) > 0 && (step.Seen || step.Pressure > 0)
	for _, r := range step.Reads {
		judged = judged || r.Relative() || r.Least != "" || r.Most != "" || r.By != family.ByLimit ||
			r.Figure == "pressure" && step.Pressure > 0
	}
	for _, r := range step.Reads {
		g, _ := family.FigureByCode(r.Figure)
		open := r.Least == "" && r.Most == "" && r.By == family.ByLimit || r.By == family.ByRatio
		if judged && r.By != family.ByRatio || !open || r.May || g.Dim == quantity.Number {
			continue
		}
		shown, wide := sound(t, st, step.Code)[r.Figure], 0.2
		if g.Dim == quantity.Time {
			wide = 0.6 // a stand takes whole seconds
		}
		out = append(
			out,
			Limit{r.Figure, base(shown*(1-wide), g.Dim), base(shown*(1+wide), g.Dim), "agreed with the mill, 3 May"},
		)
	}
	return out
}

// held holds a step of the open test its time.
func held(t testing.TB, s *job.Service, tag string, step *family.Test, clock *time.Time) {
	t.Helper()
	if step.Hold == "" {
		return
	}
	ctx := context.Background()
	require.NoError(t, s.StartHold(ctx, who, tag, 1, step.Code))
	hold, err := quantity.Parse(step.Hold, quantity.Time)
	require.NoError(t, err)
	*clock = clock.Add(time.Duration(hold.SI * float64(time.Second)))
	require.NoError(t, s.EndHold(ctx, who, tag, 1, step.Code))
}

// Reads are what a sound unit shows at a step, as it is typed, by the name of the field.
func Reads(t testing.TB, st *bench.State, code string) map[string]string {
	t.Helper()
	step, known := st.Step(code)
	require.True(t, known, code)
	out := map[string]string{}
	if len(step.Good) > 0 {
		out["word"] = step.Good[0]
	}
	for figure, v := range sound(t, st, code) {
		g, _ := family.FigureByCode(figure)
		out[figure] = base(v, g.Dim)
	}
	return out
}

// sound are the figures of a sound unit at a step, in base units: what the simulated stand shows of it,
// but for what is set here: pressures at their level, settings in the middle of their band, and what the
// job needs, with a little more.
func sound(t testing.TB, st *bench.State, code string) map[string]float64 {
	t.Helper()
	step, known := st.Step(code)
	require.True(t, known, code)
	const relief = 197e5 // Pa, between 190 and 205 bar
	shown, out := Shown(t, st, code), map[string]float64{}
	level, _ := st.Level(step.At)
	for _, r := range step.Reads {
		v := shown[r.Figure]
		switch {
		case r.By == family.BySetting:
			v = relief
		case r.Figure == "suction_lift":
			v = 0.3
		case r.Figure == "reseat":
			v = 0.95 * relief
		case r.Figure == "pressure" && step.Pressure > 0, r.By == family.ByDecay:
			v = step.Pressure * level
		case r.Figure == "temperature_end", r.Figure == "temperature":
			v = 50
		case r.Figure == "pressure_end" && r.Of == family.OfStart, r.Figure == "falling":
			v = 0.99 * out["pressure"]
		case r.Figure == "pressure_end":
			v = out["pressure"]
		case r.By == family.ByEfficiency:
			v = (0.99 - 0.03*step.Pressure) * st.Duty.Displacement * st.Duty.Speed / 60
		case (r.Of == family.OfLayer || r.Figure == "torque" && family.OfNeed(r.Of)) && r.Least != "":
			v, _ = st.Need(r.Of)
			v *= 1.05
		}
		out[r.Figure] = v
	}
	return out
}

// base writes a figure as it is typed, with more digits than a gauge has.
func base(si float64, d quantity.Dimension) string {
	if d == quantity.Number {
		return quantity.Figures(si, 4)
	}
	u, places := quantity.ShopUnit(si, d, quantity.Metric)
	return u.Format(si, places+2)
}
