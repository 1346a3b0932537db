package web

import (
	"context"
	"net/http"
	"testing"

	"corvek/internal/store/storetest"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"
)

// The board of a shop with 50,000 jobs, 300 of them in hand, whole and searched, against the least
// that an answer costs.
func BenchmarkBoard(b *testing.B) {
	s := serve(b)
	many(b, s, 50000, 300)
	br := s.as("odd")
	for _, path := range []string{"/healthz", "/jobs", "/jobs?find=winch+77", "/jobs?find=s-b-00077",
		"/jobs?find=k32-4077", "/jobs?open=parts",
		"/jobs?month=2030-03"} {
		b.Run(path, func(b *testing.B) {
			for b.Loop() {
				if res, _ := br.get(path); res.StatusCode != http.StatusOK {
					b.Fatal(res.Status)
				}
			}
		})
	}
}

// many puts jobs on the board, some of them in hand and the rest handed over. They are written by
// the tables' owner, all at once: no record tells of them, and the board asks for none.
func many(t testing.TB, s *served, all, inHand int) {
	t.Helper()
	ctx := context.Background()
	storetest.Bend(s.jobs().Store)
	conn := storetest.Owner(t, s.jobs().Store)
	for _, q := range []string{
		`SET session_replication_role = replica`,
		`INSERT INTO customers (name) SELECT 'Customer ' || n FROM generate_series(0, 399) n`,
		`INSERT INTO jobs (tag, customer_id, title, policy, waiting, station, received_on, promised_on, handed_over_at,
				search)
			SELECT 'B-' || to_char(n, 'FM00000'), c.id, 'Winch ' || n, 'on_condition',
				(ARRAY['technician', 'parts', 'stand', 'customer', 'outside'])[1 + n % 5], 'strip', at::date,
				at::date + 20, CASE WHEN n >= @inHand THEN at END,
				lower('B-' || to_char(n, 'FM00000') || ' winch ' || n || ' ' || c.name || ' s-b-' ||
					to_char(n, 'FM00000') || ' k32-' || n % 5000)
			FROM generate_series(0, @all - 1) n
				CROSS JOIN LATERAL (SELECT timestamptz '2028-01-01 09:00Z' + n * interval '30 minutes' AS at) m
				JOIN customers c ON c.name = 'Customer ' || n % 400`,
		`INSERT INTO units (job_id, number, family, name, serial) SELECT id, 1, 'external_gear_pump', 'Pump',
			'S-' || tag FROM jobs WHERE tag LIKE 'B-%'`,
		`INSERT INTO rounds (job_id, unit, number, reason, back_to, opened_by, opened_at)
			SELECT id, 1, 1, '', '', 'x', now()
			FROM jobs WHERE tag LIKE 'B-%'`,
		`VACUUM ANALYZE`,
	} {
		_, err := conn.Exec(ctx, q, pgx.NamedArgs{"all": all, "inHand": inHand})
		require.NoError(t, err)
	}
}
