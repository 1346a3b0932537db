package e2e

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"corvek/core/unit"
	"corvek/demo"
	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// look is what is looked at on a page beside what holds for all of them.
type look int

const (
	reached look = 1 << iota // the Tab key comes to the work
	large                    // what can be tapped is as large as a finger in a glove
	low                      // a low screen scrolls as a whole
	open                     // the guidelines for access hold
)

// visits are the pages a person can reach, each with what is looked at there.
func visits(t *testing.T) map[string]look {
	docs, err := demo.Documents()
	require.NoError(t, err)
	all := map[string]look{}
	add := func(what look, pages ...string) {
		for _, p := range pages {
			all[p] |= what
		}
	}
	add(reached|large|low|open, stationPages()...)
	add(reached|large|open, "/jobs", "/jobs/new")
	add(large|open, "/toolbox", "/toolbox/feeler?goes=3+thou&stops=9+thou&upper=7+thou", "/library", "/instruments",
		"/stock", "/stock?item=1", "/instruments/1", "/practice", "/practice/reading/vernier_caliper?seed=7",
		"/practice/reading/pressure_gauge?seed=7&help=1", "/practice/drill/order?seed=7", "/practice/drill/hold?seed=7",
		"/practice/lesson/look", "/practice/lesson/read",
		"/figures?measure=hours&by=family&key=external_gear_pump",
		"/shop", "/shop/letterhead", "/me", "/change", "/jobs/T-0417/pictures")
	add(reached, "/jobs/T-0412/measure?part=tube&feature=bore", "/toolbox/feeler")
	add(open, "/plan", "/plan/shop", "/plan/partners", "/jobs/T-0417/with")
	add(open, "/library/winch_brake_pack", "/library/winch_brake_pack/form", "/shop/store", "/jobs/T-0417/report",
		"/jobs/T-0388/certificate")
	add(large, "/jobs/T-0417/record", "/jobs/T-0417/receive?face=fluid", "/jobs/T-0417/receive?face=gauges",
		"/jobs/T-0417/explain?face=matrix", "/jobs/T-0412/measure", "/jobs/T-0426/strip",
		"/jobs/T-0417/measure?part=front_needles")
	add(0, "/jobs/T-0426/receive?face=gauges", "/jobs/T-0426/receive?face=variant", "/jobs/T-0426/receive?face=fluid",
		"/jobs/T-0426/receive?unit=2", "/jobs/T-0426/tag", "/jobs/T-0405/line?layer=measure",
		"/jobs/T-0417/figures")
	for _, paper := range []string{"certificate", "quote", "dispute", "build-sheet", "parts-list", "invoice",
		"delivery-note", "outside-order"} {
		add(0, "/jobs/T-0388/"+paper)
	}
	for _, d := range docs {
		for _, station := range unit.Stations {
			add(0, "/jobs/"+d.Tag()+"/"+station)
		}
		for _, paper := range []string{"report", "start-up-card", "record"} {
			add(0, "/jobs/"+d.Tag()+"/"+paper)
		}
	}
	return all
}

// Every page is visited once, and all that holds for a page is looked at there: it loads without
// an error or a request that leaves, and is no wider than the screen; and what its look says.
func TestEveryPageIsVisited(t *testing.T) {
	t.Parallel()
	const hands = 3
	all := visits(t)
	pages := whole.Every(t, 8, slices.Sorted(maps.Keys(all)))
	for hand := range hands {
		t.Run(fmt.Sprintf("hand %d", hand+1), func(t *testing.T) {
			t.Parallel()
			u := enter(t, serve(t), "odd", true)
			if hand == 0 {
				shown := u.state("T-0417").Job.Pictures[0].Number
				u.visit(fmt.Sprintf("/jobs/T-0417/pictures/%d", shown), 0)
			}
			for i := hand; i < len(pages); i += hands {
				u.visit(pages[i], all[pages[i]])
			}
			u.quiet()
		})
	}
}

func (u *user) visit(page string, looks look) {
	u.t.Helper()
	u.MustSetViewport(1280, 800, 1, false)
	u.open(page)
	wide := u.MustEval(`() => document.documentElement.scrollWidth - innerWidth`).Int()
	assert.LessOrEqual(u.t, wide, 0, "%s is wider than the screen", page)
	if looks&reached != 0 {
		u.reachesWork(page)
	}
	if looks&large != 0 {
		for _, size := range screens {
			u.MustSetViewport(size[0], size[1], 1, false)
			var found []string
			require.NoError(u.t, json.Unmarshal([]byte(u.MustEval(small).Str()), &found))
			assert.Empty(u.t, found, fmt.Sprintf("%s at %v:\n  %s", page, size, strings.Join(found, "\n  ")))
		}
	}
	if looks&low != 0 {
		for _, size := range [][2]int{{640, 400}, {844, 390}, {1280, 620}} {
			u.MustSetViewport(size[0], size[1], 1, false)
			u.scrolls(fmt.Sprintf("%s at %v", page, size))
		}
	}
	if looks&open != 0 {
		u.accessible(page)
	}
}

// reachesWork: the Tab key reaches the work in a dozen stops.
func (u *user) reachesWork(page string) {
	u.t.Helper()
	u.MustEval(`() => document.activeElement.blur()`)
	stops := 0
	for range 40 {
		u.Keyboard.MustType(input.Tab)
		stops++
		if u.MustEval(`() => !!document.activeElement.closest("main .sheet, main form, main .job")`).Bool() {
			break
		}
	}
	assert.LessOrEqual(u.t, stops, 12, page)
}

// small finds what can be tapped and is lower or narrower than a gloved finger.
// A link within a line of text is as high as its line; parts of the line stand
// as close as their drawing.
const small = `() => {
	const least = 44, found = [];
	for (const x of document.querySelectorAll("a[href], button, summary, input, select, textarea")) {
		if (x.type === "hidden" || x.closest("[hidden], dialog:not([open]), .skip, .pad")) continue;
		if (!x.checkVisibility({ visibilityProperty: true, contentVisibilityAuto: true })) continue;
		if (x.closest("p.quiet, p.note, li > small")) continue;
		const hit = x.matches("input[type=checkbox], input[type=radio]") ? x.closest("label") || x : x;
		const box = hit.getBoundingClientRect();
		if (!box.width || !box.height) continue;
		const narrow = !x.closest("svg") && box.width < least - 0.5;
		if (box.height < least - 0.5 || narrow)
			found.push((x.parentElement.className || x.parentElement.tagName) + " > " + x.tagName + "." +
				(x.getAttribute("class") || "") + " " + Math.round(box.width) + "x" +
				Math.round(box.height) + " " + x.textContent.trim().slice(0, 30));
	}
	return JSON.stringify([...new Set(found)]);
}`

// scrolls: a page at twice its size or on a phone's side scrolls as a whole, and the work takes
// what is left beside a strip of the line.
func (u *user) scrolls(where string) {
	u.t.Helper()
	got := u.MustEval(`() => {
		const line = document.querySelector(".line-box"), page = document.scrollingElement;
		const inside = [...document.querySelectorAll(".work, .sheet")].filter((x) =>
			x.scrollHeight > x.clientHeight + 1 && /auto|scroll/.test(getComputedStyle(x).overflowY));
		page.scrollTo(0, page.scrollHeight);
		const last = document.querySelector(".work").lastElementChild.getBoundingClientRect();
		const whole = page.scrollHeight <= innerHeight + 1;
		return { line: line ? line.clientHeight : 0, inside: inside.length,
			scrolls: whole || page.scrollTop > 0,
			shown: last.bottom <= document.querySelector(".foot").getBoundingClientRect().top + 1 };
	}`)
	assert.LessOrEqual(u.t, got.Get("line").Int(), 80, where)
	assert.Zero(u.t, got.Get("inside").Int(), "areas that scroll by themselves, %s", where)
	assert.True(u.t, got.Get("scrolls").Bool(), where)
	assert.True(u.t, got.Get("shown").Bool(), "the end of the work is above the foot, %s", where)
}

// accessible holds a page against the guidelines. Sizes and themes are all in the style sheets: the
// page need not come again. In the dark only contrast is another, and of that drawings tell
// nothing: most of a page need not be gone through again.
func (u *user) accessible(page string) {
	u.t.Helper()
	for _, theme := range []string{"light", "dark"} {
		if theme == "dark" {
			if strings.HasSuffix(page, "/report") || strings.HasSuffix(page, "/certificate") {
				continue // paper is white
			}
			u.MustEval(`() => document.querySelectorAll("svg").forEach((x) => x.replaceChildren())`)
		}
		for _, size := range screens {
			if theme == "dark" && size[0] == 800 {
				continue // its colours are those of the widest and the narrowest
			}
			u.MustSetViewport(size[0], size[1], 1, false)
			u.reports(page, size, theme)
		}
	}
}
