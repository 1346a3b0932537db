package jobpages

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/shop"
	"corvek/core/trace"
	"corvek/core/workshop"
	"corvek/internal/rig"
	"corvek/internal/stand"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// StandPanel is the stand beside an open attempt.
type StandPanel struct {
	Offered   []OfferedStand // that can be connected
	Name      string         // of the connected one, "" for none
	Said      string         // what it calls itself, "" where it did not say so: what it shows proves nothing
	Simulated bool
	Invented  []string // what of the unit is made up there, because it is not known
	Drives    bool
	Steps     []StandStep // that read anything a stand can show
	Step      StandStep   // the one that is at hand
	Figures   []Channel   // shown large
}

// OfferedStand is a stand that can be connected; Short says what it reaches where that is less than the test asks.
type OfferedStand struct{ Name, Short string }

// offered are the stands of the shop, those first that can show what is left of the test, where the job is.
func (l *look) offered(all []store.Stand) (out []OfferedStand) {
	need := l.st.StandNeed()
	fits := func(p *workshop.Place) int {
		switch {
		case p == nil:
			return 1 // for practice
		case shop.Same(p.Site, l.job.Site) && p.Reaches(need):
			return 0
		}
		return 2
	}
	slices.SortStableFunc(all, func(a, b store.Stand) int { return fits(a.Place) - fits(b.Place) })
	for _, row := range all {
		o := OfferedStand{Name: row.Name}
		if p := row.Place; p != nil && !p.Reaches(need) {
			o.Short = p.Reach()
		}
		out = append(out, o)
	}
	return out
}

// StandStep is a step of the test as the stand runs it.
type StandStep struct {
	Code, Name, Set string
	Now             bool
	End             bool // its start is taken, its end is not
}

// Channel is a figure of the stand as one reader sees it.
type Channel struct {
	Code   string `json:"code"`
	Name   string `json:"name"`
	Unit   string `json:"unit"`
	Places int    `json:"places"`

	factor, offset float64
}

// onStrips are the figures shown large and drawn, in this order.
var onStrips = []string{"pressure", "flow", "torque", "temperature", "speed"}

// standPanel lays the stand out, nil where no attempt is open.
func (s *Pages) standPanel(ctx context.Context, l *look, asked string) (*StandPanel, error) {
	a := l.st.Attempt()
	if a == nil || a.Closed || !l.CanWork() {
		return nil, nil
	}
	p := &StandPanel{}
	w := s.desk.Of(l.job.Tag, l.unitNo)
	if w == nil {
		list, err := s.Store.Stands(ctx)
		p.Offered = l.offered(list)
		return p, err
	}
	p.Name, p.Said, p.Simulated, p.Drives = w.Stand, w.Said, w.Exercise(), w.Drives()
	if facts, err := l.st.Facts(); err == nil && p.Simulated {
		p.Invented = facts.Invented
	}
	for _, step := range a.Points {
		if step.Skipped == "" && slices.ContainsFunc(step.Test.Reads, func(r family.Read) bool { return !r.May }) {
			p.Steps = append(p.Steps, l.standStep(step))
		}
	}
	p.Step = atHand(p.Steps, a, asked)
	for i := range p.Steps {
		p.Steps[i].Now = p.Steps[i].Code == p.Step.Code
	}
	for _, c := range channels(w.Channels(), l.Units) {
		if slices.Contains(onStrips, c.Code) {
			p.Figures = append(p.Figures, c)
		}
	}
	return p, nil
}

func (l *look) standStep(step bench.Point) StandStep {
	p := l.st.Program(step.Test)
	set := []string{l.Show(p.Pressure, quantity.Pressure)}
	if p.Speed > 0 {
		set = append(set, l.Show(p.Speed, quantity.Rotation))
	}
	s := StandStep{Code: step.Test.Code, Name: step.Test.Name, Set: strings.Join(set, ", ")}
	for first, end := range map[string]string{"pressure": "pressure_end", "temperature": "temperature_end"} {
		read, ends := step.Test.ReadOf(end)
		_, began := step.Read(first)
		_, ended := step.Read(end)
		s.End = s.End || ends && !read.May && began && !ended
	}
	return s
}

// atHand is the step that was asked for, else the first that still misses a figure.
func atHand(steps []StandStep, a *bench.Attempt, asked string) StandStep {
	var first *StandStep
	for i := range steps {
		s := &steps[i]
		if s.Code == asked {
			return *s
		}
		for _, p := range a.Points {
			missing := slices.ContainsFunc(p.Figures, func(f proof.Figured) bool { return f.Q.IsZero() && !f.May })
			if p.Test.Code == s.Code && missing && first == nil {
				first = s
			}
		}
	}
	if first == nil && len(steps) > 0 {
		first = &steps[len(steps)-1]
	}
	if first == nil {
		return StandStep{}
	}
	return *first
}

// channels are figures in the units of a reader.
func channels(codes []string, units quantity.System) (out []Channel) {
	for _, code := range codes {
		f, known := family.FigureByCode(code)
		if !known {
			continue
		}
		c := Channel{Code: code, Name: f.Name, Places: 2, factor: 1}
		if f.Dim != quantity.Number {
			u, places := quantity.ShopUnit(usualSize[f.Dim], f.Dim, units)
			c.Unit, c.Places, c.factor, c.offset = u.Name, places, u.Factor, u.Offset
		}
		out = append(out, c)
	}
	return out
}

// usualSize keeps a channel in the unit of its large figures.
var usualSize = map[quantity.Dimension]float64{quantity.Flow: 1e-3, quantity.Volume: 1e-4, quantity.Length: 0.1}

// shown is a figure in the channel's unit, nil where it was not read.
func (c Channel) shown(si float64) *float64 {
	if math.IsNaN(si) || math.IsInf(si, 0) {
		return nil
	}
	v := (si - c.offset) / c.factor
	scale := math.Pow10(c.Places)
	v = math.Round(v*scale) / scale
	return &v
}

// atStand finds the stand at work for the unit of a request.
func (s *Pages) atStand(c *echo.Context) (*stand.Session, error) {
	w := s.desk.Of(c.Param("tag"), unitNo(c))
	if w == nil {
		return nil, field.Errorf("stand", "no stand is connected for this unit")
	}
	return w, nil
}

func (s *Pages) connectStand(c *echo.Context) error {
	ctx := c.Request().Context()
	st, err := s.Jobs.Load(ctx, c.Param("tag"), unitNo(c))
	if err != nil {
		return err
	}
	return site.Done(c, s.desk.Connect(ctx, site.Who(c), st, c.FormValue("name")))
}

func (s *Pages) leaveStand(c *echo.Context) error {
	w, err := s.atStand(c)
	if err != nil {
		return err
	}
	w.Leave()
	return site.OK(c, nil)
}

// runStep begins to drive a step of the plan.
func (s *Pages) runStep(c *echo.Context) error {
	ctx := c.Request().Context()
	w, err := s.atStand(c)
	if err != nil {
		return err
	}
	st, err := s.Jobs.Load(ctx, w.Tag, w.Unit)
	if err != nil {
		return err
	}
	return site.Done(c, w.Drive(ctx, site.Who(c), st, c.FormValue("code")))
}

func (s *Pages) stopDrive(c *echo.Context) error {
	w, err := s.atStand(c)
	if err != nil {
		return err
	}
	if err := w.Stop(c.Request().Context(), "by hand, "+site.Who(c).Name); err != nil {
		return field.Errorf("stand", "the stand did not take the stop: press the stop on the stand itself")
	}
	return site.OK(c, nil)
}

// takePoint writes what the stand showed over the last seconds at a step.
func (s *Pages) takePoint(c *echo.Context) error {
	w, err := s.atStand(c)
	if err != nil {
		return err
	}
	f := w.Now()
	if f.State == rig.Lost {
		return field.Errorf("stand", "the stand answers no more: nothing is taken")
	}
	if !f.Steady && c.FormValue("anyway") == "" {
		return field.Errorf("stand", "%s still moves; wait until it stands still", movesWords(f.Moves))
	}
	return site.Done(c, w.Take(c.Request().Context(), site.Who(c), c.FormValue("code")))
}

func movesWords(code string) string {
	if f, known := family.FigureByCode(code); known {
		return strings.ToLower(f.Name)
	}
	return "it"
}

// liveFrame is a moment of the stand as it is sent to a page.
type liveFrame struct {
	At     int64               `json:"at"` // ms
	State  rig.State           `json:"state"`
	Words  string              `json:"words"`
	Step   string              `json:"step,omitempty"`
	Left   int                 `json:"left,omitempty"` // s
	Steady bool                `json:"steady"`
	Values map[string]*float64 `json:"values"`
}

// live sends what the stand shows as it comes, ten times a second, as server-sent events.
// Before the first frame the channels are told, and what is held in memory.
func (s *Pages) live(c *echo.Context) error {
	w := s.desk.Of(c.Param("tag"), unitNo(c))
	if w == nil {
		return c.NoContent(http.StatusNoContent) // tells the page to ask no more
	}
	out := c.Response()
	control := eventStream(out)
	send := func(event string, v any) error {
		text, err := json.Marshal(v)
		if err != nil {
			return err
		}
		if _, err := fmt.Fprintf(out, "event: %s\ndata: %s\n\n", event, text); err != nil {
			return err
		}
		return control.Flush()
	}
	units := s.Reader(c).Units
	show := channels(w.Channels(), units)
	frames, done := w.Watch()
	defer done()
	t := w.Trace()
	if err := send("channels", map[string]any{"channels": show, "history": history(&t, show)}); err != nil {
		return nil // the reader has left
	}
	ctx := c.Request().Context()
	for {
		select {
		case <-ctx.Done():
			return nil
		case f, goes := <-frames:
			if !goes {
				return nil // it was let go
			}
			if err := send("frame", s.frame(w, f, show)); err != nil {
				return nil
			}
		}
	}
}

func (s *Pages) frame(w *stand.Session, f rig.Frame, show []Channel) liveFrame {
	out := liveFrame{At: f.At.UnixMilli(), State: f.State, Step: f.Step, Left: int(math.Ceil(f.Left.Seconds())),
		Steady: f.Steady, Words: stateWords(f), Values: map[string]*float64{}}
	for i, c := range show {
		if i < len(f.Values) && slices.Contains(onStrips, c.Code) {
			out.Values[c.Code] = c.shown(f.Values[i])
		}
	}
	return out
}

// stateWords say what the stand does.
func stateWords(f rig.Frame) string {
	switch f.State {
	case rig.Ramping:
		return "pressure goes up"
	case rig.Holding:
		if f.Steady {
			return "stands still: take the point"
		}
		return "holds, " + movesWords(f.Moves) + " still moves"
	case rig.Stopped:
		return "STOPPED: " + f.Why
	case rig.Lost:
		return "NO SIGNAL: " + f.Why
	}
	return "idle"
}

// history is what is held in memory of the figures that are drawn: the times in seconds,
// then a row a figure.
func history(t *trace.Trace, show []Channel) map[string][]any {
	out := map[string][]any{}
	for _, s := range t.Samples {
		out["at"] = append(out["at"], s.At.UnixMilli())
		for i, c := range show {
			if slices.Contains(onStrips, c.Code) {
				out[c.Code] = append(out[c.Code], c.shown(s.Values[i]))
			}
		}
	}
	return out
}
