package bench_test

import (
	"fmt"
	"testing"

	"corvek/core/bench"
	"corvek/core/bench/benchtest"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// worn is a gear pump whose side clearance was tried with leaves: 0.10 mm goes, 0.12 mm stops.
func worn(t testing.TB) *unit.Job {
	j := benchtest.Job(t, "external_gear_pump")
	u := j.Units[0]
	u.Displacement, _ = quantity.Parse("32 cc/rev", quantity.Displacement)
	u.Speed, _ = quantity.Parse("1450 rpm", quantity.Rotation)
	return j
}

// A unit in a few lines: what it is made for is there, and what is not known is named.
func TestAUnitInAFewLines(t *testing.T) {
	st := benchtest.State(t, worn(t))
	assert.InDelta(t, 46.4e-3/60, st.Found.Theoretical(), 1e-9, "32 cm³ × 1450 /min = 46.4 L/min")
	assert.False(t, st.Leak.Known)
	assert.Equal(t, []string{"duty pressure", "viscosity at duty"}, st.Leak.Needs[:2])
	assert.Empty(t, st.Explained().Ranking, "nothing was told, so nothing is made up")
	assert.Equal(t, "receive", bench.Stands([]*bench.State{st}))
}

func TestOfSaysWhatIsMissing(t *testing.T) {
	b := benchtest.Basis(t, worn(t))
	b.Number = 2
	_, err := bench.Of(b)
	require.ErrorContains(t, err, "T-1 has no unit 2")
	j := worn(t)
	j.Units[0].Family = "washing_machine"
	_, err = bench.Of(benchtest.Basis(t, j))
	require.ErrorContains(t, err, "washing_machine")
}

// What was inferred is worked out once for all states that rest on the same evidence, and anew
// where one mark more was seen.
func TestInferredOnceForTheSameEvidence(t *testing.T) {
	memo, err := bench.NewMemo(8)
	require.NoError(t, err)
	state := func(j *unit.Job) *bench.State {
		b := benchtest.Basis(t, j)
		b.Memo = memo
		st, err := bench.Of(b)
		require.NoError(t, err)
		return st
	}
	j := worn(t)
	code := state(j).Knowledge.Evidence[0].Code
	see := func(code string) {
		u := j.Units[0]
		u.Marks = append(u.Marks, &unit.UnitMark{Mark: unit.Mark{Round: 1, Code: code, State: unit.MarkSeen}})
	}
	see(code)
	first := state(j)
	j.Units[0].Filtration = "10 µm" // tells nothing of the causes
	second := state(j)
	require.NotEmpty(t, first.Explained().Ranking)
	assert.Same(t, first.Explained().Ranking[0].Cause, second.Explained().Ranking[0].Cause)
	assert.Same(t, &first.Explained().Ranking[0], &second.Explained().Ranking[0], "the very same answer")
	// How often the shop met a cause is part of it, and remembered too; so is the family as it is.
	met := func(times int) *bench.State {
		b := benchtest.Basis(t, j)
		b.Memo = memo
		b.Catalog.Concluded = map[string]map[string]int{"external_gear_pump": {"worn_out": times}}
		st, err := bench.Of(b)
		require.NoError(t, err)
		return st
	}
	assert.Same(t, met(3).Knowledge, met(3).Knowledge)
	assert.NotSame(t, met(3).Knowledge, met(4).Knowledge)
	b := benchtest.Basis(t, j)
	b.Memo = memo
	other := *b.Catalog.Plain["external_gear_pump"]
	other.Symptoms = nil
	b.Catalog.Families = func(*unit.Unit) *family.Family { return &other }
	st, err := bench.Of(b)
	require.NoError(t, err)
	assert.NotSame(t, second.Knowledge, st.Knowledge, "the shop wrote the family anew")
	see(state(j).Knowledge.Evidence[1].Code)
	third := state(j)
	assert.NotSame(t, &first.Explained().Ranking[0], &third.Explained().Ranking[0])
}

func ExampleOf() {
	t := new(testing.T)
	j := benchtest.Job(t, "external_gear_pump")
	j.Units[0].Displacement, _ = quantity.Parse("32 cc/rev", quantity.Displacement)
	j.Units[0].Speed, _ = quantity.Parse("1450 rpm", quantity.Rotation)
	st, err := bench.Of(benchtest.Basis(t, j))
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(quantity.Show(st.Found.Theoretical(), quantity.Flow, quantity.Metric))
	fmt.Println(st.Open("strip") > 0)
	// Output:
	// 46.40 L/min
	// true
}

func BenchmarkOf(b *testing.B) {
	basis := benchtest.Basis(b, worn(b))
	var err error
	if basis.Memo, err = bench.NewMemo(8); err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		if _, err := bench.Of(basis); err != nil {
			b.Fatal(err)
		}
	}
}

// Not looked and not tried are nothing: no mark is absent because of them.
func TestWhatNobodyTriedIsNoFinding(t *testing.T) {
	for said, found := range map[string]bool{"": false, family.NotTried: false, "same": true, "cured": true} {
		j := worn(t)
		j.Units[0].Gauge = map[string]string{"new_unit": said}
		st := benchtest.State(t, j)
		asked := false
		for _, source := range st.Sources {
			asked = asked || source == "asked at the machine"
		}
		assert.Equal(t, found, asked, said)
	}
}
