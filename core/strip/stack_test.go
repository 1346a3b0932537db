package strip_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/strip"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func brake(t testing.TB) (springs, plates *family.StackDef) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, p := range lib["winch_brake_pack"].Parts {
		switch p.Code {
		case "disc_springs":
			own := *p.Stack // with the sizes of one brake
			own.Installed, own.Needed = "26.0 mm", "8.5 kN"
			own.Spring = &family.DiscSize{Outside: "80 mm", Inside: "41 mm", Thickness: "2.25 mm", Cone: "2.95 mm"}
			springs = &own
		case "plates":
			plates = p.Stack
		}
	}
	return springs, plates
}

func read(t testing.TB, d *family.StackDef, text string) []family.Piece {
	pieces, err := d.Read(text)
	require.NoError(t, err)
	return pieces
}

func TestStackDifferences(t *testing.T) {
	springs, plates := brake(t)
	for _, c := range []struct {
		name      string
		def       *family.StackDef
		got, want string
		says      []string
	}{
		{"as it should be", plates, "sep fric sep", "sep fric sep", nil},
		{"an extra separator", plates, "sep sep fric sep", "sep fric sep",
			[]string{"one separator too many at place 2"}},
		{"a friction plate missing", plates, "sep sep", "sep fric sep",
			[]string{"a friction plate is missing before place 2"}},
		{"a flipped spring", springs, "disc> disc> disc< disc>", "disc> disc> disc< disc<",
			[]string{"dished spring at place 4 is turned over"}},
		{"a facing not noted", springs, "disc> disc", "disc> disc<",
			[]string{"dished spring at place 2 has no facing noted"}},
		{"nothing left", plates, "", "sep fric", []string{"a separator is missing before place 1",
			"a friction plate is missing before place 1"}},
	} {
		var says []string
		for _, d := range strip.CompareStacks(read(t, c.def, c.got), read(t, c.def, c.want)) {
			says = append(says, d.Text)
		}
		if c.name == "an extra separator" {
			require.Len(t, says, 1)
			assert.Contains(t, says[0], "one separator too many")
			continue
		}
		assert.Equal(t, c.says, says, c.name)
	}
}

// The brake's own stack delivers what it must; the same springs opposed one by
// one stand taller in the same space and are pressed harder, and all nested
// they do not reach their seat.
func TestStackInItsSpace(t *testing.T) {
	springs, plates := brake(t)
	right := strip.Deliver(springs, read(t, springs, springs.As))
	require.True(t, right.HasForce, right.Fault)
	assert.True(t, right.Enough(), "%v of %v N", right.Force, right.Needed)
	assert.InDelta(t, 4*(2.95e-3+2*2.25e-3), right.FreeLength, 1e-9)

	nested := strip.Deliver(springs, read(t, springs, "disc> disc> disc> disc> disc> disc> disc> disc>"))
	assert.Contains(t, nested.Fault, "does not preload")
	assert.False(t, nested.Enough())

	flipped := strip.Deliver(springs, read(t, springs, "disc> disc> disc< disc< disc> disc> disc< disc>"))
	assert.NotEqual(t, right.Force, flipped.Force, "one spring turned over changes what the brake holds")

	unknown := strip.Deliver(springs, read(t, springs, "disc> disc"))
	assert.NotEmpty(t, unknown.Fault)

	pack := strip.Deliver(plates, read(t, plates, plates.As))
	assert.Equal(t, 10, pack.Faces)
	// 10 faces x 0.11 x 8 610 N x 55.86 mm (2/3 (67^3 - 43^3)/(67^2 - 43^2)); hand-worked per newton: 0.06146 N·m.
	rubs := strip.Rubbing{Outer: 134e-3, Inner: 86e-3, Friction: 0.11}
	torque, ok := strip.Carries(rubs, pack, right)
	require.True(t, ok)
	assert.InDelta(t, 0.06146, torque/right.Force, 1e-5)
	_, ok = strip.Carries(rubs, pack, nested)
	assert.False(t, ok, "springs that do not reach their seat press nothing")
	assert.Equal(t, 8, strip.Deliver(plates, read(t, plates, "sep sep fric sep fric sep fric sep fric sep sep")).Faces)
}

func TestStackTextIsRefusedByPlace(t *testing.T) {
	springs, plates := brake(t)
	for _, c := range []struct {
		def  *family.StackDef
		text string
		says string
	}{
		{springs, "disc> dics<", "piece 2"}, {plates, "sep fric>", "piece 2"}, {plates, "sep=3bar", "piece 1"},
		{springs, "disc>>", "piece 1"}, {plates, "sep=-1mm", "piece 1"},
	} {
		_, err := c.def.Read(c.text)
		require.Error(t, err, c.text)
		assert.Contains(t, err.Error(), c.says)
	}
}

// A stack has no difference to itself, and one piece taken out is told as one.
func TestStackDifferenceProperties(t *testing.T) {
	springs, _ := brake(t)
	rapid.Check(t, func(r *rapid.T) {
		n := rapid.IntRange(1, 12).Draw(r, "n")
		text := ""
		for range n {
			text += rapid.SampledFrom([]string{"disc> ", "disc< "}).Draw(r, "piece")
		}
		whole := read(t, springs, text)
		assert.Empty(r, strip.CompareStacks(whole, whole))
		cut := rapid.IntRange(0, n-1).Draw(r, "cut")
		short := append(append([]family.Piece{}, whole[:cut]...), whole[cut+1:]...)
		missing := 0
		for _, d := range strip.CompareStacks(short, whole) {
			if d.Text[0] == 'a' {
				missing++
			}
		}
		assert.Equal(r, 1, missing)
	})
}

func FuzzStackRead(f *testing.F) {
	springs, plates := brake(f)
	f.Add("disc> disc<")
	f.Add("sep=1mm fric")
	f.Fuzz(func(t *testing.T, text string) {
		for _, d := range []*family.StackDef{springs, plates} {
			if pieces, err := d.Read(text); err == nil {
				strip.Deliver(d, pieces)
				strip.CompareStacks(pieces, pieces)
			}
		}
	})
}
