package practice_test

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"corvek/core/family"
	"corvek/core/practice"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var figure = regexp.MustCompile(`\d+(\.\d+)? (N|mm|lbf|in)\b`)

func figures(t *testing.T, text string) (out []float64) {
	for _, m := range figure.FindAllString(text, -1) {
		v, err := strconv.ParseFloat(strings.Fields(m)[0], 64)
		require.NoError(t, err)
		out = append(out, v)
	}
	return out
}

// So many nested springs give the force, one fewer does not; so many packs give the travel, one fewer does not: by the
// figures that the question itself tells.
func TestAStackIsJustEnough(t *testing.T) {
	for seed := range uint64(300) {
		task := practice.NewTask(drill(t, "stack"), seed%2 == 0, seed, nil)
		one, want := figures(t, task.Says[0]), figures(t, task.Says[1])
		require.Len(t, one, 2, task.Says[0])
		require.Len(t, want, 2, task.Says[1])
		nested := task.Asks[0].Want
		packs := task.Asks[1].Want / nested
		const rounded = 0.006 // of a figure as it is told
		assert.GreaterOrEqual(t, nested*one[0], want[0]*(1-rounded), task.Says)
		assert.Less(t, (nested-1)*one[0], want[0]*(1+rounded), task.Says)
		assert.GreaterOrEqual(t, packs*one[1], want[1]*(1-rounded), task.Says)
		assert.Less(t, (packs-1)*one[1], want[1]*(1+rounded), task.Says)
		assert.Equal(t, packs, math.Round(packs))
	}
}

// of is the family that a question begins with.
func of(t *testing.T, lib family.Library, says string) *family.Family {
	var best *family.Family
	for _, f := range lib.List() {
		if strings.HasPrefix(says, f.Name) && (best == nil || len(f.Name) > len(best.Name)) {
			best = f
		}
	}
	require.NotNil(t, best, says)
	return best
}

func has(text string, f *family.Family, code string) bool {
	step, known := f.TestByCode(code)
	return known && strings.Contains(strings.ToLower(text), strings.ToLower(step.Name))
}

// The test for a claim has all of its steps, and no other answer has.
func TestAClaimHasItsSteps(t *testing.T) {
	lib := shipped(t)
	for seed := range uint64(300) {
		task := practice.NewTask(drill(t, "plan"), false, seed, lib)
		f := of(t, lib, task.Says[0])
		at := slices.IndexFunc(f.Owes, func(o family.Owed) bool {
			return strings.HasSuffix(task.Says[0], "it "+o.Says+".")
		})
		require.GreaterOrEqual(t, at, 0, task.Says[0])
		for _, o := range task.Asks[0].Options {
			all := !slices.ContainsFunc(f.Owes[at].By, func(code string) bool { return !has(o.Words, f, code) })
			if o.Right {
				assert.True(t, all, "%s: %s", task.Says[0], o.Words)
			}
		}
	}
}

// Two claims of a certificate stand on a step that is not among those that were run; each other's all are.
func TestTwoClaimsAreNotShown(t *testing.T) {
	lib := shipped(t)
	for seed := range uint64(200) {
		task := practice.NewTask(drill(t, "claims"), false, seed, lib)
		f := of(t, lib, task.Says[0])
		run := task.Says[len(task.Says)-1]
		names := strings.Split(strings.TrimSuffix(strings.SplitN(run, ": ", 2)[1], "."), ", and ")
		ran := func(code string) bool {
			step, _ := f.TestByCode(code)
			return slices.ContainsFunc(names, func(n string) bool { return strings.EqualFold(n, step.Name) })
		}
		var open []float64
		for i, o := range f.Owes {
			assert.Equal(t, fmt.Sprintf("%d. %s;", i+1, o.Says), task.Says[i+1])
			if slices.ContainsFunc(o.By, func(code string) bool { return !ran(code) }) {
				open = append(open, float64(i+1))
			}
		}
		assert.Equal(t, open, []float64{task.Asks[0].Want, task.Asks[1].Want}, task.Says)
	}
}

// Which way round is as the family says of the part that is marked in the line.
func TestAFacingIsTheFamilys(t *testing.T) {
	lib := shipped(t)
	for seed := range uint64(200) {
		task := practice.NewTask(drill(t, "facing"), false, seed, lib)
		require.NotNil(t, task.Line)
		p, known := lib[task.Line.Family].PartByCode(task.Line.Part)
		require.True(t, known)
		for _, o := range task.Asks[0].Options {
			assert.Equal(t, o.Words == p.Facing, o.Right)
		}
		assert.Len(t, task.Asks[0].Options, len(p.Facings))
	}
}
