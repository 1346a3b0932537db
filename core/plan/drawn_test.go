package plan

import "math/rand/v2"

// hour is the step in which drawn problems are laid out, so that all plans of them can be gone through.
const hour = 60

// drawn makes a small shop from chance: two or three people with hours and one place, jobs of a few tasks with waits,
// releases, now and then a pin, something that runs, and a plan that stands.
func drawn(seed uint64, tasks int) *Problem {
	r := rand.New(rand.NewPCG(seed, 1))
	p := &Problem{Now: hour * r.IntN(3)}
	people := 2 + r.IntN(2)
	for range people {
		p.Resources = append(p.Resources, Resource{Works: drawnHours(r)})
	}
	place := len(p.Resources)
	if r.IntN(2) == 0 {
		p.Resources = append(p.Resources, Resource{})
	} else {
		p.Resources = append(p.Resources, Resource{Works: drawnHours(r)})
	}
	for range 1 + r.IntN(3) {
		p.Jobs = append(p.Jobs, Job{HasDue: r.IntN(4) > 0, Due: hour * r.IntN(30), Cost: int64(1 + r.IntN(3)),
			Safe: 2 * hour * r.IntN(3)})
	}
	last := map[int]int{}
	for i := range tasks {
		t := Task{Job: r.IntN(len(p.Jobs)), Work: hour * (1 + r.IntN(3)), Cut: r.IntN(3) == 0}
		if k, is := last[t.Job]; is && r.IntN(4) > 0 {
			t.After = []After{{Task: k, Wait: hour * max(0, r.IntN(6)-3)}}
		}
		last[t.Job] = i
		switch pick := r.IntN(6); {
		case pick == 0: // runs by itself
		case pick == 1:
			t.Needs = [][]int{someOf(r, people), {place}}
		default:
			t.Needs = [][]int{someOf(r, people)}
		}
		if r.IntN(5) == 0 {
			t.Release = hour * r.IntN(12)
		}
		drawSpots(r, p, &t)
		p.Tasks = append(p.Tasks, t)
	}
	return p
}

// drawSpots says now and then that a task runs, is pinned, or stands in the plan that stands.
func drawSpots(r *rand.Rand, p *Problem, t *Task) {
	var on []int
	for _, need := range t.Needs {
		on = append(on, need[r.IntN(len(need))])
	}
	switch pick := r.IntN(12); {
	case pick == 0 && len(t.After) == 0:
		t.Running = &Spot{Start: p.Now, On: on}
	case pick == 1:
		t.Pin = &Spot{Start: hour * (1 + r.IntN(30)), On: on}
	case pick == 2:
		t.Pin = &Spot{Start: Anytime, On: on}
	case pick > 5:
		t.Was = &Spot{Start: hour * r.IntN(60), On: on}
	}
}

// drawnHours are three hours or so on each of eight days.
func drawnHours(r *rand.Rand) *Calendar {
	var spans []Span
	from, long := hour*(8+r.IntN(2)), hour*(2+r.IntN(2))
	for d := range 8 {
		if r.IntN(6) > 0 {
			spans = append(spans, Span{d*day + from, d*day + from + long})
		}
	}
	return Hours(spans)
}

func someOf(r *rand.Rand, n int) []int {
	first := r.IntN(n)
	if r.IntN(2) == 0 {
		return []int{first}
	}
	return []int{first, (first + 1) % n}
}

// bigShop makes a shop of some jobs of about eight tasks, people of whom each can do most things, two stands, a wash
// and a press, half of the jobs promised.
func bigShop(seed uint64, jobs, people int) *Problem {
	r := rand.New(rand.NewPCG(seed, 2))
	p := &Problem{Now: 8 * hour}
	weekdays := func(from, to int) *Calendar {
		var spans []Span
		for d := range 1000 {
			if d%7 < 5 {
				spans = append(spans, Span{d*day + from*hour, d*day + to*hour})
			}
		}
		return Hours(spans)
	}
	var all []int
	for k := range people {
		all = append(all, k)
		p.Resources = append(p.Resources, Resource{Works: weekdays(7+k%2, 15+k%3)})
	}
	testers := all[:max(1, people/3)]
	for range 4 {
		p.Resources = append(p.Resources, Resource{})
	}
	wash, press := people, people+1
	stands := []int{people + 2, people + 3}
	for j := range jobs {
		job := Job{HasDue: r.IntN(2) == 0, Due: day * (20 + r.IntN(10+jobs/8)), Cost: int64(100 + r.IntN(900))}
		p.Jobs = append(p.Jobs, job)
		add := func(work int, cut bool, needs ...[]int) {
			t := Task{Job: j, Work: 15 * max(1, work*(2+r.IntN(5))/60), Cut: cut, Needs: needs}
			if n := len(p.Tasks); n > 0 && p.Tasks[n-1].Job == j {
				t.After = []After{{Task: n - 1}}
			}
			p.Tasks = append(p.Tasks, t)
		}
		if r.IntN(3) == 0 { // taken apart already
			add(30, true, all)
		} else {
			add(90, true, all)
			add(240, false, []int{wash})
			add(60, true, all)
		}
		if r.IntN(3) == 0 {
			add(60, true, all, []int{press})
		}
		if r.IntN(2) == 0 {
			p.Tasks[len(p.Tasks)-1].Release = day * r.IntN(21)
			add(0, false)
			p.Tasks[len(p.Tasks)-1].Release = day * r.IntN(21)
		}
		add(180, true, all)
		add(60, false, testers, stands)
		add(20, true, testers)
	}
	return p
}
