package job

import (
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/shop"
	"corvek/core/stock"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/people"
	"corvek/internal/store"
)

// Edit is one value to write.
type Edit struct {
	Field string // its address, a unit.Ref
	Value string // as typed
	Base  string // what the writer saw in the field
	Bare  string // the unit that stood in the field, for a bare figure
}

// Set writes a field of a job, and others that belong to the same act, and gives what is
// kept for the first. When somebody else has changed one meanwhile, nothing is written and a
// *Conflict tells what it is now. Bad input gives a *field.Error at the field's address.
func (s *Service) Set(
	ctx context.Context,
	who people.Actor,
	tag string,
	e Edit,
	also ...Edit,
) (kept string, err error) {
	if err := s.mayHold(ctx, slices.Concat(also, []Edit{e})...); err != nil {
		return "", err
	}
	err = s.change(ctx, who, people.RoleTechnician, tag, func(w *writing) error {
		changed := false
		for _, other := range also {
			if !entry.Together(e.Field, other.Field) {
				return field.Errorf(other.Field, "is not set in one act with another")
			}
			_, wrote, err := w.set(other)
			if err != nil {
				return err
			}
			changed = changed || wrote
		}
		var wrote bool
		if kept, wrote, err = w.set(e); err != nil {
			return err
		}
		if !changed && !wrote {
			return store.ErrUnchanged
		}
		return nil
	})
	return kept, err
}

// set writes one field, and tells whether it is another than before.
func (w *writing) set(e Edit) (kept string, wrote bool, err error) {
	ref, err := unit.ParseRef(e.Field)
	if err != nil {
		return "", false, field.Errorf(e.Field, "%s", err)
	}
	place, f, err := entry.Resolve(w.Job, ref, w.shop)
	if err != nil {
		return "", false, err
	}
	moment := w.service.moment()
	kept = f.With(place, e.Value, e.Bare)
	if f.Kind == entry.Timer {
		// What is typed is a time from now, so there is nothing to hold it against.
		if kept, err = entry.Until(kept, moment); err != nil {
			return "", false, field.Errorf(e.Field, "%s", err)
		}
	}
	if f.Clocked && kept == entry.Yes {
		kept = moment.Format(time.RFC3339)
	}
	now := f.Get(place)
	if now == kept {
		return kept, w.readAgain(place, f, kept), nil
	}
	if now != e.Base && f.Kind != entry.Timer {
		c := &Conflict{Field: e.Field, Theirs: now, Yours: kept, By: "Somebody", At: moment}
		by, at, ok, err := w.history.Last(e.Field)
		if err != nil {
			return "", false, err
		}
		if ok {
			c.By, c.At = by, at
		}
		return "", false, c
	}
	if f.Opens && kept == entry.Yes {
		if err := w.mayOpen(ref); err != nil {
			return "", false, err
		}
	}
	was := place.Step != nil && place.Step.Done
	if err := place.Write(f, kept); err != nil {
		return "", false, err
	}
	if f.Fits || f.Tightens && place.Step.Done {
		fitted(place, was)
	}
	w.record(unit.Entry{Action: "set", Field: e.Field, Before: now, After: kept})
	if f.Orders {
		was := place.Part.Order.Placed
		if o := &place.Part.Order; o.NotePlaced(w.today()) {
			w.noted(ref.Unit, place.Part, "order_placed", was, o.Placed)
		}
	}
	if f.Lays {
		return kept, true, w.follow(place.Unit, place.Family, unit.CountVariant, "")
	}
	return kept, true, nil
}

// ReadAgain is the action of a line of the record that notes such a reading.
const ReadAgain = "read again"

// readAgain notes a figure of an open test that was typed once more as it stands: that is a reading
// too, of the unit as it is now.
func (w *writing) readAgain(place *entry.Place, f *entry.Field, kept string) bool {
	if place.Ref.Scope != unit.ScopePoint || kept == "" || place.Attempt.Closed ||
		place.Attempt.Number == 0 || f.Moves() != entry.MovesTest ||
		place.Ref.Name == "not_applicable" {
		return false
	}
	place.Taken(unit.SourceTyped, true)
	w.record(unit.Entry{Action: ReadAgain, Field: place.Ref.String(), Before: kept, After: kept})
	return true
}

// writing is a job in the hands of one who changes it.
type writing struct {
	ctx      context.Context // of the write, which a writing does not outlive
	Job      *unit.Job       // a copy of its own
	was      *unit.Job       // as it was, to be read only; nil for a new one
	shop     *entry.Shop
	history  store.History
	entries  []unit.Entry
	contents map[int]store.Content
	papers   []store.Paper
	results  []store.Result  // what a hand-over comes to
	lots     []store.NewLot  // of the stock, that pieces are put to
	unbooked []stock.Booking // promises of pieces that were taken
	states   []*bench.State
	service  *Service
	catalog  *catalog // all of one write is worked out with
	role     string   // in which he writes
	freezes  freezing // what the units come to is kept with it
	final    bool     // cannot be taken back
}

// freezing says by what was known a job is frozen.
type freezing string

// At the hand-over itself, or later, where nothing was kept then.
const (
	then  freezing = "then"
	later freezing = "later"
)

// writing begins a write with what the shop knows now.
func (s *Service) writing(ctx context.Context, who, role string) *writing {
	c := s.catalog()
	return &writing{ctx: ctx, service: s, catalog: c, shop: s.shop(c, who), role: role}
}

// record notes what was done.
func (w *writing) record(e unit.Entry) {
	e.Who, e.Role, e.At = w.shop.Who, w.role, w.shop.Now
	w.entries = append(w.entries, e)
}

// today is the day of the write on the shop's clock.
func (w *writing) today() unit.Date { return unit.DateOf(w.service.Now()) }

// noted tells that a day of a part was noted with what somebody did.
func (w *writing) noted(number int, p *unit.Part, field string, was, day unit.Date) {
	ref := unit.Ref{Unit: number, Scope: unit.ScopePart, Part: p.Code, Name: field}
	w.record(unit.Entry{Action: "set", Field: ref.String(), Before: string(was), After: string(day)})
}

// did notes something done that is no single field.
func (w *writing) did(action string) { w.record(unit.Entry{Action: action}) }

// happened notes an event; the line of the record is printed from it.
func (w *writing) happened(e unit.Event) {
	w.record(unit.Entry{Action: wording.Event(e), Event: &e})
}

// state works a unit out as it is in the writer's hands.
func (w *writing) state(number int) (*bench.State, error) {
	if w.was == nil || w.freezes != "" { // it was handed over nowhere yet, or nothing was kept then
		return w.service.compute(w.catalog, w.Job, number)
	}
	return w.service.stateOf(w.ctx, w.catalog, w.Job, number)
}

// before is a unit as it was worked out before anything was written. It rests on the job that
// others read, which the writer's copy is not.
func (w *writing) before(number int) (*bench.State, error) {
	basis := w.service.basis(w.catalog, w.was.Version)
	if st := w.service.states.get(w.was.Tag, number, basis); st != nil {
		return st, nil
	}
	st, err := w.service.stateOf(w.ctx, w.catalog, w.was, number)
	if err == nil {
		w.service.states.keep(w.was.Tag, number, basis, st)
	}
	return st, err
}

// change is the one way to write to a job: f changes a copy of it under the
// job's lock, and what differs is kept with the record of it.
func (s *Service) change(ctx context.Context, who people.Actor, role, tag string, f func(*writing) error) error {
	return s.write(ctx, who, role, tag, func(w *writing) error {
		if err := closed(w.Job); err != nil {
			return err
		}
		return f(w)
	})
}

// changeAny is change of a job that may have been handed over.
func (s *Service) changeAny(ctx context.Context, who people.Actor, role, tag string, f func(*writing) error) error {
	// What it was frozen by is read before the job is locked: a write asks for one connection.
	if j, err := s.Store.Job(ctx, tag); err != nil {
		return err
	} else if _, err := s.Frozen(ctx, j); err != nil {
		return err
	}
	return s.write(ctx, who, role, tag, f)
}

func (s *Service) write(ctx context.Context, who people.Actor, role, tag string, f func(*writing) error) error {
	if !who.May(role) {
		return people.ErrForbidden
	}
	if err := s.Refresh(ctx); err != nil {
		return err
	}
	w := s.writing(ctx, who.Name, who.Role)
	err := s.Store.Update(ctx, tag, func(j *unit.Job, h store.History) (*store.Change, error) {
		w.Job, w.history, w.was = j, h, h.Before
		before := waits(j)
		if err := f(w); err != nil {
			return nil, err
		}
		if was := j.Waiting; waitAnew(j, before) {
			w.record(unit.Entry{Action: "waits by itself", Field: unit.JobRef("waiting").String(), Before: was,
				After: j.Waiting})
		}
		return w.finish()
	})
	if lot := (*store.ErrLot)(nil); errors.As(err, &lot) {
		return field.Errorf("count", "%s: somebody took of it since", lot)
	}
	if err != nil {
		return err
	}
	// Who wrote looks next: what was worked out is there for him.
	for i, st := range w.states {
		s.states.keep(tag, i+1, s.basis(w.catalog, st.Job.Version), st)
	}
	return nil
}

// finish works the changed job out and says where it stands now.
func (w *writing) finish() (*store.Change, error) {
	for i := range w.Job.Units {
		st, err := w.state(i + 1)
		if err != nil {
			return nil, err
		}
		w.states = append(w.states, st)
	}
	w.Job.Station = bench.Stands(w.states)
	if w.freezes != "" {
		if err := w.freeze(w.freezes == later); err != nil {
			return nil, err
		}
	}
	c := &store.Change{
		Job:      w.Job,
		Entries:  w.entries,
		Contents: w.contents,
		Papers:   w.papers,
		Results:  w.results,
		Lots:     w.lots,
		Unbooked: w.unbooked,
	}
	if !w.final {
		c.Who = w.shop.Who
	}
	return c, nil
}

// shop is what an edit needs to know of the shop.
func (s *Service) shop(c *catalog, who string) *entry.Shop {
	tools := shop.Instruments{}
	for name, t := range c.Tools {
		if _, err := quantity.Parse(t.Resolution, quantity.Length); err == nil { // others are of the stand
			tools[name] = t
		}
	}
	return &entry.Shop{
		Family:    c.familyOf,
		Knowledge: func(code string) entry.Knowledge { return marksAndCauses{s.Knowledge.For(code)} },
		Tools:     tools, Sites: c.sites, Who: who, Now: s.moment(),
	}
}

// marksAndCauses answers what a family's knowledge has.
type marksAndCauses struct{ k *explain.Knowledge }

func (b marksAndCauses) KnowsMark(code string) bool {
	_, ok := b.k.EvidenceByCode(code)
	return ok
}

func (b marksAndCauses) KnowsCause(code string) bool {
	_, ok := b.k.CauseByCode(code)
	return ok
}

// onUnit changes one unit of a job. f gets the unit to write to, and what was worked out of it
// before the change, to read; it gives what goes into the record, nothing where it noted an
// event.
func (s *Service) onUnit(ctx context.Context, who people.Actor, role, tag string, number int,
	f func(*writing, *unit.Unit, *bench.State) (action string, err error)) error {
	return s.change(ctx, who, role, tag, func(w *writing) error {
		st, err := w.before(number)
		if err != nil {
			return err
		}
		action, err := f(w, w.Job.Unit(number), st)
		if err != nil {
			return err
		}
		if action != "" {
			w.did(action)
		}
		return nil
	})
}

// short refuses words that are missing or too long for a line.
func short(name, text, missing string) (string, error) {
	text = strings.TrimSpace(text)
	switch {
	case text == "" && missing != "":
		return "", field.Errorf(name, "%s", missing)
	case len([]rune(text)) > entry.MostLine:
		return "", field.Errorf(name, "is longer than %d letters", entry.MostLine)
	}
	return text, nil
}

// counted refuses a number of pieces that no bench has.
func counted(count int) error {
	if count < 1 || count > 10000 {
		return field.Errorf("count", "is a whole number, at least 1")
	}
	return nil
}
