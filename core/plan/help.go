package plan

import "sort"

// Help is something that could be done for a late job, and what it would save.
type Help struct {
	Kind  HelpKind
	On    int    // resource that there is more of; for Sooner none
	Day   Minute // midnight of the day of it
	Task  int    // for Sooner: whose part comes sooner
	Early Minute // for Sooner: by how much
	Saved Minute // how much less late the job is
	Cost  int64  // how much less lateness costs the shop, all jobs together; less than nought where others pay for it
}

// HelpKind is a kind of help.
type HelpKind string

// The kinds.
const (
	MoreHands HelpKind = "more_hands" // one more like it on that day
	Longer    HelpKind = "longer"     // it is there longer on that day
	Sooner    HelpKind = "sooner"     // what it waits for comes sooner
)

// What is tried.
const (
	evening   = 3 * 60
	daysEarly = 2 * day
	mostHelps = 8
)

// Helps tries what would help a late job most: more hands where it waits for hands, an evening longer where it
// waits for the morning, a part two days sooner. Each is planned anew, from the plan as it stands, and what helps
// comes first.
func Helps(p *Problem, plan *Plan, job int, o Options) ([]Help, error) {
	links, err := Hangs(p, plan, job)
	if err != nil {
		return nil, err
	}
	base := p.from(plan)
	now, err := Make(base, o)
	if err != nil {
		return nil, err
	}
	var out []Help
	for _, h := range p.helps(plan, links) {
		with, err := Make(base.with(h), o)
		if err != nil {
			return nil, err
		}
		h.Saved, h.Cost = now.Late[job]-with.Late[job], now.Cost.Late-with.Cost.Late
		if h.Saved > 0 {
			out = append(out, h)
		}
	}
	sort.SliceStable(out, func(a, b int) bool {
		if out[a].Cost != out[b].Cost {
			return out[a].Cost > out[b].Cost
		}
		return out[a].Saved > out[b].Saved
	})
	return out, nil
}

// from is the problem with a plan as the one that stands.
func (p *Problem) from(plan *Plan) *Problem {
	out := *p
	out.Tasks = append([]Task(nil), p.Tasks...)
	for i := range out.Tasks {
		if at := plan.Tasks[i]; at.Nowhere == "" && out.Tasks[i].Running == nil {
			out.Tasks[i].Was = &Spot{Start: at.Start, On: at.On}
		}
	}
	return &out
}

// helps are what could be tried for the stretches that a job hangs on, the longest first.
func (p *Problem) helps(plan *Plan, links []Link) (out []Help) {
	sorted := append([]Link(nil), links...)
	sort.SliceStable(sorted, func(a, b int) bool { return sorted[a].To-sorted[a].From > sorted[b].To-sorted[b].From })
	add := func(h Help) {
		for _, o := range out {
			if o == h {
				return
			}
		}
		if len(out) < mostHelps {
			out = append(out, h)
		}
	}
	for _, k := range sorted {
		switch k.For {
		case ForHands:
			add(Help{Kind: MoreHands, On: k.On, Day: midnight(k.From), Task: -1})
			add(Help{Kind: MoreHands, On: k.On, Day: midnight(k.To), Task: -1})
		case ForHours, ForWork:
			if len(plan.Tasks[k.Task].On) == 0 && p.Tasks[k.Task].Work >= day {
				add(Help{Kind: Sooner, On: -1, Task: k.Task, Early: min(daysEarly, p.Tasks[k.Task].Work)})
			}
			for _, r := range plan.Tasks[k.Task].On {
				if p.Resources[r].Works != nil && midnight(k.To) > midnight(k.From) {
					add(Help{Kind: Longer, On: r, Day: midnight(k.From), Task: -1})
				}
			}
		case ForRelease:
			add(Help{Kind: Sooner, On: -1, Task: k.Task, Early: daysEarly})
		}
	}
	return out
}

func midnight(t Minute) Minute { return t - mod(t, day) }

// with is the problem as it would be with a help.
func (p *Problem) with(h Help) *Problem {
	out := *p
	out.Tasks = append([]Task(nil), p.Tasks...)
	out.Resources = append([]Resource(nil), p.Resources...)
	switch h.Kind {
	case Sooner:
		t := &out.Tasks[h.Task]
		if t.Release > p.Now {
			t.Release = max(p.Now, t.Release-h.Early)
		} else {
			t.Work -= h.Early
		}
	case Longer:
		r := &out.Resources[h.On]
		spans := append([]Span(nil), r.Works.spans...)
		for k, s := range spans {
			if s.From < h.Day+day && s.To > h.Day && (k == len(spans)-1 || spans[k+1].From >= h.Day+day) {
				spans[k].To = s.To + evening
			}
		}
		r.Works = Hours(spans)
	case MoreHands:
		more := Resource{Name: p.Resources[h.On].Name}
		if works := p.Resources[h.On].Works; works != nil {
			more.Works = Hours(works.Spans(h.Day, h.Day+day))
		} else {
			more.Works = Hours([]Span{{h.Day, h.Day + day}})
		}
		out.Resources = append(out.Resources, more)
		for i := range out.Tasks {
			out.Tasks[i].Needs = withOther(out.Tasks[i].Needs, h.On, len(p.Resources))
		}
	}
	return &out
}

// withOther are needs in which another resource will do wherever one does.
func withOther(needs [][]int, one, other int) [][]int {
	out := make([][]int, len(needs))
	for k, need := range needs {
		out[k] = need
		for _, r := range need {
			if r == one {
				out[k] = append(need[:len(need):len(need)], other)
			}
		}
	}
	return out
}
