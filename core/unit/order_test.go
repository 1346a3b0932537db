package unit_test

import (
	"fmt"
	"math/rand"
	"testing"
	"time"

	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// worked is a job with two rounds of everything that is kept by round.
func worked() *unit.Job {
	at := func(minute int) time.Time { return time.Date(2031, 5, 14, 9, minute, 0, 0, time.UTC) }
	part := &unit.Part{Code: "rear_plate", Features: []*unit.Feature{{Code: "side_clearance"}}}
	u := &unit.Unit{Number: 1, Rounds: []*unit.Round{{Number: 1}, {Number: 2}}, Parts: []*unit.Part{part}}
	j := &unit.Job{Tag: "T-1", Units: []*unit.Unit{u}}
	for round := 1; round <= 2; round++ {
		part.Decisions = append(part.Decisions, &unit.Decision{Round: round, Choice: "keep"})
		part.Steps = append(part.Steps, &unit.Step{Round: round, By: fmt.Sprintf("by %d", round)})
		u.Conclusions = append(u.Conclusions, &unit.Conclusion{Round: round, Cause: "dirt"})
		for _, code := range []string{"fine_lines", "varnish"} {
			u.Marks = append(u.Marks, &unit.UnitMark{Mark: unit.Mark{Round: round, Code: code, State: unit.MarkSeen}})
		}
		for i, slot := range []string{"leaf:3 thou", "leaf:9 thou"} {
			part.Features[0].Readings = append(part.Features[0].Readings,
				&unit.Reading{Round: round, Stage: "found", Slot: slot, Value: "goes", At: at(10*round + i)})
		}
		a := &unit.Attempt{Number: round, Round: round}
		for _, code := range []string{"p100", "p25"} {
			a.Points = append(a.Points, &unit.Point{Code: code})
		}
		u.Attempts = append(u.Attempts, a)
		j.Waivers = append(j.Waivers, &unit.Waiver{Code: fmt.Sprintf("u1/kit/piece/%d", round), At: at(round)})
		j.Acknowledgements = append(j.Acknowledgements, &unit.Acknowledgement{Caution: "hot_oil", At: at(round)})
	}
	return j
}

func shuffle[T any](r *rand.Rand, rows []T) {
	r.Shuffle(len(rows), func(a, b int) { rows[a], rows[b] = rows[b], rows[a] })
}

// However the rows came out of where they were kept, the job reads the same.
func TestOrderDoesNotDependOnHowItWasKept(t *testing.T) {
	want := worked()
	want.Order()
	rapid.Check(t, func(t *rapid.T) {
		r := rand.New(rand.NewSource(rapid.Int64().Draw(t, "seed")))
		j := worked()
		u := j.Units[0]
		shuffle(r, j.Waivers)
		shuffle(r, j.Acknowledgements)
		shuffle(r, u.Marks)
		shuffle(r, u.Conclusions)
		shuffle(r, u.Attempts)
		for _, a := range u.Attempts {
			shuffle(r, a.Points)
		}
		shuffle(r, u.Parts[0].Decisions)
		shuffle(r, u.Parts[0].Steps)
		shuffle(r, u.Parts[0].Features[0].Readings)
		j.Order()
		assert.Equal(t, want, j)
		j.Order()
		assert.Equal(t, want, j, "ordering twice changes nothing")
	})
}

// What was said last counts, whatever order it was said in.
func TestTheLatestRoundSpeaks(t *testing.T) {
	j := worked()
	u, p := j.Units[0], j.Units[0].Parts[0]
	u.Conclusions[1].Cause = "fair_wear"
	p.Decisions[1].Choice = "replace"
	u.Marks = append(u.Marks, &unit.UnitMark{Mark: unit.Mark{Round: 1, Code: "rust", State: unit.MarkAbsent,
		Origin: unit.OriginBench}})
	assert.Equal(t, 2, u.Round())
	assert.Equal(t, "fair_wear", u.Conclusion().Cause)
	assert.Equal(t, "replace", p.Decision().Choice)
	assert.Equal(t, "by 1", p.Step(1).By)
	assert.Equal(t, unit.OriginBench, u.LastSaid("rust").Origin)
	assert.Equal(t, unit.Mark{Code: "dents", Origin: unit.OriginFound}, u.LastSaid("dents"), "nobody spoke of it")
	assert.Len(t, p.Feature("side_clearance").Newest("found"), 2, "the later round's readings alone")
	for _, r := range p.Feature("side_clearance").Newest("found") {
		assert.Equal(t, 2, r.Round)
	}
}

// What is not there is nil or empty, never a panic.
func TestWhatIsNotThere(t *testing.T) {
	j := worked()
	u, p := j.Units[0], j.Units[0].Parts[0]
	assert.Nil(t, j.Unit(0))
	assert.Nil(t, j.Unit(2))
	assert.Same(t, u, j.Unit(1))
	assert.Nil(t, j.Picture(1))
	assert.Nil(t, j.Waiver("u1/kit/piece/9"))
	assert.NotNil(t, j.Waiver("u1/kit/piece/1"))
	assert.Nil(t, j.Acknowledged("lifting"))
	assert.NotNil(t, j.Acknowledged("hot_oil"))
	assert.False(t, j.HandedOver())
	assert.False(t, j.HasSymptom("noisy"))
	assert.Nil(t, u.Part("wing"))
	assert.Nil(t, u.Attempt(7))
	assert.Nil(t, u.Attempt(1).Point("leak"))
	assert.Nil(t, u.LooseNo(1))
	assert.Nil(t, u.Piece(1))
	assert.Nil(t, p.Feature("colour"))
	assert.Nil(t, p.Step(3))
	assert.Nil(t, (&unit.Part{}).Decision())
	assert.Zero(t, (&unit.Unit{}).Conclusion())
	assert.True(t, u.Attempt(1).Point("p100").Empty())
}

// Numbers are never given twice, also after something was taken out.
func TestNumbersAreNotGivenTwice(t *testing.T) {
	j := worked()
	u := j.Units[0]
	for want := 1; want <= 3; want++ {
		assert.Equal(t, want, u.AddLoose("chip", "sump", 1).Number)
		assert.Equal(t, want, u.AddPiece("K", "ring", 1, "").Number)
		assert.Equal(t, want, u.AddAccount("Mate", "it crept").Number)
		assert.Equal(t, want, j.AddPicture(&unit.Picture{}).Number)
		assert.Equal(t, want, j.AddWorked(&unit.Worked{}).Number)
		assert.Equal(t, want, j.Picture(1).AddMark(&unit.PictureMark{}).Number)
	}
	u.Kit = append(u.Kit[:1], u.Kit[2:]...)
	assert.Equal(t, 4, u.AddPiece("K", "ring", 1, "").Number)
	assert.Equal(t, "ring", u.Piece(4).Name)
}

func TestDates(t *testing.T) {
	for text, ok := range map[string]bool{
		"2031-05-27": true, "2028-02-29": true, "2031-02-29": false, "27.5.2031": false, "": false, "2031-5-27": false,
	} {
		d, got := unit.ParseDate(text)
		assert.Equal(t, ok, got, text)
		assert.Equal(t, ok, d != "", text)
	}
	d := unit.Date("2031-02-27")
	assert.Equal(t, unit.Date("2031-03-01"), d.Add(2))
	assert.Equal(t, d, d.Add(300).Add(-300))
	assert.Equal(t, d, unit.DateOf(d.Time()))
	assert.Equal(t, unit.Date(""), unit.Date("").Add(5))
	assert.True(t, unit.Date("").Time().IsZero())
}
