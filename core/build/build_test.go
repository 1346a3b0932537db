package build_test

import (
	"testing"

	"corvek/core/build"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTightenBySizeAndClass(t *testing.T) {
	// M10 8.8: 57.99 mm² · 580 MPa · 0.75 = 25.23 kN; 0.15 · 10 mm · F = 37.8 N·m.
	tt, err := build.Tighten("M10", "8.8", "", 8)
	require.NoError(t, err)
	assert.InDelta(t, 37.84, tt.Torque, 0.05)
	assert.Contains(t, tt.Source, "table")
	assert.Equal(t, []int{1, 5, 3, 7, 2, 6, 4, 8}, tt.Order)
	assert.InDelta(t, 0.3*tt.Torque, tt.Stages[0], 1e-9)
}

func TestTorqueOfTheFamilyIsGuidance(t *testing.T) {
	tt, err := build.Tighten("M20x1.5", "8.8", "60 N·m", 0)
	require.NoError(t, err)
	assert.InDelta(t, 60, tt.Torque, 1e-12)
	assert.Contains(t, tt.Source, "guidance")
}

func TestUnknownClassGivesNoTorque(t *testing.T) {
	tt, err := build.Tighten("M10", "unknown", "", 0)
	require.NoError(t, err)
	assert.True(t, tt.Unknown)
	assert.Zero(t, tt.Torque)
}

func TestSuspectIsTheStepItWentStiffAt(t *testing.T) {
	steps := []build.Step{{Name: "gears", Done: true, Turn: build.Free},
		{Name: "front cover", Done: true, Turn: build.Stiff}, {Name: "bolts"}}
	assert.Equal(t, "stiff since front cover went in", build.Suspect(steps))
	assert.Equal(t, 2, build.Next(steps))
	assert.Empty(t, build.Suspect(steps[:1]))
}

func TestReverse(t *testing.T) { assert.Equal(t, []int{2, 1, 0}, build.Reverse(3)) }
