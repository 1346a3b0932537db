package explain

import "slices"

// Event is a mark that was seen, with whether the story told answers for it.
type Event struct {
	Evidence *Evidence
	Answered bool
	Age      string // old, fresh, or as noted
}

// Timeline orders what was seen from what takes an instant to what takes long,
// and says what cannot be so.
type Timeline struct {
	Sudden, Hours, Gradual []Event
	Conflicts              []string
}

// Timeline holds the marks that were seen against one way to tell the case.
// ages are how old marks looked: old or fresh, by code.
func (k *Knowledge) Timeline(s Story, findings []Finding, ages map[string]string) Timeline {
	var t Timeline
	facts, _ := k.facts(findings)
	sudden := slices.ContainsFunc(s.Causes, func(c *Cause) bool { return c.Onset == "sudden" })
	slow := slices.ContainsFunc(s.Causes, func(c *Cause) bool { return c.Onset != "sudden" })
	for _, f := range facts {
		if f.s <= 0.5 {
			continue
		}
		e := Event{Evidence: f.e, Answered: slices.Contains(s.Answered, f.e), Age: ages[f.e.Code]}
		switch f.e.Onset {
		case "sudden":
			t.Sudden = append(t.Sudden, e)
			if !e.Answered && !sudden && f.e.From.Symptom == "" {
				t.Conflicts = append(t.Conflicts, f.e.Text+": that takes an instant, and nothing told here is sudden")
			}
			if e.Age == "old" && sudden && !slow {
				t.Conflicts = append(t.Conflicts, f.e.Text+" looks old: it was there before")
			}
		case "hours":
			t.Hours = append(t.Hours, e)
		default:
			t.Gradual = append(t.Gradual, e)
		}
		if f.e.Onset != "sudden" && !e.Answered && !slow && f.e.From.Symptom == "" {
			t.Conflicts = append(t.Conflicts, f.e.Text+": that needs time; it ran on afterwards, or there were two "+
				"events")
		}
	}
	return t
}
