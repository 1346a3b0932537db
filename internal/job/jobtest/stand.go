package jobtest

import (
	"context"
	"testing"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/rig"

	"github.com/stretchr/testify/require"
)

// Shown is what the simulated stand shows for a step of a unit once it has come to rest, by
// figure in base units.
func Shown(t testing.TB, st *bench.State, step string) map[string]float64 {
	t.Helper()
	test, known := st.Step(step)
	require.True(t, known, step)
	facts, err := st.Facts()
	require.NoError(t, err)
	p := st.Program(test)
	bench := rig.NewSimulated(1)
	bench.Unit = facts.Mount(test)
	bench.Controls = rig.Controls{Drive: true, Pressure: p.Pressure, Speed: p.Speed}
	for range 8000 { // 160 s
		bench.Step(0.02)
	}
	out := bench.Unit.Rest
	for figure, v := range bench.Read() {
		out[figure] = v
	}
	return out
}

// Exercise fills the open attempt of a unit from the simulated stand, and says what was seen
// as the plan likes it.
func Exercise(t testing.TB, s *job.Service, tag string, words bool) {
	t.Helper()
	ctx := context.Background()
	st, err := s.Load(ctx, tag, 1)
	require.NoError(t, err)
	for _, p := range st.Attempt().Points {
		if p.Skipped != "" || p.Test.Code == family.ComplaintTest { // of that the stand knows nothing
			continue
		}
		shown := Shown(t, st, p.Test.Code)
		for range 2 { // the second time for what is read at the end of a hold
			if len(p.Test.Reads) > 0 {
				require.NoError(t, s.TakePoint(ctx, who, tag, 1,
					job.Reading{Step: p.Test.Code, Source: unit.SourceSimulated, Shown: shown}))
			}
		}
		if words && len(p.Test.Good) > 0 {
			ref := st.Unit.PointRef(st.Attempt().Number, p.Test.Code, "word").String()
			_, err := s.Set(ctx, who, tag, job.Edit{Field: ref, Value: p.Test.Good[0]})
			require.NoError(t, err)
		}
	}
}

// HandOver lets a lead sign the papers of each unit off, and hands the job over.
func HandOver(t testing.TB, s *job.Service, tag string) {
	t.Helper()
	lead := people.Actor{Name: "Odd Renfeld", Role: people.RoleLead}
	j, err := s.Store.Job(t.Context(), tag)
	require.NoError(t, err)
	for _, u := range j.Units {
		require.NoError(t, s.SignOff(t.Context(), lead, tag, u.Number))
	}
	require.NoError(t, s.HandOver(t.Context(), who, tag))
}
