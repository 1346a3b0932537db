package job

import (
	"context"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
)

// AddFeature has something more measured on a part of one unit, by any method. What it is as new, its limit with its
// source and its readings are typed as with any other.
func (s *Service) AddFeature(ctx context.Context, who people.Actor, tag string, number int, o family.OwnFeature) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			p := st.ByCode[o.Part]
			if p == nil {
				return "", field.Errorf("part", "is no part of this unit")
			}
			code, err := o.Code()
			if err != nil {
				return "", field.Errorf("name", "%s", err)
			}
			_, feature, _ := family.FeatureOfCode(code)
			if _, there := p.Def.FeatureByCode(feature.Code); there {
				return "", field.Errorf("name", "%s is measured on it already", feature.Name)
			}
			measured := func(code string) bool { _, _, is := family.FeatureOfCode(code); return is }
			if count(u, measured) >= family.MostOwnFeatures {
				return "", field.Errorf("name", "a unit has at most %d of its own", family.MostOwnFeatures)
			}
			return "measured on " + p.Name + " besides: " + feature.Name, w.has(u, st, code, "measured besides")
		})
}
