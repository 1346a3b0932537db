package job

import (
	"cmp"
	"context"
	"errors"
	"fmt"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/stock"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// StockFor is what the shop's own stock has for a unit.
type StockFor struct {
	Offers map[string][]stock.Offer // of the places that wait, by the part's code
	Booked map[string]Booked        // promised to places, likewise
}

// Booked is pieces of a line that are promised to a place.
type Booked struct {
	Item  *stock.Item
	Count int
}

// StockFor looks through the stock for a unit.
func (s *Service) StockFor(ctx context.Context, st *bench.State) (*StockFor, error) {
	all, err := s.Store.Stock(ctx)
	if err != nil {
		return nil, err
	}
	out := &StockFor{Offers: map[string][]stock.Offer{}, Booked: map[string]Booked{}}
	for _, w := range st.Wants() {
		if w.Open <= 0 {
			continue
		}
		p := stock.Place{Tag: st.Job.Tag, Unit: st.Unit.Number, Site: st.Job.Site, Want: w, Setting: st.Setting(),
			Material: st.ByCode[w.Part].Seal.Material}
		out.Offers[w.Part] = all.Offers(p)
		if item, count := all.BookedFor(p.Tag, p.Unit, w.Part); item != nil {
			out.Booked[w.Part] = Booked{item, count}
		}
	}
	return out, nil
}

// Take takes pieces of a lot for a unit, for the place that is given or the one that they fit.
func (s *Service) Take(ctx context.Context, who people.Actor, tag string, number int, code string, count int,
	part string) error {
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
			item, lot, err := w.history.Lot(code)
			switch {
			case errors.Is(err, store.ErrNotFound):
				return "", field.Errorf("number", "%s is no lot of the stock", code)
			case err != nil:
				return "", err
			case lot.Left < count:
				return "", field.Errorf("count", "lot %s holds %d", lot.Code, lot.Left)
			}
			if err := room(u); err != nil {
				return "", err
			}
			k := u.AddPiece(item.Number, item.Says(), count, "")
			k.Seal, k.Lot = item.Seal(lot), lot.Code
			settle(u, st, k, part)
			if left, promised := item.Left(), item.PromisedBeside(tag, number, k.Part); left-count < promised {
				return "", field.Errorf(
					"count",
					"%d of the %d that are left are promised: %s; give them free there first",
					promised,
					left,
					item.PromisedTo(tag, number, k.Part),
				)
			}
			if k.Part != "" {
				w.unbooked = append(w.unbooked, stock.Booking{Tag: tag, Unit: number, Part: k.Part})
			}
			return fmt.Sprintf("%d × %s taken of lot %s", count, item.Says(), lot.Code), nil
		},
	)
}

// PutToStock puts a piece of the kit that is left over into the stock: back to the lot it came of, else to a lot of
// its own, whose code it gives. drawer is where it lies, "" where its line says so.
func (s *Service) PutToStock(ctx context.Context, who people.Actor, tag string, number, piece int, drawer string) (
	code string, err error) {
	if drawer, err = short("drawer", drawer, ""); err != nil {
		return "", err
	}
	all, err := s.Store.Stock(ctx)
	if err != nil {
		return "", err
	}
	err = s.onUnit(
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
			case k.ToLot != "":
				return "", field.Errorf("piece", "lies in the stock already")
			case k.Part != "":
				return "", field.Errorf("piece", "stands at its place; take it away from there first")
			case k.Fit.Damaged():
				return "", field.Errorf("piece", "is damaged, and goes to nobody else")
			}
			ours, err := w.ours(k.Lot)
			if err != nil {
				return "", err
			}
			if code = k.Lot; !ours {
				l := newLot(all, k, w.Job, drawer)
				l.Lot.CameOn = w.today()
				w.lots = append(w.lots, l)
				code = l.Lot.Code
			}
			k.ToLot = code
			return fmt.Sprintf("%d × %s to the stock as lot %s", k.Count, k.Name, code), nil
		},
	)
	return code, err
}

// ours reports that a lot is of this shop's stock: there is one, and not of the shop that the job came from.
func (w *writing) ours(lot string) (bool, error) {
	if lot == "" {
		return false, nil
	}
	_, _, err := w.history.Lot(lot)
	if errors.Is(err, store.ErrNotFound) {
		return false, nil
	}
	return err == nil, err
}

// newLot is the lot that the rest of a bag makes: of a line that is alike, else of one of its own.
func newLot(all *stock.Stock, k *unit.Piece, j *unit.Job, drawer string) store.NewLot {
	item := all.Alike(k, j.Site)
	if item == nil {
		item = &stock.Item{Number: cmp.Or(k.Code, k.Seal.MakerNo), Name: k.Name, Standard: k.Seal.Standard,
			Size: k.Seal.Size, Material: k.Seal.Material, Drawer: drawer, Site: j.Site}
		if item.Check() != nil { // a number that is read as the label of a drawer
			item.Number = ""
		}
	}
	return store.NewLot{Item: item, Lot: stock.Lot{Code: store.CodeOfLot(), Cure: k.Seal.Cure, FromTag: j.Tag}}
}

// Book promises pieces of a line of the stock to a place of a unit.
func (s *Service) Book(ctx context.Context, who people.Actor, tag string, number int, part string, item uint) error {
	if !who.May(people.RoleTechnician) {
		return people.ErrForbidden
	}
	st, err := s.Load(ctx, tag, number)
	if err != nil {
		return err
	}
	found, err := s.StockFor(ctx, st)
	if err != nil {
		return err
	}
	count := 0
	for _, o := range found.Offers[part] {
		if o.Item.ID == item && !o.Stops {
			count = min(o.Item.Left()-o.Item.PromisedBeside(tag, number, part), o.Open)
		}
	}
	if count <= 0 || st.Job.HandedOver() {
		return field.Errorf("item", "has none that is free and may go there")
	}
	return s.Store.Book(ctx, &stock.Booking{Tag: tag, Unit: number, Part: part, ItemID: item, Count: count,
		ByName: who.Name})
}

// Unbook takes such a promise back.
func (s *Service) Unbook(ctx context.Context, who people.Actor, tag string, number int, part string) error {
	if !who.May(people.RoleTechnician) {
		return people.ErrForbidden
	}
	return s.Store.Unbook(ctx, tag, number, part)
}
