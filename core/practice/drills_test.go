package practice_test

import (
	"fmt"
	"strconv"
	"strings"
	"testing"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/order"
	"corvek/core/practice"
	"corvek/core/seal"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func shipped(t require.TestingT) family.Library {
	lib, err := family.Shipped()
	require.NoError(t, err)
	return lib
}

func drill(t require.TestingT, code string) practice.Drill {
	d, known := practice.DrillByCode(code)
	require.True(t, known)
	return d
}

// right are the right answers of a task, and one that is wrong for each.
func answers(a practice.Ask) (right, wrong string) {
	if len(a.Options) == 0 {
		return typed(a.Want), typed(a.Want + 2.5*max(a.Within, a.Step))
	}
	for i, o := range a.Options {
		if o.Right {
			right = strconv.Itoa(i)
		} else {
			wrong = strconv.Itoa(i)
		}
	}
	return right, wrong
}

// Of any drill the right answers are right, others are not and are told why, one of the offered is right, and the same
// seed draws the same.
func TestAnyDrillCanBeAnswered(t *testing.T) {
	lib := shipped(t)
	rapid.Check(t, func(r *rapid.T) {
		d := rapid.SampledFrom(practice.Drills()).Draw(r, "drill")
		task := practice.NewTask(d, rapid.Bool().Draw(r, "inch"), rapid.Uint64().Draw(r, "seed"), lib)
		require.Equal(r, task.Says, practice.NewTask(d, task.Inch, task.Seed, lib).Says)
		var good, bad []string
		for _, a := range task.Asks {
			n := 0
			for _, o := range a.Options {
				require.NotEmpty(r, o.Says)
				if o.Right {
					n++
				}
			}
			require.True(r, len(a.Options) == 0 || n == 1, "%d of %d are right", n, len(a.Options))
			right, wrong := answers(a)
			good, bad = append(good, right), append(bad, wrong)
		}
		said, err := task.Judge(good)
		require.NoError(r, err)
		for _, v := range said {
			require.True(r, v.Right, "%s: %+v", d.Code, v)
		}
		said, err = task.Judge(bad)
		require.NoError(r, err)
		for i, v := range said {
			require.False(r, v.Right, "%s: %s", d.Code, bad[i])
			require.NotEmpty(r, v.Says)
		}
		_, err = task.Judge(nil)
		require.Error(r, err)
	})
}

// By hand, M10 8.8 oiled: stress area 58.0 mm², proof 580 MPa, three quarters 25.2 kN, times 0.15 times 10 mm is
// 37.8 N·m. M12 10.9 dry: 84.3 mm², 830 MPa, 52.5 kN, times 0.20 times 12 mm is 125.9 N·m.
func TestTorquesByHand(t *testing.T) {
	hand := map[string]float64{"A screw M10, oiled; on its head stands: 8.8.": 37.8,
		"A screw M12, dry; on its head stands: 10.9.": 125.9}
	found := map[string]bool{}
	for seed := range uint64(400) {
		task := practice.NewTask(drill(t, "torque"), false, seed, nil)
		for words, want := range hand {
			if strings.HasPrefix(task.Says[0], words) {
				found[words] = true
				assert.InDelta(t, want, task.Asks[0].Want, want*0.005, words)
			}
		}
	}
	assert.Len(t, found, 2)
}

// The two leaves of the answer close the verdict, as readings at the bench are judged.
// No thinner one that goes does so, and no thicker one that stops.
func TestTwoLeavesCloseTheVerdict(t *testing.T) {
	for seed := range uint64(200) {
		task := practice.NewTask(drill(t, "fewest_leaves"), seed%2 == 0, seed, nil)
		var least, most float64
		_, err := fmt.Sscanf(task.Says[0], "A clearance is in from %f to %f", &least, &most)
		require.NoError(t, err)
		limits := metrology.Limits{HasLower: true, Lower: least, HasUpper: true, Upper: most}
		goes, stops := task.Asks[0].Want, task.Asks[1].Want
		judge := func(goes, stops float64) metrology.Verdict {
			iv, err := metrology.Leaves{Goes: []float64{goes}, Stops: []float64{stops}}.Interval()
			require.NoError(t, err)
			return iv.Judge(limits)
		}
		require.Equal(t, metrology.In, judge(goes, stops), "%v, %v and %v", task.Says, goes, stops)
		for _, text := range strings.Split(strings.TrimPrefix(task.Says[1], "At hand are leaves of "), ", ") {
			leaf, err := strconv.ParseFloat(strings.Fields(text)[0], 64)
			require.NoError(t, err)
			if leaf < goes {
				require.NotEqual(t, metrology.In, judge(leaf, stops), "a thinner one shows it too")
			}
			if leaf > stops {
				require.NotEqual(t, metrology.In, judge(goes, leaf), "a thicker one shows it too")
			}
		}
	}
}

// No rubber that is offered as right is one that the table has as unsuitable, nor out of its heat.
func TestRubbersOfTheDrill(t *testing.T) {
	for seed := range uint64(300) {
		task := practice.NewTask(drill(t, "seal"), false, seed, nil)
		fluid, _, _ := strings.Cut(strings.TrimPrefix(task.Says[0], "An O-ring lies in "), ", between")
		for _, o := range task.Asks[0].Options {
			verdict, _, _, _ := seal.Bears(o.Words, fluid)
			assert.False(t, o.Right && verdict != seal.Suitable, "%s in %s", o.Words, fluid)
		}
	}
}

// A part that must wait closes a part out for good: with it in, some part finds no way in any order. That is tried by
// taking apart, which is the other way round from how the drill is drawn.
func TestWhatMustWaitClosesOut(t *testing.T) {
	lib := shipped(t)
	for seed := range uint64(60) {
		task := practice.NewTask(drill(t, "order"), false, seed, lib)
		name, _, _ := strings.Cut(task.Says[0], ". In already: ")
		var f *family.Family
		for _, g := range lib {
			if g.Name == name {
				f = g
			}
		}
		require.NotNil(t, f, name)
		parts := make([]*family.Part, len(f.Parts))
		in := order.Set{}
		_, list, _ := strings.Cut(strings.TrimSuffix(task.Says[0], "."), ". In already: ")
		there := map[string]bool{}
		for _, word := range strings.Split(list, ", ") {
			there[word] = true
		}
		for i := range f.Parts {
			parts[i] = &f.Parts[i]
			in[f.Parts[i].Code] = there[strings.ToLower(f.Parts[i].Name)]
		}
		o, err := f.Ordered(parts)
		require.NoError(t, err)
		for _, option := range task.Asks[0].Options {
			if !option.Right {
				continue
			}
			for i := range f.Parts {
				if f.Parts[i].Name == option.Words {
					assert.True(t, blocks(o, in, f.Parts[i].Code), "%s, seed %d: %s", name, seed, option.Words)
				}
			}
		}
	}
}

// blocks takes a whole unit apart but for what is in and one part more, and reports that something stays that way.
func blocks(o *order.Order, in order.Set, code string) bool {
	on := order.Set{}
	for _, c := range o.Codes() {
		on[c] = true
	}
	kept := func(c string) bool { c = strings.TrimSuffix(c, order.Tight); return in[c] || c == code }
	for moved := true; moved; {
		moved = false
		for _, c := range o.Codes() {
			if on[c] && !kept(c) && len(o.InWay(on, c)) == 0 {
				on[c], moved = false, true
			}
		}
	}
	for _, c := range o.Codes() {
		if on[c] && !kept(c) {
			return true
		}
	}
	return false
}
