// Package casebook keeps who works on which made-up unit for practice. The units lie in a store of their own, where the
// bench works on them as on any other; what is truly wrong with one lies there too and is shown to nobody before he
// named it. Whose case it is and what he looked at is kept with the shop's people; nothing else of the shop is written.
package casebook

import (
	"context"
	"errors"
	"math/rand/v2"
	"slices"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/hidden"
	"corvek/core/mount"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store"

	lru "github.com/hashicorp/golang-lru/v2"
)

// Book is it. It may be used by many at once.
type Book struct {
	Shop  *job.Service // with whose people the cases are kept
	Bench *job.Service // at which the units lie

	truths *lru.Cache[string, *hidden.Truth]
}

// keptTruths is how many are held in memory.
const keptTruths = 64

// New makes a book of cases that lie at a bench of practice.
func New(shop, bench *job.Service) (*Book, error) {
	truths, err := lru.New[string, *hidden.Truth](keptTruths)
	return &Book{Shop: shop, Bench: bench, truths: truths}, err
}

// workedBy is who wrote what a unit of practice comes with.
const workedBy = "Practice"

// shop is what cases are made with now.
func (b *Book) shop(ctx context.Context) (*hidden.Shop, error) {
	known, err := b.Bench.Known(ctx, workedBy)
	if err != nil {
		return nil, err
	}
	return &hidden.Shop{Catalog: known.Catalog, Knowledge: b.Bench.Knowledge, Entry: known.Entry,
		Day: unit.DateOf(b.Bench.Now())}, nil
}

// Seed is one by chance. It is never shown: with it the case could be made again.
func Seed() uint64 { return rand.Uint64() >> 1 }

// mostOpen keeps anybody from filling the bench.
const mostOpen = 20

// Begin puts a made-up unit of a family on somebody's bench.
func (b *Book) Begin(ctx context.Context, who people.Actor, of, kind string, seed uint64) (tag string, err error) {
	if !who.May(people.RoleTechnician) {
		return "", people.ErrForbidden
	}
	open, err := b.Shop.Store.PracticeCases(ctx, who.ID)
	if err != nil {
		return "", err
	}
	n := 0
	for _, c := range open {
		if c.NamedAt == nil {
			n++
		}
	}
	if n >= mostOpen {
		return "", field.Errorf("family", "%d units lie on your bench already; name what is wrong with one of them "+
			"first", n)
	}
	shop, err := b.shop(ctx)
	if err != nil {
		return "", err
	}
	c, err := b.draw(shop, of, kind, seed)
	if err != nil {
		return "", err
	}
	came, err := shop.Received(of)
	if err != nil {
		return "", err
	}
	return b.lay(ctx, who, c, came, nil)
}

// draw draws a case; what cannot be drawn gives a *field.Error.
func (b *Book) draw(shop *hidden.Shop, of, kind string, seed uint64) (*hidden.Case, error) {
	if shop.Catalog.Plain[of] == nil {
		return nil, field.Errorf("family", "choose what kind of unit it is to be")
	}
	if _, known := hidden.KindByCode(kind); !known {
		return nil, field.Errorf("kind", "choose how hard it is to be")
	}
	c, err := hidden.Draw(shop, of, kind, seed)
	if errors.Is(err, hidden.ErrNone) {
		return nil, field.Errorf("kind", "nothing of that kind is known of this family; choose another")
	}
	return c, err
}

// lay puts a case on the bench: the unit as it came, and beside it, out of sight, as it truly is.
func (b *Book) lay(ctx context.Context, who people.Actor, c *hidden.Case, came *unit.Job, set *int64) (tag string,
	err error) {
	row := &store.PracticeCase{PersonID: who.ID, SetID: set, Family: came.Unit(1).Family, Kind: c.Kind,
		Seed: int64(c.Seed), Causes: c.Causes, BegunAt: b.Bench.Now().UTC().Truncate(time.Microsecond)}
	if err := b.Shop.Store.AddPracticeCase(ctx, row); err != nil {
		return "", err
	}
	came.Tag, came.Title, came.Complaint = row.Tag, came.Unit(1).Name, c.Complaint()
	c.True.Tag, c.True.Title = row.Hidden(), "as it is"
	two := store.WithOnce(ctx, "") // its form's token is used up
	for _, j := range []*unit.Job{c.True, came} {
		if err := b.Bench.LayOut(two, people.Actor{Name: workedBy}, j); err != nil {
			return "", err
		}
	}
	return row.Tag, nil
}

// Case is somebody's case by its tag.
func (b *Book) Case(ctx context.Context, who people.Actor, tag string) (*store.PracticeCase, error) {
	if !strings.HasPrefix(tag, job.PracticePrefix) {
		return nil, store.ErrNotFound
	}
	return b.Shop.Store.PracticeCaseOf(ctx, who.ID, tag)
}

// truth is the unit of a case as it truly is.
func (b *Book) truth(ctx context.Context, row *store.PracticeCase) (*hidden.Truth, error) {
	if t, kept := b.truths.Get(row.Tag); kept {
		return t, nil
	}
	shop, err := b.shop(ctx)
	if err != nil {
		return nil, err
	}
	j, err := b.Bench.Store.Job(ctx, row.Hidden())
	if err != nil {
		return nil, err
	}
	t, err := shop.Truth(&hidden.Case{Seed: uint64(row.Seed), Kind: row.Kind, Causes: row.Causes, True: j})
	if err != nil {
		return nil, err
	}
	b.truths.Add(row.Tag, t)
	return t, nil
}

// lies is a case's unit as it lies there now.
func (b *Book) lies(ctx context.Context, row *store.PracticeCase) (*hidden.Bench, error) {
	t, err := b.truth(ctx, row)
	if err != nil {
		return nil, err
	}
	record, err := b.Bench.LoadOther(ctx, row.Tag, 1)
	if err != nil {
		return nil, err
	}
	return &hidden.Bench{Truth: t, Record: record, Looked: looked(row)}, nil
}

// looked are the looks that were taken, in order.
func looked(row *store.PracticeCase) (out []hidden.Looked) {
	for _, l := range row.Looks {
		out = append(out, hidden.Looked{Field: l.Field, Gone: l.Gone, Minutes: l.Minutes,
			Reached: explain.Reach(l.Reached)})
	}
	return out
}

// searched are those until the cause was named: what came after was looked at to mend it.
func searched(row *store.PracticeCase) []hidden.Looked {
	at := slices.IndexFunc(row.Looks, func(l store.PracticeLook) bool { return l.At.After(*row.NamedAt) })
	if at < 0 {
		return looked(row)
	}
	return looked(row)[:at]
}

// Look answers a look at a field of the record, and keeps it. What cannot be looked at gives a *field.Error.
func (b *Book) Look(ctx context.Context, who people.Actor, tag, address string) (seen hidden.Seen, err error) {
	ref, err := unit.ParseRef(address)
	if err != nil {
		return seen, field.Errorf("field", "%s", err)
	}
	row, err := b.Case(ctx, who, tag)
	if err != nil {
		return seen, err
	}
	lies, err := b.lies(ctx, row) // before the case is held: a write asks for one connection
	if err != nil {
		return seen, err
	}
	err = b.Shop.Store.OnPracticeCase(ctx, who.ID, tag, func(row *store.PracticeCase) error {
		if len(row.Looks) >= store.MostLooks {
			return field.Errorf("field", "%d looks were taken at it; that is enough for any unit", store.MostLooks)
		}
		lies.Looked = looked(row)
		if seen, err = lies.Look(ref); err != nil {
			return err
		}
		row.Looks = append(row.Looks, store.PracticeLook{Field: address, Gone: seen.Gone,
			Minutes: seen.Minutes, Reached: string(lies.Record.Situation().Reached),
			At: b.Bench.Now().UTC().Truncate(time.Microsecond)})
		return nil
	})
	return seen, err
}

// Minutes are what the looks at a case took.
func Minutes(row *store.PracticeCase) (sum float64) {
	for _, l := range row.Looks {
		sum += l.Minutes
	}
	return sum
}

// Name ends the search of a case with the cause that was concluded on its record, and from then on it is told what it
// was. With nothing concluded it was given up. What he did until then is kept, for himself. A second time it changes
// nothing.
func (b *Book) Name(ctx context.Context, who people.Actor, tag string) error {
	row, err := b.Case(ctx, who, tag)
	if err != nil {
		return err
	}
	lies, err := b.lies(ctx, row)
	if err != nil {
		return err
	}
	named := hidden.Concluded(lies.Record.Unit)
	way, err := lies.Way(named)
	if err != nil {
		return err
	}
	return b.Shop.Store.OnPracticeCase(ctx, who.ID, tag, func(row *store.PracticeCase) error {
		if row.NamedAt != nil {
			return nil
		}
		now := b.Bench.Now().UTC().Truncate(time.Microsecond)
		row.Named, row.NamedAt = named, &now
		row.Early = way.Early
		for _, s := range way.Steps {
			if s.Gone {
				row.Late++
			}
		}
		for _, m := range lies.Record.Unit.Marks {
			if m.State == unit.MarkSeen && m.Origin == unit.OriginUnknown {
				row.Unsaid++
			}
		}
		for _, e := range way.Unasked {
			row.Missed = append(row.Missed, string(e.At))
		}
		for _, e := range way.Taken {
			row.Taken = append(row.Taken, e.Code)
		}
		return nil
	})
}

// Told is what is told of a case once it was named.
type Told struct {
	Row    *store.PracticeCase
	Causes []*explain.Cause // that it truly has
	Named  []*explain.Cause // that he took it for; none where he gave it up
	Way    hidden.Way
}

// ErrNotNamed says that nobody said yet what is wrong.
var ErrNotNamed = errors.New("it is not named yet")

// Told tells what a case was, and what he did beside what would have told most.
func (b *Book) Told(ctx context.Context, who people.Actor, tag string) (*Told, error) {
	row, err := b.Case(ctx, who, tag)
	if err != nil {
		return nil, err
	}
	if row.NamedAt == nil {
		return nil, ErrNotNamed
	}
	lies, err := b.lies(ctx, row)
	if err != nil {
		return nil, err
	}
	causes := func(codes []string) (out []*explain.Cause) {
		for _, code := range codes {
			if c, known := lies.True.Known.CauseByCode(code); known {
				out = append(out, c)
			}
		}
		return out
	}
	told := &Told{Row: row, Causes: causes(row.Causes), Named: causes(row.Named)}
	lies.Looked = searched(row)
	told.Way, err = lies.Way(row.Named)
	told.Way.Taken = nil // his record went on since; what stood on it then was kept
	for _, code := range row.Taken {
		if e, known := lies.True.Known.EvidenceByCode(code); known {
			told.Way.Taken = append(told.Way.Taken, e)
		}
	}
	return told, err
}

// Left are the marks of its trouble that are still in a unit as it was built.
func (b *Book) Left(ctx context.Context, who people.Actor, tag string) ([]hidden.Remains, error) {
	row, err := b.Case(ctx, who, tag)
	if err != nil {
		return nil, err
	}
	lies, err := b.lies(ctx, row)
	if err != nil {
		return nil, err
	}
	return lies.Left(), nil
}

// Mounted is the unit on the stand for a step of its test, as it truly is.
func (b *Book) Mounted(ctx context.Context, who people.Actor, st *bench.State, t *family.Test) (mount.Mounted, error) {
	row, err := b.Case(ctx, who, st.Job.Tag)
	if err != nil {
		return mount.Mounted{}, err
	}
	lies, err := b.lies(ctx, row)
	if err != nil {
		return mount.Mounted{}, err
	}
	return lies.Mount(t)
}
