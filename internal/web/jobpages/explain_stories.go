package jobpages

import (
	"html/template"
	"strings"

	"corvek/core/explain"
	"corvek/internal/draw"
)

// StoryView is one way to tell the case, with its strip of time.
type StoryView struct {
	explain.Story
	Names     string
	Strip     template.HTML
	Conflicts []string
}

// stories lays the two likeliest tellings side by side, each with its time strip.
func (l *look) stories() (out []StoryView, decider *explain.Evidence) {
	ages := map[string]string{}
	for code, e := range l.st.Noted {
		ages[code] = e.Age
	}
	events := func(list []explain.Event) (out []draw.StripEvent) {
		for _, e := range list {
			out = append(out, draw.StripEvent{Text: e.Evidence.Text, Answered: e.Answered, Age: e.Age})
		}
		return out
	}
	told, decider := l.st.Stories()
	for _, s := range told {
		t := l.st.Knowledge.Timeline(s, l.st.Findings, ages)
		var names []string
		for _, c := range s.Causes {
			names = append(names, c.Name)
		}
		out = append(out, StoryView{Story: s, Names: strings.Join(names, ", and "), Conflicts: t.Conflicts,
			Strip: template.HTML(draw.TimeStrip(events(t.Sudden), events(t.Hours), events(t.Gradual)))})
	}
	return out, decider
}
