package jobpages

import (
	"fmt"
	"html/template"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/trace"
	"corvek/internal/draw"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// RippleView is how the channels swing in a stretch that is looked at closely.
type RippleView struct {
	Rows    []RippleRow
	Drawing template.HTML // pressure about its trend
	Note    string        // what the readings are too slow to show
}

// RippleRow is one channel of it.
type RippleRow struct{ Name, Mean, Swing, Share string }

// rippling are the channels whose swing says something of the unit.
var rippling = []string{"pressure", "flow", "torque", "case_flow"}

func (s *Pages) ripple(c *echo.Context, l *look, r store.Recording, from, to string) (v RippleView, err error) {
	first, last, err := stretch(r, from, to)
	if err != nil {
		return v, nil // the page says so at the field
	}
	t, err := s.Store.Samples(c.Request().Context(), r, first, last, mostSamples)
	if err != nil {
		return v, err
	}
	rate := 0.0
	for _, code := range rippling {
		f, _ := family.FigureByCode(code)
		swing, ok := t.Ripple(code)
		if !ok {
			continue
		}
		rate = swing.Rate
		v.Rows = append(v.Rows, RippleRow{f.Name, l.Show(swing.Mean, f.Dim), l.Show(swing.Swing, f.Dim),
			fmt.Sprintf("%.1f %%", 100*swing.Share())})
		if code == "pressure" {
			v.Drawing = template.HTML(rippleChart(t, swing, l.Units))
		}
	}
	if beat, what := beats(l.st); len(v.Rows) > 0 && beat > 0 && !(trace.Ripple{Rate: rate}).Shows(beat) {
		v.Note = fmt.Sprintf("%s: %.0f beats a second at duty speed; %.0f readings a second cannot show that. "+
			"What swings here is slower: the relief, the drive, air, or one piece of many once a turn at low speed.",
			what, beat, rate)
	}
	return v, nil
}

// beats is how often a second the pieces of a unit deliver at duty speed, and their name; 0
// where that is not known.
func beats(st *bench.State) (hertz float64, what string) {
	for _, p := range st.Parts {
		if hertz, ok := proof.Beat(p.Def.Kind, p.Expected, st.Duty.Speed); ok {
			return hertz, p.Name
		}
	}
	return 0, ""
}

// mostRipple is how many readings are drawn.
const mostRipple = 1200

func rippleChart(t *trace.Trace, r trace.Ripple, units quantity.System) string {
	about := t.About("pressure")
	about = about[:min(len(about), mostRipple)]
	c := draw.Chart{Said: "pressure about its trend", System: units,
		X: draw.Axis{Label: "time", Dim: quantity.Time, Low: about[0].Second, Top: about[len(about)-1].Second},
		Y: draw.Axis{Label: "off the trend", Dim: quantity.Pressure, Low: -r.Swing * .75, Top: r.Swing * .75}}
	line := draw.Trace{Class: "now"}
	for _, p := range about {
		line.Points = append(line.Points, [2]float64{p.Second, p.Off})
	}
	c.Traces = []draw.Trace{{Class: "was", Points: [][2]float64{{c.X.Low, 0}, {c.X.Top, 0}}}, line}
	return c.SVG()
}
