package store

import (
	"context"
	"slices"
	"strings"
	"time"

	"corvek/core/trace"
	"corvek/core/unit"
	"corvek/core/workshop"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Stand is a test stand of the shop, as it is reached over OPC UA.
type Stand struct {
	Name, Endpoint, Nodes string
	PlaceID               *uint           // which place of the plan it is; nil where work is only practised on it
	Place                 *workshop.Place // read only
}

// MostStandName is how many letters a stand's name has at most.
const MostStandName = 60

// mostStands are listed.
const mostStands = 50

// Stands lists the shop's stands by name.
func (s *Store) Stands(ctx context.Context) (out []Stand, err error) {
	err = s.db.WithContext(ctx).Preload("Place").Order("name").Limit(mostStands).Find(&out).Error
	return out, err
}

// SaveStand adds a stand, or renews one of the same name. With a place that has no number yet, that becomes a place of
// the plan, or is the one that is called so.
func (s *Store) SaveStand(ctx context.Context, stand Stand, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		if p := stand.Place; p != nil && p.ID == 0 {
			if err := db.Where("name = ? AND kind = ?", p.Name, p.Kind).FirstOrCreate(p).Error; err != nil {
				return err
			}
			stand.PlaceID = &p.ID
		}
		return db.Omit("Place").Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "name"}},
			DoUpdates: clause.AssignmentColumns([]string{"endpoint", "nodes", "place_id"})}).Create(&stand).Error
	})
}

// DropStand takes a stand away; what it recorded stays, and so does its place in the plan.
func (s *Store) DropStand(ctx context.Context, name, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		return db.Where("name = ?", name).Delete(&Stand{}).Error
	})
}

// Recording is what a stand showed for an attempt.
type Recording struct {
	ID, JobID     int64
	Unit, Attempt int
	Stand         string
	Said          string // what the stand calls itself, "" of a log and where it did not say so
	Source        string // simulated, stand, unknown or log
	Channels      string // codes of figures, by blanks
	ByName        string
	StartedAt     time.Time
	EndedAt       time.Time `gorm:"->"`
	Samples       int       `gorm:"->"`
}

// Simulated reports that the figures are an exercise.
func (r Recording) Simulated() bool { return r.Source == unit.SourceSimulated }

// Codes are the channels that were kept.
func (r Recording) Codes() []string { return strings.Fields(r.Channels) }

// OpenRecording begins a recording of a job.
func (s *Store) OpenRecording(ctx context.Context, tag string, r Recording) (id int64, err error) {
	return openRecording(s.db.WithContext(ctx), tag, r)
}

func openRecording(db *gorm.DB, tag string, r Recording) (id int64, err error) {
	if r.JobID, err = jobID(db, tag); err != nil {
		return 0, err
	}
	err = db.Create(&r).Error
	return r.ID, err
}

// AddChunk adds samples to a recording.
func (s *Store) AddChunk(ctx context.Context, id int64, seq int, t *trace.Trace) error {
	return addChunk(s.db.WithContext(ctx), id, seq, t)
}

func addChunk(db *gorm.DB, id int64, seq int, t *trace.Trace) error {
	o := t.Outline()
	return db.Create(&recordingChunk{id, seq, o.From, o.To, len(t.Samples), o.Pack(), t.Pack()}).Error
}

// recordingChunk is a piece of a recording: its samples, and the least and the most of each
// channel in it.
type recordingChunk struct {
	RecordingID int64 `gorm:"primaryKey;autoIncrement:false"`
	Seq         int   `gorm:"primaryKey;autoIncrement:false"`
	FromAt      time.Time
	ToAt        time.Time
	Samples     int
	Outline     []byte
	Content     []byte
}

// logChunk is how many samples of a log are kept together.
const logChunk = 100

// KeepLog keeps the log of another stand, whole or not at all, as a recording of an attempt; r says whose,
// by what name and who brought it.
func (s *Store) KeepLog(ctx context.Context, tag string, r Recording, t *trace.Trace) (id int64, err error) {
	if r.Source == "" {
		r.Source = unit.SourceLog
	}
	r.Channels, r.StartedAt = strings.Join(t.Channels, " "), t.Samples[0].At
	err = s.transaction(ctx, func(db *gorm.DB) error {
		if id, err = openRecording(db, tag, r); err != nil {
			return err
		}
		seq := 0
		for part := range slices.Chunk(t.Samples, logChunk) {
			seq++
			if err := addChunk(db, id, seq, &trace.Trace{Channels: t.Channels, Samples: part}); err != nil {
				return err
			}
		}
		return nil
	})
	return id, err
}

// AddNote adds what happened to a recording.
func (s *Store) AddNote(ctx context.Context, id int64, at time.Time, note string) error {
	return s.db.WithContext(ctx).Create(&RecordingNote{RecordingID: id, At: at, Note: note}).Error
}

// mostRecordings of a unit are listed.
const mostRecordings = 200

const recordingsOf = `SELECT r.*, coalesce(max(c.to_at), r.started_at) AS ended_at,
	coalesce(sum(c.samples), 0) AS samples
	FROM recordings r JOIN jobs j ON j.id = r.job_id LEFT JOIN recording_chunks c ON c.recording_id = r.id
	WHERE j.tag = ?`

// Recordings lists those of a unit that hold anything, the newest first.
func (s *Store) Recordings(ctx context.Context, tag string, unit int) (out []Recording, err error) {
	err = s.db.WithContext(ctx).Raw(recordingsOf+` AND r.unit = ? GROUP BY r.id HAVING count(c.seq) > 0
		ORDER BY r.id DESC LIMIT ?`, tag, unit, mostRecordings).Scan(&out).Error
	return out, err
}

// mostExercises are held against a log that comes in.
const mostExercises = 50

// Exercises lists the newest recordings of the simulated stand, of whichever job.
func (s *Store) Exercises(ctx context.Context) (out []Recording, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT r.*, max(c.to_at) AS ended_at, sum(c.samples) AS samples
		FROM recordings r JOIN recording_chunks c ON c.recording_id = r.id
		WHERE r.source = ? GROUP BY r.id ORDER BY r.id DESC LIMIT ?`,
		unit.SourceSimulated, mostExercises).Scan(&out).Error
	return out, err
}

// Recording finds one of a job; ok is false where it has none such.
func (s *Store) Recording(ctx context.Context, tag string, id int64) (r Recording, ok bool, err error) {
	tx := s.db.WithContext(ctx).Raw(recordingsOf+" AND r.id = ? GROUP BY r.id", tag, id).Scan(&r)
	return r, tx.RowsAffected > 0, tx.Error
}

// Outlines gives a recording by the least and the most of each chunk.
func (s *Store) Outlines(ctx context.Context, r Recording) (out []trace.Outline, err error) {
	var rows []recordingChunk
	err = s.db.WithContext(ctx).Omit("content").Where("recording_id = ?", r.ID).Order("seq").Find(&rows).Error
	if err != nil {
		return nil, err
	}
	for _, row := range rows {
		o, err := trace.UnpackOutline(row.Outline, len(r.Codes()), row.FromAt, row.ToAt)
		if err != nil {
			return nil, err
		}
		out = append(out, o)
	}
	return out, nil
}

// Samples gives the samples of a recording between two moments, at most as many as are
// asked for.
func (s *Store) Samples(ctx context.Context, r Recording, from, to time.Time, most int) (*trace.Trace, error) {
	rows, err := s.db.WithContext(ctx).Model(&recordingChunk{}).Select("from_at", "content").
		Where("recording_id = ? AND to_at >= ? AND from_at <= ?", r.ID, from, to).Order("seq").Rows()
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	t := &trace.Trace{Channels: r.Codes()}
	for rows.Next() && len(t.Samples) < most {
		var at time.Time
		var content []byte
		if err := rows.Scan(&at, &content); err != nil {
			return nil, err
		}
		if err := t.Unpack(content, at); err != nil {
			return nil, err
		}
	}
	t = t.Between(from, to)
	t.Samples = t.Samples[:min(most, len(t.Samples))]
	return t, rows.Err()
}

// mostNotes of a recording are read.
const mostNotes = 1000

// RecordingNotes are what happened, in the order of time.
func (s *Store) RecordingNotes(ctx context.Context, id int64) (out []RecordingNote, err error) {
	err = s.db.WithContext(ctx).Where("recording_id = ?", id).Order("id").Limit(mostNotes).Find(&out).Error
	return out, err
}

// RecordingNote is something that happened while it was recorded.
type RecordingNote struct {
	RecordingID int64
	At          time.Time
	Note        string
}
