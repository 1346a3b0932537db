package job

import (
	"context"
	"fmt"
	"math"
	"slices"
	"time"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/people"
)

// BeginExercise makes the open attempt an exercise, before anything stands in it: from then on
// whatever is typed or taken in it says nothing of the unit.
func (s *Service) BeginExercise(ctx context.Context, who people.Actor, tag string, number int) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			a := st.Attempt()
			if a == nil || a.Closed {
				return "", field.Errorf("attempt", "start an attempt first")
			}
			if why := a.Mixed(unit.SourceSimulated); why != "" {
				return "", field.Errorf("stand", "%s", why)
			}
			u.Attempt(a.Number).Source = unit.SourceSimulated
			return "an exercise on the simulated stand", nil
		},
	)
}

// Reading is what a stand showed at a step of a test.
type Reading struct {
	Step   string             // its code
	Source string             // one of the Source constants
	Stand  string             // its name
	Shown  map[string]float64 // by figure, in base units
	// The times of the first and the last sample, where they are a hold by themselves; else the hold
	// that runs at the step goes on to now
	From, To time.Time
}

// TakePoint writes what a stand showed at a step of the open attempt. A figure at the end of a hold
// is written once the one at its start is there.
func (s *Service) TakePoint(ctx context.Context, who people.Actor, tag string, number int, r Reading) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			a := st.Attempt()
			if a == nil || a.Closed {
				return "", field.Errorf("attempt", "start an attempt first")
			}
			if why := a.Mixed(r.Source); why != "" {
				return "", field.Errorf("stand", "%s", why)
			}
			at := slices.IndexFunc(a.Points, func(p bench.Point) bool { return p.Test.Code == r.Step })
			if at < 0 || a.Points[at].Skipped != "" {
				return "", field.Errorf("stand", "is not a step of this test")
			}
			step := a.Points[at]
			taken := 0
			for figure, v := range figuresOf(step, r.Shown) {
				g, _ := family.FigureByCode(figure)
				place, f, err := entry.Resolve(w.Job, u.PointRef(a.Number, r.Step, figure), w.shop)
				if err != nil {
					return "", err
				}
				if err := place.Write(f, shownAs(v, g.Dim)); err != nil {
					return "", err
				}
				place.Taken(r.Source, true)
				taken++
			}
			if taken == 0 {
				return "", field.Errorf("stand", "the stand reads nothing that %s asks for", step.Test.Name)
			}
			if step.Test.Hold != "" {
				h := heldStep{step.Test, a, w.Job, u, u.Attempt(a.Number)}
				h.sampled(w, r)
			}
			open := u.Attempt(a.Number)
			open.Source = r.Source
			if open.RanOn.Stand == "" {
				open.RanOn.Stand = r.Stand
			}
			return fmt.Sprintf("%s: %d figures from the stand", step.Test.Name, taken), nil
		},
	)
}

// sampled notes a hold by the samples that were taken over it.
func (h *heldStep) sampled(w *writing, r Reading) {
	p, t := h.point(), h.taking(w, r.Source)
	switch {
	case !r.From.IsZero():
		p.HoldFrom, p.HoldTo = r.From.Truncate(time.Second), r.To.Truncate(time.Second)
		p.Take("hold_from", t, true)
	case p.HoldFrom.IsZero():
		return
	default:
		p.HoldTo = w.shop.Now.Truncate(time.Second)
	}
	p.Take("hold_to", t, true)
}

// ends are figures at the end of a hold, by the one at its start.
var ends = map[string]string{"pressure": "pressure_end", "temperature": "temperature_end"}

// figuresOf picks what a step reads out of what a stand shows.
func figuresOf(step bench.Point, shown map[string]float64) map[string]float64 {
	out := map[string]float64{}
	for _, r := range step.Test.Reads {
		if v, is := shown[r.Figure]; is && !math.IsNaN(v) && ends[r.Figure] == "" {
			out[r.Figure] = v
		}
	}
	for first, end := range ends {
		v, is := shown[first]
		if _, reads := step.Test.ReadOf(first); !reads || !is || math.IsNaN(v) {
			continue
		}
		_, held := step.Test.ReadOf(end)
		if _, began := step.Read(first); held && began {
			out[end] = v
		} else {
			out[first] = v
		}
	}
	return out
}

// readTo is how finely a stand's figures are written down, in base units.
var readTo = map[quantity.Dimension]float64{
	quantity.Pressure: 0.1e5, quantity.Flow: 0.05e-3 / 60, quantity.Rotation: 1, quantity.Temperature: 1,
	quantity.Torque: 0.1, quantity.Force: 10, quantity.Length: 0.1e-3, quantity.Volume: 0.5e-6,
	quantity.Time: 1, quantity.Number: 0.01,
}

func shownAs(si float64, d quantity.Dimension) string {
	u, decimals := quantity.ShopUnit(si, d, quantity.Metric)
	step := readTo[d]
	if d == quantity.Flow && si < 2*step {
		step = 0.5e-6 / 60
	}
	si = max(0, math.Round(si/step)*step)
	if d == quantity.Number {
		return quantity.Figures(si, 3)
	}
	return u.Format(si, decimals)
}
