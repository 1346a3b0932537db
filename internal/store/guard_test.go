package store_test

import (
	"context"
	"testing"

	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whoever gets hold of the program's own connection cannot bend what was recorded.
func TestTheProgramCannotBendTheRecord(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	create(t, s, sheet("T-0501"))
	guard, err := s.Guard(ctx)
	require.NoError(t, err)
	assert.True(t, guard.Holds(), "%+v", guard)
	for _, bend := range []string{
		"UPDATE record_entries SET who = 'nobody'",
		"DELETE FROM record_entries",
		"TRUNCATE record_entries",
		"INSERT INTO record_entries (job_id, who, action, place, job_chain, chain) VALUES (1, 'x', 'x', 9, '', '')",
		"UPDATE record_head SET place = 0",
		"DELETE FROM record_head",
		"UPDATE record_tails SET lines = 0, sections = ''",
		"DELETE FROM record_tails",
		"ALTER TABLE record_entries DISABLE TRIGGER ALL",
		"DROP TRIGGER record_append_only ON record_entries",
		"DROP TABLE record_entries",
		"CREATE OR REPLACE FUNCTION record_is_append_only() RETURNS trigger AS 'BEGIN RETURN NEW; END' " +
			"LANGUAGE plpgsql",
		"SET session_replication_role = replica",
		"SET ROLE corvek",
		"DELETE FROM jobs",
		"DELETE FROM people",
		"UPDATE family_versions SET text = ''",
		"CREATE TABLE mine (a int)",
		"UPDATE goose_db_version SET version_id = 1",
	} {
		_, err := s.Pool.Exec(ctx, bend)
		assert.Error(t, err, bend)
	}
	v, err := s.Verify(ctx)
	require.NoError(t, err)
	assert.Empty(t, v.Fault())
}

// A program that was given the owner's own address is told to be no guard.
func TestGuardTellsTheTruthOfAnOwner(t *testing.T) {
	s, ctx := storetest.New(t), context.Background()
	owner, err := store.Open(ctx, storetest.OwnerURLOf(s))
	require.NoError(t, err)
	defer owner.Close()
	guard, err := owner.Guard(ctx)
	require.NoError(t, err)
	assert.False(t, guard.Holds())
	assert.Equal(t, "corvek", guard.Role)
}
