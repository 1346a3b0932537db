package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// weekOf gives days of eight hours from a Monday on.
func weekOf(days int) *Calendar {
	var spans []Span
	for d := range days {
		spans = append(spans, Span{d*day + 8*hour, d*day + 16*hour})
	}
	return Hours(spans)
}

// One who builds has two jobs of ten hours; the costly one goes first, and the other waits for him, over a night, and
// for its part.
func lateShop() *Problem {
	return &Problem{
		Now:       8 * hour,
		Resources: []Resource{{Name: "who builds", Works: weekOf(30)}},
		Jobs: []Job{
			{Name: "costly", HasDue: true, Due: 20 * hour, Cost: 9},
			{Name: "other", HasDue: true, Due: 20 * hour, Cost: 1},
			{Name: "part", HasDue: true, Due: 20 * hour, Cost: 5},
		},
		Tasks: []Task{
			{Job: 0, Work: 10 * hour, Cut: true, Needs: [][]int{{0}}},
			{Job: 1, Work: 10 * hour, Cut: true, Needs: [][]int{{0}}},
			{Job: 2, Work: hour, Needs: [][]int{{0}}, Release: 10*day + 9*hour},
		},
	}
}

// A task may begin once what comes before it is done and its part is there, and never before now.
func TestTheEarliestBeginning(t *testing.T) {
	p := lateShop()
	p.Tasks = append(p.Tasks, Task{Job: 0, Work: hour, Needs: [][]int{{0}}, After: []After{{Task: 0, Wait: 2 * hour}}})
	plan, err := Make(p, Options{})
	require.NoError(t, err)
	for task, want := range map[int][2]int{
		0: {8 * hour, -1}, 2: {10*day + 9*hour, -1}, 3: {plan.Tasks[0].End + 2*hour, 0},
	} {
		from, behind := Earliest(p, plan, task)
		assert.Equal(t, want, [2]int{from, behind}, task)
	}
}

func TestWhyAJobIsLateIsTold(t *testing.T) {
	p := lateShop()
	plan, err := Make(p, Options{})
	require.NoError(t, err)
	require.True(t, plan.Proved)

	links, err := Hangs(p, plan, 1)
	require.NoError(t, err)
	// From now it waits for him, who is at the costly one until the second day at ten, and goes on until the third at
	// twelve.
	assert.Equal(t, []Link{
		{Task: 1, From: 8 * hour, To: day + 10*hour, For: ForHands, On: 0, Behind: 0},
		{Task: 1, From: day + 10*hour, To: 2*day + 12*hour, For: ForWork},
	}, links)

	links, err = Hangs(p, plan, 2)
	require.NoError(t, err)
	assert.Equal(t, []Link{
		{Task: 2, From: 8 * hour, To: 10*day + 9*hour, For: ForRelease},
		{Task: 2, From: 10*day + 9*hour, To: 10*day + 10*hour, For: ForWork},
	}, links)
}

func TestWhatWouldHelpIsTried(t *testing.T) {
	p := lateShop()
	plan, err := Make(p, Options{})
	require.NoError(t, err)

	helps, err := Helps(p, plan, 1, Options{Effort: 2000})
	require.NoError(t, err)
	require.NotEmpty(t, helps)
	// Whatever is said to help most does so much when it is planned by itself.
	best := helps[0]
	assert.Equal(t, 0, best.On)
	assert.Positive(t, best.Saved)
	with, err := Make(p.from(plan).with(best), Options{})
	require.NoError(t, err)
	assert.Equal(t, plan.Late[1]-with.Late[1], best.Saved)

	helps, err = Helps(p, plan, 2, Options{Effort: 2000})
	require.NoError(t, err)
	require.Len(t, helps, 1)
	assert.Equal(t, Help{Kind: Sooner, On: -1, Task: 2, Early: 2 * day, Saved: 2 * day, Cost: 2 * day * 5}, helps[0])

	p.Tasks[2] = Task{Job: 2, Work: 9 * day} // a part that takes nine days from now
	plan, err = Make(p, Options{})
	require.NoError(t, err)
	helps, err = Helps(p, plan, 2, Options{Effort: 2000})
	require.NoError(t, err)
	require.Len(t, helps, 1)
	assert.Equal(t, 2*day, helps[0].Saved)
}

// What a job hangs on has no gap and ends where the job does, whatever the shop.
func TestWhatAJobHangsOnHasNoGap(t *testing.T) {
	for seed := range uint64(30) {
		p := bigShop(seed, 15, 3)
		for i := range p.Tasks {
			if i%7 == 3 && len(p.Tasks[i].After) > 0 {
				p.Tasks[i].After[0].Wait = 5 * hour
			}
			if i%11 == 0 && len(p.Tasks[i].After) == 0 {
				p.Tasks[i].Running = &Spot{Start: p.Now - hour, On: []int{p.Tasks[i].Needs[0][0]}}
			}
		}
		plan, err := Make(p, Options{Effort: 20_000, Nodes: -1})
		require.NoError(t, err)
		for j := range p.Jobs {
			links, err := Hangs(p, plan, j)
			require.NoError(t, err)
			require.NotEmpty(t, links)
			assert.Equal(t, plan.Ends[j], links[len(links)-1].To)
			at := p.Now
			for _, k := range links {
				assert.Equal(t, at, k.From, "seed %d job %d: %+v", seed, j, links)
				at = k.To
			}
		}
	}
}

func BenchmarkHelps(b *testing.B) {
	p := bigShop(1, 300, 8)
	plan, err := Make(p, Options{Effort: 1000, Nodes: -1})
	require.NoError(b, err)
	for b.Loop() {
		_, err := Helps(p, plan, 3, Options{Effort: 100_000, Nodes: -1})
		require.NoError(b, err)
	}
}

// A plan is made anew after one change: a part that comes two days later.
func BenchmarkAgain(b *testing.B) {
	p := bigShop(1, 300, 8)
	plan, err := Make(p, Options{Effort: 1000, Nodes: -1})
	require.NoError(b, err)
	changed := p.from(plan)
	changed.Tasks[5].Release += 2 * day
	for b.Loop() {
		_, err := Make(changed, Options{Effort: Replan, Nodes: -1})
		require.NoError(b, err)
	}
}
