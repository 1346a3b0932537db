package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"
)

// OpenPage is a page of a job that somebody looks at just now, at whichever bench.
type OpenPage struct {
	Token    string `gorm:"primaryKey"`
	Tag      string
	PersonID uint
	Person   string
	AtPage   string    // which: a station, and the unit where it is not the first
	SeenAt   time.Time `gorm:"default:now()"`
}

// How long a page counts as open that was not said to be closed, and is kept: its instance may have ended.
const (
	pageCounts = "60 seconds"
	pageKept   = "1 hour"
	mostPages  = 50 // of one job are told of
)

// pagesChanged tells all instances that the pages of a job are others.
const pagesChanged = "corvek_pages"

// PageOpen notes that somebody looks at a page, or does so further, and tells the others of the job when it is new.
func (s *Store) PageOpen(ctx context.Context, p OpenPage, isNew bool) error {
	db := s.db.WithContext(ctx)
	again := clause.OnConflict{Columns: []clause.Column{{Name: "token"}},
		DoUpdates: clause.AssignmentColumns([]string{"seen_at"})} // which is now, where it is not said
	if err := db.Clauses(again).Create(&p).Error; err != nil {
		return err
	}
	if !isNew {
		return nil
	}
	return db.Exec("SELECT pg_notify(?, ?)", pagesChanged, p.Tag).Error
}

// PageClosed notes that nobody looks at it any more.
func (s *Store) PageClosed(ctx context.Context, p OpenPage) error {
	db := s.db.WithContext(ctx)
	if err := db.Exec("DELETE FROM open_pages WHERE token = ? OR seen_at < now() - ?::interval", p.Token,
		pageKept).Error; err != nil {
		return err
	}
	return db.Exec("SELECT pg_notify(?, ?)", pagesChanged, p.Tag).Error
}

// PagesOf are the pages of a job that others than a person look at.
func (s *Store) PagesOf(ctx context.Context, tag string, but uint) (out []OpenPage, err error) {
	err = s.db.WithContext(ctx).
		Where("tag = ? AND person_id <> ? AND seen_at > now() - ?::interval", tag, but, pageCounts).
		Order("person, at_page").
		Limit(mostPages).
		Find(&out).
		Error
	return out, err
}

// LookedAtBy are who looks at jobs just now, by the tags of the jobs.
func (s *Store) LookedAtBy(ctx context.Context) (map[string]string, error) {
	var rows []struct{ Tag, People string }
	err := s.db.WithContext(ctx).Raw(`SELECT tag, string_agg(DISTINCT person, ', ' ORDER BY person) AS people
		FROM open_pages WHERE seen_at > now() - ?::interval GROUP BY tag LIMIT ?`, pageCounts, mostPages*mostPages).
		Scan(&rows).Error
	out := map[string]string{}
	for _, r := range rows {
		out[r.Tag] = r.People
	}
	return out, err
}
