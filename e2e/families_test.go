package e2e

import (
	"context"
	"fmt"
	"testing"

	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every family, as a new user meets it: a new job, stripped in one tap, its line
// drawn whole and its Measure sheet ready for the first reading.
func TestEveryFamilyInTheBrowser(t *testing.T) {
	t.Parallel() // it types nothing, so it needs no focus of its own
	s := serve(t)
	u := enter(t, s, "iva", true)
	ctx, iva := context.Background(), job.Actor{Name: "Iva Brask", Role: job.RoleTechnician}
	for i, f := range s.jobs.Families().List() {
		tag, err := s.jobs.Create(ctx, iva, job.NewJob{Customer: "Somebody", Title: f.Name, Complaint: "weak",
			Family: f.Code})
		require.NoError(t, err)
		s.nobodyToAsk(t, tag)
		if i == 0 { // the tap is the same for all
			u.open("/jobs/" + tag + "/strip")
			u.press(u.MustElementR("button", "The rest came off"))
			u.MustWait(`(n) => window.corvek.idle() && document.querySelector(".big-n").innerText === n`,
				fmt.Sprint(len(f.Parts)))
		} else {
			require.NoError(t, s.jobs.TakeOffRest(ctx, iva, tag, 1))
		}
		u.open("/jobs/" + tag + "/measure")
		assert.Len(t, u.MustElements(".line a[data-part]"), len(f.Parts), f.Code)
		assert.NotEmpty(t, u.MustElements("main .leaf, main .gtile, main input[data-field*=\"/found/\"]"),
			"%s: nothing to enter", f.Code)
		wide := u.MustEval(`() => document.documentElement.scrollWidth - innerWidth`).Int()
		assert.LessOrEqual(t, wide, 0, "%s is wider than the screen", f.Code)
	}
	u.quiet()
}
