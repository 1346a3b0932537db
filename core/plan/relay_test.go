package plan

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// A neighbour that is laid out only as far as the change reaches is the one that is laid out whole.
func TestANeighbourIsLaidOutAsAWhole(t *testing.T) {
	problems := []*Problem{bigShop(3, 12, 4), bigShop(4, 30, 3)}
	for seed := range uint64(60) {
		problems = append(problems, drawn(seed, 8))
	}
	for n, p := range problems {
		s := ready(p)
		if len(s.order) == 0 {
			continue
		}
		tb := s.tabu(uint64(n), 1<<40, func() bool { return false })
		tb.beginWith(s.firsts()[0])
		whole, y := s.newLayout(), s.layer()
		for range 300 {
			tb.neighbours()
			for _, x := range tb.changes {
				can := tb.try(x)
				if can {
					whole.take(tb.trial)
					y.lay(whole)
					require.Equal(t, whole.start, tb.trial.start, "%d %+v", n, x)
					require.Equal(t, whole.end, tb.trial.end)
					require.Equal(t, whole.prev, tb.trial.prev)
					require.Equal(t, whole.at, tb.trial.at)
					require.Equal(t, whole.ends, tb.trial.ends)
					require.Equal(t, whole.cost, tb.trial.cost)
				}
				tb.drop()
				require.Equal(t, tb.now, tb.trial)
			}
			tb.anyOf()
			require.Equal(t, tb.now, tb.trial)
		}
	}
}
