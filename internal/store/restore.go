package store

import (
	"archive/zip"
	"context"
	"errors"
	"fmt"
	"slices"

	"github.com/jackc/pgx/v5"
)

// ErrNotEmpty says that a store holds something, which a copy must not be laid over.
var ErrNotEmpty = errors.New("the store is not empty; a copy is put back into an empty one only")

// Restore puts a copy back into an empty store, as the role that owns it, all or
// nothing, brings the schema up to date, and checks that the record holds and ends
// as it did when it was copied.
func Restore(ctx context.Context, ownerURL, program, file string) (Manifest, error) {
	m, err := CheckCopy(file)
	if err != nil {
		return m, err
	}
	if m.Schema > Newest() {
		return m, fmt.Errorf("the copy was made by a newer Corvek (its schema is %d, this one knows %d)", m.Schema,
			Newest())
	}
	shared, err := fitFor(ctx, ownerURL, m.Schema)
	if err != nil {
		return m, err
	}
	if err := MigrateTo(ctx, ownerURL, program, m.Schema); err != nil {
		return m, err
	}
	z, _, err := openCopy(file)
	if err != nil {
		return m, err
	}
	defer z.Close()
	if err := layDown(ctx, ownerURL, z, m); err != nil {
		return m, fmt.Errorf("the copy was not put back: %w", err)
	}
	if err := Migrate(ctx, ownerURL, program); err != nil {
		return m, err
	}
	if err := checkRestored(ctx, ownerURL, m); err != nil {
		if out := takeOut(ctx, ownerURL, shared); out != nil {
			return m, fmt.Errorf("%w; it could not be taken out again (%w): the store is not to be used", err, out)
		}
		return m, fmt.Errorf("%w. Nothing of it was kept", err)
	}
	return m, nil
}

// takeOut empties a database again that was empty before a copy was put into it. It touches none
// that something of somebody else stands in.
func takeOut(ctx context.Context, ownerURL string, shared bool) error {
	if shared {
		return errors.New("other tables stand in the same database")
	}
	pool, err := connect(ctx, ownerURL, "0")
	if err != nil {
		return err
	}
	defer pool.Close()
	_, err = pool.Exec(ctx, "DROP SCHEMA public CASCADE; CREATE SCHEMA public")
	return err
}

// fitFor makes sure that a store has no schema, or an empty one of the copy's version. shared
// tells that tables stand there before ours do.
func fitFor(ctx context.Context, ownerURL string, version int64) (shared bool, err error) {
	s, err := Open(ctx, ownerURL)
	if err != nil {
		return false, err
	}
	defer s.Close()
	has, err := versionOf(ctx, s.Pool)
	if err != nil {
		return false, err
	}
	if has == 0 {
		err = s.Pool.QueryRow(ctx, "SELECT EXISTS (SELECT FROM pg_tables WHERE schemaname = 'public')").Scan(&shared)
		return shared, err
	}
	var full bool
	if err := s.Pool.QueryRow(ctx, `SELECT EXISTS (SELECT FROM jobs) OR EXISTS (SELECT FROM people)
		OR EXISTS (SELECT FROM record_entries) OR EXISTS (SELECT FROM customers)`).Scan(&full); err != nil {
		return false, err
	}
	switch {
	case full:
		return false, ErrNotEmpty
	case has != version:
		return false, fmt.Errorf("the empty store has schema %d already and the copy has %d; put it back into a new "+
			"data folder or a new database", has, version)
	}
	return false, nil
}

// layDown fills the tables in one transaction, those that others refer to first.
func layDown(ctx context.Context, ownerURL string, z *zip.ReadCloser, m Manifest) error {
	pool, err := connect(ctx, ownerURL, "0")
	if err != nil {
		return err
	}
	defer pool.Close()
	return pgx.BeginFunc(ctx, pool, func(tx pgx.Tx) error {
		here, err := tablesOf(ctx, tx)
		if err != nil {
			return err
		}
		order, err := parentsFirst(ctx, tx, m.Tables)
		if err != nil {
			return err
		}
		for _, t := range order {
			same := slices.ContainsFunc(here, func(h TableCopy) bool {
				return h.Name == t.Name && slices.Equal(slices.Sorted(slices.Values(h.Columns)),
					slices.Sorted(slices.Values(t.Columns)))
			})
			if !same {
				return fmt.Errorf("%s does not look as it did in the copy", t.Name)
			}
			if err := layTable(ctx, tx, z, t); err != nil {
				return fmt.Errorf("%s: %w", t.Name, err)
			}
		}
		for name, value := range m.Sequences {
			if value == 0 {
				continue
			}
			if _, err := tx.Exec(ctx, "SELECT setval($1::regclass, $2)", pgx.Identifier{name}.Sanitize(),
				value); err != nil {
				return err
			}
		}
		return nil
	})
}

// layTable fills one table. Its triggers rest meanwhile: rows come as they were.
func layTable(ctx context.Context, tx pgx.Tx, z *zip.ReadCloser, t TableCopy) error {
	name := pgx.Identifier{t.Name}.Sanitize()
	// What a fresh schema begins with is in the copy too.
	for _, q := range []string{"ALTER TABLE " + name + " DISABLE TRIGGER USER", "DELETE FROM " + name} {
		if _, err := tx.Exec(ctx, q); err != nil {
			return err
		}
	}
	f, err := z.Open(tableFile(t.Name))
	if err != nil {
		return err
	}
	defer f.Close()
	tag, err := tx.Conn().PgConn().CopyFrom(ctx, f, "COPY "+t.target()+" FROM STDIN")
	if err != nil {
		return err
	}
	if tag.RowsAffected() != t.Rows {
		return fmt.Errorf("%d rows came in and %d were copied", tag.RowsAffected(), t.Rows)
	}
	_, err = tx.Exec(ctx, "ALTER TABLE "+name+" ENABLE TRIGGER USER")
	return err
}

// parentsFirst puts tables in an order in which each comes after those it refers to.
func parentsFirst(ctx context.Context, tx pgx.Tx, tables []TableCopy) ([]TableCopy, error) {
	rows, err := tx.Query(ctx, `SELECT c.relname, p.relname FROM pg_constraint k
		JOIN pg_class c ON c.oid = k.conrelid JOIN pg_class p ON p.oid = k.confrelid
		WHERE k.contype = 'f' AND c.oid <> p.oid`)
	if err != nil {
		return nil, err
	}
	parents := map[string][]string{}
	var child, parent string
	if _, err := pgx.ForEachRow(rows, []any{&child, &parent}, func() error {
		parents[child] = append(parents[child], parent)
		return nil
	}); err != nil {
		return nil, err
	}
	var out []TableCopy
	placed := map[string]bool{}
	for len(out) < len(tables) {
		before := len(out)
		for _, t := range tables {
			ready := !placed[t.Name]
			for _, p := range parents[t.Name] {
				ready = ready && placed[p]
			}
			if ready {
				placed[t.Name] = true
				out = append(out, t)
			}
		}
		if len(out) == before {
			return nil, errors.New("its tables refer to one another in a ring")
		}
	}
	return out, nil
}

// checkRestored compares the record with what was copied.
func checkRestored(ctx context.Context, ownerURL string, m Manifest) error {
	s, err := Open(ctx, ownerURL)
	if err != nil {
		return err
	}
	defer s.Close()
	v, err := s.Verify(ctx)
	switch {
	case err != nil:
		return err
	case !v.Holds():
		return fmt.Errorf("the copy does not hold: %s", v.Fault())
	case v.Lines != m.Lines || v.Head != m.Head:
		return errors.New("the record of the copy ends elsewhere than when it was copied")
	}
	return nil
}
