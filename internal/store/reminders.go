package store

import (
	"context"

	"corvek/core/shop"
	"corvek/core/unit"
)

// Reminder is something that somebody has to think of on a day.
type Reminder struct {
	Kind       string
	Key        string // it stays the same
	Tag, Title string // of the job; of an instrument its name
	Who        string // the customer
	What       string // of what is asked back: which
	On         unit.Date
}

// What is reminded of.
const (
	RemindOffer       = "offer"
	RemindCalibration = "calibration"
	RemindAskBack     = "ask_back"
)

// mostReminders are told.
const mostReminders = 1000

// Reminders are those of all jobs and instruments, by day.
func (s *Store) Reminders(ctx context.Context) ([]Reminder, error) {
	var rows []struct {
		Reminder
		Day string
	}
	err := s.db.WithContext(ctx).Raw(`SELECT * FROM (
		SELECT ? AS kind, 'offer-' || j.tag AS key, j.tag, j.title, c.name AS who, '' AS what,
			to_char(j.quoted_on + ?::int, 'YYYY-MM-DD') AS day
			FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.quoted_on IS NOT NULL AND j.answer = ''
			AND j.handed_over_at IS NULL AND j.withdrawn_at IS NULL
		UNION ALL SELECT ?, 'calibration-' || i.id, '', i.name, '', '', to_char(i.due_on, 'YYYY-MM-DD')
			FROM instruments i WHERE i.due_on IS NOT NULL
		UNION ALL SELECT ?, 'ask-back-' || j.tag || '-' || f.number, j.tag, j.title, '', f.kind,
			to_char(f.due_on, 'YYYY-MM-DD') FROM follow_ups f JOIN jobs j ON j.id = f.job_id
			WHERE f.answered_at IS NULL AND j.withdrawn_at IS NULL) r ORDER BY day, key LIMIT ?`,
		RemindOffer, shop.AskAfter, RemindCalibration, RemindAskBack, mostReminders).Scan(&rows).Error
	out := make([]Reminder, len(rows))
	for i, r := range rows {
		out[i] = r.Reminder
		out[i].On = unit.Date(r.Day)
	}
	return out, err
}
