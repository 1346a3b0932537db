package jobpages

import (
	"net/url"
	"strconv"

	"corvek/core/calc"
	"corvek/core/filled"
	"corvek/internal/answer"
)

// ReckonView are the calculators that take their figures from a part, and what was put back on it.
type ReckonView struct {
	Offers []Reckon
	Done   []answer.Worked
}

// reckons is what can be worked out about the part that the page shows; back is the page itself.
func (l *look) reckons(back string) (v ReckonView) {
	if l.part == nil {
		return v
	}
	v.Done = answer.Of(l.job, l.unit.Number, l.part.Code, l.Units)
	if !l.CanWork() || l.job.HandedOver() {
		return v
	}
	for _, s := range filled.Serving(l.st, l.part.Code) {
		d, err := calc.Find(s.Calculator)
		if err != nil {
			continue
		}
		q := url.Values{
			"for":   {l.job.Tag},
			"unit":  {strconv.Itoa(l.unit.Number)},
			"about": {s.About.Code},
			"back":  {back},
		}
		name := d.Title
		if s.About.Name != l.part.Name {
			name += ": " + s.About.Name
		}
		v.Offers = append(v.Offers, Reckon{name, "/toolbox/" + d.Name + "?" + q.Encode()})
	}
	return v
}
