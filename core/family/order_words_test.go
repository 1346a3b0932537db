package family_test

import (
	"math/rand/v2"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"corvek/core/family"
	"corvek/core/order"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// wordOrders are the orders that are written as words, by family.
type wordOrders struct{ goes, not [][]string } // codes; of what does not go the last is the one left out

// readOrders reads the table of orders.
func readOrders(t *testing.T) map[string]*wordOrders {
	t.Helper()
	text, err := os.ReadFile("../../docs/orders.md")
	require.NoError(t, err)
	out := map[string]*wordOrders{}
	var at *wordOrders
	code := func(words string) string {
		words = strings.TrimSpace(words)
		tight := strings.HasPrefix(words, "tighten ")
		words = strings.ReplaceAll(strings.TrimPrefix(words, "tighten "), " ", "_")
		words = regexp.MustCompile(`^(pocket|land)_(\d)_`).ReplaceAllString(words, "${1}_$2.")
		if tight {
			words += order.Tight
		}
		return words
	}
	for line := range strings.Lines(string(text)) {
		line = strings.TrimSpace(line)
		if name, is := strings.CutPrefix(line, "## "); is {
			at = &wordOrders{}
			out[name] = at
		}
		cells := strings.Split(strings.Trim(line, "|"), "|")
		if at == nil || !strings.HasPrefix(line, "|") || len(cells) != 2 || strings.Contains(line, "---") ||
			strings.TrimSpace(cells[0]) == "goes" {
			continue
		}
		var goes, not []string
		for _, w := range strings.Split(cells[0], ",") {
			goes = append(goes, code(w))
		}
		first, then, is := strings.Cut(cells[1], " before ")
		require.True(t, is, line)
		for _, w := range strings.Split(first, " and ") {
			not = append(not, code(w))
		}
		at.goes = append(at.goes, goes)
		at.not = append(at.not, append(not, code(then)))
	}
	return out
}

// orderFor is the order of a form of a family that has some parts: the plain one, or one of its variants.
func orderFor(t *testing.T, f *family.Family, codes []string) *order.Order {
	t.Helper()
	forms := []*family.Family{f}
	for _, v := range f.VariantRules {
		g, err := f.As(v.Code, nil)
		require.NoError(t, err)
		forms = append(forms, g)
	}
	lacks := ""
	for _, g := range forms {
		o := orderOf(t, g)
		i := slices.IndexFunc(codes, func(c string) bool { return !o.Has(c) })
		if i < 0 {
			return o
		}
		lacks = codes[i]
	}
	require.Fail(t, "no form of the family has it", "%s: %s", f.Code, lacks)
	return nil
}

func orderOf(t *testing.T, f *family.Family) *order.Order {
	t.Helper()
	parts := make([]*family.Part, len(f.Parts))
	for i := range f.Parts {
		parts[i] = &f.Parts[i]
	}
	o, err := f.Ordered(parts)
	require.NoError(t, err)
	return o
}

// What is written as words goes, or does not go, as it is written; the right-hand side is refused with the part that
// was left out named.
func TestOrdersOfBuildingAsWords(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	words := readOrders(t)
	for code, f := range lib {
		w := words[code]
		require.NotNil(t, w, code)
		assert.GreaterOrEqual(t, len(w.goes), 10, code)
		assert.GreaterOrEqual(t, len(w.not), 10, code)
		for _, seq := range w.goes {
			assert.True(t, goes(orderFor(t, f, seq), seq), "%s: %v should go", code, seq)
		}
		for _, seq := range w.not {
			o := orderFor(t, f, seq)
			in := order.Set{}
			for _, c := range seq[:len(seq)-1] {
				in[c] = true
			}
			assert.Contains(t, o.ClosedOut(in), seq[len(seq)-1], "%s: %v should not go", code, seq)
			if len(seq) == 2 {
				assert.False(t, goes(o, seq), "%s: %v has an order that goes", code, seq)
			}
		}
	}
	assert.Len(t, words, len(lib), "a family in the table that there is not")
}

// goes reports that some order puts everything in with these parts in this sequence among it: it looks for one by
// taking off, last first, whatever else may come off before.
func goes(o *order.Order, seq []string) bool {
	on := order.Set{}
	for _, c := range o.Codes() {
		on[c] = true
	}
	left := slices.Clone(seq)
	for moved := true; moved; {
		moved = false
		for _, c := range o.Codes() {
			i := slices.Index(left, c)
			if !on[c] || i >= 0 && i < len(left)-1 || len(o.InWay(on, c)) > 0 {
				continue
			}
			delete(on, c)
			if i >= 0 {
				left = left[:i]
			}
			moved = true
		}
	}
	return len(on) == 0
}

// A thousand orders of taking off, drawn at random among those that go, are put in again the other way round without
// anything being closed out, for each family; and so is the one that is proposed.
func TestRandomOrdersGo(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for code, f := range lib {
		o := orderOf(t, f)
		r := rand.New(rand.NewPCG(29, uint64(len(code))))
		n := 1000
		if testing.Short() {
			n = 20
		}
		for range n {
			on := order.Set{}
			for _, c := range o.Codes() {
				on[c] = true
			}
			var off []string
			for len(off) < len(o.Codes()) {
				var free []string
				for _, c := range o.Codes() {
					if on[c] && len(o.InWay(on, c)) == 0 {
						free = append(free, c)
					}
				}
				require.NotEmpty(t, free, code)
				c := free[r.IntN(len(free))]
				delete(on, c)
				off = append(off, c)
			}
			slices.Reverse(off)
			built(t, o, code, off, r.IntN(25) == 0)
		}
		built(t, o, code, o.Build(nil, nil, func(string) bool { return false }), true)
	}
}

// built puts parts in one after the other; each is free, and where all is looked at, none closes another out.
func built(t *testing.T, o *order.Order, code string, seq []string, all bool) {
	t.Helper()
	in := order.Set{}
	for _, c := range seq {
		require.Empty(t, o.InWay(in, c), "%s: %s into %v", code, c, in)
		if all {
			require.Empty(t, o.Over(in, c), "%s: %s into %v", code, c, in)
		}
		in[c] = true
	}
}

// The same parts are told in the same order however often they are asked for: papers are compared as words.
func TestOneOrderOfWords(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for code, f := range lib {
		parts := make([]*family.Part, len(f.Parts))
		for i := range f.Parts {
			parts[i] = &f.Parts[i]
		}
		once, err := f.Ordered(parts)
		require.NoError(t, err)
		for range 12 {
			again, err := f.Ordered(parts)
			require.NoError(t, err)
			require.Equal(t, once, again, code)
		}
	}
}
