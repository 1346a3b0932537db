package hidden_test

import (
	"math/rand/v2"
	"slices"
	"strconv"
	"testing"
	"time"

	"corvek/core/bench/benchtest"
	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/hidden"
	"corvek/core/shop"
	"corvek/core/unit"

	"github.com/stretchr/testify/require"
)

type known struct{ k *explain.Knowledge }

func (k known) KnowsMark(code string) bool  { _, is := k.k.EvidenceByCode(code); return is }
func (k known) KnowsCause(code string) bool { _, is := k.k.CauseByCode(code); return is }

func shopOf(t testing.TB) *hidden.Shop {
	b := benchtest.Basis(t, &unit.Job{})
	return &hidden.Shop{Catalog: b.Catalog, Knowledge: b.Knowledge, Day: benchtest.Day, Entry: &entry.Shop{
		Family: b.Catalog.Families, Tools: shop.Instruments{}, Who: "Practice",
		Now:       time.Date(2031, 5, 14, 8, 0, 0, 0, time.UTC),
		Knowledge: func(code string) entry.Knowledge { return known{b.Knowledge.For(code)} }}}
}

// A thousand cases over all families can be solved: what tells most for its minutes comes to name what is wrong, and to
// name it still when all was looked at; a hand that goes by its own record alone comes to the same; and the same seed
// gives the same case.
func TestAThousandCasesCanBeSolved(t *testing.T) {
	s := shopOf(t)
	lib, err := family.Shipped()
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(18, 1))
	const parts = 4 // at once
	n := 1000 / parts
	if testing.Short() {
		n = 2
	}
	for part := range parts {
		seed := r.Uint64()
		t.Run(strconv.Itoa(part), func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(seed, 2))
			for i := range n {
				of, kind := lib.List()[r.IntN(len(lib))].Code, hidden.Kinds[r.IntN(len(hidden.Kinds))].Code
				solved(t, s, of, kind, r.Uint64(), i%4 == 0)
			}
		})
	}
}

func solved(t *testing.T, s *hidden.Shop, of, kind string, seed uint64, byHand bool) {
	t.Helper()
	c, err := hidden.Draw(s, of, kind, seed)
	require.NoError(t, err, "%s %s", of, kind)
	best, err := s.Best(c)
	require.NoError(t, err)
	require.True(t, best.Named, "%s %s %d", of, kind, seed)
	require.NotEmpty(t, c.True.Symptoms, "somebody complains of something")
	agrees(t, s, c)
	if !byHand {
		return
	}
	again, err := hidden.Draw(s, of, kind, seed)
	require.NoError(t, err)
	require.Equal(t, c.Causes, again.Causes)
	h := newHand(t, s, c, of)
	standing := h.solves()
	require.True(t, c.Names(standing), "%s %s %d: %v, and he came to %s", of, kind, seed, c.Causes, lead(standing))
	newHand(t, s, c, of).asks()
	h.measures()
}

// agrees holds what the parts bear against what the unit tells: a mark on a part is there for whoever looks at the part
// and for whoever asks for what it stands for.
func agrees(t *testing.T, s *hidden.Shop, c *hidden.Case) {
	t.Helper()
	truth, err := s.Truth(c)
	require.NoError(t, err)
	st := truth.True
	for _, p := range st.Parts {
		for _, m := range p.Seen {
			e := st.Knowledge.Marked(p.Code, p.Def.Kind, m.Code)
			if e == nil {
				continue
			}
			at := slices.IndexFunc(st.Findings, func(f explain.Finding) bool { return f.Code == e.Code })
			require.True(t, at >= 0 && st.Findings[at].Likely(), "%s %d: %s is %s, and no %s", c.Kind, c.Seed, p.Code,
				m.Code, e.Code)
		}
	}
}

// A broken spring among its fellows is seen and measured alike: no limit of its length is known, and its own is another
// all the same.
func TestABrokenSpringMeasuresShort(t *testing.T) {
	s := shopOf(t)
	c, err := hidden.Draw(s, "cam_piston_pump", hidden.Two, 16708410730700534303)
	require.NoError(t, err)
	require.Contains(t, c.Causes, "dead_piston")
	agrees(t, s, c)
}
