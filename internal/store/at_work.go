package store

import (
	"context"
	"database/sql"
	"time"
)

// Touched is the last that somebody wrote of a unit of a job.
type Touched struct {
	Who, Tag, Field string
	Stand           string // name of the place of the stand that is read for it now, "" for none
}

// lastLines are how many lines of the record are looked through for who is at work: more than a large shop writes in
// the time that counts.
const lastLines = 5000

// AtWork is what each person wrote last of a unit of a job in hand, since a moment; the newest first.
func (s *Store) AtWork(ctx context.Context, since time.Time) (out []Touched, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT * FROM (
			SELECT DISTINCT ON (r.who) r.who, j.tag, r.field, r.id, coalesce((
				SELECT p.name FROM recordings c JOIN stands t ON t.name = c.stand JOIN places p ON p.id = t.place_id
				WHERE c.job_id = j.id AND c.started_at > @since ORDER BY c.id DESC LIMIT 1), '') AS stand
			FROM (SELECT id, job_id, who, field, at FROM record_entries ORDER BY id DESC LIMIT @lines) r
			JOIN jobs j ON j.id = r.job_id AND j.handed_over_at IS NULL AND j.withdrawn_at IS NULL
			WHERE r.at > @since AND r.who <> '' AND r.field LIKE 'u%/%'
			ORDER BY r.who, r.id DESC) w
		ORDER BY id DESC`, sql.Named("since", since), sql.Named("lines", lastLines)).Scan(&out).Error
	return out, err
}
