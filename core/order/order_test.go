package order_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"corvek/core/order"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// pump is a shaft with a gear between two covers, each held by bolts, with a seal and its ring in the front one.
func pump(t *testing.T) *order.Order {
	t.Helper()
	through := []string{
		"front_bolts",
		"front_cover",
		"front_gasket",
		"gear",
		"rear_gasket",
		"rear_cover",
		"rear_bolts",
	}
	var parts []order.Part
	for i, code := range through {
		parts = append(parts, order.Part{Code: code, Ways: [][]string{through[:i], through[i+1:]}})
	}
	parts[1].Held = []string{"front_bolts", "front_bolts!", "key"}
	parts[5].Held = []string{"rear_bolts", "rear_bolts!"}
	parts[0].Held, parts[0].Ways = []string{"front_bolts!"}, nil
	parts[6].Held, parts[6].Ways = []string{"rear_bolts!"}, nil
	parts = append(parts, order.Part{Code: "front_bolts!"}, order.Part{Code: "rear_bolts!"}, order.Part{Code: "key"},
		order.Part{Code: "ring"}, order.Part{Code: "seal", Held: []string{"ring", "key"}})
	o, err := order.New(parts)
	require.NoError(t, err)
	return o
}

func set(codes ...string) order.Set {
	s := order.Set{}
	for _, c := range codes {
		s[c] = true
	}
	return s
}

func TestWhatStandsInTheWay(t *testing.T) {
	o := pump(t)
	all := set(o.Codes()...)
	assert.Equal(t, []string{"front_bolts", "front_bolts!", "key"}, o.InWay(all, "front_cover"))
	assert.Equal(t, []string{"ring", "key"}, o.InWay(all, "seal"))
	assert.Empty(t, o.InWay(all, "ring"))
	assert.Empty(t, o.InWay(set("gear", "rear_cover"), "gear"), "open to the front")
	assert.Equal(t, []string{"front_cover"}, o.InWay(set("gear", "front_cover", "rear_cover", "rear_bolts"), "gear"))
	assert.Empty(t, o.InWay(all, "something else"))
}

func TestWhatIsClosedOut(t *testing.T) {
	o := pump(t)
	for _, c := range []struct {
		in   []string
		code string
		over []string
	}{
		{nil, "front_cover", nil},
		{[]string{"rear_cover", "rear_gasket"}, "front_cover", []string{"front_gasket", "gear"}},
		{[]string{"rear_cover"}, "front_bolts!", []string{"front_bolts", "front_cover", "front_gasket", "gear",
			"rear_gasket"}},
		{[]string{"front_cover", "front_gasket", "gear"}, "rear_cover", []string{"rear_gasket"}},
		{[]string{"front_cover"}, "front_bolts", nil},
		{nil, "front_bolts", []string{"front_cover"}},
		{[]string{"rear_cover", "front_gasket", "gear", "rear_gasket", "front_cover", "front_bolts"},
			"front_bolts!", nil},
		{[]string{"front_cover"}, "key", nil},
		{nil, "key", []string{"front_cover", "seal"}},
		{nil, "ring", []string{"seal"}},
	} {
		var want []string
		for _, x := range o.Codes() {
			if slices.Contains(c.over, x) {
				want = append(want, x)
			}
		}
		if c.code == "key" && len(c.in) > 0 {
			want = []string{"seal"}
		}
		assert.Equal(t, want, o.Over(set(c.in...), c.code), "%v then %s", c.in, c.code)
	}
}

// Getting at a part takes out what is in its way and no more; what lies elsewhere stays.
func TestOpeningTakesOutNoMoreThanItMust(t *testing.T) {
	o := pump(t)
	all := set(o.Codes()...)
	assert.Equal(t, []string{"ring", "key", "seal"}, sorted(o.Apart(all, "seal"), "ring", "key", "seal"))
	assert.Equal(t, []string{"rear_bolts!", "rear_bolts", "rear_cover", "rear_gasket", "gear"}, o.Apart(all, "gear"),
		"from the rear, where no key is in the way")
	assert.Equal(t, []string{"ring"}, o.Apart(all, "ring"))
	assert.Empty(t, o.Apart(set("ring"), "seal"), "it is not on")
}

func sorted(got []string, like ...string) []string {
	if len(got) != len(like) {
		return got
	}
	for _, c := range like {
		if !slices.Contains(got, c) {
			return got
		}
	}
	return like
}

func TestProposalsCanBeDone(t *testing.T) {
	o := pump(t)
	soft := func(code string) bool { return code == "seal" || code == "front_gasket" || code == "rear_gasket" }
	build := o.Build(nil, nil, soft)
	legal(t, o, build)
	assert.Len(t, build, len(o.Codes()))
	strip := o.Strip(set(o.Codes()...), []string{"key", "ring", "front_bolts!", "front_bolts"}, soft)
	assert.Equal(t, []string{"key", "ring", "seal"}, strip[:3], "the seal as soon as it is free")
	slices.Reverse(strip)
	legal(t, o, strip)
}

// legal puts parts in one after the other; none closes another out.
func legal(t *testing.T, o *order.Order, build []string) {
	t.Helper()
	in := order.Set{}
	for _, c := range build {
		require.Empty(t, o.InWay(in, c), "%s into %v", c, in)
		require.Empty(t, o.Over(in, c), "%s into %v", c, in)
		in[c] = true
	}
}

func TestARingOfPartsIsRefused(t *testing.T) {
	_, err := order.New([]order.Part{{Code: "a", Held: []string{"b"}}, {Code: "b", Held: []string{"a"}}, {Code: "c"}})
	assert.EqualError(t, err, "these keep one another in: a, b")
	_, err = order.New([]order.Part{{Code: "a"}, {Code: "a"}})
	assert.ErrorContains(t, err, "twice")
	o, err := order.New([]order.Part{{Code: "a", Held: []string{"gone"}, Ways: [][]string{{"gone"}}}})
	require.NoError(t, err)
	assert.Empty(t, o.InWay(set("a", "gone"), "a"), "what is not on the unit stands in nobody's way")
}

// random is an order of up to eight parts in which each can be held by others and has up to two ways.
func random(r *rand.Rand) *order.Order {
	for {
		n := 2 + r.IntN(7)
		parts := make([]order.Part, n)
		some := func(p float64, not int) (out []string) {
			for k := range n {
				if k != not && r.Float64() < p {
					out = append(out, fmt.Sprint(k))
				}
			}
			return out
		}
		for i := range parts {
			parts[i] = order.Part{Code: fmt.Sprint(i), Held: some(0.12, i)}
			for range r.IntN(3) {
				parts[i].Ways = append(parts[i].Ways, some(0.3, i))
			}
		}
		if o, err := order.New(parts); err == nil {
			return o
		}
	}
}

// The judge tries every order there is: something is called closed out exactly where no order brings all in, and what
// comes out to get at a part is hardly ever more than the fewest.
func TestAgainstEveryOrder(t *testing.T) {
	r := rand.New(rand.NewPCG(29, 1))
	more, asked := 0, 0
	for range 400 {
		o := random(r)
		codes := o.Codes()
		in := order.Set{}
		for _, c := range codes {
			if r.IntN(2) == 0 {
				in[c] = true
			}
		}
		assert.Equal(t, cameIn(o, codes, in), len(o.ClosedOut(in)) == 0, "%v", in)
		one := codes[r.IntN(len(codes))]
		for _, c := range codes {
			first := slices.Contains(o.Over(nil, one), c)
			require.Equal(t, c != one && !before(o, codes, one, c), first, "%s before %s", one, c)
		}
		legal(t, o, o.Build(nil, nil, func(string) bool { return r.IntN(4) == 0 }))
		all := set(codes...)
		for _, c := range codes {
			apart := o.Apart(all, c)
			left := set(codes...)
			for _, x := range apart {
				require.Empty(t, o.InWay(left, x))
				delete(left, x)
			}
			require.Equal(t, c, apart[len(apart)-1])
			asked++
			if len(apart) > fewest(o, c) {
				more++
			}
		}
	}
	t.Logf("%d of %d openings took out more than they must", more, asked)
	assert.Less(t, float64(more), 0.02*float64(asked))
}

// cameIn reports that some order of putting in brings in all that is missing.
func cameIn(o *order.Order, codes []string, in order.Set) bool {
	start := 0
	for i, c := range codes {
		if in[c] {
			start |= 1 << i
		}
	}
	return comesApart(o, codes, 1<<len(codes)-1, start)
}

// before reports that some order has one part in while another is not: taken off the whole, the other comes off first.
func before(o *order.Order, codes []string, one, other string) bool {
	for state := range 1 << len(codes) {
		in, out := false, false
		for i, c := range codes {
			in = in || c == one && state&(1<<i) != 0
			out = out || c == other && state&(1<<i) == 0
		}
		if in && out && comesApart(o, codes, 1<<len(codes)-1, state) {
			return true
		}
	}
	return false
}

// comesApart tries every order of taking parts off a state until another is left.
func comesApart(o *order.Order, codes []string, from, to int) bool {
	seen := map[int]bool{}
	var try func(int) bool
	try = func(state int) bool {
		if state == to {
			return true
		}
		if seen[state] {
			return false
		}
		seen[state] = true
		s := order.Set{}
		for i, c := range codes {
			s[c] = state&(1<<i) != 0
		}
		for i, c := range codes {
			if bit := 1 << i; state&bit != 0 && to&bit == 0 && len(o.InWay(s, c)) == 0 && try(state&^bit) {
				return true
			}
		}
		return false
	}
	return try(from)
}

// fewest is how many parts come out at least until one is out, found by trying all.
func fewest(o *order.Order, code string) int {
	codes := o.Codes()
	full := 1<<len(codes) - 1
	level, seen := []int{full}, map[int]bool{full: true}
	for n := 1; ; n++ {
		var next []int
		for _, state := range level {
			s := order.Set{}
			for i, c := range codes {
				s[c] = state&(1<<i) != 0
			}
			for i, c := range codes {
				bit := 1 << i
				if state&bit == 0 || len(o.InWay(s, c)) > 0 {
					continue
				}
				if c == code {
					return n
				}
				if !seen[state&^bit] {
					seen[state&^bit] = true
					next = append(next, state&^bit)
				}
			}
		}
		level = next
	}
}
