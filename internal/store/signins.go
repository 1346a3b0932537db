package store

import (
	"context"
	"database/sql"
	"time"

	"gorm.io/gorm"
)

// Tries is what went before a try to sign in.
type Tries struct {
	Pair    int       // failed under this name from this address, since one that went well
	Strange int       // failed under this name from addresses it never signed in from
	Address int       // failed from this address under any name, in the last hour
	Known   bool      // the name has signed in from this address
	Last    time.Time // of those that count
}

// How long failed tries are held against a name or an address, how long an address
// counts as known, and how long tries are kept.
const (
	triesCount = "1 day"
	knownFor   = "90 days"
)

// BeginTry notes a try to sign in, as failed until it is told otherwise, unless
// refuse says that it comes too early. Tries under one name wait for each other,
// so that many at once count one by one.
func (s *Store) BeginTry(ctx context.Context, name, address string, refuse func(Tries) error) (try int64, err error) {
	err = s.db.WithContext(ctx).Transaction(func(db *gorm.DB) error {
		if err := db.Exec("SELECT pg_advisory_xact_lock(hashtextextended(?, 0))", name).Error; err != nil {
			return err
		}
		var t struct {
			Pair, Strange, Address int
			Known                  bool
			Last                   *time.Time
		}
		err := db.Raw(`
			WITH good AS (
				SELECT max(at) AS at FROM sign_ins
				WHERE name = @name AND address = @address AND ok AND at > now() - CAST(@known AS interval)),
			pair AS (
				SELECT count(*) AS n, max(at) AS at FROM sign_ins
				WHERE name = @name AND address = @address AND NOT ok AND at > now() - CAST(@count AS interval)
					AND at > coalesce((SELECT at FROM good), '-infinity')),
			strange AS (
				SELECT count(*) AS n, max(at) AS at FROM sign_ins t
				WHERE name = @name AND NOT ok AND at > now() - CAST(@count AS interval) AND NOT EXISTS (
					SELECT FROM sign_ins g WHERE g.name = t.name AND g.address = t.address AND g.ok
						AND g.at > now() - CAST(@known AS interval))),
			here AS (
				SELECT count(*) AS n, max(at) AS at FROM sign_ins
				WHERE address = @address AND NOT ok AND at > now() - interval '1 hour')
			SELECT pair.n AS pair, strange.n AS strange, here.n AS address, good.at IS NOT NULL AS known,
				greatest(pair.at, strange.at, here.at) AS last
			FROM good, pair, strange, here`, sql.Named("name", name), sql.Named("address", address),
			sql.Named("known", knownFor), sql.Named("count", triesCount)).Scan(&t).Error
		if err != nil {
			return err
		}
		before := Tries{Pair: t.Pair, Strange: t.Strange, Address: t.Address, Known: t.Known}
		if t.Last != nil {
			before.Last = *t.Last
		}
		if err := refuse(before); err != nil {
			return err
		}
		row := &SignIn{Name: name, Address: address}
		err = db.Omit("At").Create(row).Error
		try = row.ID
		return err
	})
	return try, err
}

// EndTry notes that a try went well, and who came in.
func (s *Store) EndTry(ctx context.Context, try int64, person uint) error {
	return s.db.WithContext(ctx).Transaction(func(db *gorm.DB) error {
		if err := db.Model(&SignIn{ID: try}).Update("ok", true).Error; err != nil {
			return err
		}
		return db.Model(&Person{ID: person}).UpdateColumn("last_sign_in", gorm.Expr("now()")).Error
	})
}

// FailedSignIns counts the failed tries of the last 30 days, by name.
func (s *Store) FailedSignIns(ctx context.Context) (map[string]int, error) {
	var rows []struct {
		Name string
		N    int
	}
	err := s.db.WithContext(ctx).Raw(`SELECT t.name, count(*) AS n FROM sign_ins t JOIN people p ON p.sign_in = t.name
		WHERE NOT t.ok AND t.at > now() - interval '30 days' GROUP BY t.name`).Scan(&rows).Error
	out := map[string]int{}
	for _, r := range rows {
		out[r.Name] = r.N
	}
	return out, err
}

// SignIn is a try to sign in.
type SignIn struct {
	ID            int64
	At            time.Time
	Name, Address string
	OK            bool
}

// SignIns gives the last tries, newest first.
func (s *Store) SignIns(ctx context.Context, limit int) (out []SignIn, err error) {
	err = s.db.WithContext(ctx).Order("id DESC").Limit(limit).Find(&out).Error
	return out, err
}

// DropOldTries forgets tries that count for nothing any more.
func (s *Store) DropOldTries(ctx context.Context) error {
	return s.db.WithContext(ctx).Where("at < now() - ?::interval", knownFor).Delete(&SignIn{}).Error
}
