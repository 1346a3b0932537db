package draw

import (
	"encoding/xml"
	"io"
	"math"
	"sort"
	"strings"
	"testing"

	"corvek/core/family"
	"corvek/core/fastener"
	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// wellFormed fails on markup a browser would have to guess at, and on NaN.
func wellFormed(t testing.TB, svg string) {
	t.Helper()
	require.NotEmpty(t, svg)
	assert.NotContains(t, svg, "NaN")
	assert.NotContains(t, svg, "Inf")
	dec := xml.NewDecoder(strings.NewReader(svg))
	for {
		_, err := dec.Token()
		if err == io.EOF {
			return
		}
		require.NoError(t, err)
	}
}

func line(f *family.Family) Line {
	l := Line{Axes: f.Axes, Title: f.Name, Width: 1132}
	for i, p := range f.Parts {
		l.Parts = append(l.Parts, LinePart{No: i + 1, Code: p.Code, Name: p.Name, Kind: p.Kind, Count: p.Count,
			Branch: p.Branch, Shape: p.Shape, URL: "/x?part=1&y=2"})
	}
	return l
}

func TestEveryFamilyIsDrawn(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, f := range lib {
		t.Run(f.Code, func(t *testing.T) {
			for _, p := range f.Parts {
				assert.NotNil(t, glyphs[p.Kind], "%s has no glyph", p.Kind)
			}
			l := line(f)
			svg := l.SVG()
			wellFormed(t, svg)
			assert.Equal(t, len(f.Parts), strings.Count(svg, "<a class="), "each part is a link")
			cols, _, width, _, _ := l.layout()
			x := 0.0
			for _, c := range cols {
				assert.GreaterOrEqual(t, c.x, x, "columns do not overlap")
				assert.GreaterOrEqual(t, c.w, 30.0, "a finger finds it")
				x = c.x + c.w
			}
			assert.LessOrEqual(t, x, width)
		})
	}
}

func TestThePressPumpFitsTheScreen(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	_, scale, width, _, _ := line(lib["external_gear_pump"]).layout()
	assert.LessOrEqual(t, width, 1132.0)
	assert.Greater(t, scale, 1.1, "and is still large enough to read")
}

func TestNamesAreEscaped(t *testing.T) {
	l := Line{Axes: []float64{0}, Parts: []LinePart{{No: 1, Name: `<b>"&'`, Kind: "plug",
		Shape: family.Shape{W: 10, OD: 20, ID: 10}}}}
	svg := l.SVG()
	wellFormed(t, svg)
	assert.NotContains(t, svg, "<b>")
}

func TestMarksDifferByShape(t *testing.T) {
	seen := map[string]string{}
	for _, shape := range []string{"dot", "bar", "ask", "count", "out", "ok", "tag", "ring", "flag", "next"} {
		var b strings.Builder
		drawMark(&b, Mark{Shape: shape, Text: "1", Fill: .5}, 50)
		wellFormed(t, "<g>"+b.String()+"</g>")
		for other, drawn := range seen {
			assert.NotEqual(t, drawn, b.String(), "%s looks like %s", shape, other)
		}
		seen[shape] = b.String()
	}
}

func TestThreeHundredParts(t *testing.T) {
	l := Line{Axes: []float64{0}, Width: 1132}
	for i := range 300 {
		l.Parts = append(l.Parts, LinePart{No: i + 1, Name: "Plate", Kind: "plate", Count: 1,
			Shape: family.Shape{W: 4, Top: 40, Base: -40, ID: 20}})
	}
	wellFormed(t, l.SVG())
}

func show(v float64) string { return Length(1)(v) }

func TestToleranceBarIsNeverBroken(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		lo := rapid.Float64Range(0, .1).Draw(rt, "lower")
		hi := lo + rapid.Float64Range(1e-6, .01).Draw(rt, "band")
		v := rapid.Float64Range(-.1, .3).Draw(rt, "value")
		bar := ToleranceBar{Limits: metrology.Between(lo, hi), Value: v, HasValue: true, Uncertainty: 1e-5,
			Show: show, Narrow: rapid.Bool().Draw(rt, "narrow")}
		svg := bar.SVG()
		if strings.Contains(svg, "NaN") || !strings.HasSuffix(svg, "</svg>") {
			rt.Fatal(svg)
		}
	})
	open := ToleranceBar{Limits: metrology.AtMost(177.8e-6), IsLeaves: true,
		Interval: metrology.Interval{AtLeast: 127e-6}, Verdict: metrology.Undecided, Show: show}
	svg := open.SVG()
	wellFormed(t, svg)
	assert.Contains(t, svg, "at least 0.127 mm")
	assert.Empty(t, ToleranceBar{Show: show}.SVG(), "nothing to show, nothing drawn")
}

func TestProfile(t *testing.T) {
	p := Profile{Grid: [][]float64{{.08, .0801}, {.0802, math.NaN()}}, Nominal: .08, Limit: .0805, HasLimit: true,
		Bore: true}
	wellFormed(t, p.SVG())
	assert.Empty(t, Profile{}.SVG())
}

func TestFlowPlot(t *testing.T) {
	f := FlowPlot{Theory: 7.73e-4, Duty: 175e5, Band: func(s float64) float64 { return .97 - .07*s }, System: 1,
		Curves: []Curve{{"found", "as found", func(p float64) float64 { return 7.73e-4 - p*8e-12 }}},
		Points: []PlotPoint{{"received", 175e5, 6.3e-4, "x"}, {"failed", 88e5, 6e-4, "y"},
			{"rebuilt", 175e5, 7.4e-4, "z"}}}
	svg := f.SVG()
	wellFormed(t, svg)
	for _, words := range []string{"theoretical 46.38 L/min", "as found", "measured as received", "earlier attempt"} {
		assert.Contains(t, svg, words)
	}
	assert.Empty(t, FlowPlot{}.SVG())
}

func TestTicksAreRound(t *testing.T) {
	assert.Equal(t, []float64{0, 50, 100, 150}, ticks(0, 184, 5))
	assert.Nil(t, ticks(5, 5, 4))
}

func TestBoltCircleAndPair(t *testing.T) {
	svg := BoltCircle(fastener.Crosswise(8))
	wellFormed(t, svg)
	assert.Equal(t, 8, strings.Count(svg, "bo-n"))
	right, left := GearPair("right"), GearPair("left")
	wellFormed(t, right)
	assert.NotEqual(t, right, left)
	assert.NotContains(t, GearPair(""), ">in<", "an unknown rotation has no inlet side")
	for i := range 5 {
		wellFormed(t, GradeTile(i))
	}
	assert.Empty(t, GradeTile(9))
}

func BenchmarkLine(b *testing.B) {
	lib, _ := family.Shipped()
	l := line(lib["external_gear_pump"])
	for b.Loop() {
		_ = l.SVG()
	}
}

// Every kind that a family may name can be drawn, and nothing else is offered.
func TestEveryKindHasAGlyph(t *testing.T) {
	drawn := Kinds()
	sort.Strings(drawn)
	kinds := append([]string{}, family.Kinds()...)
	sort.Strings(kinds)
	assert.Equal(t, kinds, drawn)
}
