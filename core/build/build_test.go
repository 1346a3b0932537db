package build_test

import (
	"testing"

	"corvek/core/build"

	"github.com/stretchr/testify/assert"
)

func TestSuspectIsTheStepItWentStiffAt(t *testing.T) {
	steps := []build.Step{{Name: "gears", Done: true, Turn: build.Free},
		{Name: "front cover", Done: true, Turn: build.Stiff}, {Name: "bolts"}}
	assert.Equal(t, "stiff since front cover went in", build.Suspect(steps))
	assert.Equal(t, 2, build.Next(steps))
	assert.Empty(t, build.Suspect(steps[:1]))
}

func TestReverse(t *testing.T) { assert.Equal(t, []int{2, 1, 0}, build.Reverse(3)) }
