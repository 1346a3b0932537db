package draw_test

import (
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"strings"
	"testing"

	"corvek/core/quantity"
	"corvek/internal/draw"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// sound reads a drawing as XML and looks for figures that are none.
func sound(t require.TestingT, svg string) {
	dec := xml.NewDecoder(strings.NewReader(svg))
	for {
		_, err := dec.Token()
		if err == io.EOF {
			break
		}
		require.NoError(t, err, svg)
	}
	for _, bad := range []string{"NaN", "Inf", `width="-`, `height="-`, `r="-`} {
		require.NotContains(t, svg, bad)
	}
}

func TestSectionsOfAnyProportion(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		size := rapid.Float64Range(1e-5, 5)
		bore := size.Draw(r, "bore")
		sound(r, draw.CylinderSection{Bore: bore, Rod: bore * rapid.Float64Range(0, .99).Draw(r, "rod"),
			Stroke: size.Draw(r, "stroke"), Push: "<1 kN", Pull: "2 & 3", BackPressure: "1"}.SVG())
		sound(r, draw.IntensifierSection{Drive: size.Draw(r, "d"), Plunger: size.Draw(r, "p")}.SVG())
		sound(r, draw.GlandSection{Section: size.Draw(r, "s"), Depth: size.Draw(r, "h"), Width: size.Draw(r, "w"),
			Gap: size.Draw(r, "g"), HasGap: rapid.Bool().Draw(r, "has"), Backup: rapid.Bool().Draw(r, "back"),
			FromAbove: rapid.Bool().Draw(r, "above")}.SVG())
		sound(r, draw.LipOffset{Groove: size.Draw(r, "gr"), GrooveWidth: size.Draw(r, "gw"),
			Seal: size.Draw(r, "sl"), Lip: size.Draw(r, "l"), Bottom: size.Draw(r, "b"), Depth: size.Draw(r, "dp"),
			HasDepth: rapid.Bool().Draw(r, "hd")}.SVG())
		stack := rapid.StringMatching(`[<>]{1,40}`).Draw(r, "stack")
		inside := size.Draw(r, "in")
		svg := draw.DiscStack{Stack: stack, Outside: inside * 2, Inside: inside, Thickness: size.Draw(r, "t"),
			Cone: size.Draw(r, "c"), Edit: "stack"}.SVG()
		sound(r, svg)
		assert.Equal(r, len(stack), strings.Count(svg, "data-flip="), "every disc can be turned over")
	})
}

// A disc dished to the right has its rim to the left of its bore, and the other
// way round; the drawing must not lie about a facing.
func TestDiscsFaceAsTyped(t *testing.T) {
	d := draw.DiscStack{Outside: 50, Inside: 25, Thickness: 2, Cone: 1.4}
	first := func(stack string) (rim, bore float64) {
		d.Stack = stack
		_, path, ok := strings.Cut(d.SVG(), `dish`)
		require.True(t, ok)
		_, path, _ = strings.Cut(path, `d="M`)
		var y float64
		n, err := fmt.Sscan(strings.NewReplacer("L", " ", "H", " ").Replace(path), &rim, &y)
		require.NoError(t, err)
		require.Equal(t, 2, n)
		_, path, _ = strings.Cut(path, "L")
		_, err = fmt.Sscan(strings.NewReplacer("L", " ", "H", " ").Replace(path), &bore, &y)
		require.NoError(t, err)
		return rim, bore
	}
	rim, bore := first(">")
	assert.Less(t, rim, bore)
	rim, bore = first("<")
	assert.Greater(t, rim, bore)
}

func TestPlateStackMarksWorkingFaces(t *testing.T) {
	svg := draw.PlateStack("sfsfs", "plates")
	sound(t, svg)
	assert.Equal(t, 4+1, strings.Count(svg, `class="works"`), "four contacts and the legend")
	assert.Empty(t, draw.PlateStack("sfx", ""))
}

func TestChartKeepsToItsSheet(t *testing.T) {
	c := draw.Chart{X: draw.Axis{Dim: quantity.Temperature, Low: -20, Top: 110},
		Y: draw.Axis{Dim: quantity.KinematicViscosity, Low: 4e-6, Top: 2e-3, Log: true},
		Traces: []draw.Trace{{Class: "now", Points: draw.Over(-20, 110, 50,
			func(x float64) float64 { return 1e-2 * math.Exp(-x/20) })}},
		Spots: []draw.Spot{{Class: "petrol", X: 60, Y: 2e-5, Label: `<"&`}}}
	svg := c.SVG()
	sound(t, svg)
	assert.Contains(t, svg, "cSt")
	assert.Empty(t, draw.Chart{}.SVG(), "an axis without length is not drawn")
	// The curve above the sheet is left off, not drawn along its edge.
	_, d, _ := strings.Cut(svg, `class="tr now" d="M`)
	assert.False(t, strings.HasPrefix(d, "58 "))
}

// The matrix draws what speaks for to the right of its column's line and what
// speaks against to the left, and words of any length stay inside.
func TestMatrixDrawsBothWays(t *testing.T) {
	m := draw.Matrix{Columns: []draw.MatrixColumn{{Name: "Hard <dirt> in the oil that came from somewhere nobody " +
		"has ever looked", Share: .7}, {Name: "Water", Mine: true}},
		Rows: []draw.MatrixRow{{Name: strings.Repeat("long ", 40), State: "seen", Information: []float64{2, -1}},
			{Name: "b", State: "absent", Information: []float64{0, .02}}}}
	svg := m.SVG()
	sound(t, svg)
	assert.Equal(t, 1, strings.Count(svg, `class="mx-for"`))
	assert.Equal(t, 1, strings.Count(svg, `class="mx-no"`))
	assert.Equal(t, 2, strings.Count(svg, `class="dot"`), "what says next to nothing is a dot")
	assert.Equal(t, 1, strings.Count(svg, `class="mx-mine"`))
	assert.Empty(t, draw.Matrix{}.SVG())
	sound(t, draw.TimeStrip([]draw.StripEvent{{Text: "a & b", Age: "old"}}, nil,
		[]draw.StripEvent{{Text: strings.Repeat("word ", 30), Answered: true}}))
}

// A pack is drawn piece by piece, each a target of its own, and what a tap
// writes stands on it.
func TestPiecesCarryWhatATapWrites(t *testing.T) {
	svg := draw.Pieces([]draw.PieceView{{Kind: "disc", Facing: '>', Faced: true, Title: "Dished <spring>",
		Set: "part.1.stack_found", Base: "disc>", Turn: "disc<", Drop: ""},
		{Kind: "shim", Title: "Shim", Locked: true}}, "pack")
	sound(t, svg)
	assert.Contains(t, svg, `data-value="disc&lt;"`)
	assert.Equal(t, 1, strings.Count(svg, "take out"), "a locked piece cannot be taken out")
	assert.Empty(t, draw.Pieces(nil, ""))
}
