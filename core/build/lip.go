package build

import (
	"fmt"
	"math"

	"corvek/core/calc"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// GrooveFelt is how deep a lip's track on a shaft is, in radius, before the new lip must run
// beside it: about what a nail catches. Shop guidance.
const GrooveFelt = 0.015e-3

// LipRun is where a new lip seal may be pressed to.
type LipRun struct {
	Known  bool // groove, lip and bore were measured
	Spans  []string
	None   bool // no depth keeps the lip off the groove: sleeve the shaft
	OnOld  bool // as it was pressed it runs on the old groove
	Needs  string
	Output *calc.Output
	Margin float64 // m from the lip to the near edge of the groove, as pressed, else flush; under 0 it runs on it
}

// LipOf works out the depths for a lip seal from what was measured, and judges the depth it
// was pressed to.
func LipOf(l unit.Lip, width, pressed quantity.Quantity, show func(m float64) string) LipRun {
	for _, x := range []struct {
		what string
		q    quantity.Quantity
	}{{"where the groove begins", l.Groove}, {"how wide it is", l.Width}, {"the seal's width", width},
		{"where its lip stands", l.Position}, {"how deep the bore is", l.Bore}} {
		if x.q.IsZero() {
			return LipRun{Needs: x.what}
		}
	}
	given := calc.NewGiven().Size("groove_from_face", l.Groove).Size("groove_width", l.Width).
		Size("seal_width", width).Size("lip_position", l.Position).Size("bore_depth", l.Bore).
		Size("shoulder_depth", l.Shoulder)
	out, err := calc.Ask("lip_offset", given)
	if err != nil {
		return LipRun{Needs: err.Error()}
	}
	r := LipRun{Known: true, Output: out, OnOld: !pressed.IsZero()}
	spans, _ := out.Get("press_depths").([]map[string]any)
	for _, s := range spans {
		from, _ := s["from"].(calc.Figure)
		to, _ := s["to"].(calc.Figure)
		r.Spans = append(r.Spans, fmt.Sprintf("%s to %s", show(from.Value), show(to.Value)))
		const slack = 1e-9
		if pressed.SI >= from.Value-slack && pressed.SI <= to.Value+slack {
			r.OnOld = false
		}
	}
	r.None = len(spans) == 0
	lip := pressed.SI + l.Position.SI
	r.Margin = math.Max(l.Groove.SI-lip, lip-l.Groove.SI-l.Width.SI)
	return r
}
