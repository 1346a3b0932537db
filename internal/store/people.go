package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Person may sign in.
type Person struct {
	ID           uint
	SignIn       string
	Name         string
	Initials     string
	Role         string
	PasswordHash string
	CreatedAt    time.Time
}

// PersonBySignIn finds who signs in so.
func (s *Store) PersonBySignIn(ctx context.Context, signIn string) (*Person, error) {
	var p Person
	err := s.db.WithContext(ctx).Where("sign_in = ?", signIn).Take(&p).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, ErrNotFound
	}
	return &p, err
}

// People lists everybody by name.
func (s *Store) People(ctx context.Context) ([]Person, error) {
	var out []Person
	return out, s.db.WithContext(ctx).Order("name").Find(&out).Error
}

// SavePerson adds a person, or renews name, role and password of a known sign-in.
func (s *Store) SavePerson(ctx context.Context, p *Person) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{
		Columns:   []clause.Column{{Name: "sign_in"}},
		DoUpdates: clause.AssignmentColumns([]string{"name", "initials", "role", "password_hash"}),
	}).Create(p).Error
}

// Glance is all that a request asks of the store before it does its work.
type Glance struct {
	Person *Person // nil where nobody has the number any more
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
		SELECT p.id, p.sign_in, p.name, p.initials, p.role, s.version AS shop, coalesce(j.version, 0) AS job
		FROM shop s LEFT JOIN people p ON p.id = ? LEFT JOIN jobs j ON j.tag = ?`, person, tag).Scan(&row).Error
	g := Glance{Shop: row.Shop, Job: row.Job}
	if row.ID != 0 {
		g.Person = &row.Person
	}
	return g, err
}
