package hidden

import (
	"slices"

	"corvek/core/bench"
	"corvek/core/explain"
)

// Path is a way from what was complained of to what is wrong.
type Path struct {
	Steps   []explain.Step
	Minutes float64
	Named   bool // it comes to name what is wrong
}

// Enough reports that a case stands as one who worked on it may stop: its one cause is as good as sure, or of two each
// is likelier than not.
func (c *Case) Enough(s explain.Standing) bool {
	if len(c.Causes) == 1 {
		_, p := s.Lead()
		return p >= explain.Sure
	}
	return !slices.ContainsFunc(c.Causes, func(code string) bool { return s.Of(code) < 0.5 })
}

// Names reports that a case stands for what is truly wrong.
func (c *Case) Names(s explain.Standing) bool {
	if !c.Enough(s) {
		return false
	}
	lead, _ := s.Lead()
	return slices.Contains(c.Causes, lead.Code)
}

// mostLooks keeps a path to an end.
const mostLooks = 80

// Best follows what tells most for its minutes, from what was known when the unit came.
func (s *Shop) Best(c *Case) (Path, error) {
	st, err := s.state(c.True)
	if err != nil {
		return Path{}, err
	}
	came, err := s.Received(c.True.Unit(1).Family)
	if err != nil {
		return Path{}, err
	}
	came.Symptoms = c.True.Symptoms
	record, err := s.state(came)
	if err != nil {
		return Path{}, err
	}
	return c.best(st, record.Findings), nil
}

func (c *Case) best(st *bench.State, start []explain.Finding) (p Path) {
	told := map[string]float64{}
	for _, f := range st.Findings {
		told[f.Code] = f.Strength
	}
	k := st.Knowledge.In(explain.Situation{Reached: explain.Outside, MayRun: true})
	p.Steps = k.Follow(start, nil,
		func(e *explain.Evidence) (float64, bool) { strength, is := told[e.Code]; return strength, is },
		c.Enough, mostLooks)
	p.Minutes = explain.Minutes(p.Steps)
	p.Named = c.Names(k.Standing(explain.Learned(start, p.Steps))) && c.Names(k.Standing(st.Findings))
	return p
}
