package document

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A code is drawn dot by dot: a quiet rim of four, and the three marks of seven dots by which a
// camera finds it (ISO/IEC 18004).
func TestTheCodeIsDrawn(t *testing.T) {
	assert.Empty(t, codeSVG(""))
	assert.Empty(t, codeSVG(strings.Repeat("x", 5000)), "too long for a code")
	svg := codeSVG("http://bench.example/jobs/T-0417")
	box := regexp.MustCompile(`viewBox="0 0 (\d+) (\d+)"`).FindStringSubmatch(svg)
	require.NotNil(t, box)
	size, err := strconv.Atoi(box[1])
	require.NoError(t, err)
	assert.Zero(t, (size-2*rim-17)%4, "21, 25, 29 … dots a side")
	dots := map[[2]int]bool{}
	for _, m := range regexp.MustCompile(`M(\d+) (\d+)h(\d+)v1h-(\d+)z`).FindAllStringSubmatch(svg, -1) {
		var x, y, run, back int
		_, err := fmt.Sscan(strings.Join(m[1:], " "), &x, &y, &run, &back)
		require.NoError(t, err)
		require.Equal(t, run, back)
		for i := range run {
			dots[[2]int{x + i, y}] = true
		}
	}
	for at := range dots {
		assert.True(t, min(at[0], at[1]) >= rim && max(at[0], at[1]) < size-rim, "the rim is quiet")
	}
	mark := []string{"#######", "#.....#", "#.###.#", "#.###.#", "#.###.#", "#.....#", "#######"}
	far := size - rim - 7
	for _, corner := range [][2]int{{rim, rim}, {far, rim}, {rim, far}} {
		for y, row := range mark {
			for x, want := range row {
				assert.Equal(t, want == '#', dots[[2]int{corner[0] + x, corner[1] + y}], "%v %d %d", corner, x, y)
			}
		}
	}
}
