package explain

import (
	"math"
	"slices"
)

// silent stands for a cause that says nothing of a mark.
const silent = -1

// oneOf is a look that shows one of several marks, or none of them. Causes that say the
// same of all of them are alike to it, so that what a pair of causes would show is worked
// out once for each two ways of speaking.
type oneOf struct {
	marks []*Evidence
	ways  [][]float64 // how often each mark is there, silent where it is not spoken of
	way   []int       // by cause
	shown []*outcomes // by two ways, see at
}

// outcomes is how likely each mark is the one that shows, and none, with their entropy.
type outcomes struct {
	p       []float64
	entropy float64
}

func (k *Knowledge) oneOf(group []*Evidence) *oneOf {
	o := &oneOf{marks: group, way: make([]int, len(k.Causes))}
	for i := range k.Causes {
		speaks := make([]float64, len(group))
		for j, e := range group {
			speaks[j] = silent
			if w, says := k.Causes[i].Points[e.Code]; says {
				speaks[j] = w.P()
			}
		}
		at := slices.IndexFunc(o.ways, func(x []float64) bool { return slices.Equal(x, speaks) })
		if at < 0 {
			at = len(o.ways)
			o.ways = append(o.ways, speaks)
		}
		o.way[i] = at
	}
	o.shown = make([]*outcomes, len(o.ways)*(len(o.ways)+1))
	return o
}

// at is the place of two ways of speaking, the second −1 where there is one cause. Either
// way round they show the same.
func (o *oneOf) at(a, b int) int {
	if b > a {
		a, b = b, a
	}
	return a*(len(o.ways)+1) + b + 1
}

// gain is the mutual information between the hypotheses and what shows.
func (o *oneOf) gain(c caseState) float64 {
	mass := make([]float64, len(o.shown))
	for i, h := range c.hs {
		b := -1
		if h.b >= 0 {
			b = o.way[h.b]
		}
		mass[o.at(o.way[h.a], b)] += c.p[i]
	}
	all, given := make([]float64, len(o.marks)+1), 0.0
	for at, p := range mass {
		if p == 0 {
			continue
		}
		x := o.shows(at)
		for j := range all {
			all[j] += p * x.p[j]
		}
		given += p * x.entropy
	}
	return math.Max(0, entropy(all)-given)
}

// shows is what a look shows at the place of two ways of speaking.
func (o *oneOf) shows(at int) *outcomes {
	if o.shown[at] != nil {
		return o.shown[at]
	}
	one, other := o.ways[at/(len(o.ways)+1)], at%(len(o.ways)+1)-1
	x := &outcomes{p: make([]float64, len(o.marks)+1)}
	none, sum := 1.0, 0.0
	for j, e := range o.marks {
		a, b := one[j], float64(silent)
		if other >= 0 {
			b = o.ways[other][j]
		}
		rate := e.Background.P()
		switch {
		case a >= 0 && b >= 0:
			rate = noisyOr(a, b)
		case a >= 0:
			rate = a
		case b >= 0:
			rate = b
		}
		x.p[j] = e.likelihood(rate, Seen) // the eye may slip
		none *= 1 - x.p[j]
		sum += x.p[j]
	}
	x.p[len(o.marks)] = none
	for j := range x.p {
		x.p[j] /= sum + none
	}
	x.entropy = entropy(x.p)
	o.shown[at] = x
	return x
}
