package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// PracticeCase is a made-up unit that somebody works on for practice. The unit is a job of the store of practice, under
// the same tag; as it truly is, it is another one there, which nobody is shown.
type PracticeCase struct {
	ID       int64
	PersonID uint
	Tag      string // P-0012
	Family   string
	Kind     string
	Seed     int64
	Causes   []string `gorm:"serializer:json"` // codes of what is truly wrong
	BegunAt  time.Time
	Named    string     // what he took it for, a cause's code; "" where he did not say
	NamedAt  *time.Time // and when: from then on he is told what it was
	ProvedAt *time.Time // when the rebuilt unit was proved

	Looks []PracticeLook `gorm:"foreignKey:CaseID"`
}

// PracticeLook is one look at such a unit.
type PracticeLook struct {
	CaseID  int64 `gorm:"primaryKey"`
	Number  int   `gorm:"primaryKey"`
	Field   string
	Value   string // as it would be entered
	Says    string
	Gone    bool
	Minutes float64
	Reached string // how far apart the unit was
	At      time.Time
}

// Hidden is the tag of the job that is the unit as it truly is.
func (c *PracticeCase) Hidden() string { return "H" + c.Tag[1:] }

// MostLooks are taken at one case.
const MostLooks = 2000

// mostCases of a person are listed.
const mostCases = 200

// AddPracticeCase keeps a new case and gives it its tag.
func (s *Store) AddPracticeCase(ctx context.Context, c *PracticeCase) error {
	return s.transaction(ctx, func(db *gorm.DB) error {
		if err := db.Raw("SELECT nextval('practice_cases_id_seq')").Scan(&c.ID).Error; err != nil {
			return err
		}
		c.Tag = fmt.Sprintf("P-%04d", c.ID)
		if err := noteResult(ctx, db, c.Tag); err != nil {
			return err
		}
		return db.Create(c).Error
	})
}

// PracticeCaseOf is somebody's case by its tag, with what was looked at in order. What is another's is not found.
func (s *Store) PracticeCaseOf(ctx context.Context, person uint, tag string) (*PracticeCase, error) {
	c := &PracticeCase{}
	err := s.db.WithContext(ctx).Preload("Looks", func(db *gorm.DB) *gorm.DB { return db.Order("number") }).
		Where("person_id = ? AND tag = ?", person, tag).Take(c).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, ErrNotFound
	}
	return c, err
}

// PracticeCases are somebody's, the newest first.
func (s *Store) PracticeCases(ctx context.Context, person uint) (out []PracticeCase, err error) {
	err = s.db.WithContext(ctx).Preload("Looks", func(db *gorm.DB) *gorm.DB { return db.Order("number") }).
		Where("person_id = ?", person).Order("id DESC").Limit(mostCases).Find(&out).Error
	return out, err
}

// OnPracticeCase lets f change somebody's case while nobody else does: what it adds to its looks is kept, and what it
// came to.
func (s *Store) OnPracticeCase(ctx context.Context, person uint, tag string, f func(*PracticeCase) error) error {
	return s.db.WithContext(ctx).Transaction(func(db *gorm.DB) error {
		c := &PracticeCase{}
		err := db.Clauses(clause.Locking{Strength: "UPDATE"}).
			Preload("Looks", func(db *gorm.DB) *gorm.DB { return db.Order("number") }).
			Where("person_id = ? AND tag = ?", person, tag).Take(c).Error
		if errors.Is(err, gorm.ErrRecordNotFound) {
			return ErrNotFound
		}
		if err != nil {
			return err
		}
		had := len(c.Looks)
		if err := f(c); err != nil {
			return err
		}
		for i := had; i < len(c.Looks); i++ {
			c.Looks[i].CaseID, c.Looks[i].Number = c.ID, i+1
			if err := db.Create(&c.Looks[i]).Error; err != nil {
				return err
			}
		}
		return db.Model(c).Select("Named", "NamedAt", "ProvedAt").Omit(clause.Associations).Updates(c).Error
	})
}
