package plan

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// keeps holds a plan against its problem: hours, hands, order, what runs and what is pinned.
func keeps(t *testing.T, seed uint64, p *Problem, plan *Plan) {
	t.Helper()
	busy := map[int][]Span{}
	for i := range p.Tasks {
		task, at := &p.Tasks[i], plan.Tasks[i]
		if at.Nowhere != "" {
			continue
		}
		if task.Running != nil {
			assert.Equal(t, task.Running.Start, at.Start)
			continue
		}
		require.GreaterOrEqual(t, at.Start, max(p.Now, task.Release), "seed %d task %d", seed, i)
		for _, a := range task.After {
			require.GreaterOrEqual(
				t,
				at.Start,
				plan.Tasks[a.Task].End+a.Wait,
				"seed %d: %d before %d",
				seed,
				i,
				a.Task,
			)
		}
		require.Len(t, at.On, len(task.Needs))
		for k, r := range at.On {
			require.Contains(t, task.Needs[k], r, "seed %d task %d", seed, i)
			busy[r] = append(busy[r], Span{at.Start, at.End})
		}
		if worked := together(p, at); task.Cut {
			require.Equal(t, task.Work, worked, "seed %d task %d: hours", seed, i)
		} else {
			require.Equal(t, task.Work, at.End-at.Start, "seed %d task %d: cut", seed, i)
			require.Equal(t, task.Work, worked, "seed %d task %d: hours", seed, i)
		}
		if task.Pin != nil {
			for _, r := range task.Pin.On {
				require.Contains(t, at.On, r)
			}
			moved := task.Pin.Start != Anytime && at.Start != task.Pin.Start
			require.Equal(t, moved, at.PinBroken, "seed %d task %d", seed, i)
		}
	}
	for r, spans := range busy {
		for a := range spans {
			for b := range a {
				apart := spans[a].To <= spans[b].From || spans[b].To <= spans[a].From
				require.True(t, apart || spans[a].From == spans[a].To, "seed %d: %d twice at once", seed, r)
			}
		}
	}
}

// together is for how long all that a task has hold of is there while it does.
func together(p *Problem, at Placed) (minutes Minute) {
	all := (*Calendar)(nil)
	for _, r := range at.On {
		all = both(all, p.Resources[r].Works)
	}
	if all == nil {
		return at.End - at.Start
	}
	for _, s := range all.Spans(at.Start, at.End) {
		minutes += s.To - s.From
	}
	return minutes
}

func TestPlansKeepHoursSkillsPinsAndOrder(t *testing.T) {
	for seed := range uint64(1000) {
		p := drawn(seed, 5+int(seed%20))
		plan, err := Make(p, Options{Seed: seed, Effort: 5000, Nodes: -1})
		require.NoError(t, err)
		keeps(t, seed, p, plan)
	}
	for seed := range uint64(5) {
		p := bigShop(seed, 40, 5)
		plan, err := Make(p, Options{Effort: 100_000, Nodes: -1})
		require.NoError(t, err)
		keeps(t, seed, p, plan)
	}
}

func jobShop(t testing.TB, name string) *Problem {
	file, err := os.Open("testdata/" + name)
	require.NoError(t, err)
	defer file.Close()
	p, err := JobShop(file)
	require.NoError(t, err)
	return p
}

// The published instance of six jobs on six machines needs 55; it is proved.
func TestSixBySix(t *testing.T) {
	plan, err := Make(jobShop(t, "6x6.txt"), Options{})
	require.NoError(t, err)
	assert.EqualValues(t, 55, plan.Cost.Late)
	assert.True(t, plan.Proved)
}

// The published instance of ten jobs on ten machines needs 930; less cannot be.
func TestTenByTen(t *testing.T) {
	p := jobShop(t, "10x10.txt")
	plan, err := Make(p, Options{Effort: 10_000_000, Nodes: -1})
	require.NoError(t, err)
	assert.GreaterOrEqual(t, plan.Cost.Late, int64(930))
	assert.LessOrEqual(t, plan.Cost.Late, int64(980))
	keeps(t, 0, p, plan)
}

func TestBadInstances(t *testing.T) {
	for text, says := range map[string]string{
		"":           "counts of jobs and machines are missing",
		"2":          "counts of jobs and machines are missing",
		"1 1\n0":     "1 numbers follow the counts, 1 jobs on 1 machines need 2",
		"1 1\n1 4":   "machine 1 for 4",
		"0 4":        "0 jobs on 4 machines",
		"300 2":      "300 jobs on 2 machines",
		"1 1\n0 4.5": `"4.5" is no whole number`,
	} {
		_, err := JobShop(strings.NewReader(text))
		assert.ErrorContains(t, err, says)
	}
}

// What cannot be planned is told with why, and the rest is planned.
func TestWhatCannotBePlannedIsTold(t *testing.T) {
	p := &Problem{
		Resources: []Resource{{Works: Hours([]Span{{8 * hour, 12 * hour}})}},
		Jobs:      []Job{{}},
		Tasks: []Task{
			{Work: hour, Needs: [][]int{{0}}},
			{Work: hour, Needs: [][]int{{}}},
			{Work: 6 * hour, Needs: [][]int{{0}}},
			{Work: 6 * hour, Needs: [][]int{{0}}, Cut: true},
			{Work: hour, Needs: [][]int{{0}}, After: []After{{Task: 1}}},
			{Work: hour, After: []After{{Task: 6}}},
			{Work: hour, After: []After{{Task: 5}}},
		},
	}
	plan, err := Make(p, Options{})
	require.NoError(t, err)
	var why []Why
	for _, at := range plan.Tasks {
		why = append(why, at.Nowhere)
	}
	assert.Equal(t, []Why{"", NoneCan, NoWindow, NoWindow, Waits, Waits, Waits}, why)
	assert.Equal(t, Placed{Start: 8 * hour, End: 9 * hour, On: []int{0}}, plan.Tasks[0])
	assert.Equal(t, 6, plan.Cost.Broken)
	assert.Equal(t, []bool{true}, plan.Undone, "no day is told for a job of which something cannot be done")
	assert.Zero(t, plan.Ends[0])
}

func TestAProblemThatIsNotPutRightlyIsRefused(t *testing.T) {
	jobs := []Job{{}}
	for says, task := range map[string]Task{
		"it is of no job":    {Job: 1},
		"-1 minutes of work": {Work: -1},
		"it needs 4 things at once, at most 3 can be planned": {Needs: make([][]int, 4)},
		"it needs what is not there":                          {Needs: [][]int{{0}}},
		"it waits for what is not there":                      {After: []After{{Task: 1}}},
	} {
		_, err := Make(&Problem{Jobs: jobs, Tasks: []Task{task}}, Options{})
		assert.ErrorContains(t, err, says)
	}
}

// A shop of 300 jobs is planned at once, and what changes little is planned again quickly.
func BenchmarkShop(b *testing.B) {
	p := bigShop(1, 300, 8)
	for b.Loop() {
		_, err := Make(p, Options{Nodes: -1})
		require.NoError(b, err)
	}
}

// Whatever is read, it is refused or it is a problem that can be planned.
func FuzzJobShop(f *testing.F) {
	f.Add("2 2\n0 1 1 2\n1 3 0 4\n")
	f.Add("words\n1 1\n0 0")
	f.Fuzz(func(t *testing.T, text string) {
		p, err := JobShop(strings.NewReader(text))
		if err == nil && len(p.Tasks) < 100 {
			plan, err := Make(p, Options{Effort: 1000, Nodes: 1000})
			require.NoError(t, err)
			keeps(t, 0, p, plan)
		}
	})
}

// Whom a task is pinned to and cannot do it, does not do it: that is told, and another does.
func TestAPinToWhoCannotIsTold(t *testing.T) {
	p := &Problem{
		Resources: []Resource{{}, {}},
		Jobs:      []Job{{}},
		Tasks: []Task{
			{Work: hour, Needs: [][]int{{0}}, Pin: &Spot{Start: Anytime, On: []int{1}}},
			{Work: hour, Needs: [][]int{{0}}, After: []After{{Task: 0}}},
		},
	}
	plan, err := Make(p, Options{})
	require.NoError(t, err)
	assert.True(t, plan.Proved)
	assert.Equal(t, Placed{End: hour, On: []int{0}, PinBroken: true}, plan.Tasks[0])
	assert.Equal(t, 1, plan.Cost.Broken)
	assert.Equal(t, []bool{false}, plan.Undone)
	assert.Equal(t, 2*hour, plan.Ends[0])
}
