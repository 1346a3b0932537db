package job

import (
	"context"
	"fmt"
	"strings"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/kit"
	"corvek/core/stock"
	"corvek/core/unit"
	"corvek/internal/people"
)

// AddPiece writes down a piece of the repair kit, for a part when one is given; without one
// it goes to the one open place that its number, size or name says, and to none where
// there are two.
func (s *Service) AddPiece(
	ctx context.Context,
	who people.Actor,
	tag string,
	number int,
	code, name string,
	count int,
	part string,
) error {
	if lot, is := stock.IsCode(code); is {
		if _, err := s.Store.ItemOfLot(ctx, lot); err == nil { // the label of a drawer was read, not of a bag
			return s.Take(ctx, who, tag, number, lot, count, part)
		}
	}
	if code = strings.TrimSpace(code); name == "" {
		name = code
	}
	name, err := short("name", name, "say what the piece is")
	if err != nil {
		return err
	}
	if code, err = short("number", code, ""); err != nil {
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
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			if part != "" && st.ByCode[part] == nil {
				return "", field.Errorf("place", "is not a part of this unit")
			}
			if err := addPiece(u, st, kit.Line{Code: code, Name: name, Count: count}, part); err != nil {
				return "", err
			}
			w.came(u, st)
			return "kit piece: " + name, nil
		},
	)
}

// AddPieces writes down a list of pieces that was typed, pasted or came as CSV, each to its
// place where that is plain; all of them or none.
func (s *Service) AddPieces(ctx context.Context, who people.Actor, tag string, number int, list string) error {
	lines, err := kit.ReadList(list)
	if err != nil {
		return field.Errorf("list", "%s", err)
	}
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			for i, l := range lines {
				part := ""
				if l.For != "" {
					x := named(st, l.For)
					if x == nil {
						return "", field.Errorf("list", "line %d: %q is no part of this unit", i+1, l.For)
					}
					part = x.Code
				}
				if err := addPiece(u, st, l, part); err != nil {
					return "", field.Errorf("list", "line %d: %s", i+1, err)
				}
				var err error
				if st, err = w.state(number); err != nil { // the next line sees what this one filled
					return "", err
				}
			}
			w.came(u, st)
			return fmt.Sprintf("kit list of %d lines", len(lines)), nil
		},
	)
}

// named is the part of a code or a name.
func named(st *bench.State, text string) *bench.Part {
	for _, p := range st.Parts {
		if strings.EqualFold(p.Code, text) || strings.EqualFold(p.Name, text) {
			return p
		}
	}
	return nil
}

// room refuses more lines of a kit than it may have.
func room(u *unit.Unit) error {
	if len(u.Kit) >= MostPieces {
		return field.Errorf("name", "the kit holds %d lines already", MostPieces)
	}
	return nil
}

// addPiece puts one line of a kit to the unit.
func addPiece(u *unit.Unit, st *bench.State, l kit.Line, part string) error {
	if err := room(u); err != nil {
		return err
	}
	k := u.AddPiece(l.Code, l.Name, l.Count, "")
	for name, text := range map[string]string{"size": l.Size, "material": l.Material, "cure": l.Cure} {
		f, _ := entry.Find(unit.ScopePiece, name)
		if err := f.Set(&entry.Place{Unit: u, Piece: k}, text); err != nil {
			return field.Errorf(name, "%s %q %s", f.Label, text, err)
		}
	}
	settle(u, st, k, part)
	return nil
}

// settle puts a new piece to the place that is given, else to the one open place that it fits; where there are two it
// stays without one.
func settle(u *unit.Unit, st *bench.State, k *unit.Piece, part string) {
	if part == "" {
		if fits := kit.Fits(bench.Offered(k), st.Wants()); len(fits) == 1 {
			part = fits[0]
		}
	}
	join(u, st, k, part)
}

// join puts a piece to a place; of a pack that holds more than the place wants the rest
// stays a line of its own.
func join(u *unit.Unit, st *bench.State, k *unit.Piece, part string) {
	p := st.ByCode[part]
	if p != nil && p.Place != nil {
		if open := p.Place.Need - p.Filled; open > 0 && k.Count > open && len(u.Kit) < MostPieces {
			rest := u.AddPiece(k.Code, k.Name, k.Count-open, "")
			rest.Seal, rest.Lot = k.Seal, k.Lot
			k.Count = open
		}
	}
	k.Part, k.ToLot = part, ""
}

// came notes the day of what was ordered and is there now; what was taken from the shop's own stock was not.
func (w *writing) came(u *unit.Unit, st *bench.State) {
	there := map[string]int{}
	for _, k := range u.Kit {
		if k.Lot == "" {
			there[k.Part] += k.Count
		}
	}
	for _, p := range st.Parts {
		if p.Place == nil || there[p.Code] < p.Place.Need {
			continue
		}
		if part := u.Part(p.Code); part.Order.NoteCame(w.today()) {
			w.noted(u.Number, part, "order_came", "", part.Order.Came)
		}
	}
}

// JoinPiece puts a piece of the kit to a place, or takes it away from there.
func (s *Service) JoinPiece(ctx context.Context, who people.Actor, tag string, number, piece int, part string) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		number,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			k := u.Piece(piece)
			switch {
			case k == nil:
				return "", field.Errorf("piece", "is not there any more")
			case part != "" && (st.ByCode[part] == nil || st.ByCode[part].Place == nil):
				return "", field.Errorf("place", "is no place that waits for a new piece")
			case part == "":
				k.Part = ""
				return k.Name + " taken from its place", nil
			}
			join(u, st, k, part)
			w.came(u, st)
			return k.Name + " put to " + strings.ToLower(st.ByCode[part].Name), nil
		},
	)
}
