package store_test

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"testing"
	"time"

	"corvek/core/unit"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A line that is changed, taken out or put in by hand is named, whoever does it:
// here with all the rights that a database has.
func TestVerifyNamesTheFirstLineThatDoesNotFit(t *testing.T) {
	ctx := context.Background()
	for name, c := range map[string]struct{ sql, names string }{
		"a byte changed": {"UPDATE record_entries SET after = 'quiet' WHERE place = 4", "line 4, job T-0502, "},
		"another person": {"UPDATE record_entries SET who = 'Ivo' WHERE place = 2", "line 2, job T-0501, "},
		"another moment": {"UPDATE record_entries SET at = at - interval '1 day' WHERE place = 5", "line 5, "},
		"a line deleted": {"DELETE FROM record_entries WHERE place = 3", "line 3 is missing"},
		"the last line":  {"DELETE FROM record_entries WHERE place = 6", "ends at line 5, but 6 were written"},
		"a line put in": {"INSERT INTO record_entries (job_id, who, at, action, place, job_chain, chain) " +
			"SELECT job_id, who, at, 'handed over', 7, job_chain, chain FROM record_entries WHERE place = 6",
			"line 7, "},
		"two lines exchanged": {"UPDATE record_entries SET place = CASE place WHEN 1 THEN -2 ELSE -1 END " +
			"WHERE place < 3; UPDATE record_entries SET place = -place WHERE place < 0", "line 1, "},
		"a job renamed": {"UPDATE jobs SET tag = 'T-0999' WHERE tag = 'T-0501'", "job T-0999"},
	} {
		t.Run(name, func(t *testing.T) {
			s := storetest.New(t)
			for i, tag := range []string{"T-0501", "T-0502"} {
				u := &unit.Unit{Number: 1, Family: "check_valve", Name: "v", Rounds: []*unit.Round{{Number: 1}}}
				j := &unit.Job{Tag: tag, Title: "pump", ReceivedOn: "2031-05-01", Units: []*unit.Unit{u}}
				var lines []unit.Entry
				for k := range 3 {
					at := time.Date(2031, 5, 1+i, 8, k, 0, 123456789, time.UTC)
					lines = append(lines, unit.Entry{Who: "Iva", At: at, Action: "set",
						Field: fmt.Sprintf("job/title/%d", k), Before: "a\"b", After: "µ → 1"})
				}
				require.NoError(t, s.Create(ctx, &store.Change{Job: j, Entries: lines}))
			}
			v, err := s.Verify(ctx)
			require.NoError(t, err)
			require.Empty(t, v.Fault())
			assert.Equal(t, 6, v.Lines)
			assert.Len(t, v.Head, 64)
			own, err := s.VerifyJob(ctx, "T-0502")
			require.NoError(t, err)
			assert.Empty(t, own.Fault())
			assert.Equal(t, 3, own.Lines)
			_, err = storetest.Owner(t, s).Exec(ctx,
				"ALTER TABLE record_entries DISABLE TRIGGER record_append_only; "+c.sql)
			require.NoError(t, err)
			v, err = s.Verify(ctx)
			require.NoError(t, err)
			assert.Contains(t, v.Fault(), c.names)
		})
	}
}

// paper keeps a paper of a job as a hand-over does.
func paper(t *testing.T, s *store.Store, tag, content string) {
	t.Helper()
	sum := sha256.Sum256([]byte(content))
	p := store.Paper{HandOver: 1, Name: "report.pdf", MediaType: "application/pdf", At: time.Now(),
		SHA256: hex.EncodeToString(sum[:]), Content: []byte(content)}
	require.NoError(t, s.Update(t.Context(), tag, func(j *unit.Job, _ store.History) (*store.Change, error) {
		e := &unit.Event{Kind: unit.EventPaperKept, HandOver: 1, Name: p.Name, Sum: p.SHA256}
		return &store.Change{Job: j, Papers: []store.Paper{p}, Entries: []unit.Entry{{Who: "Odd", At: time.Now(),
			Action: "kept", Event: e}}}, nil
	}))
}

// What the tables say is held against the end of the record, and what differs is named: with the
// rights of the program itself, and with all that a database has.
func TestVerifyNamesWhatWasChangedBesideTheRecord(t *testing.T) {
	const waived = "INSERT INTO stop_passes (job_id, code, stop_text, reason, by_name) " +
		"SELECT id, 'x', 'x', 'x', 'x' FROM jobs"
	const columns = "customer_id, title, policy, waiting, station, received_on"
	const another = "INSERT INTO jobs (tag, " + columns + ") SELECT 'T-0777', " + columns + " FROM jobs"
	for name, c := range map[string]struct {
		sql   string
		owner bool // the program's role may not do it at all
		names string
		where []string
	}{
		"a reading": {"UPDATE readings SET value = '6 thou'", false, "at u1/part/rear_plate",
			[]string{"u1/part/rear_plate"}},
		"the speed":   {"UPDATE units SET speed = '1750 rpm'", false, "at u1", []string{"u1"}},
		"a part gone": {"DELETE FROM parts", false, "at u1/part/rear_plate", []string{"u1/part/rear_plate"}},
		"the title":   {"UPDATE jobs SET title = 'Winch'", false, "at job", []string{"job"}},
		"handed over": {"UPDATE jobs SET handed_over_at = now()", false, "at job", []string{"job"}},
		"a waiver":    {waived, false, "at job/waived_stop", []string{"job/waived_stop"}},
		"the whole":   {another, false, "T-0777 stands in the tables, but no line", nil},
		"a paper more": {"INSERT INTO papers SELECT job_id, 2, name, media_type, at, sha256, content FROM papers",
			false, "report.pdf of hand-over 2", nil},
		"a paper swapped": {"UPDATE papers SET content = 'other', sha256 = encode(sha256('other'), 'hex')", true,
			"report.pdf of hand-over 1 of job T-0501 is not the one", nil},
		"a paper gone": {"DELETE FROM papers", true, "report.pdf of hand-over 1 of job T-0501 is gone", nil},
		"the tail cut off": {"ALTER TABLE record_entries DISABLE TRIGGER record_append_only; " +
			"DELETE FROM record_entries WHERE place = 2; " +
			"UPDATE record_head SET place = 1, chain = (SELECT chain FROM record_entries)", true,
			"the record of job T-0501 ends at its line 1, but 2 were written", nil},
		"the sections too": {"UPDATE readings SET value = '6 thou'; UPDATE record_tails SET sections = ''", true,
			"does not say what its record ends with", nil},
	} {
		t.Run(name, func(t *testing.T) {
			s, ctx := storetest.New(t), t.Context()
			create(t, s, sheet("T-0501"))
			paper(t, s, "T-0501", "as it was")
			v, err := s.Verify(ctx)
			require.NoError(t, err)
			require.Empty(t, v.Faults)
			require.Zero(t, v.Earlier)
			storetest.Bend(s)
			_, err = s.Pool.Exec(ctx, c.sql)
			if c.owner {
				require.Error(t, err, "the program's role may do this")
				_, err = storetest.Owner(t, s).Exec(ctx, c.sql)
			}
			require.NoError(t, err)
			v, err = s.Verify(ctx)
			require.NoError(t, err)
			require.NotEmpty(t, v.Faults)
			assert.Contains(t, v.Fault(), c.names)
			assert.Equal(t, c.where, v.Faults[0].Where)
			if c.names[0] == 'T' {
				return // it is another job
			}
			own, err := s.VerifyJob(ctx, "T-0501")
			require.NoError(t, err)
			assert.Contains(t, own.Fault(), c.names, "on the job's own page")
		})
	}
}

// A job that an earlier version wrote last is taken over with a line of its own, once.
func TestTakeOver(t *testing.T) {
	s, ctx := storetest.New(t), t.Context()
	create(t, s, sheet("T-0501"))
	_, err := storetest.Owner(t, s).Exec(ctx, "UPDATE record_tails SET state = ''")
	require.NoError(t, err)
	tags, err := s.JobsOfEarlier(ctx, 9)
	require.NoError(t, err)
	require.Equal(t, []string{"T-0501"}, tags)
	require.NoError(t, s.TakeOver(ctx, "T-0501", unit.Entry{Who: "Corvek", At: time.Now(), Action: "taken over",
		Event: &unit.Event{Kind: unit.EventTakenOver}}))
	tags, err = s.JobsOfEarlier(ctx, 9)
	require.NoError(t, err)
	assert.Empty(t, tags)
	v, err := s.Verify(ctx)
	require.NoError(t, err)
	assert.Empty(t, v.Faults)
	j, err := s.Job(ctx, "T-0501")
	require.NoError(t, err)
	assert.Equal(t, int64(1), j.Version, "the job itself stays")
}
