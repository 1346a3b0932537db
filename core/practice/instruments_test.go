package practice_test

import (
	"math"
	"regexp"
	"strconv"
	"testing"

	"corvek/core/field"
	"corvek/core/practice"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func kind(t require.TestingT, code string) practice.Kind {
	k, known := practice.KindByCode(code)
	require.True(t, known)
	return k
}

func typed(v float64) string { return strconv.FormatFloat(v, 'f', 6, 64) }

// Of any instrument the right answer is right, in its own unit and in another; one division of it off is not; and
// the same seed gives the same setting.
func TestAnswersOfAnyInstrument(t *testing.T) {
	other := map[string]float64{"mm": 1 / 25.4, "in": 25.4, "bar": 14.5037738, "psi": 1 / 14.5037738,
		"L/min": 1 / 3.785411784,
		"gpm":   3.785411784}
	unit := map[string]string{"mm": "in", "in": "mm", "bar": "psi", "psi": "bar", "L/min": "gpm", "gpm": "L/min"}
	rapid.Check(t, func(r *rapid.T) {
		k := rapid.SampledFrom(practice.Kinds()).Draw(r, "kind")
		e := practice.New(k, rapid.Bool().Draw(r, "inch"), rapid.Uint64().Draw(r, "seed"))
		assert.Equal(r, e.Asks, practice.New(k, e.Inch, e.Seed).Asks)
		var right, elsewhere, wrong []string
		for _, a := range e.Asks {
			require.False(r, math.IsNaN(a.Want) || a.Want <= 0, "%+v", a)
			require.Less(r, a.Within, a.Want)
			right = append(right, typed(a.Want))
			elsewhere = append(elsewhere, strconv.FormatFloat(a.Want*other[e.Unit], 'f', 9, 64)+" "+unit[e.Unit])
			wrong = append(wrong, typed(a.Want+2.5*max(a.Within, a.Step)))
		}
		for _, answers := range [][]string{right, elsewhere} {
			said, err := e.Judge(answers)
			require.NoError(r, err)
			for i, v := range said {
				require.True(r, v.Right, "%s %v: %+v", k.Code, answers[i], v)
			}
		}
		said, err := e.Judge(wrong)
		require.NoError(r, err)
		for _, v := range said {
			require.False(r, v.Right, k.Code)
			require.NotEmpty(r, v.Says)
		}
		require.NotEmpty(r, e.Aloud())
	})
}

// What is said of a slip, by settings that were read by hand from their numbers.
func TestWhereTheEyeWentWrong(t *testing.T) {
	slips := map[string]bool{}
	for seed := range uint64(40) {
		m := practice.New(kind(t, "micrometer"), false, seed)
		says := func(e *practice.Exercise, answer float64, what string) {
			said, err := e.Judge([]string{typed(answer), typed(answer)})
			require.NoError(t, err)
			require.False(t, said[0].Right, "%s: %v for %s", e.Kind.Code, answer, said[0].Want)
			if regexp.MustCompile(what).MatchString(said[0].Says) {
				slips[what] = true
			}
		}
		says(m, m.Barrel.Value-0.5, "line of the sleeve is missing")
		says(m, m.Barrel.Value+0.5, "One line of the sleeve too many")
		if m.Barrel.Base > 0 {
			says(m, m.Barrel.Value-m.Barrel.Base, "does not begin at nothing")
		}
		c := practice.New(kind(t, "vernier_caliper"), false, seed)
		says(c, c.Caliper.Value+1, "One line of the main scale too far")
		b := practice.New(kind(t, "bore_gauge"), false, seed)
		moved := float64(b.Bore.InBore-b.Bore.AtRing) * b.Bore.Division
		says(b, b.Bore.Ring+moved, "wrong way")
		d := practice.New(kind(t, "dial_indicator"), false, seed)
		says(d, float64(d.Dial.High-d.Dial.Low)*d.Dial.Division/2, "That is the bow")
		g := practice.New(kind(t, "pressure_gauge"), false, seed)
		says(g, g.Gauge.Value+g.Gauge.Shift, "beside the pointer")
		f := practice.New(kind(t, "flow_tube"), false, seed)
		says(f, f.Tube.Value-f.Tube.Float, "float's tip")
		l := practice.New(kind(t, "feeler_leaves"), false, seed)
		says(l, l.Asks[1].Want, "That leaf stops")
		says(c, c.Caliper.Value*10, "decimal point")
	}
	assert.Len(t, slips, 10, "%v", slips)
}

// By hand: 12.5 on the sleeve, 23 on the thimble and 4 on the vernier of a frame from 25 are 37.734 mm.
func TestAMicrometerByHand(t *testing.T) {
	for seed := range uint64(200) {
		e := practice.New(kind(t, "micrometer"), false, seed)
		in := e.Barrel.Value - e.Barrel.Base
		n := math.Round(in * 1000)
		sleeve, rest := math.Floor(n/500)*0.5, math.Mod(n, 500)
		thimble, vernier := math.Floor(rest/10), math.Mod(rest, 10)
		assert.InDelta(t, e.Asks[0].Want, e.Barrel.Base+sleeve+thimble*0.01+vernier*0.001, 1e-9)
	}
}

func TestWhatIsNoFigure(t *testing.T) {
	e := practice.New(kind(t, "dial_indicator"), false, 1)
	_, err := e.Judge([]string{"0.1", "about half"})
	var fault *field.Error
	require.ErrorAs(t, err, &fault)
	assert.Equal(t, "answer1", fault.Field)
	_, err = e.Judge(nil)
	assert.Error(t, err)
	_, known := practice.KindByCode("crystal ball")
	assert.False(t, known)
}
