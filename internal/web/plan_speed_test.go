package web

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"testing"
	"time"

	"corvek/core/remaining"
	"corvek/core/unit"
	"corvek/core/workshop"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/planning"

	"github.com/stretchr/testify/require"
)

// busy gives the shop 300 jobs in hand, eight people and two stands.
func busy(b *testing.B, s *served) {
	ctx := context.Background()
	lead := people.Actor{ID: 1, Name: "Odd", Role: people.RoleLead}
	service := people.Service{Store: s.server.Store, Now: s.jobs().Now}
	for n := range 5 {
		require.NoError(b, service.FromShell(ctx, people.Form{SignIn: fmt.Sprintf("hand%d", n),
			Name: fmt.Sprintf("Hand %d", n), Role: people.RoleTechnician, Password: "long enough"}))
	}
	all, err := s.server.Store.People(ctx)
	require.NoError(b, err)
	for i := range all {
		h := workshop.Hands{PersonID: all[i].ID, Hours: "Mon-Fri 7:00-15:30"}
		for k, skill := range remaining.Skills {
			if all[i].Role != people.RoleViewer && (i+k)%3 != 0 {
				h.Skills = append(h.Skills, string(skill))
			}
		}
		require.NoError(b, s.server.Store.SaveHands(ctx, &h, "bench", "hours"))
	}
	families := s.jobs().Families().List()
	today := unit.DateOf(s.jobs().Now())
	for n := range 300 - 7 { // the demo's own are in hand too
		tag, err := s.jobs().Create(ctx, lead, job.NewJob{Customer: fmt.Sprintf("Customer %d", n%40),
			Title: fmt.Sprintf("Unit %d", n), Family: families[n%len(families)].Code})
		require.NoError(b, err)
		_, err = s.jobs().Set(ctx, lead, tag, job.Edit{Field: "job/promised_on", Value: string(today.Add(5 + n%90))})
		require.NoError(b, err)
	}
}

// 300 jobs, eight people, two stands: the first plan is to come in under 2 s, one after a change in under 300 ms, and
// its page in under 100 ms.
func BenchmarkPlanPage(b *testing.B) {
	s := serve(b)
	busy(b, s)
	now := s.jobs().Now // yesterday began with a plan, as every day does
	s.jobs().Now = func() time.Time { return now().AddDate(0, 0, -1) }
	began := time.Now()
	require.NoError(b, planning.New(s.jobs()).KeepDay(context.Background()))
	b.Logf("the first plan of all, with its jobs read: %s", time.Since(began))
	s.jobs().Now = now
	br := s.as("odd")
	look := func(b *testing.B) {
		res, body := br.get("/plan?site=all")
		require.Equal(b, http.StatusOK, res.StatusCode, body)
	}
	b.Run("first", func(b *testing.B) { // with the work of 300 jobs read
		for b.Loop() {
			look(b)
		}
	})
	b.Run("again", func(b *testing.B) {
		for b.Loop() {
			look(b)
		}
	})
	b.Run("changed", func(b *testing.B) {
		tags, _, err := s.server.Store.InHandTags(context.Background(), 500)
		require.NoError(b, err)
		tag, n := tags[slices.Index(tags, "T-0417")+20], 0
		for b.Loop() {
			n++
			res, body := br.post("/jobs/"+tag+"/set", url.Values{"field": {"job/downtime_cost"},
				"value": {fmt.Sprint(100 + n)}, "base": {baseOf(n)}})
			require.Equal(b, http.StatusOK, res.StatusCode, body)
			look(b)
		}
	})
}

func baseOf(n int) string {
	if n == 1 {
		return ""
	}
	return fmt.Sprint(99 + n)
}
