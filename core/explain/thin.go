package explain

import (
	"math"
	"math/rand/v2"
	"sort"
)

// Thin is how the engine does on cases as they come to a bench: a complaint, one to three of the cause's own marks,
// one or two looks that found nothing, one or two common red herrings, and sometimes a second trouble.
type Thin struct {
	Cases             int
	First, FirstThree float64 // share of cases with a true cause in front, among the first three
	Led               int     // cases in which something led at all
	Dangerous         int     // of them: the unit would be renewed inside, and the cause lies outside
	Minutes           float64 // mean until a true cause stands at four fifths, by the list of next looks
	Reached           float64 // share of cases in which it came so far
	Said, So          [10]float64
	InBin             [10]int
	Off               float64 // mean distance between what was said and what was so, over the tenths
	MarksTop          int     // most findings of a case
}

// enough is the probability at which the search of a trial ends.
const enough = 0.8

// mostLooks bounds the search of one case.
const mostLooks = 12

// Falsified makes a cause leave one of its marks never and another twice as often, so that a trial measures how the
// engine stands knowledge that is a little wrong.
type Falsified bool

// TryThin draws thin cases. Those of falsified knowledge are drawn from it and judged by the shipped one.
func (k *Knowledge) TryThin(cases int, falsified Falsified, seed uint64) Thin {
	r := rand.New(rand.NewPCG(seed, 13))
	t := Thin{Cases: cases}
	minutes, reached := 0.0, 0
	for range cases {
		of := k
		if falsified {
			of = k.falsified(r)
		}
		truth, marks := of.drawThin(r)
		findings := k.thinFindings(r, truth, marks)
		t.MarksTop = max(t.MarksTop, len(findings))
		t.count(k, truth, findings)
		if m, ok := k.minutesTo(truth, marks, findings); ok {
			minutes, reached = minutes+m, reached+1
		}
	}
	t.First, t.FirstThree = t.First/float64(cases), t.FirstThree/float64(cases)
	t.Reached = float64(reached) / float64(cases)
	if reached > 0 {
		t.Minutes = minutes / float64(reached)
	}
	t.calibrate()
	return t
}

// isTrue reports that a cause is one of a hypothesis.
func (k *Knowledge) isTrue(h hypothesis, c *Cause) bool {
	return c.Code == k.Causes[h.a].Code || h.b >= 0 && c.Code == k.Causes[h.b].Code
}

// count takes one case into the trial.
func (t *Thin) count(k *Knowledge, truth hypothesis, findings []Finding) {
	ranking := k.ranked(findings)
	if len(ranking) == 0 {
		return
	}
	for i := range ranking[:min(3, len(ranking))] {
		if k.isTrue(truth, ranking[i].Cause) {
			t.FirstThree++
			if i == 0 {
				t.First++
			}
			break
		}
	}
	if lead, ok := Lead(ranking); ok {
		t.Led++
		inside := lead.Cause.Where == "inside"
		outside := k.Causes[truth.a].Where == "outside" && (truth.b < 0 || k.Causes[truth.b].Where == "outside")
		if inside && outside {
			t.Dangerous++
		}
	}
	for _, c := range ranking {
		bin := min(9, int(c.Posterior*10))
		t.InBin[bin]++
		t.Said[bin] += c.Posterior
		if k.isTrue(truth, c.Cause) {
			t.So[bin]++
		}
	}
}

func (t *Thin) calibrate() {
	all := 0
	for i, n := range t.InBin {
		if n == 0 {
			continue
		}
		t.Said[i] /= float64(n)
		t.So[i] /= float64(n)
		t.Off += math.Abs(t.Said[i]-t.So[i]) * float64(n)
		all += n
	}
	if all > 0 {
		t.Off /= float64(all)
	}
}

// Within is the half-width of the interval, at two standard errors, of the share that was so in a tenth.
func (t *Thin) Within(tenth int) float64 {
	n := float64(t.InBin[tenth])
	if n == 0 {
		return 1
	}
	p := t.So[tenth]
	return 2 * math.Sqrt(math.Max(p*(1-p), 0.25/n)/n)
}

// falsified is the knowledge with one mark of each cause gone and another twice as often.
func (k *Knowledge) falsified(r *rand.Rand) *Knowledge {
	c := *k
	c.Causes = make([]Cause, len(k.Causes))
	copy(c.Causes, k.Causes)
	for i := range c.Causes {
		var own []string
		for code, w := range k.Causes[i].Points {
			if w.P() >= Word("sometimes").P() {
				own = append(own, code)
			}
		}
		sort.Strings(own)
		if len(own) < 2 {
			continue
		}
		r.Shuffle(len(own), func(a, b int) { own[a], own[b] = own[b], own[a] })
		points := make(map[string]Word, len(k.Causes[i].Points))
		for code, w := range k.Causes[i].Points {
			points[code] = w
		}
		points[own[0]] = never
		points[own[1]] = twice(points[own[1]])
		c.Causes[i].Points = points
	}
	return &c
}

// never is the word of a falsified mark that its cause does not leave.
const never Word = "never"

// twice is the next word that is about twice as often.
func twice(w Word) Word {
	switch w {
	case "seldom":
		return "sometimes"
	case "sometimes":
		return "usual"
	}
	return "almost_always"
}

// drawThin draws the root causes and the marks that they leave.
func (k *Knowledge) drawThin(r *rand.Rand) (truth hypothesis, marks map[string]bool) {
	w := k.weights()
	truth = hypothesis{draw(r, w), -1}
	if r.Float64() < secondTrouble {
		// A second trouble that followed from the first, where one is known to.
		for i := range k.Causes {
			for _, leads := range k.Causes[truth.a].Leads {
				if k.Causes[i].Code == leads && i != truth.a {
					truth.b = i
				}
			}
		}
	}
	marks = map[string]bool{}
	for i := range k.Evidence {
		marks[k.Evidence[i].Code] = r.Float64() < k.rate(truth, &k.Evidence[i])
	}
	return truth, marks
}

// secondTrouble is how often a thin case has a second trouble, where one can follow.
const secondTrouble = 0.15

func draw(r *rand.Rand, weights []float64) int {
	sum := 0.0
	for _, w := range weights {
		sum += w
	}
	x := r.Float64() * sum
	for i, w := range weights {
		if x -= w; x < 0 {
			return i
		}
	}
	return len(weights) - 1
}

// thinFindings are the four to six things that a bench knows of a drawn case.
func (k *Knowledge) thinFindings(r *rand.Rand, truth hypothesis, marks map[string]bool) (out []Finding) {
	var complaints, own, absent, herrings []int
	for i := range k.Evidence {
		e := &k.Evidence[i]
		rate, there := k.rate(truth, e), marks[e.Code]
		speaks := k.speaks(truth, e)
		switch {
		case 2*k.spoken(e) > len(k.Causes): // asked of every trouble, and no mark of any
		case e.From.Symptom != "":
			if there {
				complaints = append(complaints, i)
			}
		case there && speaks && rate > e.Background.P():
			own = append(own, i)
		case there && !speaks && e.Background.P() >= Word("seldom").P():
			herrings = append(herrings, i)
		case !there && k.spoken(e) > 0:
			absent = append(absent, i)
		}
	}
	known := map[string]bool{}
	take := func(from []int, n int, strength float64) {
		r.Shuffle(len(from), func(a, b int) { from[a], from[b] = from[b], from[a] })
		for _, i := range from {
			e := &k.Evidence[i]
			q := e.question()
			if n == 0 {
				return
			}
			if known[e.Code] || q != "" && known["?"+q] {
				continue
			}
			known[e.Code], known["?"+q] = true, true
			out = append(out, Finding{e.Code, strength})
			n--
		}
	}
	take(complaints, 1, Seen)
	take(own, 1+r.IntN(3), Seen)
	take(absent, 1+r.IntN(2), Absent)
	take(herrings, 1+r.IntN(2), Seen)
	return out
}

// speaks reports that one of the causes says how often it leaves a mark.
func (k *Knowledge) speaks(h hypothesis, e *Evidence) bool {
	_, a := k.Causes[h.a].Points[e.Code]
	b := false
	if h.b >= 0 {
		_, b = k.Causes[h.b].Points[e.Code]
	}
	return a || b
}

// spoken is of how many causes a mark speaks.
func (k *Knowledge) spoken(e *Evidence) (n int) {
	for i := range k.Causes {
		if _, says := k.Causes[i].Points[e.Code]; says {
			n++
		}
	}
	return n
}

// minutesTo is how long the list of next looks takes until a true cause stands at four fifths; ok is false where it
// does not come so far.
func (k *Knowledge) minutesTo(truth hypothesis, marks map[string]bool, start []Finding) (minutes float64, ok bool) {
	reached := func(s Standing) bool {
		return s.sum[truth.a] >= enough || truth.b >= 0 && s.sum[truth.b] >= enough
	}
	steps := k.Follow(start, nil, drawn(marks), reached, mostLooks)
	return Minutes(steps), reached(k.Standing(Learned(start, steps)))
}
