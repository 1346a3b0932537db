// Package bench is the worked-out state of one unit: what the parts are as they were found,
// what is done with each, what leaks, what the tests showed, which cause explains it, and what
// is still open.
//
// It is built in stages, each a type that holds the one before and sees nothing of those to
// come: Given, Stripped, Rated, Decided, Supplied, Modelled, Tested, Weighed, Inferred, State.
// No stage is changed once the next has it. All of it follows from the Basis alone: nothing is
// read or written, and there is no clock. A State may be read by many at once; nobody writes to
// it, nor through it to the unit.
package bench

import (
	"fmt"

	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/shop"
	"corvek/core/unit"
)

// Basis is everything that a unit's state rests on.
type Basis struct {
	Job       *unit.Job
	Number    int // of the unit, counted from 1
	Catalog   *Catalog
	Knowledge explain.Base
	Day       unit.Date
	Memo      *Memo // of what was inferred before; nil for none
	// Said is what was worked out when it was handed over, by which it is spoken of; nil where it
	// was not, or is worked out anew
	Said Outcome
}

// Catalog is what a shop keeps beside its jobs, as it stands at one time.
type Catalog struct {
	Version   int64                             // steps when anything of it changes
	Families  func(u *unit.Unit) *family.Family // as it is for one unit; nil where there is none
	Plain     family.Library
	Tools     shop.Instruments
	Head      shop.Letterhead
	Lessons   []shop.Lesson             // of jobs that were handed over
	Concluded map[string]map[string]int // how often each cause was concluded, by family and code
}

// Of works the state of a unit out. It fails where the job has no such unit, or the catalog no
// family for it.
func Of(b Basis) (*State, error) {
	g, err := given(b)
	if err != nil {
		return nil, err
	}
	return stopped(inferred(weighed(tested(modelled(supplied(decided(rated(stripped(g))))))))), nil
}

// Given is the unit, and what is known of it before it is looked at.
type Given struct {
	Shop   shop.Letterhead // at the head of the papers
	Job    *unit.Job
	Unit   *unit.Unit
	Family *family.Family // as it is for this unit
	Plain  *family.Family // as it is for most
	// Families gives the family of any unit, as it is for that one.
	Families func(u *unit.Unit) *family.Family
	Known    *explain.Knowledge // of its family
	Round    int                // at work
	Tools    shop.Instruments
	Sizes    measure.Sizes // of the unit
	Today    unit.Date
	On       Version

	learned   *explain.Knowledge // Known, with how often each cause was met
	concluded map[string]int
	memo      *Memo
	stands    map[string]string // what figures of its test rest on, now
	said      Outcome           // when it was handed over
	lessons   []shop.Lesson     // that earlier jobs left for this variant
}

// Version tells one state of a unit from another of the same store.
type Version struct {
	Tag       string
	Unit      int
	Job, Shop int64
	Day       unit.Date
}

func given(b Basis) (*Given, error) {
	u := b.Job.Unit(b.Number)
	if u == nil {
		return nil, fmt.Errorf("job %s has no unit %d", b.Job.Tag, b.Number)
	}
	c := b.Catalog
	f := c.Families(u)
	if f == nil {
		return nil, fmt.Errorf("the family %q of unit %s is not in the library", u.Family, u.Name)
	}
	known := b.Knowledge.For(f.Code)
	return &Given{
		Shop:     c.Head,
		Job:      b.Job,
		Unit:     u,
		Family:   f,
		Plain:    c.Plain[u.Family],
		Families: c.Families,
		Known:    known,
		Round:    u.Round(),
		Tools:    c.Tools,
		Sizes:    measure.SizesOf(u),
		Today:    b.Day,
		On:       Version{b.Job.Tag, b.Number, b.Job.Version, c.Version, b.Day},
		learned: known.WithCounts(
			c.Concluded[f.Code],
		),
		concluded: c.Concluded[f.Code],
		memo:      b.Memo,
		said:      b.Said,
		stands:    standing(b.Job, u),
		lessons:   shop.Of(c.Lessons, b.Job.Tag, u),
	}, nil
}

// standing is the ground of a unit's test, nothing where it was not tested.
func standing(j *unit.Job, u *unit.Unit) map[string]string {
	if len(u.Attempts) == 0 {
		return nil
	}
	return entry.Ground(j, u)
}
