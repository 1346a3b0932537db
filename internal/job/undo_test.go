package job_test

import (
	"context"
	"strings"
	"testing"

	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// undo takes back what somebody did last.
func undo(t *testing.T, s *job.Service, who people.Actor, tag string) error {
	t.Helper()
	act, err := s.Store.LastAct(context.Background(), tag, who.Name)
	require.NoError(t, err)
	require.NotNil(t, act, "there is nothing to take back")
	return s.Undo(context.Background(), who, tag, act.Version)
}

// asBefore requires a job to be what it was, but for its version.
func asBefore(t *testing.T, s *job.Service, tag string, was *unit.Job) {
	t.Helper()
	now, err := s.Store.Job(context.Background(), tag)
	require.NoError(t, err)
	copied := *now
	copied.Version, copied.Station = was.Version, was.Station
	assert.Equal(t, was, &copied)
}

// Every kind of act is taken back whole: a value, a cleared one, many parts at once, a
// part, a loose piece, a kit piece, a round.
func TestEachActIsTakenBack(t *testing.T) {
	s, ctx := press(t), context.Background()
	const tag = "T-0417"
	set := func(address, value, base string) func() error {
		return func() error {
			_, err := s.Set(ctx, iva, tag, job.Edit{Field: address, Value: value, Base: base})
			return err
		}
	}
	load := func() *unit.Job {
		j, err := s.Store.Job(ctx, tag)
		require.NoError(t, err)
		return j
	}
	before := load()
	speed := before.Units[0].Speed.Typed
	for name, act := range map[string]func() error{
		"a figure":      set("u1/speed", "1490 rpm", speed),
		"cleared":       set("u1/speed", "", speed),
		"a reading":     set("u1/part/body/feature/bore_drive/found/r9c9", "1 mm", ""),
		"a loose piece": func() error { return s.AddLoose(ctx, iva, tag, 1, "needle", "sump", 2) },
		"an added part": func() error {
			_, err := s.AddPart(ctx, iva, tag, 1, "key", "Spacer", "plate", 1)
			return err
		},
		"a counted part": func() error {
			return s.Recount(ctx, iva, tag, 1, "front_needles", 30, unit.CountCounted, "another one")
		},
		"a kit piece": func() error { return s.AddPiece(ctx, iva, tag, 1, "", "lip seal", 1, "") },
	} {
		err := act()
		var fe *field.Error
		if name == "a reading" {
			require.ErrorAs(t, err, &fe, "there is no such place")
			continue
		}
		require.NoError(t, err, name)
		require.NoError(t, undo(t, s, iva, tag), name)
		asBefore(t, s, tag, before)
	}
	lines, err := s.Store.Record(ctx, tag, 1000)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, count(lines, "undo"), 2, "the record keeps both")
	taken := 0
	for _, l := range lines {
		if strings.HasPrefix(l.Action, "taken back: ") {
			taken++
		}
	}
	assert.Equal(t, 4, taken)
}

// Acts go back one after the other, the last first, each person's own.
func TestActsAreTakenBackInTurn(t *testing.T) {
	s, ctx := press(t), context.Background()
	const tag = "T-0417"
	set := func(who people.Actor, address, value, base string) {
		_, err := s.Set(ctx, who, tag, job.Edit{Field: address, Value: value, Base: base})
		require.NoError(t, err)
	}
	before, err := s.Store.Job(ctx, tag)
	require.NoError(t, err)
	u := before.Units[0]
	set(iva, "u1/speed", "1490 rpm", u.Speed.Typed)
	set(iva, "u1/speed", "1500 rpm", "1490 rpm")
	set(odd, "u1/filtration", "none", u.Filtration)
	set(iva, "u1/serial", "X-1", u.Serial)
	for range 3 {
		require.NoError(t, undo(t, s, iva, tag))
	}
	now, err := s.Store.Job(ctx, tag)
	require.NoError(t, err)
	assert.Equal(t, u.Speed.Typed, now.Units[0].Speed.Typed)
	assert.Equal(t, "none", now.Units[0].Filtration, "what another did stays")
	act, err := s.Store.LastAct(ctx, tag, iva.Name)
	require.NoError(t, err)
	assert.Nil(t, act)
}

// What something rests on is not taken back, and says so.
func TestWhatSomethingRestsOnStays(t *testing.T) {
	s, ctx := press(t), context.Background()
	const tag = "T-0417"
	code, err := s.AddPart(ctx, iva, tag, 1, "key", "Spacer", "plate", 1)
	require.NoError(t, err)
	_, err = s.Set(ctx, odd, tag, job.Edit{Field: "u1/part/" + code + "/note", Value: "bent"})
	require.NoError(t, err)
	var fe *field.Error
	require.ErrorAs(t, undo(t, s, iva, tag), &fe)
	assert.Contains(t, fe.Text, "rests on it")

	_, err = s.Set(ctx, iva, tag, job.Edit{Field: "u1/serial", Value: "X-1", Base: serialOf(t, s, tag)})
	require.NoError(t, err)
	_, err = s.Set(ctx, odd, tag, job.Edit{Field: "u1/serial", Value: "X-2", Base: "X-1"})
	require.NoError(t, err)
	require.ErrorAs(t, undo(t, s, iva, tag), &fe)
	assert.Equal(t, "X-2", serialOf(t, s, tag))

	act, err := s.Store.LastAct(ctx, tag, odd.Name)
	require.NoError(t, err)
	require.ErrorAs(t, s.Undo(ctx, iva, tag, act.Version), &fe, "another's act")
	assert.ErrorIs(
		t,
		s.Undo(ctx, people.Actor{Name: "Tove", Role: people.RoleViewer}, tag, act.Version),
		people.ErrForbidden,
	)
}

func serialOf(t *testing.T, s *job.Service, tag string) string {
	t.Helper()
	j, err := s.Store.Job(context.Background(), tag)
	require.NoError(t, err)
	return j.Units[0].Serial
}
