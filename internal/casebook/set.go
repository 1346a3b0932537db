package casebook

import (
	"context"
	"errors"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/core/hidden"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// SetDrawn sets a case for everybody that is drawn by chance.
func (b *Book) SetDrawn(ctx context.Context, who people.Actor, of, kind, words string) error {
	if !who.May(people.RoleLead) {
		return people.ErrForbidden
	}
	shop, err := b.shop(ctx)
	if err != nil {
		return err
	}
	c, err := b.draw(shop, of, kind, Seed())
	if err != nil {
		return err
	}
	return b.set(ctx, who, &store.PracticeSet{Words: words, Family: of, Kind: kind, Seed: int64(c.Seed),
		Causes: c.Causes})
}

// SetWritten sets a case for everybody that is the unit of a finished job of the shop as it was found, without a name
// in it.
func (b *Book) SetWritten(ctx context.Context, who people.Actor, tag, words string) error {
	if !who.May(people.RoleLead) {
		return people.ErrForbidden
	}
	shop, err := b.shop(ctx)
	if err != nil {
		return err
	}
	j, err := b.Shop.Store.Job(ctx, strings.ToUpper(strings.TrimSpace(tag)))
	switch {
	case errors.Is(err, store.ErrNotFound):
		return field.Errorf("tag", "no job has this tag")
	case err != nil:
		return err
	case !j.HandedOver():
		return field.Errorf("tag", "it is not handed over yet: a case is made of a job that is finished")
	}
	c, came, err := hidden.Written(shop, j, 1)
	if err != nil {
		return field.Errorf("tag", "%s", err)
	}
	row := &store.PracticeSet{Words: words, Family: came.Unit(1).Family, Kind: c.Kind, Causes: c.Causes,
		Written: true}
	if err := b.set(ctx, who, row); err != nil {
		return err
	}
	came.Tag, came.Complaint, came.Title = row.Came(), c.Complaint(), came.Unit(1).Name
	c.True.Tag, c.True.Title = row.Hidden(), "as it is"
	for _, made := range []*unit.Job{c.True, came} {
		if err := b.Bench.LayOut(store.WithOnce(ctx, ""), people.Actor{Name: workedBy}, made); err != nil {
			return err
		}
	}
	return nil
}

// mostWords keeps what is said of a case to a line.
const mostWords = 200

func (b *Book) set(ctx context.Context, who people.Actor, row *store.PracticeSet) error {
	row.Words = strings.TrimSpace(row.Words)
	switch {
	case row.Words == "":
		return field.Errorf("words", "say what it is, as you would across the bench")
	case len([]rune(row.Words)) > mostWords:
		return field.Errorf("words", "is longer than %d letters", mostWords)
	}
	row.ByName, row.SetOn = who.Name, b.Bench.Now().UTC().Truncate(time.Microsecond)
	return b.Shop.Store.AddPracticeSet(ctx, row, who.Name)
}

// BeginSet puts the case that was set for everybody on somebody's bench, or gives it where it lies there already.
func (b *Book) BeginSet(ctx context.Context, who people.Actor) (tag string, err error) {
	if !who.May(people.RoleTechnician) {
		return "", people.ErrForbidden
	}
	row, err := b.Shop.Store.PracticeSetNow(ctx)
	switch {
	case err != nil:
		return "", err
	case row == nil:
		return "", store.ErrNotFound
	}
	if tag, err := b.Shop.Store.PracticeCaseOfSet(ctx, who.ID, row.ID); err != nil || tag != "" {
		return tag, err
	}
	if row.Written {
		return b.beginWritten(ctx, who, row)
	}
	shop, err := b.shop(ctx)
	if err != nil {
		return "", err
	}
	c, err := b.draw(shop, row.Family, row.Kind, uint64(row.Seed))
	if err != nil {
		return "", err
	}
	came, err := shop.Received(row.Family)
	if err != nil {
		return "", err
	}
	return b.lay(ctx, who, c, came, &row.ID)
}

func (b *Book) beginWritten(ctx context.Context, who people.Actor, row *store.PracticeSet) (tag string, err error) {
	truly, err := b.Bench.Store.Job(ctx, row.Hidden())
	if err != nil {
		return "", err
	}
	came, err := b.Bench.Store.Job(ctx, row.Came())
	if err != nil {
		return "", err
	}
	c := &hidden.Case{Kind: row.Kind, Causes: row.Causes, True: anew(truly)}
	return b.lay(ctx, who, c, anew(came), &row.ID)
}

// anew is a copy of a job that was never kept.
func anew(j *unit.Job) *unit.Job {
	c := j.Clone()
	c.ID, c.Version, c.CustomerID, c.Customer.ID = 0, 0, 0, 0
	return c
}
