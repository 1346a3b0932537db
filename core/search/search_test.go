package search_test

import (
	"testing"

	"corvek/core/metrology"
	"corvek/core/search"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

type verdicts = map[string]metrology.Verdict

func try(n int, steps verdicts, moves ...search.Move) search.Try {
	return search.Try{Number: n, Steps: steps, Moves: moves}
}

// A pump with three faults: a dead relief, a worn plate and a torn seal. Each attempt finds
// one, and the ledger tells which step came right by it.
func TestThreeFaultsInThreeAttempts(t *testing.T) {
	ledger := search.Ledger([]search.Try{
		try(1, verdicts{"relief": "out", "p100": "out", "leak_watch": "out", "hand_turn": "in"}),
		try(2, verdicts{"relief": "in", "p100": "out", "leak_watch": "out", "hand_turn": "in"},
			search.Move{Kind: search.Swap, Part: "relief_spring"}),
		try(3, verdicts{"relief": "in", "p100": "in", "leak_watch": "out", "hand_turn": "in"},
			search.Move{Kind: search.Renew, Part: "rear_plate"}),
		try(4, verdicts{"relief": "in", "p100": "in", "leak_watch": "in", "hand_turn": "in"},
			search.Move{Kind: search.Renew, Part: "seal_inner"}),
	})
	assert.Equal(t, []search.Line{
		{2, "leak_watch", []string{"relief_spring"}, search.Acquitted},
		{2, "p100", []string{"relief_spring"}, search.Acquitted},
		{2, "relief", []string{"relief_spring"}, search.Blamed},
		{3, "leak_watch", []string{"rear_plate"}, search.Acquitted},
		{3, "p100", []string{"rear_plate"}, search.Blamed},
		{4, "leak_watch", []string{"seal_inner"}, search.Blamed},
	}, ledger)
}

func TestWhatAnAttemptTells(t *testing.T) {
	out, in, a := verdicts{"p100": "out"}, verdicts{"p100": "in"}, []string{"a"}
	for _, c := range []struct {
		name      string
		was, is   verdicts
		moves     []search.Move
		says      search.Says
		parts     []string
		noNothing bool
	}{
		{"two at once that help", out, in, []search.Move{{search.Swap, "a"}, {search.Renew, "b"}}, search.OneOf,
			[]string{"a", "b"}, false},
		{"inspected is not acquitted", out, out, []search.Move{{search.Inspect, "a"}}, search.Open, a, false},
		{"washed and worked free is not", out, out, []search.Move{{search.Clean, "a"}}, search.Open, a, false},
		{"a joint that was slackened is", out, out, []search.Move{{search.Loosen, "a"}}, search.Acquitted, a, false},
		{"the relief raised hides it", out, in, []search.Move{{search.Mask, ""}}, search.Masked, nil, false},
		{"the relief raised beside a swap hides whether the swap did it", out, in,
			[]search.Move{{search.Swap, "a"}, {search.Mask, ""}}, search.Masked, []string{"a"}, false},
		{"it went wrong by the change", in, out, []search.Move{{search.Renew, "a"}}, search.Broken, a, false},
		{"not done again", out, verdicts{}, []search.Move{{search.Swap, "a"}}, search.Untold, []string{"a"}, false},
		{"nothing of a part", out, out, []search.Move{{search.Adjust, ""}}, "", nil, true},
		{"good stays good", in, in, []search.Move{{search.Swap, "a"}}, "", nil, true},
	} {
		ledger := search.Ledger([]search.Try{try(1, c.was), try(2, c.is, c.moves...)})
		if c.noNothing {
			assert.Empty(t, ledger, c.name)
			continue
		}
		if assert.Len(t, ledger, 1, c.name) {
			assert.Equal(t, c.says, ledger[0].Says, c.name)
			assert.Equal(t, c.parts, ledger[0].Parts, c.name)
		}
	}
}

func TestTheSplitHalvesWhatIsSuspect(t *testing.T) {
	all := []search.Suspect{{"cover", 1}, {"seal", 2}, {"plate", 3}, {"gears", 1}, {"body", 1}}
	assert.Equal(t, []string{"plate", "gears"}, search.Split(all), "4 of 8")
	left := search.Left(all, "p100", []search.Line{{2, "p100", []string{"plate", "gears"}, search.Acquitted},
		{2, "relief", []string{"seal"}, search.Acquitted}})
	assert.Equal(t, []search.Suspect{{"cover", 1}, {"seal", 2}, {"body", 1}}, left,
		"acquitted of another step is not gone")
	assert.Equal(t, []string{"seal"}, search.Split(left))
	assert.Empty(t, search.Split(nil))
}

// Whatever is suspect, a split is a run of neighbours and no other run comes nearer to half.
func TestNoOtherRunComesNearer(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		weights := rapid.SliceOfN(rapid.Float64Range(0.01, 10), 1, 12).Draw(rt, "weights")
		var all []search.Suspect
		total := 0.0
		for i, w := range weights {
			all, total = append(all, search.Suspect{Part: string(rune('a' + i)), Weight: w}), total+w
		}
		off := func(i, j int) float64 {
			sum := 0.0
			for _, s := range all[i : j+1] {
				sum += s.Weight
			}
			return max(sum/total-0.5, 0.5-sum/total)
		}
		split := search.Split(all)
		first := int(split[0][0] - 'a')
		got := off(first, first+len(split)-1)
		for i := range all {
			for j := i; j < len(all); j++ {
				if off(i, j) < got-1e-9 {
					rt.Fatalf("%d to %d comes nearer than %v", i, j, split)
				}
			}
		}
	})
}
