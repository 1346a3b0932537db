package store

import (
	"context"
	"strings"
	"time"
)

// Card is a job as the Jobs board shows it.
type Card struct {
	Tag, Title, Customer string
	Waiting, WaitingNote string
	Station              string
	WarrantyHold         bool
	ReceivedOn           time.Time
	PromisedOn, ToldDay  *time.Time // ToldDay: as whoever runs the machine was told
	Stands               bool       // the machine does, with none in its place
	TimerNote            string
	TimerUntil           *time.Time
	HandedOverAt         *time.Time
	Ending               string // how it ends for its units, where that is not rebuilt
	WithdrawnAt          *time.Time
	Site                 string     // of several shops
	HeldBy, HalfDone     string     // who has it, and what he was told of it and has not read
	WaitsSince           *time.Time // since when it waits for what it does, nil where the record does not tell
}

const cardColumns = `j.id, j.tag, j.title, c.name AS customer, j.waiting, j.waiting_note, j.station,` +
	` j.warranty_hold, j.received_on, j.promised_on, j.timer_note, j.timer_until, j.handed_over_at, j.withdrawn_at,` +
	` j.site, j.held_by, j.half_done, j.told_day, j.stands`

// withEnding adds to the cards of a query, g, how their jobs end: it is asked of those that are shown.
const withEnding = `SELECT g.*, (SELECT coalesce(string_agg(DISTINCT u.ending, ' '), '') FROM units u
	WHERE u.job_id = g.id AND u.ending <> '') AS ending,
	(SELECT r.at FROM record_entries r WHERE r.job_id = g.id AND r.field = 'job/waiting' AND r.after = g.waiting
		ORDER BY r.id DESC LIMIT 1) AS waits_since FROM `

// Group is the jobs that wait for one thing: the first of them, and how many
// there are in all.
type Group struct {
	Waiting string
	Cards   []Card
	Total   int
}

// InHand gives the jobs that are not handed over, by what they wait for, the
// first ones promised first: at most so many a group, and for the group that is
// opened at most opened.
func (s *Store) InHand(
	ctx context.Context,
	q Sought,
	each int,
	open string,
	opened int,
) (map[string]*Group, error) {
	where, args := q.where(true)
	var rows []struct {
		Card
		Total int
	}
	args = append(args, open, opened, each)
	err := s.db.WithContext(ctx).Raw(withEnding+`(
			SELECT `+cardColumns+`, count(*) OVER (PARTITION BY j.waiting) AS total,
				row_number() OVER (PARTITION BY j.waiting ORDER BY j.promised_on NULLS LAST, j.tag) AS place
			FROM jobs j JOIN customers c ON c.id = j.customer_id
			WHERE j.handed_over_at IS NULL AND j.withdrawn_at IS NULL`+where+`) g
		WHERE place <= CASE WHEN waiting = ? THEN ?::int ELSE ?::int END
		ORDER BY waiting, place`, args...).Scan(&rows).Error
	out := map[string]*Group{}
	for _, r := range rows {
		g := out[r.Waiting]
		if g == nil {
			g = &Group{Waiting: r.Waiting, Total: r.Total}
			out[r.Waiting] = g
		}
		g.Cards = append(g.Cards, r.Card)
	}
	return out, err
}

// Sought is which jobs are asked for: what holds all words, of one of several shops, and of closed ones those of a
// month ("2031-05"). What is empty asks for all.
type Sought struct{ Find, Site, Month string }

// where is it as a condition. Of few jobs all is searched.
func (q Sought) where(few bool) (where string, args []any) {
	where, args = searched(q.Find, few)
	if q.Site != "" {
		where, args = where+" AND j.site IN (?, '')", append(args, q.Site)
	}
	return where, args
}

// Closed gives jobs that were handed over, newest first. Withdrawn ones are found by
// their words only.
func (s *Store) Closed(ctx context.Context, q Sought, limit int) ([]Card, error) {
	where, args := q.where(false)
	if from, err := time.Parse("2006-01", q.Month); err == nil {
		where += " AND j.handed_over_at >= ? AND j.handed_over_at < ?"
		args = append(args, from, from.AddDate(0, 1, 0))
	}
	closed, order := "j.handed_over_at IS NOT NULL AND j.withdrawn_at IS NULL", "j.handed_over_at"
	if q.Find != "" {
		closed = "(j.handed_over_at IS NOT NULL OR j.withdrawn_at IS NOT NULL)"
		order = "coalesce(j.withdrawn_at, j.handed_over_at)"
	}
	var out []Card
	err := s.db.WithContext(ctx).Raw(withEnding+`(SELECT `+cardColumns+`, `+order+` AS closed FROM jobs j
			JOIN customers c ON c.id = j.customer_id
		WHERE `+closed+where+`
		ORDER BY closed DESC, j.tag LIMIT ?) g ORDER BY closed DESC, tag`, append(args, limit)...).
		Scan(&out).Error
	return out, err
}

// mostMonths are offered to look closed jobs up by.
const mostMonths = 24

// Month is a month with how many jobs were handed over in it.
type Month struct {
	Month string // 2031-05
	Jobs  int
}

// closedMonths are they as of a version of the shop, which steps with every closed job.
type closedMonths struct {
	version int64
	list    []Month
}

// ClosedMonths gives the months in which jobs were handed over, newest first. They are held in
// memory, to be read only, until a job is closed or opened again.
func (s *Store) ClosedMonths(ctx context.Context) ([]Month, error) {
	version, err := s.ShopVersion(ctx)
	if err != nil {
		return nil, err
	}
	if kept := s.months.Load(); kept != nil && kept.version == version {
		return kept.list, nil
	}
	list, err := s.countMonths(ctx)
	if err == nil {
		s.months.Store(&closedMonths{version, list})
	}
	return list, err
}

func (s *Store) countMonths(ctx context.Context) ([]Month, error) {
	var out []Month
	// Steps from the newest month to the next older one through the index: the
	// months are few where the jobs are many.
	err := s.db.WithContext(ctx).Raw(`
		WITH RECURSIVE months AS (
			SELECT date_trunc('month', max(handed_over_at), 'UTC') AS month, 1 AS n FROM jobs
			UNION ALL
			SELECT (SELECT date_trunc('month', max(handed_over_at), 'UTC') FROM jobs
				WHERE handed_over_at < m.month), n + 1
			FROM months m WHERE m.month IS NOT NULL AND n < ?)
		SELECT to_char(month AT TIME ZONE 'UTC', 'YYYY-MM') AS month, (SELECT count(*) FROM jobs
			WHERE handed_over_at >= m.month AND handed_over_at <
				(m.month AT TIME ZONE 'UTC' + interval '1 month') AT TIME ZONE 'UTC') AS jobs
		FROM months m WHERE month IS NOT NULL ORDER BY m.month DESC`, mostMonths).Scan(&out).Error
	return out, err
}

// mostWords of a search are looked at.
const mostWords = 6

// shortest is how many letters a word has at least that the index of the text can look up.
const shortest = 3

// searched asks that a job's text holds every word. few says that few jobs are left to look through anyway: the
// index of the text, which knows of all jobs, is then not asked; nor is it of words that are too short for it.
func searched(find string, few bool) (where string, args []any) {
	escape := strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`)
	for i, w := range strings.Fields(strings.ToLower(find)) {
		if i == mostWords {
			break
		}
		text := "j.search"
		if few || len([]rune(w)) < shortest {
			text = "(j.search || '')"
		}
		where += " AND " + text + " LIKE ?"
		args = append(args, "%"+escape.Replace(w)+"%")
	}
	return where, args
}

// TagTaken reports whether a job has the tag.
func (s *Store) TagTaken(ctx context.Context, tag string) (bool, error) {
	var n int64
	err := s.db.WithContext(ctx).Table("jobs").Where("tag = ?", tag).Count(&n).Error
	return n > 0, err
}

// Empty reports that there are no jobs yet.
func (s *Store) Empty(ctx context.Context) (bool, error) {
	var n int64
	err := s.db.WithContext(ctx).Raw("SELECT count(*) FROM (SELECT 1 FROM jobs LIMIT 1) one").Scan(&n).Error
	return n == 0, err
}
