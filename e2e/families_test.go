package e2e

import (
	"context"
	"fmt"
	"os"
	"testing"

	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every family, as a new user meets it: a new job, stripped in one tap, its line
// drawn whole and its Measure sheet ready for the first reading. Every fourth of them, and all where
// CORVEK_EVERY is set.
func TestEveryFamilyInTheBrowser(t *testing.T) {
	whole.Only(t)
	t.Parallel() // it types nothing, so it needs no focus of its own
	s := serve(t)
	u := enter(t, s, "iva", true)
	ctx, iva := context.Background(), people.Actor{Name: "Iva Brask", Role: people.RoleTechnician}
	for i, f := range s.jobs.Families().List() {
		if i%4 > 0 && os.Getenv("CORVEK_EVERY") == "" {
			continue
		}
		tag, err := s.jobs.Create(ctx, iva, job.NewJob{Customer: "Somebody", Title: f.Name, Complaint: "weak",
			Family: f.Code})
		require.NoError(t, err)
		s.nobodyToAsk(t, tag)
		if i == 0 { // the tap is the same for all
			u.open("/jobs/" + tag + "/strip")
			u.press(u.MustElementR("button", "The rest came off"))
			u.MustWait(`(n) => Alpine.store("sent").idle() && document.querySelector(".big-n").innerText === n`,
				fmt.Sprint(len(f.Parts)))
		} else {
			require.NoError(t, s.jobs.TakeOffRest(ctx, iva, tag, 1))
		}
		u.open("/jobs/" + tag + "/measure")
		assert.Len(t, u.MustElements(".line a[data-part]"), len(f.Parts), f.Code)
		assert.NotEmpty(t, u.MustElements("main .leaf, main .gtile, main input[data-field*=\"/found/\"]"),
			"%s: nothing to enter", f.Code)
		pages := []string{""}
		switch f.Code { // those whose builds differ most are looked at on the way back too
		case "winch_brake_pack", "intensifier_ram", "gas_booster", "cam_piston_pump", "directional_spool_valve":
			pages = append(pages, "decide", "decide?face=offers", "kit", "build")
		}
		for _, page := range pages {
			if page != "" {
				u.open("/jobs/" + tag + "/" + page)
			}
			wide := u.MustEval(`() => document.documentElement.scrollWidth - innerWidth`).Int()
			assert.LessOrEqual(t, wide, 0, "%s %s is wider than the screen", f.Code, page)
		}
	}
	u.quiet()
}
