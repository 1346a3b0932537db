package hidden_test

import (
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
		Family: b.Catalog.Families, Tools: shop.Instruments{}, Who: "Practice", Now: time.Date(2031, 5, 14, 8, 0, 0, 0, time.UTC),
		Knowledge: func(code string) entry.Knowledge { return known{b.Knowledge.For(code)} }}}
}

func TestTry(t *testing.T) {
	s := shopOf(t)
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, f := range lib.List() {
		for _, k := range hidden.Kinds {
			n, none, looks, mins := 0, 0, 0, 0.0
			at := time.Now()
			for seed := range uint64(6) {
				c, err := hidden.Draw(s, f.Code, k.Code, seed)
				if err == hidden.ErrNone {
					none++
					continue
				}
				require.NoError(t, err, f.Code)
				p, err := s.Best(c)
				require.NoError(t, err)
				n++
				looks += len(p.Steps)
				mins += p.Minutes
			}
			t.Log(f.Code, k.Code, "made", n, "none", none, "looks", looks/max(n, 1), "min", mins/float64(max(n, 1)), time.Since(at)/6)
		}
	}
}
