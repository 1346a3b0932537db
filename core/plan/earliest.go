package plan

// Earliest is the minute before which a task cannot begin, as the plan has what comes before it, and the task that it
// then waits for, −1 for none.
func Earliest(p *Problem, plan *Plan, task int) (from Minute, behind int) {
	t := &p.Tasks[task]
	from, behind = max(p.Now, t.Release), -1
	for _, a := range t.After {
		if end := plan.Tasks[a.Task].End + a.Wait; end > from {
			from, behind = end, a.Task
		}
	}
	return from, behind
}
