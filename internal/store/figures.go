package store

import (
	"context"
	"database/sql"
	"time"

	"corvek/core/figures"
	"corvek/core/quantity"
	"corvek/core/stock"
	"corvek/core/unit"
	"corvek/core/workshop"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Result is what a hand-over came to, of one unit.
type Result struct {
	JobID            int64 `gorm:"primaryKey;autoIncrement:false"`
	HandOver         int   `gorm:"primaryKey;autoIncrement:false"`
	Unit             int   `gorm:"primaryKey;autoIncrement:false"`
	Proved           bool
	Attempts, Rounds int
	Reckoned         float64 // hours that guidance gives the unit as it came in
}

// TableName is where it is kept.
func (Result) TableName() string { return "hand_over_results" }

// keepResults keeps what a hand-over came to. What was kept on the day of the hand-over stays where
// its papers are frozen later.
func keepResults(db *gorm.DB, job int64, results []Result) error {
	if len(results) == 0 {
		return nil
	}
	for i := range results {
		results[i].JobID = job
	}
	return db.Clauses(clause.OnConflict{DoNothing: true}).Create(&results).Error
}

// mostCounted are the jobs that figures are of at most; the newest.
const mostCounted = 20000

// Counted are the jobs that were handed over from a day on and before another, as an owner counts them.
func (s *Store) Counted(ctx context.Context, from, before unit.Date) (out []*figures.Job, err error) {
	var rows []struct {
		ID                       int64
		Tag, Title, Customer     string
		Site                     string
		ReceivedOn               time.Time
		PromisedOn               *time.Time
		HandedOverAt             time.Time
		Moved, Reopened          bool
		WarrantyHold             bool
		LabourHours, WorkedHours string
	}
	db := s.db.WithContext(ctx)
	// A job came back where it was opened again for its unit, or the same serial came in again within a year.
	err = db.Raw(`SELECT j.id, j.tag, j.title, c.name AS customer, j.site, j.received_on, j.promised_on,
			j.handed_over_at,
			j.warranty_hold, j.labour_hours, j.worked_hours,
			EXISTS (SELECT FROM record_entries r WHERE r.job_id = j.id AND r.field = 'job/promised_on'
				AND r.before <> '' AND r.after <> r.before) AS moved,
			EXISTS (SELECT FROM reopenings o WHERE o.job_id = j.id AND o.touches <> 'papers')
				OR EXISTS (SELECT FROM units u
					JOIN units v ON v.serial = u.serial AND v.model = u.model AND v.job_id <> u.job_id
					JOIN jobs k ON k.id = v.job_id WHERE u.job_id = j.id AND u.serial <> '' AND k.withdrawn_at IS NULL
					AND k.received_on > j.handed_over_at::date
					AND k.received_on <= j.handed_over_at::date + ?::int) AS reopened
		FROM jobs j JOIN customers c ON c.id = j.customer_id
		WHERE j.handed_over_at >= ? AND j.handed_over_at < ? AND j.withdrawn_at IS NULL
		ORDER BY j.handed_over_at DESC LIMIT ?`, figures.ComesBackWithin, from.Time(), before.Time(),
		mostCounted).
		Scan(&rows).
		Error
	if err != nil {
		return nil, err
	}
	at := map[int64]*figures.Job{}
	ids := make([]int64, 0, len(rows))
	for _, r := range rows {
		j := &figures.Job{
			Tag:        r.Tag,
			Title:      r.Title,
			Customer:   r.Customer,
			Site:       r.Site,
			Received:   unit.DateOf(r.ReceivedOn),
			HandedOver: unit.DateOf(r.HandedOverAt),
			Moved:      r.Moved,
			Warranty:   r.WarrantyHold,
			Reopened:   r.Reopened,
			Estimated:  hoursOf(r.LabourHours),
			Worked:     hoursOf(r.WorkedHours),
			Waits:      map[string]float64{},
		}
		if r.PromisedOn != nil {
			j.Promised = unit.DateOf(*r.PromisedOn)
		}
		at[r.ID], ids, out = j, append(ids, r.ID), append(out, j)
	}
	if err := countedUnits(db, ids, at); err != nil {
		return nil, err
	}
	return out, countedWaits(db, ids, at)
}

func hoursOf(text string) float64 {
	q, err := quantity.ParseDefault(text, quantity.Time, "h")
	if text == "" || err != nil {
		return 0
	}
	return q.SI / 3600
}

func countedUnits(db *gorm.DB, ids []int64, at map[int64]*figures.Job) error {
	var units []struct {
		JobID                       int64
		Family, Maker, Model, Cause string
		Known, Proved               bool
		Attempts, Rounds            int
	}
	err := db.Raw(`SELECT u.job_id, u.family, u.maker, u.model, coalesce(c.cause, '') AS cause,
			r.job_id IS NOT NULL AS known,
			coalesce(r.proved, false) AS proved, coalesce(r.attempts, 0) AS attempts, coalesce(r.rounds, 0) AS rounds
		FROM units u
		LEFT JOIN LATERAL (SELECT * FROM hand_over_results h WHERE h.job_id = u.job_id AND h.unit = u.number
			ORDER BY h.hand_over DESC LIMIT 1) r ON true
		LEFT JOIN LATERAL (SELECT cause FROM conclusions n WHERE n.job_id = u.job_id AND n.unit = u.number
			ORDER BY n.round DESC LIMIT 1) c ON true
		WHERE u.job_id IN ? ORDER BY u.job_id, u.number`, ids).
		Scan(&units).
		Error
	for _, u := range units {
		model := u.Model
		if u.Maker != "" && model != "" {
			model = u.Maker + " " + model
		}
		j := at[u.JobID]
		j.Units = append(j.Units, figures.Unit{Family: u.Family, Model: model, Cause: u.Cause, Known: u.Known,
			Proved: u.Proved, Attempts: u.Attempts, Rounds: u.Rounds})
	}
	return err
}

// countedWaits adds up how long each job waited for what, from one line of the record to the next.
func countedWaits(db *gorm.DB, ids []int64, at map[int64]*figures.Job) error {
	var waits []struct {
		JobID int64
		What  string
		Days  float64
	}
	err := db.Raw(`SELECT job_id, what, sum(extract(epoch FROM until - since)) / 86400 AS days FROM (
			SELECT r.job_id, r.after AS what, r.at AS since,
				coalesce(lead(r.at) OVER (PARTITION BY r.job_id ORDER BY r.place), j.handed_over_at) AS until
			FROM record_entries r JOIN jobs j ON j.id = r.job_id
			WHERE r.job_id IN ? AND r.field = 'job/waiting') w
		WHERE until > since GROUP BY job_id, what`, ids).Scan(&waits).Error
	for _, w := range waits {
		at[w.JobID].Waits[w.What] = w.Days
	}
	return err
}

// Turned is how many pieces came into the drawers in a time, were taken for jobs, were thrown away as too old, and
// were missed when somebody counted.
type Turned struct{ Came, Taken, Expired, Missed int }

// Turned counts them, from a day on and before another.
func (s *Store) Turned(ctx context.Context, from, before unit.Date) (t Turned, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT coalesce(sum(delta) FILTER (WHERE tag = '' AND delta > 0), 0) AS came,
			coalesce(-sum(delta) FILTER (WHERE tag <> ''), 0) AS taken,
			coalesce(-sum(delta) FILTER (WHERE tag = '' AND delta < 0 AND why = @old), 0) AS expired,
			coalesce(-sum(delta) FILTER (WHERE tag = '' AND delta < 0 AND why <> @old), 0) AS missed
		FROM stock_moves WHERE at >= @from AND at < @before`, sql.Named("old", stock.WhyExpired),
		sql.Named("from", from.Time()), sql.Named("before", before.Time())).Scan(&t).Error
	return t, err
}

// mostPast are the jobs that hours and first tests are learned from: the newest.
const mostPast = 500

// Past is what the shop's own jobs took against what guidance gives them, the newest first, and how many units were
// tested of those and not proved at once.
func (s *Store) Past(ctx context.Context) (past []workshop.Past, tests, failed int, err error) {
	var rows []struct {
		Model, Worked string
		Reckoned      float64
		Tests, Failed int
	}
	err = s.db.WithContext(ctx).
		Raw(`SELECT lower(concat_ws(' ', u.maker, u.model)) AS model, j.worked_hours AS worked,
			sum(r.reckoned) AS reckoned, count(*) FILTER (WHERE r.attempts > 0) AS tests,
			count(*) FILTER (WHERE r.attempts > 0 AND NOT (r.proved AND r.attempts = 1)) AS failed
		FROM (SELECT * FROM jobs WHERE handed_over_at IS NOT NULL AND withdrawn_at IS NULL
			ORDER BY handed_over_at DESC LIMIT ?) j
		JOIN units u ON u.job_id = j.id AND u.number = 1
		JOIN hand_over_results r ON r.job_id = j.id
		WHERE r.hand_over = (SELECT max(hand_over) FROM hand_over_results h WHERE h.job_id = j.id)
		GROUP BY j.id, u.maker, u.model, j.worked_hours, j.handed_over_at ORDER BY j.handed_over_at DESC`, mostPast).
		Scan(&rows).
		Error
	for _, r := range rows {
		tests, failed = tests+r.Tests, failed+r.Failed
		if worked := hoursOf(r.Worked); worked > 0 && r.Reckoned > 0 {
			past = append(past, workshop.Past{Model: r.Model, Worked: worked, Reckoned: r.Reckoned})
		}
	}
	return past, tests, failed, err
}
