package plan

import "math"

// Of a minute of hands, how many pass on the clock as a rule: a day has eight hours of work, and a week five days.
const clockOfHands = 24.0 / 8 * 7 / 5

// inFourOfFive is how many spreads above the middle a figure lies that holds in 80 of 100 (normal distribution).
const inFourOfFive = 0.8416

// SafeOf is how long before its day a job is to be done, so that the day holds in about 80 of 100: by the spreads of
// its own tasks, which are taken to be independent and to follow each other, and by what a failed test costs on the
// mean. The queue behind others is not in it.
func SafeOf(p *Problem, job int, spreads []Spread) Minute {
	square, again, whole := 0.0, 0.0, 0.0
	for i := range p.Tasks {
		t, s := &p.Tasks[i], spreads[i]
		if t.Job != job {
			continue
		}
		clock := 1.0
		if len(t.Needs) > 0 {
			clock = clockOfHands
		}
		work := float64(t.Work) * clock
		square += work * s.Sigma * work * s.Sigma
		whole += work * s.Whole
		again += s.Again * float64(s.Redo+t.Work) * clock
	}
	return int(math.Ceil(inFourOfFive*math.Sqrt(square+whole*whole) + again))
}
