package workshop_test

import (
	"testing"

	"corvek/core/plan"
	"corvek/core/remaining"
	"corvek/core/workshop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// on is with whom and where a task is planned that was begun, and whether it was.
func on(t *testing.T, w *workshop.Workshop, jobs []workshop.Job, now ...workshop.AtWork) (out [][3]any) {
	l := w.Lay(jobs, monday, nil, nil, workshop.Learn(remaining.Usual(), nil, 0, 0))
	l.Run(now)
	p, err := plan.Make(l.Problem, plan.Options{})
	require.NoError(t, err)
	for i, at := range p.Tasks {
		person, place := l.On(at)
		out = append(out, [3]any{person, place, l.Problem.Tasks[i].Running != nil})
	}
	return out
}

// What somebody is at stays with him, whatever else is late: of his job the first task that he can do and nothing is
// left before; and the stand that he reads is his meanwhile.
func TestWhatIsBegunStaysWithHim(t *testing.T) {
	urgent, other := toTest("T-1", "2031-05-12", 0), toTest("T-2", "", 0)
	got := on(t, small(), []workshop.Job{urgent, other}, workshop.AtWork{Person: "Ane", Tag: "T-2", Unit: 1})
	assert.Equal(t, [3]any{"Ane", "", true}, got[2], "she builds it, though the other is promised for today")
	assert.Equal(t, false, got[0][2])

	tests := func(tag string) workshop.Job {
		j := toTest(tag, "", 0)
		j.Units[0].Tasks = j.Units[0].Tasks[1:]
		j.Units[0].Tasks[0].After = nil
		return j
	}
	at := func(person, tag, stand string) workshop.AtWork {
		return workshop.AtWork{Person: person, Tag: tag, Unit: 1, Stand: stand}
	}
	got = on(t, small(), []workshop.Job{tests("T-1"), tests("T-2")}, at("Bo", "T-2", "stand 2"), at("Ane", "T-1", ""))
	assert.Equal(t, [][3]any{{"Ane", "stand 1", true}, {"Bo", "stand 2", true}}, got)

	got = on(t, small(), []workshop.Job{tests("T-1"), tests("T-2")}, at("Bo", "T-2", ""), at("Bo", "T-1", ""))
	assert.Equal(t, []any{false, true}, []any{got[0][2], got[1][2]}, "he is at one thing: what he touched last")

	got = on(t, small(), []workshop.Job{toTest("T-1", "", 0)}, at("Bo", "T-1", ""), at("Nobody", "T-1", ""))
	assert.Equal(t, false, got[0][2], "he builds nothing, and what comes after it was not begun")

	held := toTest("T-1", "", 0)
	held.HeldBy = "Ane"
	held.Units[0].Tasks = []remaining.Task{{Code: "prove", Kind: remaining.Prove, Time: 1}}
	got = on(t, small(), []workshop.Job{held}, at("Bo", "T-1", ""))
	assert.Equal(t, false, got[0][2], "she has the job: he only looked after something")
}
