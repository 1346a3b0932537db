package web

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"

	"github.com/stretchr/testify/require"
)

// large puts a unit of 300 parts with 5,000 readings on the board.
func large(t testing.TB, s *served) (tag string) {
	ctx := context.Background()
	var text strings.Builder
	text.WriteString("code: long_unit\nname: Long unit\naction: cylinder\nvariants: one\nparts:\n")
	kinds := []string{"plate", "spring", "o_ring", "piston", "bush", "disc_springs", "rod", "valve_plate",
		"bearing", "spool"}
	for i := range 300 {
		fmt.Fprintf(&text, "  - {code: p%d, name: Part %d, kind: %s, shape: {w: 20, od: 40, id: 20, top: 30, base: "+
			"-30}, features: [{code: f, name: Figure, method: grid, rows: 4, cols: 5, wears: bore, "+
			"rule: {out: 5 %%, basis: shop practice}}]}\n", i, i, kinds[i%len(kinds)])
	}
	odd := people.Actor{ID: 1, Name: "Odd", Role: people.RoleLead}
	require.NoError(t, s.jobs().SaveFamily(ctx, odd, "long_unit", text.String(), "for the benchmark"))
	f := s.jobs().Families()["long_unit"]
	u := unit.New(f, 1, "Odd", s.jobs().Now())
	n := 0
	for _, p := range u.Parts {
		p.Off, p.Found = true, "1"
		for r := 1; r <= 4 && n < 5000; r++ {
			for c := 1; c <= 5 && n < 5000; c++ {
				x := &unit.Reading{Round: 1, Stage: unit.StageFound, Slot: fmt.Sprintf("r%dc%d", r, c),
					Value: fmt.Sprintf("20.%03d mm", n%900), At: s.jobs().Now()}
				x.Measure()
				p.Features[0].Readings = append(p.Features[0].Readings, x)
				n++
			}
		}
	}
	require.Equal(t, 5000, n)
	j := &unit.Job{
		Title: "Long", Customer: unit.Customer{Name: "Bench"}, Policy: "on_condition", Waiting: "technician",
		ReceivedOn: unit.DateOf(s.jobs().Now()), Units: []*unit.Unit{u},
	}
	require.NoError(t, s.jobs().BringIn(ctx, "Odd", j, nil, nil))
	return j.Tag
}

// A page of the largest job a bench could meet is to come in under 100 ms.
func BenchmarkLargeJob(b *testing.B) {
	s := serve(b)
	tag := large(b, s)
	br := s.as("odd")
	for _, station := range []string{"strip", "measure", "explain", "decide", "build", "report"} {
		b.Run(station, func(b *testing.B) {
			for b.Loop() {
				if res, _ := br.get("/jobs/" + tag + "/" + station); res.StatusCode != http.StatusOK {
					b.Fatal(res.Status)
				}
			}
		})
	}
}

func TestLargeJobIsDrawnWhole(t *testing.T) {
	t.Parallel()
	s := serve(t)
	tag := large(t, s)
	_, body := s.as("odd").get("/jobs/" + tag + "/measure")
	require.Equal(t, 300, strings.Count(body, `data-part="`))
}

func (s *served) jobs() *job.Service { return s.server.Jobs }
