package store

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// PracticeCase is a made-up unit that somebody works on for practice. The unit is a job of the store of practice, under
// the same tag; as it truly is, it is another one there, which nobody is shown.
type PracticeCase struct {
	ID       int64
	PersonID uint
	SetID    *int64 // that a lead set for all; nil for one of his own
	Tag      string // P-0012
	Family   string
	Kind     string
	Seed     int64
	Causes   []string `gorm:"serializer:json"` // codes of what is truly wrong
	BegunAt  time.Time
	Named    []string   `gorm:"serializer:json"` // what he took it for, codes of causes; none where he gave it up
	NamedAt  *time.Time // and when: from then on he is told what it was

	// What he did until then
	Early  bool     // it was not as good as sure by what he had seen
	Late   int      // looks that came too late
	Unsaid int      // marks of which he left open where they come from
	Missed []string `gorm:"serializer:json"` // where he never looked, though it would have told most
	Taken  []string `gorm:"serializer:json"` // marks on his record that he did not see so, by code

	Looks []PracticeLook `gorm:"foreignKey:CaseID"`
}

// Right reports that he named all that is wrong, and Part that he named some of it.
func (c *PracticeCase) Right() bool { return len(c.Named) > 0 && c.named() == len(c.Causes) }

// Part is it.
func (c *PracticeCase) Part() bool { return c.named() > 0 && !c.Right() }

func (c *PracticeCase) named() (n int) {
	for _, code := range c.Causes {
		if slices.Contains(c.Named, code) {
			n++
		}
	}
	return n
}

// PracticeSet is a case that a lead set for everybody: one that is drawn, or one that is written after a job of the
// shop, which then is a job of the store of practice under its own tag.
type PracticeSet struct {
	ID      int64
	Words   string // what the lead says of it
	Family  string
	Kind    string
	Seed    int64
	Causes  []string `gorm:"serializer:json"`
	Written bool
	ByName  string
	SetOn   time.Time
}

// Came and Hidden are the tags under which a written one lies in the store of practice: as it came, and as it is.
func (p *PracticeSet) Came() string { return fmt.Sprintf("S-%04d", p.ID) }

// Hidden is it as it truly is.
func (p *PracticeSet) Hidden() string { return fmt.Sprintf("W-%04d", p.ID) }

// AddPracticeSet keeps one, and gives it its number.
func (s *Store) AddPracticeSet(ctx context.Context, p *PracticeSet, by string) error {
	return s.transaction(ctx, func(db *gorm.DB) error {
		if err := db.Create(p).Error; err != nil {
			return err
		}
		return shopEntry(db, by, "set a case of practice: "+p.Words)
	})
}

// PracticeSetNow is the one that was set last, nil where none was set.
func (s *Store) PracticeSetNow(ctx context.Context) (*PracticeSet, error) {
	p := &PracticeSet{}
	err := s.db.WithContext(ctx).Order("id DESC").Take(p).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, nil
	}
	return p, err
}

// PracticeLook is one look at such a unit.
type PracticeLook struct {
	CaseID  int64 `gorm:"primaryKey"`
	Number  int   `gorm:"primaryKey"`
	Field   string
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
		return db.Model(c).Select("Named", "NamedAt", "Early", "Late", "Unsaid", "Missed", "Taken").
			Omit(clause.Associations).Updates(c).Error
	})
}

// PracticeCaseOfSet is the tag of somebody's case of one that was set, "" where he has none.
func (s *Store) PracticeCaseOfSet(ctx context.Context, person uint, set int64) (tag string, err error) {
	c := &PracticeCase{}
	err = s.db.WithContext(ctx).Select("tag").Where("person_id = ? AND set_id = ?", person, set).Take(c).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return "", nil
	}
	return c.Tag, err
}

// PracticeRight is how many cases somebody named rightly.
func (s *Store) PracticeRight(ctx context.Context, person uint) (n int, err error) {
	var rows []PracticeCase
	err = s.db.WithContext(ctx).Select("causes", "named").Where("person_id = ? AND named_at IS NOT NULL", person).
		Order("id DESC").Limit(mostCases).Find(&rows).Error
	for i := range rows {
		if rows[i].Right() {
			n++
		}
	}
	return n, err
}

// PeopleWhoPractise are those who are to name units of practice before they have a job of their own.
func (s *Store) PeopleWhoPractise(ctx context.Context) (out []Person, err error) {
	err = s.db.WithContext(ctx).Where("first_cases > 0").Limit(mostPeople).Find(&out).Error
	return out, err
}

// PeopleWhoShow are those who show leads what they tend to in practice, by name.
func (s *Store) PeopleWhoShow(ctx context.Context) (out []Person, err error) {
	err = s.db.WithContext(ctx).Where("practice_shown IS NOT NULL AND locked_at IS NULL").Order("name, id").
		Limit(mostPeople).Find(&out).Error
	return out, err
}

// ShowPractice keeps since when somebody shows leads what he tends to; nil shows it no more. It is his own affair, and
// stands in no record.
func (s *Store) ShowPractice(ctx context.Context, person uint, since *time.Time) error {
	return s.db.WithContext(ctx).Model(&Person{}).Where("id = ?", person).Update("practice_shown", since).Error
}
