package store_test

import (
	"context"
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
			require.Empty(t, v.Fault)
			assert.Equal(t, 6, v.Lines)
			assert.Len(t, v.Head, 64)
			own, err := s.VerifyJob(ctx, "T-0502")
			require.NoError(t, err)
			assert.Empty(t, own.Fault)
			assert.Equal(t, 3, own.Lines)
			_, err = storetest.Owner(t, s).Exec(ctx,
				"ALTER TABLE record_entries DISABLE TRIGGER record_append_only; "+c.sql)
			require.NoError(t, err)
			v, err = s.Verify(ctx)
			require.NoError(t, err)
			assert.Contains(t, v.Fault, c.names)
		})
	}
}
