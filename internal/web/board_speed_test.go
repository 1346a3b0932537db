package web

import (
	"context"
	"fmt"
	"net/http"
	"testing"
	"time"

	"corvek/core/unit"
	"corvek/internal/store"

	"github.com/stretchr/testify/require"
)

// The board of a shop with 10,000 jobs, 300 of them in hand, whole and searched.
func BenchmarkBoard(b *testing.B) {
	s := serve(b)
	many(b, s, 10000, 300)
	br := s.as("odd")
	for _, path := range []string{"/jobs", "/jobs?find=winch+77", "/jobs?open=parts", "/jobs?month=2030-03"} {
		b.Run(path, func(b *testing.B) {
			for b.Loop() {
				if res, _ := br.get(path); res.StatusCode != http.StatusOK {
					b.Fatal(res.Status)
				}
			}
		})
	}
}

// many puts jobs on the board, some of them in hand and the rest handed over.
func many(t testing.TB, s *served, all, inHand int) {
	t.Helper()
	ctx := context.Background()
	waits := []string{"technician", "parts", "stand", "customer", "outside"}
	for i := range all {
		now := time.Date(2028, 1, 1, 9, 0, 0, 0, time.UTC).Add(time.Duration(i) * 2 * time.Hour)
		u := &unit.Unit{Number: 1, Family: "external_gear_pump", Name: "Pump", Serial: fmt.Sprintf("S-%05d", i),
			Rounds: []*unit.Round{{Number: 1, OpenedAt: now}}}
		j := &unit.Job{
			Tag: fmt.Sprintf("B-%05d", i), Title: fmt.Sprintf("Winch %d", i),
			Customer: unit.Customer{Name: fmt.Sprintf("Customer %d", i%400)},
			Policy:   "on_condition", Waiting: waits[i%len(waits)], Station: "strip", ReceivedOn: unit.DateOf(now),
			PromisedOn: unit.DateOf(now).Add(20), Units: []*unit.Unit{u},
		}
		if i >= inHand {
			j.HandedOverAt = now
		}
		require.NoError(t, s.jobs().Store.Create(ctx, &store.Change{Job: j,
			Entries: []unit.Entry{{Who: "x", At: now, Action: "created"}}}))
	}
}
