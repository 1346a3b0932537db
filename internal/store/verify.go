package store

import (
	"bytes"
	"cmp"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"corvek/core/unit"

	"gorm.io/gorm"
)

// Verdict is whether the record is as it was written, and what the jobs say is what it ends with.
type Verdict struct {
	Lines   int
	Head    string  // fingerprint of the whole record, or of one job's
	Faults  []Fault // what does not fit, the first at most; none when all does
	Earlier int     // jobs that an earlier version wrote last: their state is not fingerprinted yet
}

// Fault is something that is not as it was written.
type Fault struct {
	Tag   string // of the job it is in, "" for the record as a whole
	Words string
	Where []string // the sections of the job that differ from what its record ends with
}

// Holds reports that nothing was found that does not fit.
func (v Verdict) Holds() bool { return len(v.Faults) == 0 }

// Fault is the first thing that does not fit in words, "" when all does.
func (v Verdict) Fault() string {
	if v.Holds() {
		return ""
	}
	return v.Faults[0].Words
}

// mostFaults are named; where so much is bent, more says nothing more.
const mostFaults = 50

func (v *Verdict) bent(tag string, where []string, format string, args ...any) {
	if len(v.Faults) < mostFaults {
		v.Faults = append(v.Faults, Fault{tag, fmt.Sprintf(format, args...), where})
	}
}

// recordLine is a line of the record with its fingerprints.
type recordLine struct {
	Place           int64
	Tag, Who        string
	At              time.Time
	Action, Field   string
	Before, After   string
	Brought         bool
	Form            int
	Role, Kind      string
	Event, State    string
	JobChain, Chain []byte
}

// text is a line as it is fingerprinted, like record_text in the database.
func (l recordLine) text() []byte {
	var b bytes.Buffer
	brought := ""
	if l.Brought {
		brought = "brought in"
	}
	parts := []string{l.Tag, l.Who, l.At.UTC().Format("2006-01-02T15:04:05.000000Z"), l.Action, l.Field, l.Before,
		l.After}
	switch {
	case l.Form > 1:
		parts = append(parts, brought, "form "+strconv.Itoa(l.Form), l.Role, l.Kind, l.Event, l.State)
	case l.Brought:
		parts = append(parts, brought)
	}
	for _, part := range parts {
		b.WriteString(strconv.Itoa(len(part)) + ":" + part)
	}
	return b.Bytes()
}

func (l recordLine) String() string {
	return fmt.Sprintf("line %d, job %s, %s by %s: %s %s", l.Place, l.Tag, l.At.Format("2 Jan 2006 15:04"), l.Who,
		l.Action, l.Field)
}

const selectLines = `SELECT r.place, j.tag, r.who, r.at, r.action, r.field, r.before, r.after, r.brought, r.form,
	r.role, r.kind, r.event, r.state, r.job_chain, r.chain
	FROM record_entries r JOIN jobs j ON j.id = r.job_id `

// tail is where the record of one job ends as its lines were followed.
type tail struct {
	lines int
	chain []byte
	state string // the last that a line carries
}

// Verify follows the record line by line and names what does not fit: a line that was changed,
// taken out or put in by hand; a job whose tables say another thing than its record ends with; a
// paper that is not the one that was kept. It takes as long as reading the whole store.
func (s *Store) Verify(ctx context.Context) (v Verdict, err error) {
	err = s.atOneMoment(ctx, func(db *gorm.DB) error {
		// A long record takes longer than a page's statement may.
		if err := db.Exec("SET LOCAL statement_timeout = 0").Error; err != nil {
			return err
		}
		var ends map[string]tail
		if v, ends, err = verifyChain(db); err != nil || !v.Holds() {
			return err
		}
		var tags []string
		if err := db.Raw("SELECT tag FROM jobs ORDER BY tag").Scan(&tags).Error; err != nil {
			return err
		}
		for _, tag := range tags {
			if err := v.job(db, tag, ends[tag]); err != nil {
				return err
			}
		}
		return nil
	})
	return v, err
}

// VerifyLines is Verify of the lines alone, without what the jobs say: as long as reading the
// record.
func (s *Store) VerifyLines(ctx context.Context) (Verdict, error) { return s.verifyLinesAt(ctx, "") }

// verifyLinesAt is VerifyLines as another transaction sees them: moment is a snapshot that it
// exported, "" for now.
func (s *Store) verifyLinesAt(ctx context.Context, moment string) (v Verdict, err error) {
	err = s.atOneMoment(ctx, func(db *gorm.DB) error {
		if moment != "" {
			// The name is the database's own, figures and dashes.
			if err := db.Exec("SET TRANSACTION SNAPSHOT '" + moment + "'").Error; err != nil {
				return err
			}
		}
		if err := db.Exec("SET LOCAL statement_timeout = 0").Error; err != nil {
			return err
		}
		v, _, err = verifyChain(db)
		return err
	})
	return v, err
}

// VerifyJob is Verify of one job and its own lines.
func (s *Store) VerifyJob(ctx context.Context, tag string) (v Verdict, err error) {
	err = s.atOneMoment(ctx, func(db *gorm.DB) error {
		var end tail
		err := eachLine(db, selectLines+"WHERE j.tag = ? ORDER BY r.place", []any{tag}, func(l recordLine) bool {
			v.Lines++
			own := sha256.Sum256(append(bytes.Clone(end.chain), l.text()...))
			if !bytes.Equal(own[:], l.JobChain) {
				v.bent(tag, nil, "%s is not as it was written, or the one before it is missing", l)
				return false
			}
			end = tail{v.Lines, own[:], cmp.Or(l.State, end.state)}
			return true
		})
		if err != nil || !v.Holds() {
			return err
		}
		v.Head = hex.EncodeToString(end.chain)
		return v.job(db, tag, end)
	})
	return v, err
}

// atOneMoment reads the store as it stands at one moment.
func (s *Store) atOneMoment(ctx context.Context, f func(*gorm.DB) error) error {
	return s.db.WithContext(ctx).Transaction(f, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
}

// eachLine reads lines of the record until take has enough.
func eachLine(db *gorm.DB, query string, args []any, take func(recordLine) bool) error {
	rows, err := db.Raw(query, args...).Rows()
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		var l recordLine
		if err := rows.Scan(&l.Place, &l.Tag, &l.Who, &l.At, &l.Action, &l.Field, &l.Before, &l.After, &l.Brought,
			&l.Form, &l.Role, &l.Kind, &l.Event, &l.State, &l.JobChain, &l.Chain); err != nil {
			return err
		}
		if !take(l) {
			return nil
		}
	}
	return rows.Err()
}

// verifyChain follows all lines, and gives where the record of each job ends.
func verifyChain(db *gorm.DB) (v Verdict, ends map[string]tail, err error) {
	var head []byte
	ends = map[string]tail{}
	err = eachLine(db, selectLines+"ORDER BY r.place", nil, func(l recordLine) bool {
		v.Lines++
		end := ends[l.Tag]
		own := sha256.Sum256(append(bytes.Clone(end.chain), l.text()...))
		whole := sha256.Sum256(append(bytes.Clone(head), own[:]...))
		switch {
		case l.Place != int64(v.Lines):
			v.bent("", nil, "line %d is missing; the next is %s", v.Lines, l)
		case !bytes.Equal(own[:], l.JobChain) || !bytes.Equal(whole[:], l.Chain):
			v.bent("", nil, "%s is not as it was written", l)
		}
		if !v.Holds() {
			return false
		}
		ends[l.Tag], head = tail{end.lines + 1, own[:], cmp.Or(l.State, end.state)}, whole[:]
		return true
	})
	if err != nil || !v.Holds() {
		return v, ends, err
	}
	v.Head = hex.EncodeToString(head)
	var kept struct {
		Place int64
		Chain []byte
	}
	if err := db.Raw("SELECT place, chain FROM record_head").Scan(&kept).Error; err != nil {
		return v, ends, err
	}
	if kept.Place != int64(v.Lines) || !bytes.Equal(kept.Chain, head) {
		v.bent("", nil, "the record ends at line %d, but %d were written", v.Lines, kept.Place)
	}
	return v, ends, nil
}

// job holds one job against the end of its record: its length, what it says, its papers.
func (v *Verdict) job(db *gorm.DB, tag string, end tail) error {
	if end.lines == 0 {
		v.bent(tag, nil, "job %s stands in the tables, but no line of the record tells of it", tag)
		return nil
	}
	var kept struct {
		Lines    int
		JobChain []byte
		Sections string
	}
	if err := db.Raw(`SELECT t.lines, t.job_chain, t.sections FROM record_tails t JOIN jobs j ON j.id = t.job_id
		WHERE j.tag = ?`, tag).Scan(&kept).Error; err != nil {
		return err
	}
	if kept.Lines != end.lines || !bytes.Equal(kept.JobChain, end.chain) {
		v.bent(tag, nil, "the record of job %s ends at its line %d, but %d were written", tag, end.lines, kept.Lines)
		return nil
	}
	if form, _, _ := strings.Cut(end.state, ":"); form != strconv.Itoa(unit.StateForm) {
		v.Earlier++
	} else if err := v.state(db, tag, end.state, readSections(kept.Sections)); err != nil {
		return err
	}
	return v.papers(db, tag)
}

// state compares what a job says with the last fingerprint of its record.
func (v *Verdict) state(db *gorm.DB, tag, state string, kept []unit.Section) error {
	j, err := load(db, tag)
	if err != nil {
		return err
	}
	now, err := j.Sections()
	if err != nil {
		return err
	}
	if unit.StateOf(now) == state {
		return nil
	}
	var where []string
	if unit.StateOf(kept) == state {
		where = unit.Differ(now, kept)
	}
	switch len(where) {
	case 0:
		v.bent(tag, nil, "job %s does not say what its record ends with", tag)
	default:
		v.bent(tag, where, "job %s was changed beside its record, at %s", tag, strings.Join(where, ", "))
	}
	return nil
}

// papers compares the kept papers of a job with what the record tells of them.
func (v *Verdict) papers(db *gorm.DB, tag string) error {
	told, err := eventsOf(db, tag)
	if err != nil {
		return err
	}
	sums := map[string]string{}
	for _, e := range told {
		if e.Is(unit.EventPaperKept) && !e.Brought {
			sums[fmt.Sprintf("%s of hand-over %d", e.Event.Name, e.Event.HandOver)] = e.Event.Sum
		}
	}
	var list []Paper
	if err := db.Raw(`SELECT p.* FROM papers p JOIN jobs j ON j.id = p.job_id WHERE j.tag = ?
		ORDER BY p.hand_over, p.name`, tag).Scan(&list).Error; err != nil {
		return err
	}
	for _, p := range list {
		name := fmt.Sprintf("%s of hand-over %d", p.Name, p.HandOver)
		is := sha256.Sum256(p.Content)
		sum, known := sums[name]
		if !known {
			if sum, err = sumBefore(db, tag, p); err != nil {
				return err
			}
		}
		delete(sums, name)
		switch {
		case sum == "":
			v.bent(tag, nil, "the paper %s of job %s is kept, but no line of the record tells of it", name, tag)
		case sum != hex.EncodeToString(is[:]):
			v.bent(tag, nil, "the paper %s of job %s is not the one that was kept that day", name, tag)
		}
	}
	for _, name := range slices.Sorted(maps.Keys(sums)) {
		v.bent(tag, nil, "the paper %s of job %s is gone", name, tag)
	}
	return nil
}

// sumBefore is the fingerprint of a paper that an earlier version kept, whose line of the record
// is made of words that nobody typed: it is there word for word, or the paper is not known.
func sumBefore(db *gorm.DB, tag string, p Paper) (string, error) {
	var there bool
	err := db.Raw(`SELECT EXISTS (SELECT FROM record_entries r JOIN jobs j ON j.id = r.job_id
		WHERE j.tag = ? AND r.form = 1 AND NOT r.brought AND r.field = '' AND r.action = ?)`, tag,
		"kept the paper of the day "+p.Name+", SHA-256 "+p.SHA256).Scan(&there).Error
	if !there {
		return "", err
	}
	return p.SHA256, err
}

// writeSections keeps the fingerprints of a job's pieces as text.
func writeSections(all []unit.Section) string {
	var b strings.Builder
	for _, s := range all {
		b.WriteString(s.Sum + " " + s.Path + "\n")
	}
	return b.String()
}

func readSections(text string) (out []unit.Section) {
	for line := range strings.Lines(text) {
		sum, path, _ := strings.Cut(strings.TrimSuffix(line, "\n"), " ")
		out = append(out, unit.Section{Path: path, Sum: sum})
	}
	return out
}
