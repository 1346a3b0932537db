// Package workshop is the shop behind the bench: who is there when and can do what, its places, the days on which
// it is closed; and what of it the planner is given, with all that the jobs in hand still need.
package workshop

import (
	"slices"
	"strings"
	"time"

	"corvek/core/plan"
	"corvek/core/quantity"
	"corvek/core/remaining"
	"corvek/core/shop"
	"corvek/core/unit"
)

// Workshop is the shop as it is set up.
type Workshop struct {
	Hands    []Hands
	Absences []Absence
	Closed   []ClosedDay
	Places   []Place
	Sites    []string // shops of one owner, where there are several
}

// Hands are what a person can do, and when he is there. The hours are kept as they were typed.
type Hands struct {
	PersonID uint     `gorm:"primaryKey"`
	Name     string   `gorm:"-"`
	Skills   []string `gorm:"serializer:words"`
	Hours    string
	Site     string // where he works, "" for anywhere
}

// Can reports that the person has a skill.
func (h *Hands) Can(s remaining.Skill) bool { return slices.Contains(h.Skills, string(s)) }

// Absence is when a person is not there, whole days.
type Absence struct {
	ID       uint
	PersonID uint
	From     unit.Date `gorm:"column:from_day;serializer:day"`
	To       unit.Date `gorm:"column:to_day;serializer:day"`
	Note     string
}

// ClosedDay is a day on which nobody works.
type ClosedDay struct {
	Day  unit.Date `gorm:"primaryKey;serializer:day"`
	Name string
}

// Place is a bench, a wash, a press, an oven or a stand. What a stand reaches is kept as typed; left empty, it is not
// known, and nobody is told that it is too little.
type Place struct {
	ID       uint
	Name     string
	Site     string            // where it is, "" where there is one shop
	Kind     string            // one of remaining.Places
	Hours    string            // "" at any hour
	Pressure quantity.Quantity `gorm:"serializer:pressure"`
	Flow     quantity.Quantity `gorm:"serializer:flow"`
	Torque   quantity.Quantity `gorm:"serializer:torque"`
}

// Reaches reports that a stand can show what is needed, as far as both are known.
func (p *Place) Reaches(n remaining.Need) bool {
	enough := func(has quantity.Quantity, need float64) bool {
		si, known := has.Known()
		return !known || need <= si*(1+1e-9)
	}
	return enough(p.Pressure, n.Pressure) && enough(p.Flow, n.Flow) && enough(p.Torque, n.Torque)
}

// Reach says in words what a stand reaches, "" where nothing is said of it.
func (p *Place) Reach() string {
	var words []string
	for _, q := range []quantity.Quantity{p.Pressure, p.Flow, p.Torque} {
		if q.Typed != "" {
			words = append(words, q.Typed)
		}
	}
	return strings.Join(words, ", ")
}

// In reports that a resource of the planner, by its number, works in one of several shops, "" for all.
func (w *Workshop) In(resource int, site string) bool {
	if resource < len(w.Hands) {
		return shop.Same(w.Hands[resource].Site, site)
	}
	return shop.Same(w.Places[resource-len(w.Hands)].Site, site)
}

// horizon is how many days ahead hours are laid out: longer than any shop plans.
const horizon = 3 * 366

// calendars lays the hours of the shop out from a day on.
type calendars struct {
	first  time.Time
	closed map[unit.Date]bool
}

func (w *Workshop) calendars(first time.Time) *calendars {
	c := &calendars{first: first, closed: map[unit.Date]bool{}}
	for _, d := range w.Closed {
		c.closed[d.Day] = true
	}
	return c
}

// of is the calendar of hours with days that are out of it. Hours that cannot be read are no hours; the page that
// takes them lets none in.
func (c *calendars) of(hours string, out func(day unit.Date) bool) *plan.Calendar {
	week, err := ParseHours(hours)
	if err != nil {
		return plan.Hours(nil)
	}
	var spans []plan.Span
	for d := range horizon {
		day := c.first.AddDate(0, 0, d)
		date := unit.DateOf(day)
		if c.closed[date] || out(date) {
			continue
		}
		for _, s := range week[(int(day.Weekday())+6)%7] {
			spans = append(spans, plan.Span{From: d*minutesOfDay + s.From, To: d*minutesOfDay + s.To})
		}
	}
	return plan.Hours(spans)
}

const minutesOfDay = 24 * 60

// away reports the days on which a person is not there.
func (w *Workshop) away(person uint) func(day unit.Date) bool {
	var own []Absence
	for _, a := range w.Absences {
		if a.PersonID == person {
			own = append(own, a)
		}
	}
	return func(day unit.Date) bool {
		return slices.ContainsFunc(own, func(a Absence) bool { return a.From <= day && day <= a.To })
	}
}
