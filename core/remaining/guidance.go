package remaining

import "time"

// Guidance is how long work takes where a shop has no figures of its own. They are guidance of this product, from
// what a small shop needs for a unit that two hands lift, and a shop's own jobs move them.
type Guidance struct {
	Receive             time.Duration
	StripStart, Strip   time.Duration // on the bench and opened; for each part
	WashStart, Wash     time.Duration
	Soak                time.Duration
	Measure             time.Duration // for each place
	Explain             time.Duration
	Decide              time.Duration // for each part
	Offer               time.Duration
	Word                float64 // days until the customer says
	Order               time.Duration
	Parts               float64 // days until a piece comes that nobody named a day for
	BuildStart, Build   time.Duration
	Tighten             time.Duration // for each part that is tightened to a figure
	Fill                time.Duration
	SetUp, Step         time.Duration // on the stand; for each step beside its hold
	Stays               time.Duration // somebody stays by a hold that is not longer
	Sign, HandOver      time.Duration
	Spread              map[Kind]float64 // of the logarithm of how long it takes
	Fails               float64          // the chance that a first test does not show all
	RedoBench, RedoTest time.Duration    // what a failed test costs: apart and together again, and on the stand
}

// Usual is the guidance that ships.
func Usual() *Guidance {
	return &Guidance{
		Receive:    20 * time.Minute,
		StripStart: 15 * time.Minute, Strip: 4 * time.Minute,
		WashStart: 10 * time.Minute, Wash: 2 * time.Minute,
		Soak:    2 * time.Hour,
		Measure: 4 * time.Minute,
		Explain: 20 * time.Minute,
		Decide:  3 * time.Minute,
		Offer:   20 * time.Minute, Word: 2,
		Order: 20 * time.Minute, Parts: 7,
		BuildStart: 20 * time.Minute, Build: 6 * time.Minute, Tighten: 4 * time.Minute,
		Fill:  20 * time.Minute,
		SetUp: 45 * time.Minute, Step: 8 * time.Minute, Stays: time.Hour,
		Sign: 15 * time.Minute, HandOver: 45 * time.Minute,
		Spread: map[Kind]float64{
			Receive: 0.4, Strip: 0.45, Wash: 0.3, Soak: 0.2, Measure: 0.35, Explain: 0.6, Decide: 0.4, Offer: 0.4,
			Word: 0.8, Order: 0.4, Parts: 0.45, Rework: 0.4, Outside: 0.4, Build: 0.35, Fill: 0.3, SetUp: 0.35,
			Prove: 0.3, Sign: 0.5, HandOver: 0.3,
		},
		Fails: 0.15, RedoBench: 2 * time.Hour, RedoTest: time.Hour,
	}
}

// Skill is what somebody must be able to do for a kind of work.
type Skill string

// The skills. Whoever may do everything has all of them.
const (
	Bench   Skill = "bench"   // strips, washes and builds
	Gauge   Skill = "gauge"   // measures and decides
	Machine Skill = "machine" // laps, hones, presses
	Test    Skill = "test"    // runs a stand
	Lead    Skill = "lead"    // offers, orders and signs
)

// Skills are they, in the order of the work.
var Skills = []Skill{Bench, Gauge, Machine, Test, Lead}

// Needs is the skill for a kind of work; "" where nobody is needed.
func (k Kind) Needs() Skill {
	switch k {
	case Receive, Strip, Wash, Build, Fill, HandOver:
		return Bench
	case Measure, Explain, Decide:
		return Gauge
	case Rework:
		return Machine
	case SetUp, Prove:
		return Test
	case Offer, Order, Sign:
		return Lead
	}
	return ""
}

// Place is a kind of place that work has hold of.
type Place string

// The kinds of place.
const (
	AtBench Place = "bench"
	AtWash  Place = "wash"
	AtPress Place = "press"
	AtOven  Place = "oven"
	AtStand Place = "stand"
)

// Places are they.
var Places = []Place{AtBench, AtWash, AtPress, AtOven, AtStand}

// At is the kind of place that a kind of work has hold of; "" for none in particular.
func (k Kind) At() Place {
	switch k {
	case Wash, Soak:
		return AtWash
	case Strip, Build, Fill:
		return AtBench
	case SetUp, Prove, Hold:
		return AtStand
	}
	return ""
}

// Cut reports that the work can be left at the end of the day and gone on with: a test is not.
func (k Kind) Cut() bool { return k != Prove && k != SetUp && k != Fill }
