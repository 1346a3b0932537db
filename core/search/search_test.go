package search_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"corvek/core/metrology"
	"corvek/core/search"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type readings = map[string]search.Reading

func out(figure float64, shown string) search.Reading {
	return search.Reading{Verdict: metrology.Out, Off: figure, Told: shown != "", Shown: shown}
}

var bad, good = search.Reading{Verdict: metrology.Out}, search.Reading{Verdict: metrology.In}

func try(n int, steps readings, moves ...search.Move) search.Try {
	return search.Try{Number: n, Steps: steps, Moves: moves}
}

func of(kind search.Kind, part string, off ...string) search.Move {
	return search.Move{Kind: kind, Part: part, Off: off}
}

// pump is a small unit: a cover with its bolts over a cartridge that a pin holds, a relief spring beside them.
func pump(m search.Manner) func(string) []search.Trouble {
	behind := []string{"bolts", "cover"}
	return func(string) []search.Trouble {
		return search.TroublesOf([]search.Suspect{{Part: "bolts", Kind: "bolts"}, {Part: "cover", Kind: "cover"},
			{Part: "pin", Kind: "dowels", Behind: behind}, {Part: "plate", Kind: "plate", Behind: behind},
			{Part: "rotor", Kind: "rotor", Behind: behind}, {Part: "bearing", Kind: "bearing", Behind: behind},
			{Part: "seal", Kind: "lip_seal"}, {Part: "spring", Kind: "spring"}}, m)
	}
}

func says(s *search.Search, try int) (out []search.Says) {
	for _, l := range s.Lines {
		if l.Try == try {
			out = append(out, l.Says)
		}
	}
	return out
}

func share(s *search.Search, step, part string) float64 {
	for _, p := range s.Parts(step) {
		if p.Part == part {
			return p.P
		}
	}
	return 0
}

// A shaft that a slack cover frees: the cover is in the clear, and what it clamps is what binds.
func TestASlackCoverPointsBehindItself(t *testing.T) {
	before := search.Weigh([]search.Try{try(1, readings{"turn": bad})}, pump(search.Binds))
	s := search.Weigh([]search.Try{try(1, readings{"turn": bad}),
		try(2, readings{"turn": good}, of(search.Loosen, "cover"))}, pump(search.Binds))
	assert.Equal(t, []search.Says{search.Behind}, says(s, 2))
	assert.Equal(t, []string{"turn"}, s.StillOut(), "the cover is drawn again: nothing was mended")
	assert.Less(t, share(s, "turn", "cover"), share(before, "turn", "cover")/4)
	assert.Less(t, share(s, "turn", "seal"), 0.05)
	assert.Greater(t, share(s, "turn", "pin"), share(before, "turn", "pin"))
	assert.Greater(t, share(s, "turn", "bearing"), share(before, "turn", "bearing"))

	s = search.Weigh([]search.Try{try(1, readings{"turn": bad}),
		try(2, readings{"turn": bad}, of(search.Loosen, "cover"))}, pump(search.Binds))
	assert.Equal(t, []search.Says{search.NotBehind}, says(s, 2))
	assert.Less(t, share(s, "turn", "pin"), 2*share(before, "turn", "pin")/3, "alone it is not")
	assert.Greater(t, share(s, "turn", "cover"), share(before, "turn", "cover"))
}

// A pin seated takes 16 N·m to 9: it is a part of the truth, and something else is left. Three troubles in a row are
// worked from stiff to good.
func TestThreeFaultsInARow(t *testing.T) {
	tries := []search.Try{
		try(1, readings{"turn": out(16, "16 N·m"), "relief": bad}),
		try(2, readings{"turn": good, "relief": bad}, of(search.Loosen, "cover")),
		try(3, readings{"turn": out(9, "9 N·m"), "relief": bad}, of(search.Refit, "pin", "cover", "bolts")),
		try(4, readings{"turn": good, "relief": bad}, of(search.Swap, "bearing", "cover", "bolts")),
		try(5, readings{"turn": good, "relief": good}, of(search.Swap, "spring")),
	}
	manner := func(step string) []search.Trouble {
		if step == "relief" {
			return pump(search.Sets)(step)
		}
		return pump(search.Binds)(step)
	}
	s := search.Weigh(tries[:3], manner)
	assert.Equal(
		t,
		[]search.Says{search.Open, search.Partly},
		says(s, 3),
		"the relief's pin says nothing, the shaft's does",
	)
	assert.Contains(t, s.Lines, search.Line{Try: 3, Step: "turn", Parts: []string{"pin"}, Says: search.Partly,
		Shown: "16 N·m to 9 N·m"})
	assert.Less(t, share(s, "turn", "pin"), 0.2, "what it bore is cured")
	assert.Equal(t, "bearing", s.Parts("turn")[0].Part)
	s = search.Weigh(tries, manner)
	assert.Contains(t, s.Lines, search.Line{Try: 4, Step: "turn", Parts: []string{"bearing"}, Says: search.Blamed})
	assert.Contains(
		t,
		s.Lines,
		search.Line{Try: 4, Step: "relief", Parts: []string{"bearing"}, Says: search.Acquitted},
	)
	assert.Contains(t, s.Lines, search.Line{Try: 5, Step: "relief", Parts: []string{"spring"}, Says: search.Blamed})
	assert.Empty(t, s.StillOut())
}

func TestWhatAnAttemptTells(t *testing.T) {
	for _, c := range []struct {
		name    string
		was, is search.Reading
		moves   []search.Move
		says    []search.Says
	}{
		{"swapped, and right", bad, good, []search.Move{of(search.Swap, "plate")}, []search.Says{search.Blamed}},
		{"two at once that help", bad, good, []search.Move{of(search.Swap, "plate"), of(search.Renew, "seal")},
			[]search.Says{search.OneOf}},
		{"one of two only looked at", bad, good, []search.Move{of(search.Swap, "plate"), of(search.Inspect, "seal")},
			[]search.Says{search.Blamed}},
		{"looked at, and right", bad, good, []search.Move{of(search.Inspect, "plate")}, []search.Says{search.ByItself}},
		{"run again, and right", bad, good, []search.Move{of(search.Nothing, "")}, []search.Says{search.ByItself}},
		{"told in words alone", bad, good, []search.Move{of("", "")}, []search.Says{search.Blamed}},
		{"bled, which is of no part", bad, good, []search.Move{of(search.Clean, "")}, []search.Says{search.Blamed}},
		{"swapped, and as bad", bad, bad, []search.Move{of(search.Swap, "plate")}, []search.Says{search.Acquitted}},
		{"inspected is not acquitted", bad, bad, []search.Move{of(search.Inspect, "plate")},
			[]search.Says{search.Open}},
		{"washed is not", bad, bad, []search.Move{of(search.Clean, "plate")}, []search.Says{search.Open}},
		{"fitted again is not: it may be the piece itself", bad, bad, []search.Move{of(search.Refit, "bearing")},
			[]search.Says{search.Open}},
		{"the relief raised hides it", bad, good, []search.Move{of(search.Mask, "")}, []search.Says{search.Masked}},
		{"raised beside a swap it hides whether the swap did it", bad, good,
			[]search.Move{of(search.Swap, "plate"), of(search.Mask, "")}, []search.Says{search.Masked}},
		{"it went wrong by the change", good, bad, []search.Move{of(search.Renew, "seal")},
			[]search.Says{search.Broken}},
		{"not done again", bad, search.Reading{}, []search.Move{of(search.Swap, "plate")},
			[]search.Says{search.Untold}},
		{"a gauge could not tell", bad, search.Reading{Verdict: metrology.Undecided},
			[]search.Move{of(search.Swap, "plate")}, []search.Says{search.Untold}},
		{"worse by figures", out(4, "4 N·m"), out(9, "9 N·m"), []search.Move{of(search.Refit, "pin")},
			[]search.Says{search.Broken}},
		{"a tenth less is not better", out(10, "10 N·m"), out(9, "9 N·m"), []search.Move{of(search.Swap, "plate")},
			[]search.Says{search.Acquitted}},
		{"good stays good", good, good, []search.Move{of(search.Swap, "plate")}, nil},
	} {
		s := search.Weigh([]search.Try{try(1, readings{"turn": c.was}), try(2, readings{"turn": c.is}, c.moves...)},
			pump(search.Binds))
		assert.Equal(t, c.says, says(s, 2), c.name)
	}
}

// What hides a fault cures none: the trouble is as likely as before, and the step is out as the unit is.
func TestHiddenIsNotFound(t *testing.T) {
	s := search.Weigh([]search.Try{try(1, readings{"p": bad}),
		try(2, readings{"p": good}, of(search.Mask, ""))}, pump(search.Leaks))
	assert.Equal(t, []string{"p"}, s.StillOut())
	assert.Equal(t, "plate", s.Parts("p")[0].Part)
	sum := 0.0
	for _, p := range s.Parts("p") {
		sum += p.P
	}
	assert.Greater(t, sum, 0.9)
}

// A fault that came with a change lies in what was changed, or in what came off for it, sooner than elsewhere.
func TestANewFaultIsNotAlwaysTheChangedParts(t *testing.T) {
	s := search.Weigh([]search.Try{try(1, readings{"turn": good}),
		try(2, readings{"turn": bad}, of(search.Renew, "seal", "plate"))}, pump(search.Binds))
	assert.Equal(t, []search.Line{{Try: 2, Step: "turn", Parts: []string{"seal"}, Says: search.Broken,
		Off: []string{"plate"}}}, s.Lines)
	parts := s.Parts("turn")
	assert.Equal(t, "seal", parts[0].Part)
	assert.Equal(t, "plate", parts[1].Part)
	assert.Greater(t, parts[1].P, 0.15)
}

// What was changed counts also where the step was not read after it: a plate swapped while only the relief was
// looked at is hardly to blame when the step is read again and is out.
func TestAChangeCountsWhereItsStepWasNotRead(t *testing.T) {
	first := try(1, readings{"p": bad})
	before := search.Weigh([]search.Try{first}, pump(search.Leaks))
	unread := []search.Try{first, try(2, readings{}, of(search.Swap, "plate")), try(3, readings{"p": bad})}
	read := []search.Try{first, try(2, readings{"p": bad}, of(search.Swap, "plate"))}
	after := share(search.Weigh(unread, pump(search.Leaks)), "p", "plate")
	assert.Less(t, after, share(before, "p", "plate")/2)
	assert.InDelta(
		t,
		share(search.Weigh(read, pump(search.Leaks)), "p", "plate"),
		after,
		0.02,
		"read or not, it is the same",
	)
}

// Where it is as likely in each of four parts and a slack cover tells two from two, that is worth more than to swap
// one of them, and it costs less; what the outcomes would leave is what they leave when they come.
func TestTheAdviceSplitsBest(t *testing.T) {
	tries := []search.Try{try(1, readings{"turn": bad})}
	s := search.Weigh(tries, pump(search.Binds))
	all := []search.Candidate{}
	for _, p := range []string{"bolts", "cover", "pin", "plate", "rotor", "bearing", "seal", "spring"} {
		all = append(all, search.Candidate{Move: of(search.Swap, p), Minutes: 40},
			search.Candidate{Move: of(search.Refit, p), Minutes: 30})
	}
	all = append(all, search.Candidate{Move: of(search.Loosen, "cover"), Minutes: 15})
	a, ok := s.Advise("turn", all)
	require.True(t, ok)
	assert.Equal(t, of(search.Loosen, "cover"), a.Move)
	for _, o := range []search.Outcome{search.Right, search.Same} {
		r := good
		if o == search.Same {
			r = bad
		}
		then := search.Weigh(append(slices.Clone(tries), try(2, readings{"turn": r}, a.Move)), pump(search.Binds))
		lead := then.Parts("turn")[0]
		assert.Equal(t, lead.Part, a.After[o].Part, o)
		assert.InDelta(t, lead.P, a.After[o].P, 0.05, o)
	}
	_, ok = s.Advise("turn", []search.Candidate{{Move: of(search.Nothing, ""), Minutes: 10}})
	assert.False(t, ok, "nothing changed tells nothing")
	_, ok = s.Advise("relief", all)
	assert.False(t, ok, "it is not out")
}

// A second way to the same shares: a hundred thousand units with troubles drawn by their weights are changed and
// read as the model says, and those are counted that read as this one did.
func TestSharesAgreeWithCountedUnits(t *testing.T) {
	troubles := []search.Trouble{{Part: "a", Way: search.Fault, Weight: 3}, {Part: "b", Way: search.Seat, Weight: 2,
		Behind: []string{"j"}}, {Part: "c", Way: search.Dirt, Weight: 1}, {Way: search.Fault, Weight: 1}}
	s := search.Weigh([]search.Try{try(1, readings{"p": bad}), try(2, readings{"p": bad}, of(search.Swap, "a")),
		try(3, readings{"p": good}, of(search.Loosen, "j"))}, func(string) []search.Trouble { return troubles })
	r := rand.New(rand.NewPCG(7, 11))
	pick := func() int {
		at := r.Float64() * 7
		for i, w := range troubles {
			if at -= w.Weight; at < 0 {
				return i
			}
		}
		return 3
	}
	counted, kept := [4]float64{}, 0.0
	for range 400_000 {
		has := map[int]bool{pick(): true}
		if r.Float64() < 0.2 { // two of them, by the product of their weights
			has = map[int]bool{}
			for len(has) != 2 {
				has = map[int]bool{pick(): true, pick(): true}
			}
		}
		if has[0] && r.Float64() < 0.95 {
			delete(has, 0)
		}
		if r.Float64() < map[bool]float64{true: 0.94, false: 0.02}[len(has) == 0] {
			continue // the second reading was out
		}
		shows := 0
		for i := range has {
			if i != 1 || r.Float64() >= 0.9 {
				shows++
			}
		}
		if r.Float64() >= map[bool]float64{true: 0.94, false: 0.02}[shows == 0] {
			continue // the third was right
		}
		kept++
		for i := range has {
			counted[i]++
		}
	}
	require.Greater(t, kept, 5000.0)
	for i, tr := range troubles {
		assert.InDelta(t, counted[i]/kept, share(s, "p", tr.Part), 0.03, "%d", i)
	}
}
