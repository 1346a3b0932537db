package store

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"strconv"
	"time"

	"github.com/jackc/pgx/v5"
)

// Verdict is whether the record is as it was written.
type Verdict struct {
	Lines int
	Head  string // fingerprint of the whole record
	Fault string // the first line that does not fit, in words; "" when all do
}

// recordLine is a line of the record with its fingerprints.
type recordLine struct {
	place           int64
	tag, who        string
	at              time.Time
	action, field   string
	before, after   string
	brought         bool
	jobChain, chain []byte
}

// text is a line as it is fingerprinted, like record_text in the database.
func (l recordLine) text() []byte {
	var b bytes.Buffer
	parts := []string{l.tag, l.who, l.at.UTC().Format("2006-01-02T15:04:05.000000Z"), l.action, l.field, l.before,
		l.after}
	if l.brought {
		parts = append(parts, "brought in")
	}
	for _, part := range parts {
		b.WriteString(strconv.Itoa(len(part)) + ":" + part)
	}
	return b.Bytes()
}

func (l recordLine) String() string {
	return fmt.Sprintf("line %d, job %s, %s by %s: %s %s", l.place, l.tag, l.at.Format("2 Jan 2006 15:04"), l.who,
		l.action, l.field)
}

const selectLines = `SELECT r.place, j.tag, r.who, r.at, r.action, r.field, r.before, r.after, r.brought,
	r.job_chain, r.chain
	FROM record_entries r JOIN jobs j ON j.id = r.job_id`

func scanLine(rows pgx.Rows) (l recordLine, err error) {
	err = rows.Scan(&l.place, &l.tag, &l.who, &l.at, &l.action, &l.field, &l.before, &l.after, &l.brought,
		&l.jobChain, &l.chain)
	return l, err
}

// Verify works out the fingerprints of the record anew, line by line, and names
// the first that does not fit: changed, put in by hand, or behind one taken out.
func (s *Store) Verify(ctx context.Context) (v Verdict, err error) {
	err = pgx.BeginTxFunc(ctx, s.Pool, pgx.TxOptions{IsoLevel: pgx.RepeatableRead, AccessMode: pgx.ReadOnly},
		func(tx pgx.Tx) error {
			v, err = verify(ctx, tx)
			return err
		})
	return v, err
}

// verify looks at the record as it stands at one moment.
func verify(ctx context.Context, tx pgx.Tx) (Verdict, error) {
	// A long record takes longer than a page's statement may.
	if _, err := tx.Exec(ctx, "SET LOCAL statement_timeout = 0"); err != nil {
		return Verdict{}, err
	}
	rows, err := tx.Query(ctx, selectLines+" ORDER BY r.place")
	if err != nil {
		return Verdict{}, err
	}
	defer rows.Close()
	v := Verdict{}
	var head []byte
	jobs := map[string][]byte{}
	for rows.Next() {
		l, err := scanLine(rows)
		if err != nil {
			return v, err
		}
		v.Lines++
		own := sha256.Sum256(append(bytes.Clone(jobs[l.tag]), l.text()...))
		whole := sha256.Sum256(append(bytes.Clone(head), own[:]...))
		switch {
		case l.place != int64(v.Lines):
			v.Fault = fmt.Sprintf("line %d is missing; the next is %s", v.Lines, l)
		case !bytes.Equal(own[:], l.jobChain) || !bytes.Equal(whole[:], l.chain):
			v.Fault = l.String() + " is not as it was written"
		}
		if v.Fault != "" {
			return v, nil
		}
		jobs[l.tag], head = own[:], whole[:]
	}
	if err := rows.Err(); err != nil {
		return v, err
	}
	v.Head = hex.EncodeToString(head)
	var place int64
	var kept []byte
	if err := tx.QueryRow(ctx, "SELECT place, chain FROM record_head").Scan(&place, &kept); err != nil {
		return v, err
	}
	if place != int64(v.Lines) || !bytes.Equal(kept, head) {
		v.Fault = fmt.Sprintf("the record ends at line %d, but %d were written", v.Lines, place)
	}
	return v, nil
}

// VerifyJob works out the fingerprints of one job's record anew. That lines were
// taken out at its end is seen by Verify, or by a paper that printed the head.
func (s *Store) VerifyJob(ctx context.Context, tag string) (Verdict, error) {
	rows, err := s.Pool.Query(ctx, selectLines+" WHERE j.tag = $1 ORDER BY r.place", tag)
	if err != nil {
		return Verdict{}, err
	}
	defer rows.Close()
	v := Verdict{}
	var head []byte
	for rows.Next() {
		l, err := scanLine(rows)
		if err != nil {
			return v, err
		}
		v.Lines++
		own := sha256.Sum256(append(bytes.Clone(head), l.text()...))
		if !bytes.Equal(own[:], l.jobChain) {
			v.Fault = l.String() + " is not as it was written, or the one before it is missing"
			return v, nil
		}
		head = own[:]
	}
	v.Head = hex.EncodeToString(head)
	return v, rows.Err()
}
