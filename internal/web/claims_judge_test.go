package web

import (
	"maps"
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/quantity"
)

// reading is something that was read at a step, and the world as it was then.
type reading struct {
	good     bool
	pressure float64 // Pa, of the pressure of the step
	world    map[string]string
}

// tried is a step in one attempt.
type tried struct {
	read     map[string]reading // figures, and "word"
	from, to map[string]string  // the world at the ends of its hold
	held     time.Duration
}

// try is an attempt.
type try struct {
	exercise, closed bool
	oil              bool // somebody said on what it was run
	steps            map[string]*tried
}

// judge is the record of acts.
type judge struct {
	world map[string]string // what was done to unit, parts and complaint
	duty  float64           // Pa
	lacks map[string]bool   // needs that were told and are not any more
	tries []try
}

// before is a copy that later acts do not change.
func (j *judge) before() *judge {
	c := &judge{world: maps.Clone(j.world), duty: j.duty, lacks: maps.Clone(j.lacks)}
	for _, t := range j.tries {
		own := try{t.exercise, t.closed, t.oil, map[string]*tried{}}
		for code, s := range t.steps {
			again := *s
			again.read = maps.Clone(s.read)
			own.steps[code] = &again
		}
		c.tries = append(c.tries, own)
	}
	return c
}

// last is the open attempt, nil where there is none.
func (j *judge) last() *try {
	if n := len(j.tries); n > 0 && !j.tries[n-1].closed {
		return &j.tries[n-1]
	}
	return nil
}

func (t *try) step(code string) *tried {
	if t.steps[code] == nil {
		t.steps[code] = &tried{read: map[string]reading{}}
	}
	return t.steps[code]
}

// stands reports that nothing on which a step rests is another than in a world of before.
func (j *judge) stands(f *family.Family, step *family.Test, then map[string]string) bool {
	for key := range mergedWorlds(j.world, then) {
		if j.world[key] == then[key] {
			continue
		}
		kind, of, _ := strings.Cut(key, ":")
		part, _, _ := strings.Cut(of, "/")
		switch kind {
		case "complaint":
			if step.Code != family.ComplaintTest {
				continue
			}
		case "part":
			if p, known := f.PartByCode(part); known && step.Assembly != "" && p.Assembly != step.Assembly {
				continue
			}
		}
		return false
	}
	return true
}

func mergedWorlds(a, b map[string]string) map[string]string {
	all := maps.Clone(a)
	maps.Copy(all, b)
	return all
}

// shown says why a step was not shown, "" where it was.
func (j *judge) shown(f *family.Family, step *family.Test) string {
	for i := len(j.tries) - 1; i >= 0; i-- {
		t := &j.tries[i]
		s := t.steps[step.Code]
		if t.exercise || s == nil || len(s.read) == 0 {
			continue
		}
		if !t.closed {
			return "its test goes on"
		}
		must := []string{}
		if len(step.Words) > 0 {
			must = append(must, "word")
		}
		for _, r := range step.Reads {
			if !r.May {
				must = append(must, r.Figure)
			}
			g, _ := family.FigureByCode(r.Figure)
			if _, read := s.read[r.Figure]; read && g.Dim == quantity.Flow && !t.oil &&
				(r.Least+r.Most != "" || r.By != "") {
				return "nobody knows on what " + r.Figure + " was run"
			}
		}
		for _, name := range must {
			if _, there := s.read[name]; !there {
				return name + " was not read"
			}
		}
		for name, r := range s.read {
			switch {
			case !r.good:
				return name + " was bad"
			case !j.stands(f, step, r.world):
				return "something moved since " + name + " was read"
			case name == "pressure" && step.Pressure > 0 && step.At != family.AtStated && step.At != family.AtRodEnd &&
				r.pressure < 0.96*step.Pressure*j.duty:
				return "duty is higher now"
			}
		}
		if step.Hold != "" {
			hold, _ := quantity.Parse(step.Hold, quantity.Time)
			if s.held.Seconds() < hold.SI || !j.stands(f, step, s.from) || !j.stands(f, step, s.to) {
				return "it was not held its time on what stands"
			}
		}
		return ""
	}
	return "nobody ran it"
}
