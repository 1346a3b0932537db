package job_test

import (
	"context"
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/search"
	"corvek/core/unit"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A pump with three faults, a soft relief, worn sides and a torn seal, is found in three
// attempts, one change each; the ledger says why, and what is advised next is never what was swapped already.
func TestThreeFaultsAreFoundInThreeAttempts(t *testing.T) {
	s, ctx := press(t), context.Background()
	const tag = "T-0417"
	now := time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return now }
	jobtest.ToTheStand(t, s, tag)
	run := func(c bench.Change, relief, flow, leak string) *bench.State {
		require.NoError(t, s.NextAttempt(ctx, iva, tag, 1, c))
		st := load(t, s, tag)
		n := st.Attempt().Number
		at := func(step, name string) string { return u1("attempt", n, "point/"+step+"/"+name) }
		for _, p := range st.Attempt().Points {
			switch code := p.Test.Code; code {
			case "relief":
				put(t, s, tag, at(code, "pressure"), relief)
			case "leak_watch":
				put(t, s, tag, at(code, "pressure"), relief)
				put(t, s, tag, at(code, "temperature"), "52 °C")
				put(t, s, tag, at(code, "word"), leak)
			case family.ComplaintTest:
				put(t, s, tag, at(code, "not_applicable"), "only on the machine")
			case "hand_turn", "run_in":
				put(t, s, tag, at(code, "word"), p.Test.Good[0])
				if code == "run_in" {
					put(t, s, tag, at(code, "temperature"), "44 °C")
				}
			default:
				put(t, s, tag, at(code, "pressure"), "175 bar")
				put(t, s, tag, at(code, "flow"), flow)
				put(t, s, tag, at(code, "speed"), "1450 rpm")
				if code == "p100" {
					put(t, s, tag, at(code, "temperature"), "58 °C")
				}
			}
		}
		require.NoError(t, s.CloseAttempt(ctx, iva, tag, 1))
		return load(t, s, tag)
	}
	const good, weak = "45.9 L/min", "38.0 L/min"
	run(bench.Change{}, "160 bar", weak, "drips")
	st := run(
		bench.Change{Words: "relief spring swapped", Kind: string(search.Swap), Part: "relief_spring"},
		"197 bar",
		weak,
		"drips",
	)
	ledger := words(st)
	assert.Contains(t, ledger, "relief setting came right: relief spring bore it")
	assert.Contains(t, ledger, "relief spring is acquitted of duty pressure")
	left := st.Left()
	require.NotEmpty(t, left)
	for _, l := range left {
		if assert.NotNil(t, l.Next, l.Step) {
			assert.False(
				t,
				l.Next.Part == "relief_spring" && l.Next.Kind == string(search.Swap),
				"%s: %s",
				l.Step,
				l.Next.Does,
			)
		}
		for _, p := range l.Parts {
			t.Log(l.Step, p.Name, p.Share)
		}
		t.Log(l.Next)
	}
	st = run(bench.Change{Words: "rear plate lapped and shimmed", Kind: string(search.Renew), Part: "rear_plate"},
		"197 bar", good, "drips")
	assert.Contains(t, words(st), "duty pressure came right: rear side plate bore it")
	st = run(bench.Change{Words: "inner shaft seal fitted again", Kind: string(search.Renew), Part: "seal_inner"},
		"197 bar", good, "dry")
	assert.Contains(t, words(st), "leak watch at the highest pressure came right: inner shaft seal bore it")
	assert.Empty(t, st.Left(), "nothing is out any more")
}

func words(st *bench.State) string {
	var out []string
	for _, l := range st.Told() {
		out = append(out, l.Words)
	}
	return strings.Join(out, "\n")
}

// Two at once are kept as such, what hides a fault is called so whatever was chosen, and an
// offered change brings its part along.
func TestAChangeIsKeptAsItWas(t *testing.T) {
	s, ctx := press(t), context.Background()
	const tag = "T-0417"
	jobtest.ToTheStand(t, s, tag)
	for _, c := range []struct {
		change bench.Change
		says   string
	}{
		{bench.Change{Words: "x", Kind: "prayed"}, "change_kind: is not a kind of change"},
		{bench.Change{Words: "x", Part: "wheel"}, "change_part: is not a part"},
		{bench.Change{Words: "x", SecondPart: "body"}, "second_change: say what"},
	} {
		assert.ErrorContains(t, s.NextAttempt(ctx, iva, tag, 1, c.change), c.says)
	}
	require.NoError(t, s.NextAttempt(ctx, iva, tag, 1, bench.Change{Words: "Relief shimmed",
		Second: "relief raised a turn"}))
	a := load(t, s, tag).Attempt()
	assert.Equal(t, string(search.Adjust), a.ChangeKind)
	assert.NotEmpty(t, a.ChangePart)
	assert.Equal(t, string(search.Mask), a.SecondKind)
	assert.Equal(t, unit.SourceTyped, a.Source)
}
