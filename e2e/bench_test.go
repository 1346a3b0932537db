package e2e

import (
	"context"
	"fmt"
	"testing"
	"time"

	"corvek/internal/job"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func (u *user) offline(on bool) {
	u.t.Helper()
	require.NoError(u.t, proto.NetworkEmulateNetworkConditions{Offline: on, DownloadThroughput: -1,
		UploadThroughput: -1}.Call(u))
}

// The connection drops in the middle of a sheet: readings wait in the browser,
// are marked so, and are sent once when it is back.
func TestReadingsWaitWhileTheConnectionIsDown(t *testing.T) {
	u := enter(t, serve(t), "mirre", false)
	p := u.state("T-0412").ByCode["rod"]
	f := p.Features[0]
	u.open(fmt.Sprintf("/jobs/T-0412/measure?part=%s&feature=diameter", p.Code))
	field := func(slot string) string {
		return fmt.Sprintf("u1/part/%s/feature/%s/found/%s", f.Part.Code, f.Code, slot)
	}
	u.offline(true)
	u.MustElement(fmt.Sprintf(`[data-field="%s"]`, field("r1c1"))).MustEval(`() => { this.focus(); this.select(); }`)
	slots := []string{"r1c1", "r1c2", "r2c1", "r2c2"}
	for i := range slots {
		u.Keyboard.MustType(input.Backspace)
		u.MustInsertText(fmt.Sprintf("49.9%d mm", 60+i))
		u.Keyboard.MustType(input.Enter)
	}
	u.MustWait(`(n) => document.querySelectorAll("input.unsaved").length >= n`, len(slots))
	u.MustWait(`() => document.getElementById("saved").className.includes("wait")`)
	assert.NotEqual(t, "49.960 mm", u.state("T-0412").ByCode["rod"].Features[0].Entry("found", "r1c1"))

	u.offline(false)
	u.MustWait(`() => window.corvek.idle() && document.querySelectorAll("input.unsaved").length === 0`)
	got := u.state("T-0412").ByCode["rod"].Features[0]
	history, err := u.shop.jobs.Store.Record(context.Background(), "T-0412", 1000)
	require.NoError(t, err)
	sent := map[string]int{}
	for _, e := range history {
		sent[e.Field]++
	}
	for i, slot := range slots {
		assert.Equal(t, fmt.Sprintf("49.9%d mm", 60+i), got.Entry("found", slot))
		assert.Equal(t, 1, sent[field(slot)], "%s was sent %d times", slot, sent[field(slot)])
	}
}

// The stack editor by pointer: a flipped spring is seen, turned over, taken out
// and put in again; by keyboard the same piece is turned with Enter.
func TestStackEditor(t *testing.T) {
	u := enter(t, serve(t), "iva", true)
	p := u.state("T-0426").ByCode["disc_springs"]
	at := fmt.Sprintf("/jobs/T-0426/strip?part=%s", p.Code)
	u.open(at)
	u.says("dished spring at place 4 is turned over")
	piece := func(n int) string { return fmt.Sprintf(`.pieces g.pc:nth-of-type(%d)`, 2*n-1) }
	saved := func(text string) {
		t.Helper()
		u.MustWait(`() => window.corvek.idle()`)
		require.Eventually(t, func() bool { return u.state("T-0426").ByCode["disc_springs"].StackFound == text },
			time.Minute, 50*time.Millisecond, text)
	}
	u.MustElement(piece(4)).MustScrollIntoView().MustClick()
	saved(p.Stack.Def.As)
	u.MustWait(`() => !document.body.innerText.includes("turned over")`)

	u.MustElement(`.pieces g.drop[aria-label="take out 8"]`).MustClick()
	u.MustWait(`() => document.querySelectorAll(".pieces g.pc").length === 7`)
	u.MustWait(`() => document.body.innerText.includes("a dished spring is missing before place 8")`)
	u.press(u.MustElementR("button", "Dished spring ◀"))
	u.MustWait(`() => document.querySelectorAll(".pieces g.pc").length === 8`)
	saved(p.Stack.Def.As)

	u.MustElement(piece(1)).MustFocus()
	u.Keyboard.MustType(input.Enter)
	u.MustWait(`() => document.body.innerText.includes("dished spring at place 1 is turned over")`)
	u.quiet()
}

// Every family, as a new user meets it: a new job, stripped in one tap, its line
// drawn whole and its Measure sheet ready for the first reading.
func TestEveryFamilyInTheBrowser(t *testing.T) {
	t.Parallel() // it types nothing, so it needs no focus of its own
	s := serve(t)
	u := enter(t, s, "iva", true)
	for _, f := range s.jobs.Families().List() {
		tag, err := s.jobs.Create(context.Background(), job.Actor{Name: "Iva Brask", Role: job.RoleTechnician},
			job.NewJob{Customer: "Somebody", Title: f.Name, Complaint: "weak", Family: f.Code})
		require.NoError(t, err)
		u.open("/jobs/" + tag + "/strip")
		u.press(u.MustElementR("button", "The rest came off"))
		u.MustWait(`(n) => window.corvek.idle() && document.querySelector(".big-n").innerText === n`,
			fmt.Sprint(len(f.Parts)))
		u.open("/jobs/" + tag + "/measure")
		assert.Len(t, u.MustElements(".line a[data-part]"), len(f.Parts), f.Code)
		assert.NotEmpty(t, u.MustElements("main .leaf, main .gtile, main input[data-field*=\"/found/\"]"),
			"%s: nothing to enter", f.Code)
		wide := u.MustEval(`() => document.documentElement.scrollWidth - innerWidth`).Int()
		assert.LessOrEqual(t, wide, 0, "%s is wider than the screen", f.Code)
	}
	u.quiet()
}

// One family's sheets filled whole by hand, in mixed units: every figure stays
// as it was typed, and nothing is left to measure.
func TestWholeMeasureSheetInMixedUnits(t *testing.T) {
	s := serve(t)
	ctx, who := context.Background(), job.Actor{Name: "Mirre Stoll", Role: job.RoleTechnician}
	tag, err := s.jobs.Create(ctx, who, job.NewJob{Customer: "Inner Sound Ferries", Title: "Ramp clutch slave",
		Complaint: "sinks", Family: "slave_cylinder"})
	require.NoError(t, err)
	require.NoError(t, s.jobs.TakeOffRest(ctx, who, tag, 1))
	u := enter(t, s, "mirre", false)
	typed := map[string]string{}
	for _, p := range u.state(tag).Parts {
		for _, f := range p.Features {
			u.open(fmt.Sprintf("/jobs/%s/measure?part=%s&feature=%s", tag, p.Code, f.Code))
			if tiles := u.MustElements("main .gtile"); len(tiles) > 0 {
				tiles[0].MustFocus()
				u.Keyboard.MustType(input.Enter)
				u.MustWait(`() => window.corvek.idle() && document.querySelector(".gtile.on") !== null`)
				continue
			}
			for i, slot := range f.Spec.Slots() {
				figure := map[string]string{"h1": "0.8665 in", "s1": "21.970 mm"}[slot]
				if figure == "" {
					figure = []string{"22.010 mm", "0.8666 in"}[i%2]
				}
				if f.Code == "free_length" {
					figure = "2-3/8 in"
				}
				typed[f.Path()+"/"+slot] = figure
				el := u.MustElement(fmt.Sprintf(`[data-field="u1/part/%s/feature/%s/found/%s"]`, f.Part.Code,
					f.Code, slot))
				el.MustFocus()
				u.MustInsertText(figure)
				u.Keyboard.MustType(input.Enter)
			}
			u.MustWait(`() => window.corvek.idle() && document.querySelectorAll("input.unsaved").length === 0`)
		}
	}
	st := u.state(tag)
	for _, p := range st.Parts {
		for _, f := range p.Features {
			assert.True(t, f.Found.Complete, "%s %s", p.Name, f.Def.Name)
			for _, slot := range f.Spec.Slots() {
				if want, ok := typed[f.Path()+"/"+slot]; ok {
					assert.Equal(t, want, f.Entry("found", slot), "kept as typed")
				}
			}
		}
	}
	assert.Empty(t, st.Stops["measure"], "nothing is left to measure")
	u.quiet()
}
