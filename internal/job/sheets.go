package job

import (
	"context"
	"fmt"
	"maps"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/sheet"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// FoundSheet is a sheet that may be of a unit.
type FoundSheet struct {
	sheet.Found
	ID uint // of the sheet
}

// SheetsOf finds the sheets of a unit by maker and model as people write them.
func (s *Service) SheetsOf(u *unit.Unit) (out []FoundSheet) {
	return sheetsOf(s.catalog().sheets, u)
}

func sheetsOf(all []store.SheetVersion, u *unit.Unit) (out []FoundSheet) {
	docs := make([]*sheet.Sheet, len(all))
	for i := range all {
		docs[i] = &all[i].Doc
	}
	for _, f := range sheet.Find(docs, u) {
		i := slices.Index(docs, f.Sheet)
		out = append(out, FoundSheet{f, all[i].SheetID})
	}
	return out
}

// useSure puts into a new unit what the sheets say that are its model's without a doubt.
func (w *writing) useSure(u *unit.Unit) error {
	found := slices.DeleteFunc(sheetsOf(w.catalog.sheets, u), func(f FoundSheet) bool { return !f.Sure })
	return w.use(u, found)
}

// use puts what sheets know into a unit; the unit wins over them.
func (w *writing) use(u *unit.Unit, found []FoundSheet) error {
	if len(found) == 0 {
		return nil
	}
	var of []sheet.Found
	for _, f := range found {
		of = append(of, f.Found)
	}
	s, disagree := sheet.Joined(of)
	was := w.catalog.familyOf(u)
	if u.Variant == "" {
		u.Variant = s.Variant
	}
	if len(s.More) > 0 && len(u.More) == 0 {
		u.More = maps.Clone(s.More)
	}
	if err := w.follow(u, was, unit.CountVariant, "sheet "+s.Name()); err != nil {
		return err
	}
	s.FormOf(u)
	put, left := s.Write(w.Job, u, w.shop)
	words := fmt.Sprintf("sheet %s: %d values", s.Name(), put)
	if len(left) > 0 {
		words += fmt.Sprintf(", %d could not be put: %s", len(left), strings.Join(left[:min(len(left), 5)], ", "))
	}
	for _, d := range disagree {
		words += fmt.Sprintf("; %s: %s, by %s %s", d.Key, d.Was, d.By, d.Is)
	}
	w.did(words)
	return nil
}

// UseSheet puts what a sheet knows into a unit.
func (s *Service) UseSheet(ctx context.Context, who people.Actor, tag string, number int, id uint) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number,
		func(w *writing, u *unit.Unit, _ *bench.State) (string, error) {
			all := sheetsOf(w.catalog.sheets, u)
			i := slices.IndexFunc(all, func(f FoundSheet) bool { return f.ID == id })
			if i < 0 {
				return "", field.Errorf("sheet", "is no sheet of this maker and model")
			}
			return "", w.use(u, all[i:i+1])
		})
}

// Kept is what of a unit goes onto the sheet of its model.
type Kept struct {
	Groups   []string // as sheet.Differences names them; "form", "kit" and "lesson"
	Suffix   string   // holds only of units whose number ends so
	From, To int      // or of a range of serials
	Reason   string
}

// KeepSheet keeps what was picked of a unit as a new version of the sheet of its model, of one that was handed
// over too. Where the shop wants it, it holds only when a lead confirmed it.
func (s *Service) KeepSheet(ctx context.Context, who people.Actor, tag string, number int, k Kept) error {
	if !who.May(people.RoleTechnician) {
		return people.ErrForbidden
	}
	st, err := s.Load(ctx, tag, number)
	if err != nil {
		return err
	}
	switch {
	case strings.TrimSpace(st.Unit.Model) == "":
		return field.Errorf("model", "type the model number first: the next one is known by it")
	case len(k.Groups) == 0:
		return field.Errorf("keep", "tick what is to be kept")
	}
	of := sheet.Gather(st.Job, st.Unit, st.Family)
	of.Suffix, of.SerialFrom, of.SerialTo = strings.TrimSpace(k.Suffix), k.From, k.To
	doc := sheet.Keep(s.SheetOf(of), of, func(group string) bool { return slices.Contains(k.Groups, group) })
	if err := doc.Check(); err != nil {
		return field.Errorf("keep", "%s", err)
	}
	reason := "kept from " + tag
	if r := strings.TrimSpace(k.Reason); r != "" {
		reason += ": " + r
	}
	return s.saveSheet(ctx, doc, s.sheetVersion(who, doc, reason))
}

// SheetOf is the sheet that holds of exactly the same units, nil where there is none yet.
func (s *Service) SheetOf(of *sheet.Sheet) *sheet.Sheet {
	all := s.catalog().sheets
	for i := range all {
		d := &all[i].Doc
		if d.Family == of.Family && sheet.Plain(d.Maker) == sheet.Plain(of.Maker) &&
			sheet.Plain(d.Model) == sheet.Plain(of.Model) && d.HoldsOf() == of.HoldsOf() {
			return d
		}
	}
	return nil
}

func (s *Service) sheetVersion(who people.Actor, doc *sheet.Sheet, reason string) *store.SheetVersion {
	now := s.moment()
	v := &store.SheetVersion{Doc: *doc, Reason: reason, ByName: who.Name, At: now}
	if !s.catalog().Head.LeadConfirms || who.May(people.RoleLead) {
		v.ConfirmedBy, v.ConfirmedAt = who.Name, &now
	}
	return v
}

func (s *Service) saveSheet(ctx context.Context, doc *sheet.Sheet, v *store.SheetVersion) error {
	m := &store.ModelSheet{Family: doc.Family, Maker: doc.Maker, Model: doc.Model, HoldsOf: doc.HoldsOf()}
	if err := s.Store.SaveSheet(ctx, m, v); err != nil {
		return err
	}
	return s.anew(ctx)
}

// anew takes up what was just changed in the shop.
func (s *Service) anew(ctx context.Context) error {
	version, err := s.Store.ShopVersion(ctx)
	if err != nil {
		return err
	}
	return s.refresh(ctx, version)
}

// ConfirmSheet confirms a version that a technician proposed.
func (s *Service) ConfirmSheet(ctx context.Context, who people.Actor, version uint) error {
	if !who.May(people.RoleLead) {
		return people.ErrForbidden
	}
	if err := s.Store.ConfirmSheet(ctx, version, who.Name, s.moment()); err != nil {
		return err
	}
	return s.anew(ctx)
}

// SaveSheet keeps a sheet that was written elsewhere: read from a file, or corrected by hand.
func (s *Service) SaveSheet(ctx context.Context, who people.Actor, doc *sheet.Sheet, reason string) error {
	if !who.May(people.RoleTechnician) {
		return people.ErrForbidden
	}
	if s.Families()[doc.Family] == nil {
		return field.Errorf("family", "%q is no family of this shop", doc.Family)
	}
	if err := doc.Check(); err != nil {
		return field.Errorf("sheet", "%s", err)
	}
	return s.saveSheet(ctx, doc, s.sheetVersion(who, doc, reason))
}
