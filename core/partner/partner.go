// Package partner is whom a shop waits for: suppliers of pieces, and other shops that work for it, with how many days
// they take as a rule.
package partner

import (
	"math"
	"slices"
	"strings"

	"corvek/core/field"
	"corvek/core/quantity"
)

// Partner is one of them. Days are days of the calendar, from the order or from when a part goes out.
type Partner struct {
	ID    uint
	Name  string
	Works string  // what he does to parts, in words by commas: "hard chrome, grind"; "" of a supplier
	Days  float64 // as a rule: half of them hold it
	Most  float64 // nine of ten hold it; 0 where nobody said
	// Price is of his work on one part, in the shop\'s money; zero: asked each time
	Price quantity.Quantity `gorm:"serializer:number"`
}

// Partners are all of a shop.
type Partners []Partner

// ninth is how many standard deviations of the normal distribution nine of ten lie below.
const ninth = 1.2816

// Sigma is how far his days are spread: the standard deviation of their logarithm, as lead times are; 0 where nobody
// said how long it takes at most.
func (p *Partner) Sigma() float64 {
	if p.Most <= p.Days || p.Days <= 0 {
		return 0
	}
	return math.Log(p.Most/p.Days) / ninth
}

// Supplier is who supplies under a name, nil where he is not known.
func (all Partners) Supplier(name string) *Partner {
	for i := range all {
		if all[i].Works == "" && strings.EqualFold(strings.TrimSpace(name), all[i].Name) {
			return &all[i]
		}
	}
	return nil
}

// Does is the quickest who does a kind of work, as the way of rework is called; nil where none does.
func (all Partners) Does(work string) (best *Partner) {
	work = strings.ToLower(work)
	for i := range all {
		p := &all[i]
		does := slices.ContainsFunc(strings.Split(strings.ToLower(p.Works), ","), func(w string) bool {
			w = strings.TrimSpace(w)
			return w != "" && strings.Contains(work, w)
		})
		if does && (best == nil || p.Days < best.Days) {
			best = p
		}
	}
	return best
}

// Limits of what is kept of one.
const (
	longest  = 100
	mostDays = 730
)

// Check says what is wrong with one as it was typed, nil for nothing.
func (p *Partner) Check() *field.Error {
	p.Name, p.Works = strings.TrimSpace(p.Name), strings.TrimSpace(p.Works)
	switch {
	case p.Name == "" || len(p.Name) > longest:
		return field.Errorf("name", "say who it is, in at most %d letters", longest)
	case len(p.Works) > longest:
		return field.Errorf("works", "is longer than %d letters", longest)
	case !(p.Days > 0) || p.Days > mostDays:
		return field.Errorf("days", "say how many days as a rule, up to %d", mostDays)
	case p.Most != 0 && !(p.Most > p.Days) || p.Most > mostDays:
		return field.Errorf("most", "is more than the usual days, up to %d, or left empty", mostDays)
	}
	return nil
}
