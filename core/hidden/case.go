// Package hidden makes failed units for practice. What is wrong with one is drawn by chance from what is known of its
// family, and its true state is laid out on a job of its own in which every field that can be asked of the unit has its
// answer: what the caller says, what is counted, seen, measured and run. What a look shows is read off that job, and
// what it comes to is worked out by core/bench and core/explain, as of any other unit.
package hidden

import (
	"errors"
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"slices"
	"strings"
	"sync"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/invented"
	"corvek/core/unit"
)

// Kind is how a case is made hard.
type Kind struct{ Code, Name, What string }

// The kinds of case, in the order in which they are learned.
const (
	Own     = "own"     // one trouble, and nothing but its own signs
	Astray  = "astray"  // one trouble, with signs beside it that say nothing
	Away    = "away"    // the trouble lies away from the unit
	Earlier = "earlier" // it was brought in by those who had it open before
	Two     = "two"     // two troubles met
)

// Kinds are they.
var Kinds = []Kind{
	{Own, "One trouble", "One trouble that shows nothing but its own signs."},
	{Astray, "With signs beside it", "One trouble, and signs beside it that have nothing to do with it."},
	{Away, "Away from the unit", "The unit suffers from something at its machine. What is mended here will not last."},
	{Earlier, "After an earlier repair", "Somebody had it open before, and it has not been the same since."},
	{Two, "Two troubles", "Two troubles met. One is found soon, and hides the other."},
}

// KindByCode finds one.
func KindByCode(code string) (Kind, bool) {
	at := slices.IndexFunc(Kinds, func(k Kind) bool { return k.Code == code })
	if at < 0 {
		return Kind{}, false
	}
	return Kinds[at], true
}

// Shop is what cases are made with: families, what is known of them, and the day.
type Shop struct {
	Catalog   *bench.Catalog
	Knowledge explain.Base
	Entry     *entry.Shop
	Day       unit.Date

	kept sync.Map // units as they came and sound ones, by family; nobody writes to them
}

// once gives what was made of a family before, or makes it.
func (s *Shop) once(key string, make func() (*unit.Job, error)) (*unit.Job, error) {
	if j, is := s.kept.Load(key); is {
		return j.(*unit.Job).Clone(), nil
	}
	j, err := make()
	if err == nil {
		s.kept.Store(key, j.Clone())
	}
	return j, err
}

// Case is a failed unit with what only the bench of practice knows of it.
type Case struct {
	Seed   uint64
	Kind   string
	Causes []string  // codes of the root causes
	True   *unit.Job // its one unit as it truly is
}

// Complaint is what was said when the unit was sent in.
func (c *Case) Complaint() string {
	var words []string
	for _, s := range family.Symptoms {
		if slices.Contains(c.True.Symptoms, s.Code) {
			words = append(words, s.Text)
		}
	}
	return strings.Join(words, ". ") + "."
}

// ErrNone says that a family knows no trouble of a kind that could be found.
var ErrNone = errors.New("no such case of this family")

// mostTries keeps a draw to an end: one whose signs happen to tell too little is drawn again.
const mostTries = 60

// Draw makes a case. The same seed gives the same one, as long as what is known is the same. Each can be solved: who
// looks at what tells most for its minutes comes to name what is wrong.
func Draw(s *Shop, of, kind string, seed uint64) (*Case, error) {
	if _, known := KindByCode(kind); !known {
		return nil, fmt.Errorf("%q is no kind of case", kind)
	}
	sound, err := s.Sound(of)
	if err != nil {
		return nil, err
	}
	st, err := s.state(sound)
	if err != nil {
		return nil, err
	}
	r := chance(seed, of, kind)
	for range mostTries {
		d := draw{r: r, shop: s, st: st, k: st.Knowledge, kind: kind}
		if !d.causes() {
			return nil, ErrNone
		}
		d.marks()
		c := &Case{Seed: seed, Kind: kind, True: sound.Clone()}
		for _, cause := range d.roots {
			c.Causes = append(c.Causes, cause.Code)
		}
		if err := d.lay(c.True); err != nil {
			return nil, err
		}
		best, err := s.Best(c)
		if err != nil {
			return nil, err
		}
		if best.Named {
			return c, nil
		}
	}
	return nil, ErrNone
}

// chance is the same for the same case.
func chance(seed uint64, words ...string) *rand.Rand {
	sum := fnv.New64a()
	for _, w := range words {
		fmt.Fprintln(sum, w)
	}
	return rand.New(rand.NewPCG(seed, sum.Sum64()))
}

// state works a unit out as it truly is.
func (s *Shop) state(j *unit.Job) (*bench.State, error) {
	return bench.Of(bench.Basis{Job: j, Number: 1, Catalog: s.Catalog, Knowledge: s.Knowledge, Day: s.Day})
}

// SoundState is a sound unit of a family, worked out.
func (s *Shop) SoundState(of string) (*bench.State, error) {
	j, err := s.Sound(of)
	if err != nil {
		return nil, err
	}
	return s.state(j)
}

// Truth is a unit of practice as it truly is, worked out.
type Truth struct {
	Shop *Shop
	Case *Case
	True *bench.State // when it came

	tells map[unit.Ref][]*explain.Evidence // the marks of which a place tells
}

// Truth works a case out.
func (s *Shop) Truth(c *Case) (*Truth, error) {
	st, err := s.state(c.True)
	if err != nil {
		return nil, err
	}
	return &Truth{Shop: s, Case: c, True: st, tells: telling(st)}, nil
}

// Received is a job with one unit of a family as it lies there when it came: what stands on its plate and in its papers
// is known, and nothing of it was looked at.
func (s *Shop) Received(of string) (*unit.Job, error) {
	return s.once("came "+of, func() (*unit.Job, error) { return s.receive(of) })
}

func (s *Shop) receive(of string) (*unit.Job, error) {
	f := s.Catalog.Plain[of]
	if f == nil {
		return nil, fmt.Errorf("no family %q is known", of)
	}
	j := &unit.Job{Tag: "P-0000", Policy: "on_condition", Version: 1, ReceivedOn: s.Day, Waiting: entry.WaitTechnician,
		Customer: unit.Customer{Name: "Practice"}}
	j.Units = []*unit.Unit{unit.New(f, 1, s.Entry.Who, s.Day.Time())}
	st, err := s.state(j)
	if err != nil {
		return nil, err
	}
	if err := s.write(j, invented.Told(st)); err != nil {
		return nil, err
	}
	if st, err = s.state(j); err != nil {
		return nil, err
	}
	return j, s.write(j, invented.Sizes{}.Papers(st))
}

// Sound is such a unit with nothing wrong, taken apart and looked at all over.
func (s *Shop) Sound(of string) (*unit.Job, error) {
	return s.once("sound "+of, func() (*unit.Job, error) { return s.makeSound(of) })
}

func (s *Shop) makeSound(of string) (*unit.Job, error) {
	j, err := s.Received(of)
	if err != nil {
		return nil, err
	}
	for _, p := range j.Unit(1).Parts {
		p.Off, p.Stuck = true, entry.CameFree
	}
	for _, values := range []func(*bench.State) []invented.Value{invented.Sizes{}.Write, invented.Found} {
		st, err := s.state(j)
		if err != nil {
			return nil, err
		}
		if err := s.write(j, values(st)); err != nil {
			return nil, err
		}
	}
	return j, nil
}

// write lays values out on a job, checked as anything that is typed.
func (s *Shop) write(j *unit.Job, values []invented.Value) error {
	for _, v := range values {
		if err := s.put(j, v.Ref, v.Text); err != nil {
			return err
		}
	}
	return nil
}

func (s *Shop) put(j *unit.Job, ref unit.Ref, text string) error {
	place, f, err := entry.Resolve(j, ref, s.Entry)
	if err != nil {
		return err
	}
	return place.Write(f, f.With(place, text, ""))
}
