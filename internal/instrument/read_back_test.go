package instrument_test

import (
	"encoding/xml"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"corvek/core/practice"
	"corvek/internal/instrument"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// shape is an element of a drawing, as an eye that knows nothing of how it was made has it.
type shape struct {
	XMLName xml.Name
	Class   string  `xml:"class,attr"`
	X       float64 `xml:"x,attr"`
	Y       float64 `xml:"y,attr"`
	W       float64 `xml:"width,attr"`
	H       float64 `xml:"height,attr"`
	X1      float64 `xml:"x1,attr"`
	Y1      float64 `xml:"y1,attr"`
	X2      float64 `xml:"x2,attr"`
	Y2      float64 `xml:"y2,attr"`
	CX      float64 `xml:"cx,attr"`
	CY      float64 `xml:"cy,attr"`
	Text    string  `xml:",chardata"`
}

func (s *shape) is(class string) bool { return slices.Contains(strings.Fields(s.Class), class) }

type seen []*shape

func (all seen) of(tag, class string) (out seen) {
	for _, s := range all {
		if s.XMLName.Local == tag && s.is(class) {
			out = append(out, s)
		}
	}
	return out
}

// look takes a drawing apart.
func look(t *testing.T, svg string) seen {
	var drawing struct {
		Shapes seen `xml:",any"`
	}
	require.NoError(t, xml.Unmarshal([]byte(svg), &drawing))
	return drawing.Shapes
}

func number(t *testing.T, text string) float64 {
	v, err := strconv.ParseFloat(strings.Fields(text)[0], 64)
	require.NoError(t, err, text)
	return v
}

// fit finds the line through numbered places by least squares.
func fit(t *testing.T, at, value []float64) func(float64) float64 {
	require.GreaterOrEqual(t, len(at), 2, "two numbers are in view")
	var sx, sy, sxx, sxy float64
	n := float64(len(at))
	for i := range at {
		sx, sy, sxx, sxy = sx+at[i], sy+value[i], sxx+at[i]*at[i], sxy+at[i]*value[i]
	}
	b := (n*sxy - sx*sy) / (n*sxx - sx*sx)
	a := (sy - b*sx) / n
	for i := range at {
		require.InDelta(t, value[i], a+b*at[i], math.Abs(b)*2+1e-9, "numbers stand at their lines")
	}
	return func(x float64) float64 { return a + b*x }
}

// numbered are the lines with a number right at them.
func numbered(lines, texts seen, along func(*shape) float64, place func(*shape) float64) (at, value []float64) {
	for _, l := range lines {
		for _, x := range texts {
			if math.Abs(place(x)-along(l)) < 0.01 {
				at = append(at, along(l))
				v, _ := strconv.ParseFloat(x.Text, 64)
				value = append(value, v)
			}
		}
	}
	return at, value
}

func x1(s *shape) float64 { return s.X1 }
func y1(s *shape) float64 { return s.Y1 }
func x(s *shape) float64  { return s.X }

// plainNumbers are those of the main scale.
func plainNumbers(all seen) seen {
	return slices.DeleteFunc(all.of("text", "in-num"), func(s *shape) bool { return s.is("in-v") })
}

// meeting is the number of the line, counted from the first, that lies nearest to any other.
func meeting(lines []float64, others []float64) (best int, off float64) {
	off = math.Inf(1)
	for i, l := range lines {
		for _, o := range others {
			if d := math.Abs(l - o); d < off {
				best, off = i, d
			}
		}
	}
	return best, off
}

func places(lines seen, along func(*shape) float64) (out []float64) {
	for _, l := range lines {
		out = append(out, along(l))
	}
	slices.Sort(out)
	return out
}

// readCaliper reads as it is taught: the last main line left of zero, and the vernier line that meets one.
func readCaliper(t *testing.T, all seen, _ bool) []float64 {
	main, vernier := all.of("line", "in-main"), places(all.of("line", "in-vernier"), x1)
	at, value := numbered(main, plainNumbers(all), x1, x)
	scale := fit(t, at, value)
	lines := places(main, x1)
	apart := scale(lines[1]) - scale(lines[0])
	n, off := meeting(vernier, lines)
	require.Less(t, off, 0.01, "one line meets another")
	step := apart / float64(len(vernier)-1)
	whole := 0.0
	for _, l := range lines {
		if l <= vernier[0]+0.01 {
			whole = scale(l)
		}
	}
	return []float64{whole + float64(n%(len(vernier)-1))*step}
}

var base = regexp.MustCompile(`(?:frame|rod) ([\d.]+)`)

func words(all seen) (out string) {
	for _, s := range all.of("text", "in-word") {
		out += s.Text + "\n"
	}
	return out
}

// readBarrel reads sleeve, thimble and vernier. It runs the other way where the numbers of the sleeve fall to the
// right.
func readBarrel(t *testing.T, all seen, inch bool) []float64 {
	main := all.of("line", "in-main")
	at, value := numbered(main, plainNumbers(all), x1, x)
	if len(at) == 1 { // only zero is in view, or one number: the next lines are half a millimetre apart, or 0.025 in
		lines := places(main, x1)
		turn := 0.5
		if inch {
			turn = 0.25 // of a tenth, as numbered
		}
		if strings.Contains(words(all), "rod") {
			turn = -turn // it runs the other way
		}
		at, value = append(at, at[0]+lines[1]-lines[0]), append(value, value[0]+turn)
	}
	scale := fit(t, at, value)
	turn, unit := 0.5, 1.0
	if inch {
		turn, unit = 0.025, 0.1 // numbers are tenths
	}
	edge := all.of("rect", "in-slide")[0].X
	lines := places(main, x1)
	last := lines[len(lines)-1]
	require.LessOrEqual(t, last, edge+0.01)
	whole := scale(last) * unit
	if scale(lines[0]) > scale(last) {
		whole -= turn // it is covered already
	}
	mid := all.of("line", "in-datum")[0].Y1
	thimble := all.of("line", "in-thimble")
	// The thimble's numbers stand a little below their lines, beside them.
	var ty, tv []float64
	for _, l := range thimble {
		for _, n := range all.of("text", "in-v") {
			if n.X > edge && math.Abs(n.Y-7-l.Y1) < 0.01 {
				ty, tv = append(ty, l.Y1), append(tv, number(t, n.Text))
			}
		}
	}
	around := 50.0
	if inch {
		around = 25
	}
	for i := range tv { // where it comes round again
		for i > 0 && math.Abs(tv[i]-tv[i-1]) > 10 {
			tv[i] += math.Copysign(around, tv[i-1]-tv[i])
		}
	}
	turned := math.Mod(fit(t, ty, tv)(mid)+around, around)
	vernier := places(all.of("line", "in-vernier"), y1)
	slices.Reverse(vernier) // from the long line upwards
	if len(vernier) > 0 {
		n, off := meeting(vernier[:10], places(thimble, y1))
		require.Less(t, off, 0.01, "one line meets another")
		turned = math.Floor(turned+0.01) + float64(n)/10
	}
	begins, err := strconv.ParseFloat(base.FindStringSubmatch(words(all))[1], 64)
	require.NoError(t, err)
	return []float64{begins + whole + turned/around*turn}
}

// clock is the angle of a line from the middle of a face, clockwise from the top, in degrees.
func clock(l *shape, cx, cy float64) float64 {
	return math.Atan2(l.X2-cx, cy-l.Y2) * 180 / math.Pi
}

// divisions is where a pointer stands in the lines of its face, counted from the top, less than half round each way.
func divisions(all seen, pointer *shape) float64 {
	var hub *shape
	for _, h := range all.of("circle", "in-hub") {
		if hub == nil || math.Abs(h.CX-pointer.X1) < math.Abs(hub.CX-pointer.X1) {
			hub = h
		}
	}
	around := 0
	for _, l := range all.of("line", "in-main") {
		if math.Hypot(l.X2-hub.CX, l.Y2-hub.CY) < 200 {
			around++
		}
	}
	return clock(pointer, hub.CX, hub.CY) / 360 * float64(around)
}

var certificate = regexp.MustCompile(`certificate ([\d.]+)`)
var division = regexp.MustCompile(`(?m)^(0\.\d+) (?:mm|in)$`)

func readBore(t *testing.T, all seen, _ bool) []float64 {
	p := all.of("line", "in-pointer")
	slices.SortFunc(p, func(a, b *shape) int { return int(a.X1 - b.X1) })
	require.Len(t, p, 2)
	ring := number(t, certificate.FindStringSubmatch(words(all))[1])
	d := number(t, division.FindStringSubmatch(words(all))[1])
	return []float64{ring - (divisions(all, p[1])-divisions(all, p[0]))*d}
}

func readDial(t *testing.T, all seen, _ bool) []float64 {
	p := all.of("line", "in-pointer")
	require.Len(t, p, 2)
	low, high := divisions(all, p[0]), divisions(all, p[1])
	require.True(t, p[0].is("in-low"))
	d := number(t, division.FindStringSubmatch(words(all))[1])
	return []float64{(high - low) * d, (high - low) * d / 2}
}

func readLeaves(t *testing.T, all seen, _ bool) []float64 {
	gap, most, least := all.of("rect", "in-slide")[0], math.Inf(1), 0.0
	for _, l := range all.of("rect", "in-leaf") {
		var thick float64
		for _, n := range all.of("text", "in-num") {
			if math.Abs(n.Y-8-(l.Y+l.H/2)) < 1 {
				thick = number(t, n.Text)
			}
		}
		require.Positive(t, thick)
		if l.X+l.W > gap.X {
			least = max(least, thick)
		} else {
			most = min(most, thick)
		}
	}
	return []float64{least, most}
}

// readGauge has the eye between pointer and image, where they would cover each other.
func readGauge(t *testing.T, all seen, _ bool) []float64 {
	hub := all.of("circle", "in-hub")[0]
	round := func(l *shape) float64 { return math.Mod(clock(l, hub.CX, hub.CY)+540, 360) } // 0 at the bottom
	var at, value []float64
	for _, l := range all.of("line", "in-main") {
		if math.Hypot(l.X2-l.X1, l.Y2-l.Y1) < 25 {
			continue // no number at it
		}
		a := clock(l, hub.CX, hub.CY) * math.Pi / 180
		for _, n := range plainNumbers(all) {
			b := math.Atan2(n.X-hub.CX, hub.CY-(n.Y-8))
			if math.Abs(a-b) < 1e-3 {
				at, value = append(at, round(l)), append(value, number(t, n.Text))
			}
		}
	}
	scale := fit(t, at, value)
	p, i := all.of("line", "in-pointer")[0], all.of("line", "in-image")[0]
	full := slices.Max(value)
	var class float64
	for _, s := range all.of("text", "in-word") {
		if rest, ok := strings.CutPrefix(s.Text, "class "); ok {
			class = number(t, rest)
		}
	}
	return []float64{scale((round(p) + round(i)) / 2), class / 100 * full}
}

func readTube(t *testing.T, all seen, _ bool) []float64 {
	var at, value []float64
	for _, l := range all.of("line", "in-main") {
		for _, n := range plainNumbers(all) {
			if math.Abs(n.Y-7-l.Y1) < 0.01 {
				at, value = append(at, l.Y1), append(value, number(t, n.Text))
			}
		}
	}
	return []float64{fit(t, at, value)(all.of("line", "in-float-edge")[0].Y1)}
}

// settings are so many of a kind that are read.
func settings(t *testing.T) uint64 {
	if testing.Short() {
		return 40
	}
	return 200
}

// Two hundred settings of each kind, in both systems, are read off the drawing by an eye that knows how instruments
// are read and nothing of how they are drawn: it must see what is asked.
func TestDrawingsShowWhatIsAsked(t *testing.T) {
	eyes := map[string]func(*testing.T, seen, bool) []float64{"vernier_caliper": readCaliper, "micrometer": readBarrel,
		"depth_micrometer": readBarrel, "bore_gauge": readBore, "dial_indicator": readDial, "feeler_leaves": readLeaves,
		"pressure_gauge": readGauge, "flow_tube": readTube}
	for _, kind := range practice.Kinds() {
		t.Run(kind.Code, func(t *testing.T) {
			require.NotNil(t, eyes[kind.Code])
			for seed := range settings(t) {
				for _, inch := range []bool{false, true} {
					e := practice.New(kind, inch, seed)
					got := eyes[kind.Code](t, look(t, instrument.Draw(e)), inch)
					require.Len(t, got, len(e.Asks))
					for i, ask := range e.Asks {
						require.InDelta(t, ask.Want, got[i], ask.Step/20, "%s, seed %d, inch %t", ask.Name, seed, inch)
					}
				}
			}
		})
	}
}

// A drawing says its reading nowhere in words.
func TestDrawingsDoNotTellTheReading(t *testing.T) {
	for _, kind := range practice.Kinds() {
		for seed := range uint64(20) {
			e := practice.New(kind, false, seed)
			if kind.Code == "feeler_leaves" {
				continue // its ends are the names of leaves
			}
			want, _, _ := strings.Cut(e.Shown(e.Asks[0].Want, e.Asks[0].Step), " ")
			for _, s := range look(t, instrument.Draw(e)) {
				if len(want) > 4 {
					assert.NotContains(t, s.Text, want, kind.Code)
				}
			}
		}
	}
}
