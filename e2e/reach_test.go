package e2e

import (
	"testing"

	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// screens are the bench's screen, an upright tablet and a phone.
var screens = [][2]int{{1280, 800}, {800, 1280}, {390, 844}}

// stationPages are the stations of the demo's press pump.
func stationPages() (out []string) {
	for _, station := range []string{"receive", "strip", "measure", "explain", "decide", "kit", "build", "prove",
		"handover"} {
		out = append(out, "/jobs/T-0417/"+station)
	}
	return out
}

// A phone shows every digit of a reading, the last one too.
func TestPhoneShowsEveryDigit(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	u.MustSetViewport(360, 740, 1, false)
	for _, page := range []string{"/jobs/T-0412/measure?part=tube&feature=bore", "/jobs/T-0417/measure?part=body",
		"/jobs/T-0417/measure?part=drive_gear", "/jobs/T-0388/prove", "/jobs/T-0417/receive"} {
		u.open(page)
		cut := u.MustEval(`() => [...document.querySelectorAll("input[data-field]")]
			.filter((x) => x.dataset.kind === "quantity" && x.value)
			.filter((x) => x.scrollWidth > x.clientWidth).map((x) => x.dataset.field + " " + x.value).join("\n")`).Str()
		assert.Empty(t, cut, page)
		assert.LessOrEqual(t, u.MustEval(`() => document.documentElement.scrollWidth`).Int(), 360, page)
	}
}

// tabsTo goes on by the Tab key until a condition holds, at most so many times.
func (u *user) tabsTo(most int, condition string) {
	u.t.Helper()
	u.ready()
	for range most {
		u.Keyboard.MustType(input.Tab)
		if u.MustEval(condition).Bool() {
			return
		}
	}
	assert.Fail(u.t, "out of reach", "not in %d Tab keys: %s; at %s", most, condition,
		u.MustEval(`() => document.activeElement.outerHTML.slice(0, 200)`).Str())
}

// The figures that decide are in view on the bench's screen without scrolling.
func TestWhatDecidesIsInView(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	u.MustSetViewport(1280, 800, 1, false)
	for page, what := range map[string]string{
		"/jobs/T-0412/measure?part=tube&feature=bore": ".verdict, .cells input, svg.tol",
		"/jobs/T-0417/measure?part=rear_plate":        ".verdict, .leaf, svg.tol",
		// No cause is named yet: what to look at comes first. Once one is, the conclusion does.
		"/jobs/T-0417/explain": "article:first-child .ca-p, #next li:first-child button",
		"/jobs/T-0405/explain": `article:first-child .ca-p, [data-field$="conclusion/action"]`,
		"/jobs/T-0417/decide":  ".decide > .sel, .column h2:first-child + .big-n",
		"/jobs/T-0388/prove":   "h2, .points tr:first-child input",
		"/jobs/T-0417/strip":   ".count-e b, .count-f input, .button.is-primary",
	} {
		u.open(page)
		hidden := u.MustEval(`(what) => {
			const shown = (x) => {
				const box = x.getBoundingClientRect();
				const sheet = (x.closest(".sheet") || document.body).getBoundingClientRect();
				return box.top >= sheet.top && box.bottom <= Math.min(sheet.bottom, innerHeight) + 1;
			};
			return [...document.querySelectorAll(what)].filter((x) => x.checkVisibility() && !shown(x))
				.map((x) => x.outerHTML.slice(0, 120)).join("\n");
		}`, what).Str()
		assert.Empty(t, hidden, page)
	}
	u.open("/jobs/T-0417/decide")
	rows := u.MustEval(`() => [...document.querySelectorAll(".decide > li")].filter((x) =>
		x.getBoundingClientRect().bottom <= x.closest(".sheet").getBoundingClientRect().bottom).length`).Int()
	assert.GreaterOrEqual(t, rows, 10, "parts in view at Decide")
}

// Tabs are tabs: one of them is selected and names its panel, an arrow goes on to
// the next, and Enter turns it up.
func TestTabsAreTabs(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	for page, second := range map[string]string{"/jobs/T-0417/explain": "Marks against causes",
		"/jobs/T-0417/receive": "Gauges first", "/jobs/T-0417/measure?part=rear_plate": "Side clearance by depth"} {
		u.open(page)
		chosen := `() => document.querySelector('[role=tab][aria-selected=true]').textContent.trim()`
		named := `() => document.getElementById(document.querySelector("[role=tabpanel]")
			.getAttribute("aria-labelledby")).textContent.trim()`
		first := u.MustEval(chosen).Str()
		assert.Equal(t, first, u.MustEval(named).Str(), page)
		u.MustElement(`[role=tab][aria-selected=true]`).MustFocus()
		u.Keyboard.MustType(input.ArrowRight)
		assert.Equal(t, second, u.MustEval(`() => document.activeElement.textContent.trim()`).Str(), page)
		turned := u.MustWaitNavigation()
		u.Keyboard.MustType(input.Enter)
		turned()
		assert.Equal(t, second, u.MustEval(chosen).Str(), page)
		assert.Equal(t, second, u.MustEval(named).Str(), page)
	}
}

// A label beside a long figure keeps its words whole.
func TestLabelsBesideStatedFigures(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	u.open("/toolbox/intensifier?drive_bore=71.12+mm&drive_pressure=6+bar&plunger_diameter=6.4+mm&stroke=50+mm" +
		"&stated=output_pressure+%3D+700+bar,+volume_per_stroke+%3D+3+cc")
	least := u.MustEval(`() => Math.min(...[...document.querySelectorAll(".results th")].map((x) => x.clientWidth))`)
	assert.GreaterOrEqual(t, least.Int(), 100)
}

// A first job is led by the foot: what it says next is tapped, and the hand is on what does it.
func TestTheFootLeadsAFirstJob(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "iva", false)
	u.open("/jobs/new")
	u.MustElement("#customer").MustInput("Hallen Sawmill")
	u.MustElement("#title").MustInput("Edger feed pump")
	u.MustElement("input[value=external_gear_pump]").MustEval(`() => { this.checked = true; }`)
	u.press(u.MustElementR("button", "Open the job"))
	u.MustWait(`() => location.pathname.endsWith("/receive") && document.readyState === "complete"`)
	tag := u.MustEval(`() => document.body.dataset.tag`).Str()
	led := func(words, on string) {
		t.Helper()
		u.ready()
		foot := u.MustElement("[data-next-stop]")
		assert.Contains(t, foot.MustText(), words)
		u.press(foot)
		u.MustWait(`(on) => document.activeElement.matches(on)`, on)
	}
	for _, step := range [][3]string{
		{"write down what is wrong with it", `[data-field="job/complaint"]`, "weak when hot"},
		{"write down its displacement", `[data-field="u1/displacement"]`, "32 cc/rev"},
		{"write down its speed", `[data-field="u1/speed"]`, "1450 rpm"},
		{"write down its duty pressure", `[data-field="u1/duty_pressure"]`, "175 bar"},
	} {
		led(step[0], step[1])
		u.MustInsertText(step[2])
		u.Keyboard.MustType(input.Tab)
		u.ready()
	}
	led("enter the figures it came with", ".points button, .points input")
	u.open("/jobs/" + tag + "/strip")
	led("read the caution: pressure may still be shut in", "#caution-stored_pressure button")
	u.Keyboard.MustType(input.Enter)
	u.MustWait(`() => Alpine.store("sent").idle() && !document.querySelector("#caution-stored_pressure button")`)
	led("ask at the machine: ", "#panel button")
	u.shop.nobodyToAsk(t, tag)
	u.open("/jobs/" + tag + "/strip")
	led("take the next part off", `#act button`)
	u.Keyboard.MustType(input.Enter)
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelector(".big-n").innerText === "1"`)
	u.open("/jobs/" + tag + "/measure")
	led("measure front side plate: face by touch", "#panel button")
	u.open("/jobs/" + tag + "/explain")
	led("look at what comes next, or name the root cause", "#conclusion button, #conclusion textarea")
	u.open("/jobs/" + tag + "/kit")
	led("say what came for retaining ring", "#place-seal_ring button")
	u.quiet()
}
