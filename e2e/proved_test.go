package e2e

import (
	"fmt"
	"maps"
	"os"
	"slices"
	"testing"
	"time"

	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/require"
)

// provedKinds are kinds of unit whose tests differ most; the gear pump goes through all nine stations.
var provedKinds = []string{"relief_valve", "double_acting_cylinder", "winch_brake_pack", "injector_lubricator",
	"axial_piston_motor", "flow_divider"}

// An honest full test, each hold run and each figure typed on the page, is PROVED with nothing waived. One
// kind with ./check, all of them where CORVEK_EVERY is set.
func TestAnHonestTestIsProvedOnThePage(t *testing.T) {
	kinds := provedKinds
	if os.Getenv("CORVEK_EVERY") == "" {
		kinds = kinds[:1]
	}
	s := serve(t)
	u := enter(t, s, "iva", false)
	for _, code := range kinds {
		tag := jobtest.Built(t, s.jobs, code)
		u.proved(tag)
	}
	u.quiet()
}

// proved takes a unit that is ready for it through one honest test, to PROVED with nothing waived.
func (u *user) proved(tag string) {
	u.t.Helper()
	u.open("/jobs/" + tag + "/prove")
	u.cautions()
	u.press(u.MustElementR("button", "Start attempt 1"))
	u.MustElementR("h2", "Attempt 1")
	u.honest(tag)
	u.press(u.MustElementR("button", "Close the attempt"))
	u.MustElementR(".verdict", "PASSED")
	u.MustElementR(".standing", "PROVED")
	st := u.state(tag)
	claim, missing := st.Claim()
	require.Equal(u.t, proof.Proved, claim, "%s: %v", st.Family.Code, missing)
	require.Empty(u.t, st.Job.Waivers, st.Family.Code)
}

// honest runs the open attempt: what it is run on and read with, the limits that nobody gives, then step
// by step its hold and its figures. A setting comes first: the highest that a unit sees follows from it.
func (u *user) honest(tag string) {
	u.t.Helper()
	at := func(name string) string { return "u1/attempt/1/" + name }
	told := jobtest.StandToday
	for _, name := range slices.Sorted(maps.Keys(told)) {
		if len(u.MustElements(fmt.Sprintf(`[data-field=%q]`, at(name)))) == 0 {
			continue // grease is not asked how clean it is
		}
		u.unfold(at(name))
		u.fill(at(name), told[name])
	}
	now := time.Now() // the shop's clock moves on from it with the holds
	if at := u.shop.clock.Load(); at != nil {
		now = *at
	}
	st := u.state(tag)
	for _, settings := range []bool{true, false} {
		for _, step := range st.Plan() {
			if step.Skipped != "" || step.Judges("setting") != settings {
				continue
			}
			for _, l := range jobtest.LimitsOf(u.t, st, &step.Test) {
				for name, text := range map[string]string{"least": l.Least, "most": l.Most, "source": l.Source} {
					field := fmt.Sprintf("u1/limit/%s.%s/%s", step.Code, l.Figure, name)
					u.unfold(field)
					u.fill(field, text)
				}
			}
			if hold, err := quantity.Parse(step.Hold, quantity.Time); err == nil {
				now = u.hold(tag, step.Code, time.Duration(hold.SI*float64(time.Second)), now)
			}
			reads := jobtest.Reads(u.t, u.state(tag), step.Code)
			for _, name := range slices.Sorted(maps.Keys(reads)) {
				field := at("point/" + step.Code + "/" + name)
				if name == "word" {
					u.tap(field, reads[name])
					continue
				}
				u.unfold(field)
				u.fill(field, reads[name])
			}
		}
	}
	u.ready()
}

// unfold opens the fold that a field lies in, where it lies in one that is shut.
func (u *user) unfold(field string) {
	u.t.Helper()
	u.ready()
	shut := fmt.Sprintf(`details:not([open]):has([data-field=%q]) > summary`, field)
	if folds := u.MustElements(shut); len(folds) > 0 {
		u.press(folds[0])
		u.MustWait(`(shut) => document.querySelector(shut) === null`, shut)
	}
}

// hold runs the hold of a step on the shop's clock. He looks in between, or the bench would count as
// left alone.
func (u *user) hold(tag, step string, long time.Duration, now time.Time) time.Time {
	u.t.Helper()
	u.press(u.MustElement(fmt.Sprintf(`form[action$="prove/hold"]:has([value=%q]) button`, step)))
	ends := fmt.Sprintf(`form[action$="prove/held"]:has([value=%q]) button`, step)
	u.MustElement(ends)
	for end := now.Add(long + 10*time.Second); now.Before(end); {
		now = now.Add(5 * time.Minute)
		at := now
		u.shop.clock.Store(&at)
		u.open("/jobs/" + tag + "/prove")
	}
	u.press(u.MustElement(ends))
	u.MustWait(`(ends) => document.querySelector(ends) === null`, ends)
	u.ready()
	return now
}
