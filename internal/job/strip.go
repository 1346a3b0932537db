package job

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
)

// What a unit holds at most.
const (
	MostParts = 500
	MostLoose = 200
)

// TakeOffRest marks every part still on the unit as off: for the many parts that
// came off as expected. Nothing is counted by it, and facings stay to be said.
func (s *Service) TakeOffRest(ctx context.Context, who people.Actor, tag string, number int) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			if w.Job.WarrantyHold {
				return "", field.Errorf("", "the job is on warranty hold; nothing is opened until it is lifted")
			}
			if why := st.Shut(); why != "" {
				return "", field.Errorf("", "not opened yet: %s", why)
			}
			alone := bench.LeftAlone(u, st.Family)
			for _, p := range u.Parts {
				p.Off = p.Off || p.OnUnit() && !alone[p.Code]
			}
			w.happened(unit.Event{Kind: unit.EventRestOff, Unit: number})
			return "", nil
		},
	)
}

// LookedAt notes of several parts at once that each was looked at and no mark is on it. A part that bears a mark, or
// is still on, is none of them.
func (s *Service) LookedAt(ctx context.Context, who people.Actor, tag string, number int, codes []string) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			var names []string
			for _, code := range codes {
				p := st.ByCode[code]
				switch {
				case p == nil:
					return "", field.Errorf("sound", "%q is not a part of this unit", code)
				case !p.Off:
					return "", field.Errorf("sound", "%s is still on the unit", p.Name)
				case len(p.Seen) > 0:
					return "", field.Errorf("sound", "%s bears a mark: %s", p.Name, p.Seen[0].Text())
				case !p.Sound:
					u.Part(code).Sound = true
					names = append(names, strings.ToLower(p.Name))
				}
			}
			if len(names) == 0 {
				return "", field.Errorf("sound", "tick what was looked at")
			}
			return "looked at, no mark: " + strings.Join(names, ", "), nil
		})
}

// AddLoose writes down something found lying loose.
func (s *Service) AddLoose(ctx context.Context, who people.Actor, tag string, number int, what, place string,
	count int) error {
	what, err := short("what", what, "say what was found")
	if err != nil {
		return err
	}
	if place, err = short("place", place, ""); err != nil {
		return err
	}
	if err := counted(count); err != nil {
		return err
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			if len(u.Loose) >= MostLoose {
				return "", field.Errorf("what", "there are %d loose finds already", MostLoose)
			}
			u.AddLoose(what, place, count)
			return "found loose: " + what, nil
		},
	)
}

// AddPart puts a part that the family does not know behind another in the
// order, and gives its code.
func (s *Service) AddPart(ctx context.Context, who people.Actor, tag string, number int, after, name, kind string,
	count int) (code string, err error) {
	if name, err = short("name", name, "say what the part is"); err != nil {
		return "", err
	}
	if !slices.Contains(family.Kinds(), kind) {
		return "", field.Errorf("kind", "choose what it looks like")
	}
	if err := counted(count); err != nil {
		return "", err
	}
	err = s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			if len(u.Parts) >= MostParts {
				return "", field.Errorf("name", "a unit holds at most %d lines", MostParts)
			}
			place, branch := len(u.Parts), ""
			if p := st.ByCode[after]; p != nil {
				place, branch = slices.IndexFunc(
					u.Parts,
					func(x *unit.Part) bool { return x.Code == p.Code },
				)+1, p.Def.Branch
			}
			code = u.AddPart(place, name, kind, branch, count).Code
			return "added the part " + name, nil
		},
	)
	return code, err
}

// Recount says that this unit has another number of pieces than its family, with
// where that is known from and why. It is the number expected from then on.
func (s *Service) Recount(ctx context.Context, who people.Actor, tag string, number int, part string, count int,
	from, why string) error {
	why, err := short("why", why, "say in a line why it is another number")
	if err != nil {
		return err
	}
	if err := counted(count); err != nil {
		return err
	}
	if !slices.Contains([]string{unit.CountCounted, unit.CountVariant, unit.CountDrawing}, from) {
		return field.Errorf("from", "choose where the number is known from")
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			p := st.ByCode[part]
			if p == nil {
				return "", field.Errorf("part", "is not a part of this unit")
			}
			was := p.Expected
			own := u.Part(part)
			own.Expected, own.From, own.Why, own.Explained = count, from, why, ""
			if p.Def.Count == count && p.Kind == "" { // as the family has it again
				own.From, own.Why = unit.CountFamily, ""
			}
			return fmt.Sprintf("%s: %d pieces on this unit in place of %d: %s", p.Name, count, was, why), nil
		},
	)
}

// MovePart puts a part one place earlier (−1) or later (+1) in the order parts
// came off: the unit on the bench need not have come apart as its family says.
func (s *Service) MovePart(ctx context.Context, who people.Actor, tag string, number int, part string, by int) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(_ *writing, u *unit.Unit, st *bench.State) (string, error) {
			parts := u.Parts
			i := slices.IndexFunc(parts, func(p *unit.Part) bool { return p.Code == part })
			j := i + by
			if i < 0 || by != 1 && by != -1 {
				return "", field.Errorf("part", "is not a part of this unit")
			}
			for j >= 0 && j < len(parts) && !parts[j].OnUnit() {
				j += by
			}
			if j < 0 || j >= len(parts) {
				return "", field.Errorf("part", "stands at the end of the line already")
			}
			parts[i], parts[j] = parts[j], parts[i]
			return map[int]string{-1: "came off earlier: ", 1: "came off later: "}[by] + parts[j].Name, nil
		},
	)
}
