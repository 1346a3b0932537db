package jobpages

import (
	"corvek/core/bench"

	"github.com/hashicorp/golang-lru/v2"
)

// keptDrawings is how many drawings are held in memory, of some 20 kB each.
const keptDrawings = 1000

// drawings holds what was drawn of units, so that it is drawn once for all who look at the
// same state of one. It may be used by many at once.
type drawings struct{ kept *lru.Cache[drawing, string] }

// drawing is what a drawing follows from.
type drawing struct {
	of  bench.Version
	key string
}

func newDrawings() (*drawings, error) {
	kept, err := lru.New[drawing, string](keptDrawings)
	return &drawings{kept}, err
}

// of gives what was drawn from a state under the key before, or draws it. Of a drawing that
// came to nothing, nothing is kept.
func (d *drawings) of(st *bench.State, key string, draw func() string) string {
	at := drawing{st.On, key}
	if text, ok := d.kept.Get(at); ok {
		return text
	}
	text := draw()
	if text != "" {
		d.kept.Add(at, text)
	}
	return text
}
