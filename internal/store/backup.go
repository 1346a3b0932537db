package store

import (
	"archive/zip"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"hash"
	"io"
	"os"
	"path/filepath"
	"slices"
	"time"

	"github.com/jackc/pgx/v5"
)

// Manifest says what a copy of the store holds. A copy is a zip of one file a table,
// as PostgreSQL's COPY writes it, and the manifest.
type Manifest struct {
	Format    string
	Schema    int64 // version of the schema it was made at
	Made      time.Time
	Tables    []TableCopy
	Sequences map[string]int64
	Lines     int    // of the record
	Head      string // fingerprint of the record
}

// TableCopy is one table of a copy.
type TableCopy struct {
	Name    string
	Columns []string
	Rows    int64
	SHA256  string
}

const (
	copyFormat   = "corvek store 1"
	manifestName = "manifest.json"
)

// notCopied are tables that a copy leaves out: who is signed in just now, and what
// the schema's own migrations write.
var notCopied = []string{"sessions", "open_pages", "goose_db_version"}

// Backup writes a copy of the whole store to a file, as it stands at one moment,
// while work goes on. The copy is read back before it counts as good. A record
// that does not hold is copied as it is, and said in the Copy.
func (s *Store) Backup(ctx context.Context, file string) (Copy, error) {
	c := Copy{File: file}
	tmp, err := os.CreateTemp(filepath.Dir(file), ".corvek-copy-*")
	if err != nil {
		return c, fmt.Errorf("the copy cannot be written: %w", err)
	}
	defer os.Remove(tmp.Name())
	m, fault, err := s.copyTo(ctx, tmp)
	if err == nil {
		err = tmp.Sync()
	}
	if cerr := tmp.Close(); err == nil {
		err = cerr
	}
	if err != nil {
		return c, fmt.Errorf("the copy was not written: %w", err)
	}
	if _, err := CheckCopy(tmp.Name()); err != nil {
		return c, fmt.Errorf("the copy does not read back: %w", err)
	}
	if err := os.Rename(tmp.Name(), file); err != nil {
		return c, err
	}
	info, err := os.Stat(file)
	if err != nil {
		return c, err
	}
	c.At, c.Bytes, c.Lines, c.Fault = m.Made, info.Size(), int64(m.Lines), fault
	return c, s.db.WithContext(ctx).Create(&c).Error
}

// copyTo writes the copy and gives what it holds, and what is wrong with its record.
func (s *Store) copyTo(ctx context.Context, out io.Writer) (m Manifest, fault string, err error) {
	err = pgx.BeginTxFunc(ctx, s.Pool, pgx.TxOptions{IsoLevel: pgx.RepeatableRead, AccessMode: pgx.ReadOnly},
		func(tx pgx.Tx) error {
			m = Manifest{Format: copyFormat, Made: time.Now().UTC().Truncate(time.Microsecond),
				Sequences: map[string]int64{}}
			// The record is followed in a transaction of its own, which sees what this one sees.
			var moment string
			if err := tx.QueryRow(ctx, "SELECT pg_export_snapshot()").Scan(&moment); err != nil {
				return err
			}
			holds, err := s.verifyLinesAt(ctx, moment)
			if err != nil {
				return err
			}
			m.Lines, m.Head, fault = holds.Lines, holds.Head, holds.Fault()
			if err := tx.QueryRow(ctx, schemaVersion).Scan(&m.Schema); err != nil {
				return err
			}
			z := zip.NewWriter(out)
			if err := copyTables(ctx, tx, z, &m); err != nil {
				return err
			}
			if err := sequences(ctx, tx, m.Sequences); err != nil {
				return err
			}
			w, err := z.Create(manifestName)
			if err != nil {
				return err
			}
			enc := json.NewEncoder(w)
			enc.SetIndent("", "  ")
			if err := enc.Encode(m); err != nil {
				return err
			}
			return z.Close()
		})
	return m, fault, err
}

func copyTables(ctx context.Context, tx pgx.Tx, z *zip.Writer, m *Manifest) error {
	tables, err := tablesOf(ctx, tx)
	if err != nil {
		return err
	}
	for _, t := range tables {
		w, err := z.Create(tableFile(t.Name))
		if err != nil {
			return err
		}
		sum := sha256.New()
		tag, err := tx.Conn().PgConn().CopyTo(ctx, io.MultiWriter(w, sum), "COPY "+t.target()+" TO STDOUT")
		if err != nil {
			return fmt.Errorf("%s: %w", t.Name, err)
		}
		t.Rows, t.SHA256 = tag.RowsAffected(), hexOf(sum)
		m.Tables = append(m.Tables, t)
	}
	return nil
}

func tableFile(name string) string { return "tables/" + name }

func hexOf(h hash.Hash) string { return hex.EncodeToString(h.Sum(nil)) }

// target names the table and its columns in a COPY.
func (t TableCopy) target() string {
	list := ""
	for i, c := range t.Columns {
		if i > 0 {
			list += ", "
		}
		list += pgx.Identifier{c}.Sanitize()
	}
	return pgx.Identifier{t.Name}.Sanitize() + " (" + list + ")"
}

// tablesOf lists the tables to copy with their columns, by name.
func tablesOf(ctx context.Context, tx pgx.Tx) ([]TableCopy, error) {
	rows, err := tx.Query(ctx, `SELECT c.relname, array_agg(a.attname::text ORDER BY a.attnum)
		FROM pg_class c JOIN pg_attribute a ON a.attrelid = c.oid
		WHERE c.relnamespace = 'public'::regnamespace AND c.relkind = 'r' AND a.attnum > 0 AND NOT a.attisdropped
			AND a.attgenerated = ''
		GROUP BY c.relname ORDER BY c.relname`)
	if err != nil {
		return nil, err
	}
	all, err := pgx.CollectRows(rows, func(r pgx.CollectableRow) (t TableCopy, err error) {
		err = r.Scan(&t.Name, &t.Columns)
		return t, err
	})
	return slices.DeleteFunc(all, func(t TableCopy) bool { return slices.Contains(notCopied, t.Name) }), err
}

func sequences(ctx context.Context, tx pgx.Tx, into map[string]int64) error {
	rows, err := tx.Query(ctx, "SELECT sequencename, coalesce(last_value, 0) FROM pg_sequences "+
		"WHERE schemaname = 'public' AND sequencename NOT LIKE 'goose%'")
	if err != nil {
		return err
	}
	var name string
	var value int64
	_, err = pgx.ForEachRow(rows, []any{&name, &value}, func() error {
		into[name] = value
		return nil
	})
	return err
}

// CheckCopy reads a copy through and compares it with its own sums.
func CheckCopy(file string) (Manifest, error) {
	z, m, err := openCopy(file)
	if err != nil {
		return m, err
	}
	defer z.Close()
	for _, t := range m.Tables {
		f, err := z.Open(tableFile(t.Name))
		if err != nil {
			return m, fmt.Errorf("%s is missing in the copy", t.Name)
		}
		sum := sha256.New()
		_, err = io.Copy(sum, f)
		_ = f.Close()
		if err != nil || hexOf(sum) != t.SHA256 {
			return m, fmt.Errorf("%s is not as it was copied", t.Name)
		}
	}
	return m, nil
}

// mostManifest is how long a manifest may be, in bytes.
const mostManifest = 1 << 20

func openCopy(file string) (*zip.ReadCloser, Manifest, error) {
	var m Manifest
	z, err := zip.OpenReader(file)
	if err != nil {
		return nil, m, fmt.Errorf("%s is no copy of a store: %w", filepath.Base(file), err)
	}
	f, err := z.Open(manifestName)
	if err == nil {
		err = json.NewDecoder(io.LimitReader(f, mostManifest)).Decode(&m)
		_ = f.Close()
	}
	if err != nil || m.Format != copyFormat {
		_ = z.Close()
		return nil, m, fmt.Errorf("%s is no copy of a store", filepath.Base(file))
	}
	return z, m, nil
}

// Copy is a copy of the store that was made.
type Copy struct {
	At    time.Time
	File  string
	Bytes int64
	Lines int64
	Fault string // what is wrong with it; "" for a good one
}

// Copies gives the last copies, newest first.
func (s *Store) Copies(ctx context.Context, limit int) (out []Copy, err error) {
	err = s.db.WithContext(ctx).Order("id DESC").Limit(limit).Find(&out).Error
	return out, err
}

// LastGoodCopy is when the last good copy was made; the zero time for never.
func (s *Store) LastGoodCopy(ctx context.Context) (time.Time, error) {
	var last []Copy
	err := s.db.WithContext(ctx).Where("fault = ''").Order("at DESC").Limit(1).Find(&last).Error
	if err != nil || len(last) == 0 {
		return time.Time{}, err
	}
	return last[0].At, nil
}

// NoteBadCopy keeps that a copy failed.
func (s *Store) NoteBadCopy(ctx context.Context, file, fault string) error {
	return s.db.WithContext(ctx).Omit("At").Create(&Copy{File: file, Fault: fault}).Error
}
