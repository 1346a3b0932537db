package bench

import (
	"maps"
	"slices"
	"strconv"
	"strings"
	"sync"

	"corvek/core/explain"
	"corvek/core/family"

	lru "github.com/hashicorp/golang-lru/v2"
)

// Memo remembers what follows from evidence, by what it follows from. It may be used by many
// at once. A nil one remembers nothing.
type Memo struct {
	knowing   *lru.Cache[knowing, *explain.Knowledge]
	inferring *lru.Cache[inferring, *inference]
}

// knowing is what the knowledge of a unit rests on: that of its family, the family itself with the
// parts that are on this unit, how often the shop met each cause, and how far it is open.
type knowing struct {
	of     *explain.Knowledge
	family *family.Family
	has    string
	counts string
	stand  explain.Situation
}

// inferring is what an inference rests on.
type inferring struct {
	knowledge *explain.Knowledge
	findings  string
}

type inference struct {
	explained func() explain.Explanation
	next      func() []explain.Check
	stories   func() ([]explain.Story, *explain.Evidence)
	turns     func() []explain.Turn
}

// NewMemo gives a memo of so many inferences.
func NewMemo(most int) (*Memo, error) {
	knows, err := lru.New[knowing, *explain.Knowledge](most)
	if err != nil {
		return nil, err
	}
	infers, err := lru.New[inferring, *inference](most)
	return &Memo{knows, infers}, err
}

// knowledge is what there is to know of a unit that has what it has and came so far.
func (m *Memo) knowledge(st *Stripped) *explain.Knowledge {
	work := func() *explain.Knowledge { return st.learned.Of(st.has()).In(st.Situation()) }
	if m == nil {
		return work()
	}
	key := knowing{st.Known, st.Family, st.fingerprint(), counted(st.concluded), st.Situation()}
	if k, ok := m.knowing.Get(key); ok {
		return k
	}
	k := work()
	m.knowing.Add(key, k)
	return k
}

// counted writes how often each cause was concluded as a key.
func counted(concluded map[string]int) string {
	var b strings.Builder
	for _, code := range slices.Sorted(maps.Keys(concluded)) {
		b.WriteString(code + "=" + strconv.Itoa(concluded[code]) + " ")
	}
	return b.String()
}

// fingerprint tells apart what units of one family have and have not.
func (st *Stripped) fingerprint() string {
	var b strings.Builder
	for _, p := range st.Parts {
		b.WriteString(" " + p.Code + "@" + p.Kind)
	}
	return b.String()
}

func (m *Memo) inference(k *explain.Knowledge, findings []explain.Finding) *inference {
	work := func() *inference {
		return &inference{
			explained: sync.OnceValue(func() explain.Explanation { return k.Rank(findings) }),
			next:      sync.OnceValue(func() []explain.Check { return k.Next(findings) }),
			stories: sync.OnceValues(func() ([]explain.Story, *explain.Evidence) {
				return k.Stories(findings)
			}),
			turns: sync.OnceValue(func() []explain.Turn { return k.WouldChange(findings, mostTurns) }),
		}
	}
	if m == nil {
		return work()
	}
	key := inferring{k, told(findings)}
	if i, ok := m.inferring.Get(key); ok {
		return i
	}
	i := work()
	m.inferring.Add(key, i)
	return i
}

// mostTurns is how many looks are named that would turn a ranking over.
const mostTurns = 3

// told writes findings as a key.
func told(findings []explain.Finding) string {
	var b strings.Builder
	for _, f := range findings {
		b.WriteString(f.Code + "=" + strconv.FormatFloat(f.Strength, 'g', -1, 64) + " ")
	}
	return b.String()
}
