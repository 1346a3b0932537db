package bench

import (
	"errors"
	"fmt"
	"time"

	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/shop"
	"corvek/core/unit"
)

// FrozenForm steps when what is frozen is written in another way.
const FrozenForm = 1

// Frozen is what the units of a job rested on when it was handed over, and what was worked out
// of them then. Whatever is learned or changed later, they are shown by this.
type Frozen struct {
	Form  int              `json:"form"`
	Day   unit.Date        `json:"day"` // on which it was worked out
	At    time.Time        `json:"at"`
	Later bool             `json:"later,omitempty"` // after the hand-over, by what was known then
	Head  shop.Letterhead  `json:"head"`
	Tools shop.Instruments `json:"tools"`
	Units []FrozenUnit     `json:"units"`
}

// FrozenUnit is one unit of it.
type FrozenUnit struct {
	Number    int                `json:"number"`
	Family    *family.Family     `json:"family"`          // as it is for this unit
	Plain     *family.Family     `json:"plain,omitempty"` // as it is for most, where that is another
	Known     *explain.Knowledge `json:"known"`
	Concluded map[string]int     `json:"concluded,omitempty"` // how often each cause was
	Lessons   []shop.Lesson      `json:"lessons,omitempty"`
	Outcome   Outcome            `json:"outcome"`
}

// Freeze keeps what all units of a job rest on, and what they come to.
func Freeze(states []*State, at time.Time, later bool) *Frozen {
	first := states[0]
	f := &Frozen{Form: FrozenForm, Day: first.Today, At: at, Later: later, Head: first.Shop, Tools: first.Tools}
	for _, st := range states {
		u := FrozenUnit{Number: st.Unit.Number, Family: st.Family, Known: st.Known, Concluded: st.concluded,
			Lessons: st.lessons, Outcome: st.Outcome()}
		if st.Plain != st.Family {
			u.Plain = st.Plain
		}
		f.Units = append(f.Units, u)
	}
	return f
}

// ErrFrozenForm says that what is frozen was written by a later version of the program.
var ErrFrozenForm = errors.New("what was worked out at the hand-over was kept by a later version of the program")

// Unit finds what is frozen of a unit, nil where there is nothing.
func (f *Frozen) Unit(number int) *FrozenUnit {
	for i := range f.Units {
		if f.Units[i].Number == number {
			return &f.Units[i]
		}
	}
	return nil
}

// Basis is what a unit of the job rests on as it was then.
func (f *Frozen) Basis(j *unit.Job, number int) (b Basis, err error) {
	own := f.Unit(number)
	switch {
	case f.Form != FrozenForm:
		return b, ErrFrozenForm
	case own == nil:
		return b, fmt.Errorf("nothing is frozen of unit %d of %s", number, j.Tag)
	}
	plain := own.Plain
	if plain == nil {
		plain = own.Family
	}
	c := &Catalog{Tools: f.Tools, Head: f.Head, Lessons: own.Lessons, Plain: family.Library{own.Family.Code: plain},
		Concluded: map[string]map[string]int{own.Family.Code: own.Concluded},
		Families: func(u *unit.Unit) *family.Family {
			if x := f.Unit(u.Number); x != nil {
				return x.Family
			}
			return nil
		}}
	return Basis{
		Job:       j,
		Number:    number,
		Catalog:   c,
		Knowledge: explain.Base{own.Family.Code: own.Known},
		Day:       f.Day,
		Said:      own.Outcome,
	}, nil
}
