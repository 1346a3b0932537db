package casebook_test

import (
	"strings"
	"testing"

	"corvek/core/hidden"
	"corvek/core/unit"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// tables are what stands in each table of the shop, but for those of practice itself.
func (p *practising) tables() map[string]string {
	p.t.Helper()
	ctx := p.t.Context()
	pool := p.book.Shop.Store.Pool
	rows, err := pool.Query(ctx, `SELECT table_name FROM information_schema.tables
		WHERE table_schema = 'public' AND table_type = 'BASE TABLE'`)
	require.NoError(p.t, err)
	names, err := pgx.CollectRows(rows, pgx.RowTo[string])
	require.NoError(p.t, err)
	out := map[string]string{}
	for _, name := range names {
		if strings.HasPrefix(name, "practice_") {
			continue
		}
		var sum string
		table := pgx.Identifier{name}.Sanitize()
		err := pool.QueryRow(ctx, `SELECT md5(coalesce(string_agg(t::text, '|' ORDER BY t::text), '')) FROM `+table+
			` t`).Scan(&sum)
		require.NoError(p.t, err, name)
		out[name] = sum
	}
	return out
}

// A unit of practice that was begun, looked at, mended, proved and told leaves every table of the shop as it was.
func TestPracticeLeavesTheShopAsItWas(t *testing.T) {
	t.Parallel()
	p := practise(t)
	before := p.tables()
	require.Greater(t, len(before), 30)
	p.begin("check_valve", hidden.Own, 3)
	p.opens()
	p.looksAllOver()
	p.mends()
	p.set("u1/conclusion/cause", unit.CauseNotFound)
	require.NoError(t, p.book.Name(t.Context(), p.who, p.tag))
	_, err := p.book.Told(t.Context(), p.who, p.tag)
	require.NoError(t, err)
	p.builds()
	p.runs()
	assert.Equal(t, before, p.tables())
}
