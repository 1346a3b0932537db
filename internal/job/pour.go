package job

import (
	"context"
	"fmt"
	"strings"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/people"
)

// MostPours is how many portions one step takes.
const MostPours = 40

// Pour notes a portion of oil that was put in at a step of the open attempt, with the full stroke after
// it. More than the book lets in is refused. The step reads all that was put in, and the last stroke.
func (s *Service) Pour(ctx context.Context, who people.Actor, tag string, number int, code, volume,
	stroke string) error {
	in, err := quantity.Parse(strings.TrimSpace(volume), quantity.Volume)
	if err != nil || in.SI <= 0 {
		return field.Errorf(
			"pour_volume",
			"is a volume such as 15 ml or 0.5 oz: by weight or by the length on a stick "+
				"nobody knows how much went in",
		)
	}
	after, err := quantity.Parse(strings.TrimSpace(stroke), quantity.Length)
	if err != nil || after.SI < 0 {
		return field.Errorf("pour_stroke", "read the full stroke after each portion, such as 42 mm")
	}
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			a := st.Attempt()
			if a == nil || a.Closed {
				return "", field.Errorf("pour_volume", "start an attempt first")
			}
			t, known := st.Step(code)
			if !known || t.Pours == "" {
				return "", field.Errorf("pour_volume", "is not a step that takes oil by portions")
			}
			p := pointOf(u.Attempt(a.Number), code)
			if len(p.Pours) >= MostPours {
				return "", field.Errorf("pour_volume", "there are %d portions already", MostPours)
			}
			all, ok := bench.MayPour(p, in, u.Need.Fill)
			if !ok {
				return "", field.Errorf(
					"pour_volume",
					"the book lets in %s; with this it would be %s. Stop, and find what "+
						"keeps the stroke from coming",
					u.Need.Fill.Typed,
					in.Unit.Format(all, 2),
				)
			}
			p.Pours = append(p.Pours, unit.Pour{Volume: in, Stroke: after, By: who.Name, At: s.moment()})
			for name, text := range map[string]string{"volume": in.Unit.Format(all, 2), "stroke": after.Typed} {
				place, f, err := entry.Resolve(w.Job, u.PointRef(a.Number, code, name), w.shop)
				if err != nil {
					return "", err
				}
				if err := place.Write(f, text); err != nil {
					return "", err
				}
				place.Taken(unit.SourceTyped, true)
			}
			return fmt.Sprintf("%s: %s put in, full stroke %s", t.Name, in.Typed, after.Typed), nil
		})
}

// pointOf finds a step of an attempt, and begins it where nothing stands there yet.
func pointOf(a *unit.Attempt, code string) *unit.Point {
	if p := a.Point(code); p != nil {
		return p
	}
	p := &unit.Point{Code: code}
	a.Points = append(a.Points, p)
	return p
}
