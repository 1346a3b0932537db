package job

import (
	"context"
	"strings"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
)

// SayOfAll says of the other units of a job what is known of one and belongs to their machine: once said, heard by
// all.
func (s *Service) SayOfAll(ctx context.Context, who people.Actor, tag string, number int) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			shared := entry.SharedBy(w.Job, number, st.Asks)
			if len(shared) == 0 {
				return "", field.Errorf("share", "there is nothing that the other units do not know")
			}
			for _, v := range shared {
				place, f, err := entry.Resolve(w.Job, v.Ref, w.shop)
				if err != nil {
					return "", err
				}
				if err := place.Write(f, v.Text); err != nil {
					return "", err
				}
			}
			return "said of all units as of " + u.Name + ": " +
				strings.ToLower(strings.Join(entry.SharedLabels(shared), ", ")), nil
		})
}
