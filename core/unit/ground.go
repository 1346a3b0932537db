package unit

import (
	"maps"
	"time"
)

// Ground is what stood when a figure of a test was taken: the values on which it rests, by their
// address. Two figures that were taken on the same share one.
type Ground struct {
	OfUnit `json:"-"`

	Number int               `json:"number,omitempty" gorm:"primaryKey"`
	Stood  map[string]string `json:"stood,omitempty" gorm:"serializer:json"`
}

// Taking is how a figure of a step, what was seen there, or an end of its hold came.
type Taking struct {
	From   string    `json:"from,omitempty"` // one of the Source constants
	By     string    `json:"by,omitempty"`
	At     time.Time `json:"at,omitzero"`
	Ground int       `json:"ground,omitempty"` // number of what stood then, 0 where nobody kept it
}

// Ground finds what stood, by its number; nil where nobody kept it.
func (u *Unit) Ground(number int) *Ground {
	return find(u.Grounds, func(g *Ground) bool { return g.Number == number })
}

// Stands gives the number under which what stands now is kept, and keeps it where it is not the
// newest already.
func (u *Unit) Stands(now map[string]string) int {
	next := 1
	if n := len(u.Grounds); n > 0 {
		last := u.Grounds[n-1]
		if maps.Equal(last.Stood, now) {
			return last.Number
		}
		next = last.Number + 1
	}
	u.Grounds = append(u.Grounds, &Ground{Number: next, Stood: maps.Clone(now)})
	return next
}

// Take notes how something of a step came; what is taken away was not taken at all.
func (p *Point) Take(name string, t Taking, there bool) {
	if !there {
		delete(p.Taken, name)
		return
	}
	if p.Taken == nil {
		p.Taken = map[string]*Taking{}
	}
	p.Taken[name] = &t
}

// Taking is how something of a step came; the zero one where nobody kept it.
func (p *Point) Taking(name string) Taking {
	if t := p.Taken[name]; t != nil {
		return *t
	}
	return Taking{}
}
