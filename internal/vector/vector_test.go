package vector

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func read(t *testing.T, inside string) *Drawing {
	t.Helper()
	d, err := Read(`<svg viewBox="0 0 100 50">` + inside + `</svg>`)
	require.NoError(t, err)
	return d
}

// The looks come from the style sheets of the pages: the light colours, the stronger rule last.
func TestLooksComeFromTheStyleSheets(t *testing.T) {
	for _, c := range []struct {
		svg          string
		fill, stroke string
		width        float64
	}{
		{`<rect class="o" width="4" height="4"/>`, "#fbfbf8", "#1c2529", 1.5},
		{`<rect class="mk red out" width="4" height="4"/>`, "#b3341a", "", 1},
		{`<path class="mk ochre ask" d="M0 0h4"/>`, "#fbfbf8", "#9a5f06", 2},
		{`<g class="lp sel"><rect class="hit" width="4" height="4"/></g>`, "#d5e5e7", "#0b5560", 2},
		{`<rect class="hit" width="4" height="4"/>`, "", "", 1},
		{`<path class="pl-ax" d="M0 0v4h4"/>`, "", "#1c2529", 1.4},
		{`<path d="M0 0h4" fill="#112233"/>`, "#112233", "", 1},
	} {
		shape := read(t, c.svg).Shapes[0]
		for name, got := range map[string]Paint{c.fill: shape.Fill, c.stroke: shape.Stroke} {
			if name == "" {
				assert.False(t, got.On, c.svg)
				continue
			}
			want, ok := hex(name)
			require.True(t, ok, name)
			assert.Equal(t, Paint{On: true, Color: want}, got, c.svg)
		}
		assert.Equal(t, c.width, shape.Width, c.svg)
	}
	hatched := read(t, `<rect class="h" width="4" height="4"/>`).Shapes[0]
	assert.Equal(t, "hatch", hatched.Fill.Pattern)
	axis := read(t, `<path class="cl" d="M0 0h9"/>`).Shapes[0]
	assert.Equal(t, []float64{14, 4, 3, 4}, axis.Dash)
	assert.Equal(t, 0.75, axis.Opacity)
	word := read(t, `<text class="no" x="5" y="6">12</text>`).Shapes[0]
	assert.Equal(t, []any{"12", "heading", 700, 13.0, "middle", Point{5, 6}},
		[]any{word.Text, word.Face, word.Weight, word.Size, word.Anchor, word.At})
}

func TestPathsAreFollowed(t *testing.T) {
	for _, c := range []struct {
		d    string
		ends []Point // where each step ends
	}{
		{"M1 2 L3 4 h2 v-1 H0 V0z", []Point{{1, 2}, {3, 4}, {5, 4}, {5, 3}, {0, 3}, {0, 0}, {}}},
		{"m1,1 2,3 -1-1", []Point{{1, 1}, {3, 4}, {2, 3}}},
		{"M0 0 q2 4 4 0 t4 0", []Point{{0, 0}, {4, 0}, {8, 0}}},
		{"M0 0 c1 1 2 1 3 0 s2-1 3 0", []Point{{0, 0}, {3, 0}, {6, 0}}},
		{"M5.5.5l.5.5", []Point{{5.5, .5}, {6, 1}}},
	} {
		steps, err := readPath(c.d)
		require.NoError(t, err, c.d)
		require.Len(t, steps, len(c.ends), c.d)
		for i, s := range steps {
			assert.InDelta(t, c.ends[i].X, s.To.X, 1e-12, c.d)
			assert.InDelta(t, c.ends[i].Y, s.To.Y, 1e-12, c.d)
		}
	}
	// A curve is carried on with its last control mirrored: (2,1) about (3,0) is (4,-1).
	steps, err := readPath("M0 0 c1 1 2 1 3 0 s2-1 3 0")
	require.NoError(t, err)
	assert.Equal(t, Point{4, -1}, steps[2].First)
	for _, bad := range []string{"M1", "M1 2 L", "M1 2 X3", "L1 2 3", "1 2"} {
		_, err := readPath(bad)
		assert.Error(t, err, bad)
	}
}

// Half a turn of radius 5 about (5, 0), by the sweep over the lower or the upper side.
func TestArcsStayOnTheirCircle(t *testing.T) {
	for d, side := range map[string]float64{"M0 0 a5 5 0 0 1 10 0": -1, "M0 0 a5 5 0 0 0 10 0": 1} {
		steps, err := readPath(d)
		require.NoError(t, err)
		assert.InDelta(t, 10, steps[len(steps)-1].To.X, 1e-9)
		rings := Flat(append(steps, Step{Op: Close}))
		require.Len(t, rings, 1)
		for _, p := range rings[0] {
			assert.InDelta(t, 5, math.Hypot(p.X-5, p.Y), 0.005, d)
			assert.GreaterOrEqual(t, p.Y*side, -1e-9, d)
		}
	}
	for _, p := range Flat(circle(3, 4, 2))[0] {
		assert.InDelta(t, 2, math.Hypot(p.X-3, p.Y-4), 0.002)
	}
}

func TestGroupsArePlaced(t *testing.T) {
	d := read(t, `<g transform="translate(10 20)"><g transform="scale(2)"><rect x="1" y="2" width="3" height="4"/></g>
		<g transform="rotate(90)"><line x1="1" y1="0" x2="2" y2="0"/></g></g>`)
	assert.Equal(t, Point{12, 24}, d.Shapes[0].Outline[0].To)
	assert.Equal(t, Point{18, 32}, d.Shapes[0].Outline[2].To)
	assert.InDelta(t, 10, d.Shapes[1].Outline[0].To.X, 1e-12)
	assert.InDelta(t, 21, d.Shapes[1].Outline[0].To.Y, 1e-12)
}

func TestWhatIsNoDrawingIsRefused(t *testing.T) {
	for _, bad := range []string{"", "<p>no</p>", "<svg></svg>", `<svg viewBox="0 0 0 5"></svg>`,
		`<svg viewBox="0 0 NaN 5"></svg>`, `<svg viewBox="0 0 9 9"><path d="M1 2 oops"/></svg>`} {
		_, err := Read(bad)
		assert.Error(t, err, bad)
	}
}

// Whatever a picture brings, reading ends and its figures are figures.
func FuzzRead(f *testing.F) {
	f.Add(`<svg viewBox="0 0 9 9"><g transform="rotate(45 1 2)"><path class="h" d="M0 0 a1 2 30 1 0 4 4z"/></g></svg>`)
	f.Add(`<svg viewBox="0 0 9 9"><circle r="NaN"/><text font-size="9">x</text></svg>`)
	f.Fuzz(func(t *testing.T, svg string) {
		d, err := Read(svg)
		if err != nil {
			return
		}
		assert.Positive(t, d.Width)
		assert.LessOrEqual(t, len(d.Shapes), mostShapes+1)
	})
}
