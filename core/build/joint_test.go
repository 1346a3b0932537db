package build_test

import (
	"testing"

	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func joint(t *testing.T, def *family.Bolt, own unit.Joint) build.Joint {
	t.Helper()
	j, bolted := build.JointOf(&family.Part{Kind: "bolts", Bolt: def}, own)
	require.True(t, bolted)
	return j
}

func newtons(t *testing.T, text string) quantity.Quantity {
	t.Helper()
	q, err := quantity.Parse(text, quantity.Torque)
	require.NoError(t, err)
	return q
}

func TestTightenBySizeAndClass(t *testing.T) {
	// M10 8.8: 57.99 mm² · 580 MPa · 0.75 = 25.23 kN; 0.15 · 10 mm · F = 37.8 N·m.
	j := joint(t, &family.Bolt{Thread: "M10", Class: "8.8", Circle: 8}, unit.Joint{})
	tt, err := build.Tighten(j)
	require.NoError(t, err)
	assert.InDelta(t, 37.84, tt.Torque, 0.05)
	assert.Contains(t, tt.Source, "table")
	assert.Equal(t, []int{1, 5, 3, 7, 2, 6, 4, 8}, tt.Order)
	assert.InDelta(t, 0.3*tt.Torque, tt.Stages[0], 1e-9)
	// Dry: 0.20 in place of 0.15.
	j.Dry = true
	dry, err := build.Tighten(j)
	require.NoError(t, err)
	assert.InDelta(t, tt.Torque*0.20/0.15, dry.Torque, 1e-9)
	assert.Contains(t, dry.Source, "dry")
}

func TestTorqueOfTheSheetIsItsModels(t *testing.T) {
	bolt := &family.Bolt{Thread: "M20x1.5", Class: "8.8", Torque: "60 N·m"}
	tt, err := build.Tighten(joint(t, bolt, unit.Joint{}))
	require.NoError(t, err)
	assert.InDelta(t, 60, tt.Torque, 1e-12)
	assert.Contains(t, tt.Source, "sheet of the model")

	// Another thread or class than the sheet's: its figure is not this joint's.
	tt, err = build.Tighten(joint(t, bolt, unit.Joint{Class: "10.9"}))
	require.NoError(t, err)
	assert.Greater(t, tt.Torque, 300.0)
	assert.Contains(t, tt.Source, "table: M20x1.5 class 10.9")

	tt, err = build.Tighten(joint(t, bolt, unit.Joint{Torque: newtons(t, "72 N·m"), Source: "sheet 4-12"}))
	require.NoError(t, err)
	assert.InDelta(t, 72, tt.Torque, 1e-12)
	assert.Equal(t, "maker's figure, sheet 4-12", tt.Source)
	tt, err = build.Tighten(joint(t, nil, unit.Joint{Thread: "M8", Class: "8.8", Torque: newtons(t, "15 N·m")}))
	require.NoError(t, err)
	assert.Contains(t, tt.Source, "without a document")
}

func TestUnknownClassGivesNoTorque(t *testing.T) {
	j := joint(t, &family.Bolt{Thread: "M10", Class: "8.8", Torque: "40 N·m"}, unit.Joint{Class: "unknown"})
	tt, err := build.Tighten(j)
	require.NoError(t, err)
	assert.True(t, tt.Unknown)
	assert.Zero(t, tt.Torque)
	load, ok := j.Loads(40)
	assert.True(t, ok)
	assert.True(t, load.Unknown)
	// M10 oiled: 37.8 N·m of 8.8 to 63.3 of 12.9 (57.99 mm² at 970 MPa).
	unread, err := build.Tighten(joint(t, nil, unit.Joint{Thread: "M10"}))
	require.NoError(t, err)
	assert.InDelta(t, 37.84, unread.Low, 0.05)
	assert.InDelta(t, 63.28, unread.High, 0.05)
	_, bolted := build.JointOf(&family.Part{Kind: "bolts"}, unit.Joint{})
	assert.False(t, bolted)
	tt, err = build.Tighten(joint(t, &family.Bolt{Circle: 8}, unit.Joint{}))
	require.NoError(t, err)
	assert.True(t, tt.Unknown, "nobody read its thread")
	assert.Len(t, tt.Order, 8)
	assert.Empty(t, tt.Stages)
	tt, err = build.Tighten(
		joint(t, nil, unit.Joint{Class: "unknown", Torque: newtons(t, "40 N·m"), Source: "sheet 4"}),
	)
	require.NoError(t, err)
	assert.InDelta(t, 40, tt.Torque, 1e-12, "a document needs no head mark")
}

func TestATypedTorqueIsJudged(t *testing.T) {
	// M10 8.8 oiled: proof load 33.6 kN; 50 N·m give 50/(0.15·0.010) = 33.3 kN, 99 %.
	j := joint(t, &family.Bolt{Thread: "M10", Class: "8.8"}, unit.Joint{})
	load, ok := j.Loads(50)
	require.True(t, ok)
	assert.InDelta(t, 0.991, load.Share, 0.005)
	assert.True(t, load.Over)
	load, _ = j.Loads(38)
	assert.InDelta(t, 0.753, load.Share, 0.005)
	assert.False(t, load.Over)
	_, ok = j.Loads(0)
	assert.False(t, ok)
}

// Caps, nuts and ports are no screws: no bolt table tells what they are tightened to.
func TestNoTableTellsTheTorqueOfACap(t *testing.T) {
	cap := func(own unit.Joint) build.Tightening {
		j, bolted := build.JointOf(&family.Part{Kind: "plug", Bolt: &family.Bolt{}}, own)
		require.True(t, bolted)
		_, judged := j.Loads(500)
		assert.False(t, judged)
		tt, err := build.Tighten(j)
		require.NoError(t, err)
		return tt
	}
	open := cap(unit.Joint{Thread: "M27x2", Class: "8.8"})
	assert.Zero(t, open.Torque)
	assert.Contains(t, open.Source, "no table tells it")
	assert.InDelta(t, 450, cap(unit.Joint{Torque: newtons(t, "450 N·m"), Source: "book"}).Torque, 1e-12)
	assert.Equal(t, "two flats past hand tight", cap(unit.Joint{Angle: "two flats past hand tight"}).Source)
}

// M10: 57.99 mm² of 4.6 at 225 MPa and of A2-70 at 450 MPa.
func TestSofterClassesByHand(t *testing.T) {
	for class, want := range map[string]float64{"4.6": 14.68, "5.8": 24.79, "A2-70": 29.36, "A2-50": 13.70} {
		tt, err := build.Tighten(joint(t, nil, unit.Joint{Thread: "M10", Class: class}))
		require.NoError(t, err)
		assert.InDelta(t, want, tt.Torque, 0.02, class)
	}
}
