package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"time"

	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
	"gorm.io/driver/postgres"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"
	"gorm.io/gorm/logger"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound says that there is no such thing here.
var ErrNotFound = errors.New("not found")

// Store is the one way to the database.
type Store struct {
	Pool *pgxpool.Pool
	sql  *sql.DB
	db   *gorm.DB
}

// Open connects and waits a moment for a server that is still starting.
func Open(ctx context.Context, url string) (*Store, error) {
	cfg, err := pgxpool.ParseConfig(url)
	if err != nil {
		return nil, fmt.Errorf("the database address is not readable: %w", err)
	}
	cfg.MaxConns = 16
	pool, err := pgxpool.NewWithConfig(ctx, cfg)
	if err != nil {
		return nil, err
	}
	for try := 0; ; try++ {
		if err = pool.Ping(ctx); err == nil {
			break
		}
		if try == 20 || ctx.Err() != nil {
			pool.Close()
			return nil, fmt.Errorf("the database does not answer: %w", err)
		}
		time.Sleep(150 * time.Millisecond)
	}
	sqlDB := stdlib.OpenDBFromPool(pool)
	db, err := gorm.Open(postgres.New(postgres.Config{Conn: sqlDB}), &gorm.Config{
		Logger:                 logger.Discard,
		SkipDefaultTransaction: true,
		PrepareStmt:            true,
	})
	if err != nil {
		pool.Close()
		return nil, err
	}
	return &Store{Pool: pool, sql: sqlDB, db: db}, nil
}

// Close lets go of all connections.
func (s *Store) Close() {
	_ = s.sql.Close()
	s.Pool.Close()
}

// Migrate brings the schema to the newest version.
func (s *Store) Migrate(ctx context.Context) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	provider, err := goose.NewProvider(goose.DialectPostgres, s.sql, dir)
	if err != nil {
		return err
	}
	results, err := provider.Up(ctx)
	for _, r := range results {
		slog.Info("migrated", "version", r.Source.Version, "took", r.Duration.Round(time.Millisecond))
	}
	return err
}

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.Pool.Ping(ctx) }

// Tx is the store within one transaction that holds a job's lock.
type Tx struct {
	DB  *gorm.DB
	Job Job
}

// WithJob runs f in a transaction holding the job's row, with the whole job
// loaded, and steps its version when f made no error.
func (s *Store) WithJob(ctx context.Context, tag string, f func(*Tx) error) error {
	return s.db.WithContext(ctx).Transaction(func(db *gorm.DB) error {
		var row Job
		err := db.Clauses(clause.Locking{Strength: "UPDATE"}).Where("tag = ?", tag).Take(&row).Error
		if errors.Is(err, gorm.ErrRecordNotFound) {
			return ErrNotFound
		}
		if err != nil {
			return err
		}
		job, err := loadJob(db, row.ID)
		if err != nil {
			return err
		}
		if err := f(&Tx{DB: db, Job: *job}); err != nil {
			return err
		}
		return db.Model(&Job{}).Where("id = ?", row.ID).
			Updates(map[string]any{"version": gorm.Expr("version + 1"), "updated_at": time.Now()}).Error
	})
}

// Record appends to the record of who did what.
func (t *Tx) Record(who, action, field, before, after string) error {
	id := t.Job.ID
	return t.DB.Create(&RecordEntry{JobID: &id, Who: who, At: time.Now(), Action: action, Field: field, Before: before, After: after}).Error
}

// Job loads one job whole, but for the content of attachments.
func (s *Store) Job(ctx context.Context, tag string) (*Job, error) {
	db := s.db.WithContext(ctx)
	var row Job
	err := db.Select("id").Where("tag = ?", tag).Take(&row).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	return loadJob(db, row.ID)
}

func loadJob(db *gorm.DB, id uint) (*Job, error) {
	byOrdinal := func(q *gorm.DB) *gorm.DB { return q.Order("ordinal") }
	byID := func(q *gorm.DB) *gorm.DB { return q.Order("id") }
	byNumber := func(q *gorm.DB) *gorm.DB { return q.Order("number") }
	var j Job
	err := db.
		Preload("Customer").
		Preload("Units", byOrdinal).
		Preload("Units.Rounds", byNumber).
		Preload("Units.Parts", byOrdinal).
		Preload("Units.Parts.Features", byID).
		Preload("Units.Parts.Features.Readings", byID).
		Preload("Units.Parts.Decisions", byID).
		Preload("Units.Parts.BuildSteps", byID).
		Preload("Units.LooseItems", byID).
		Preload("Units.Accounts", byID).
		Preload("Units.Evidence", byID).
		Preload("Units.Conclusions", byID).
		Preload("Units.KitPieces", byID).
		Preload("Units.Attempts", byNumber).
		Preload("Units.Attempts.Points", byID).
		Preload("Acknowledgements", byID).
		Preload("StopPasses", byID).
		Preload("WorkedFigures", byID).
		Preload("Attachments", func(q *gorm.DB) *gorm.DB { return q.Omit("content", "thumb").Order("id") }).
		Preload("Attachments.Marks", byNumber).
		Take(&j, id).Error
	return &j, err
}

// Jobs loads all jobs whole, for the Rack, promised first.
func (s *Store) Jobs(ctx context.Context) ([]Job, error) {
	var out []Job
	err := s.db.WithContext(ctx).Preload("Customer").Preload("Units", func(q *gorm.DB) *gorm.DB { return q.Order("ordinal") }).
		Order("promised_on NULLS LAST, tag").Find(&out).Error
	return out, err
}

// CreateJob saves a job with everything that hangs off it, giving it a tag
// when it has none.
func (s *Store) CreateJob(ctx context.Context, j *Job, who, action string) error {
	return s.db.WithContext(ctx).Transaction(func(db *gorm.DB) error {
		if j.Tag == "" {
			// Tags that came with an import may lie ahead of the sequence.
			for taken := int64(1); taken > 0; {
				var n int64
				if err := db.Raw("SELECT nextval('job_tags')").Scan(&n).Error; err != nil {
					return err
				}
				j.Tag = fmt.Sprintf("T-%04d", n)
				if err := db.Model(&Job{}).Where("tag = ?", j.Tag).Count(&taken).Error; err != nil {
					return err
				}
			}
		}
		if err := ensureCustomer(db, j); err != nil {
			return err
		}
		if j.Version == 0 {
			j.Version = 1
		}
		if err := db.Omit("Customer").Create(j).Error; err != nil {
			return err
		}
		return db.Create(&RecordEntry{JobID: &j.ID, Who: who, At: time.Now(), Action: action, Field: "", After: j.Tag}).Error
	})
}

func ensureCustomer(db *gorm.DB, j *Job) error {
	if j.CustomerID != 0 {
		return nil
	}
	c := j.Customer
	c.ID = 0
	if err := db.Where("name = ?", c.Name).Attrs(Customer{Place: c.Place, Contact: c.Contact}).FirstOrCreate(&c).Error; err != nil {
		return err
	}
	j.CustomerID = c.ID
	return nil
}

// TagTaken reports whether a job has the tag.
func (s *Store) TagTaken(ctx context.Context, tag string) (bool, error) {
	var n int64
	err := s.db.WithContext(ctx).Model(&Job{}).Where("tag = ?", tag).Count(&n).Error
	return n > 0, err
}

// Empty reports that there are no jobs yet.
func (s *Store) Empty(ctx context.Context) (bool, error) {
	var n int64
	err := s.db.WithContext(ctx).Model(&Job{}).Limit(1).Count(&n).Error
	return n == 0, err
}

// Customers lists all customers by name.
func (s *Store) Customers(ctx context.Context) ([]Customer, error) {
	var out []Customer
	return out, s.db.WithContext(ctx).Order("name").Find(&out).Error
}

// PersonBySignIn finds who signs in so.
func (s *Store) PersonBySignIn(ctx context.Context, signIn string) (*Person, error) {
	return s.person(ctx, "sign_in = ?", signIn)
}

// PersonByID finds a person.
func (s *Store) PersonByID(ctx context.Context, id uint) (*Person, error) {
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

// Attachment loads one attachment with its content.
func (s *Store) Attachment(ctx context.Context, id uint) (*Attachment, error) {
	var a Attachment
	err := s.db.WithContext(ctx).Take(&a, id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, ErrNotFound
	}
	return &a, err
}

// History gives the record of a job, newest first.
func (s *Store) History(ctx context.Context, jobID uint, limit int) ([]RecordEntry, error) {
	var out []RecordEntry
	return out, s.db.WithContext(ctx).Where("job_id = ?", jobID).Order("id DESC").Limit(limit).Find(&out).Error
}

// LastChange gives the newest entry for a field of a job.
func (t *Tx) LastChange(field string) (RecordEntry, bool) {
	var e RecordEntry
	err := t.DB.Where("job_id = ? AND field = ?", t.Job.ID, field).Order("id DESC").Take(&e).Error
	return e, err == nil
}

// SetStation remembers where a job stands. It is no edit: it needs no lock and
// leaves no entry in the record.
func (s *Store) SetStation(ctx context.Context, tag, station string) error {
	return s.db.WithContext(ctx).Model(&Job{}).Where("tag = ? AND station <> ?", tag, station).UpdateColumn("station", station).Error
}
