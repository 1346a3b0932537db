package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
)

// Person may sign in.
type Person struct {
	ID           uint
	SignIn       string // in small letters
	Name         string
	Initials     string
	Role         string
	PasswordHash string
	CodeHash     string // of four digits for a quick change at a bench; "" without
	BadgeHash    string // of what a badge reads as; "" without
	Entry        int64  // sessions carry it; a step ends those that were begun before
	LockedAt     *time.Time
	LastSignIn   *time.Time
	CreatedAt    time.Time

	FirstCases    int        // units of practice he is to name rightly before he has a job of his own
	PracticeShown *time.Time // since when he shows leads what he tends to in practice; nil while he does not
}

// ErrTaken says that somebody else has that sign-in name or badge already.
var ErrTaken = errors.New("somebody has this already")

// ErrLastLead says that without this person nobody could let people in.
var ErrLastLead = errors.New("one lead at least must be able to sign in")

// PersonBySignIn finds who signs in so.
func (s *Store) PersonBySignIn(ctx context.Context, signIn string) (*Person, error) {
	return s.person(ctx, "sign_in = ?", signIn)
}

// PersonByBadge finds whose badge reads so.
func (s *Store) PersonByBadge(ctx context.Context, hash string) (*Person, error) {
	return s.person(ctx, "badge_hash = ? AND badge_hash <> ''", hash)
}

// Person finds a person by number.
func (s *Store) Person(ctx context.Context, id uint) (*Person, error) {
	return s.person(ctx, "id = ?", id)
}

func (s *Store) person(ctx context.Context, where string, arg any) (*Person, error) {
	var p Person
	err := s.db.WithContext(ctx).Where(where, arg).Take(&p).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, ErrNotFound
	}
	return &p, err
}

// mostPeople of a shop are listed.
const mostPeople = 1000

// People lists everybody by name.
func (s *Store) People(ctx context.Context) ([]Person, error) {
	var out []Person
	err := s.db.WithContext(ctx).Order("name, id").Limit(mostPeople).Find(&out).Error
	return out, err
}

// NoPeople reports that nobody could sign in yet.
func (s *Store) NoPeople(ctx context.Context) (bool, error) {
	return nobody(s.db.WithContext(ctx))
}

func nobody(db *gorm.DB) (bool, error) {
	var n int64
	err := db.Model(&Person{}).Count(&n).Error
	return n == 0, err
}

// AddPerson keeps a new person, with a line of who did it.
func (s *Store) AddPerson(ctx context.Context, p *Person, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error { return addPerson(db, p) })
}

func addPerson(db *gorm.DB, p *Person) error {
	p.Entry = 1
	err := db.Create(p).Error
	if taken(err) {
		return ErrTaken
	}
	return err
}

// FirstLead names the shop and keeps its first person. It fails with ErrTaken
// where somebody is there already.
func (s *Store) FirstLead(ctx context.Context, shop string, p *Person) error {
	return s.onShop(ctx, p.Name, "began the shop "+shop, func(db *gorm.DB) error {
		// The shop's one row puts two that come at once in order.
		if err := db.Table(shopTable).Where("one").Update("name", shop).Error; err != nil {
			return err
		}
		first, err := nobody(db)
		if err != nil {
			return err
		}
		if !first {
			return ErrTaken
		}
		return addPerson(db, p)
	})
}

// ChangePerson lets f change a person, with a line of who did it, which f says.
// What f returns ends it; no line is written for a nameless change.
func (s *Store) ChangePerson(ctx context.Context, id uint, by string, f func(*Person) (action string, err error),
) error {
	return s.transaction(ctx, func(db *gorm.DB) error {
		// Leads are counted while nobody else is changed.
		if err := lockShop(db); err != nil {
			return err
		}
		var p Person
		if err := db.Where("id = ?", id).Take(&p).Error; err != nil {
			if errors.Is(err, gorm.ErrRecordNotFound) {
				return ErrNotFound
			}
			return err
		}
		action, err := f(&p)
		if err != nil || action == "" {
			return err
		}
		if err := db.Save(&p).Error; err != nil {
			if taken(err) {
				return ErrTaken
			}
			return err
		}
		var leads int64
		err = db.Model(&Person{}).Where("role = 'lead' AND locked_at IS NULL").Count(&leads).Error
		switch {
		case err != nil:
			return err
		case leads == 0:
			return ErrLastLead
		}
		return shopEntry(db, by, action)
	})
}

// lockShop waits for whoever changes people meanwhile.
func lockShop(db *gorm.DB) error {
	return db.Exec("SELECT FROM shop FOR UPDATE").Error
}

func (s *Store) onShop(ctx context.Context, by, action string, f func(*gorm.DB) error) error {
	return s.transaction(ctx, func(db *gorm.DB) error {
		if err := f(db); err != nil {
			return err
		}
		return shopEntry(db, by, action)
	})
}

func shopEntry(db *gorm.DB, by, action string) error {
	return db.Omit("At").Create(&ShopEntry{Who: by, Action: action}).Error
}

// ShopEntry is a line of what was done to the shop itself.
type ShopEntry struct {
	At          time.Time
	Who, Action string
}

// NoteForShop adds such a line.
func (s *Store) NoteForShop(ctx context.Context, by, action string) error {
	return shopEntry(s.db.WithContext(ctx), by, action)
}

// ShopEntries gives the last lines of what was done to the shop, newest first.
func (s *Store) ShopEntries(ctx context.Context, limit int) (out []ShopEntry, err error) {
	err = s.db.WithContext(ctx).Order("id DESC").Limit(limit).Find(&out).Error
	return out, err
}

// Glance is all that a request asks of the store before it does its work.
type Glance struct {
	Person *Person // nil where nobody has the number any more, or is locked
	Shop   int64   // version of what the shop keeps beside its jobs
	Job    int64   // version of the job, 0 where there is none
}

// Glance reads who asks, and how new the shop and the job are, in one question.
func (s *Store) Glance(ctx context.Context, person uint, tag string) (Glance, error) {
	var row struct {
		Person
		Shop int64
		Job  int64
	}
	err := s.db.WithContext(ctx).Raw(`
		SELECT p.id, p.sign_in, p.name, p.initials, p.role, p.entry, s.version AS shop, coalesce(j.version, 0) AS job
		FROM shop s LEFT JOIN people p ON p.id = ? AND p.locked_at IS NULL LEFT JOIN jobs j ON j.tag = ?`,
		person, tag).Scan(&row).Error
	g := Glance{Shop: row.Shop, Job: row.Job}
	if row.ID != 0 {
		g.Person = &row.Person
	}
	return g, err
}
