package remaining_test

import (
	"strings"
	"testing"
	"time"

	"corvek/core/remaining"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func all(string) bool { return true }

// codes are the tasks of a unit as one line.
func codes(u remaining.Unit) string {
	if u.Owes == nil {
		u.Owes = all
	}
	var out []string
	for _, t := range remaining.Of(&u, remaining.Usual()) {
		out = append(out, t.Code)
	}
	return strings.Join(out, " ")
}

func TestWhatAUnitStillNeeds(t *testing.T) {
	done := remaining.Unit{Concluded: true}
	with := func(change func(u *remaining.Unit)) remaining.Unit {
		u := done
		change(&u)
		return u
	}
	for name, c := range map[string]struct {
		unit  remaining.Unit
		codes string
	}{
		"just received": {
			remaining.Unit{Receive: 2, On: 20, Unread: 12, Undecided: 20, Unbuilt: 20, Tight: 2, Fill: true,
				Quote: remaining.Quote{Wanted: true}, Steps: []remaining.Step{{Code: "flow"}}},
			"receive strip wash soak measure explain decide offer word build fill set_up prove hand_over",
		},
		"only to be handed over": {done, "hand_over"},
		"signed by a lead":       {with(func(u *remaining.Unit) { u.LeadSigns = true }), "sign hand_over"},
		"signed already": {
			with(func(u *remaining.Unit) { u.LeadSigns, u.SignedOff = true, func() bool { return true } }),
			"hand_over"},
		"signed, and then something is open again": {
			with(func(u *remaining.Unit) {
				u.LeadSigns, u.SignedOff, u.Unbuilt = true, func() bool { return true }, 1
			}), "build sign hand_over"},
		"gone": {with(func(u *remaining.Unit) { u.Gone = true }), ""},
		"the customer has the offer": {
			with(func(u *remaining.Unit) { u.Quote = remaining.Quote{Wanted: true, Given: "2031-05-02"} }),
			"word hand_over"},
		"he said": {
			with(func(u *remaining.Unit) {
				u.Quote = remaining.Quote{Wanted: true, Given: "2031-05-02", Answered: true}
			}),
			"hand_over"},
		"one piece ordered with a day, two that nobody asked for": {
			with(func(u *remaining.Unit) {
				u.New = []remaining.Piece{{Part: "seal", Ordered: true, Due: "2031-06-01"}, {Part: "ring"},
					{Part: "cup"}}
				u.Unbuilt = 3
			}), "order parts:seal parts build hand_over"},
		"one part goes out, one is lapped": {
			with(func(u *remaining.Unit) {
				u.Ways = []remaining.Way{{Part: "plate", Route: "lap", Hours: 1},
					{Part: "rod", Route: "chrome", Days: 14}}
				u.Unbuilt = 9
			}), "rework:plate.lap outside:rod.chrome build hand_over"},
		"a long hold is left alone": {
			with(func(u *remaining.Unit) {
				u.Steps = []remaining.Step{{Code: "flow"}, {Code: "holds", Hold: 12 * time.Hour}}
			}), "set_up prove hold:holds hand_over"},
		"findings only": {
			remaining.Unit{On: 5, Unread: 4, Undecided: 5, Unbuilt: 5, Steps: []remaining.Step{{Code: "flow"}},
				Owes: (&unit.Unit{Ending: unit.EndFindings}).Owes}, "strip wash soak measure explain hand_over"},
		"back unopened": {
			remaining.Unit{On: 5, Unread: 4, Undecided: 5, Unbuilt: 5, Steps: []remaining.Step{{Code: "flow"}},
				Owes: (&unit.Unit{Ending: unit.EndReturned}).Owes}, "hand_over"},
	} {
		assert.Equal(t, c.codes, codes(c.unit), name)
	}
}

// Hours by hand: 15 min and 4 for each of ten parts; the build waits for both pieces and the lapping.
func TestHoursAndOrder(t *testing.T) {
	u := remaining.Unit{Owes: all, On: 10, Concluded: true, Unbuilt: 10, Tight: 3,
		New:  []remaining.Piece{{Part: "seal", Name: "Seal", Ordered: true, Days: 4}, {Part: "ring", Name: "Ring"}},
		Ways: []remaining.Way{{Part: "plate", Route: "lap", Name: "Plate: lapped", Hours: 1.5}},
	}
	by := map[string]remaining.Task{}
	for _, x := range remaining.Of(&u, remaining.Usual()) {
		by[x.Code] = x
		for _, a := range x.After {
			require.Contains(t, by, a, "%s comes after what is not there", x.Code)
		}
	}
	assert.Equal(t, 55*time.Minute, by["strip"].Time)
	assert.Equal(t, 90*time.Minute, by["rework:plate.lap"].Time)
	assert.Equal(t, []string{"soak"}, by["rework:plate.lap"].After)
	assert.Equal(t, []string{"soak"}, by["order"].After)
	assert.InDelta(t, 4, by["parts:seal"].Days, 0)
	assert.InDelta(t, remaining.Usual().Parts, by["parts"].Days, 0)
	assert.Equal(t, []string{"parts:seal", "parts", "rework:plate.lap"}, by["build"].After)
	assert.Equal(t, (20+10*6+3*4)*time.Minute, by["build"].Time)
}

// Each kind of work is somebody's, or runs by itself, or waits; and each has a spread that is guidance.
func TestEachKindOfWorkHasItsHands(t *testing.T) {
	g := remaining.Usual()
	for _, k := range remaining.Kinds {
		task := remaining.Task{Kind: k}
		hands := 0
		for _, is := range []bool{k.Needs() != "", task.Alone(), task.Waits()} {
			if is {
				hands++
			}
		}
		assert.Equal(t, 1, hands, k)
		if k != remaining.Hold {
			assert.Positive(t, g.Spread[k], k)
		}
	}
}
