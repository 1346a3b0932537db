package e2e

import (
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/invented"
	"corvek/core/unit"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// fromNothing are units that no family was drawn after: a small pump in inch with 1/2-13 bolts, a cylinder of 320 mm
// bore, a brake with its own plates and springs.
var fromNothing = []struct {
	family, model string
	sizes         invented.Sizes
}{
	{"winch_brake_pack", "B 9", invented.Sizes{}},
	{"external_gear_pump", "HS 12", invented.Sizes{Scale: 0.9525, Inch: true}}, // a journal of 0.750 in
	{"double_acting_cylinder", "Z 320", invented.Sizes{Scale: 4}},
	{"axial_piston_pump", "AP 45", invented.Sizes{}},
	{"cam_piston_pump", "LP 4", invented.Sizes{}},
}

// Each goes from nothing to Hand over on its pages, no figure refused, and then the second one of its model from its
// sheet. The acts of both are counted and told. The brake with ./check, all where CORVEK_EVERY is set, by thumb where
// CORVEK_THUMB is.
func TestUnitsOfOwnSizesFromNothing(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	for i, kind := range fromNothing {
		if i > 0 && os.Getenv("CORVEK_EVERY") == "" {
			continue
		}
		t.Run(kind.family, func(t *testing.T) {
			t.Parallel()
			s := serve(t)
			u := enter(t, s, "iva", os.Getenv("CORVEK_THUMB") != "")
			first := u.throughOwn(kind.family, kind.model, kind.sizes)
			bare, all := u.bareLines(first.tag)
			t.Logf("%s: %d lines of the record, %d of them say only off or fitted", kind.family, all, bare)
			assert.LessOrEqual(t, 3*bare, all, "at most a third of the record says nothing of its own")
			u.open("/jobs/" + first.tag + "/sheet")
			u.press(u.MustElementR("button", "Keep"))
			u.ready()
			second := u.throughOwn(kind.family, strings.ToLower(kind.model), kind.sizes)
			t.Logf("%s: %d acts, of them %d of its form and sizes; the second one %d, of them %d", kind.family,
				first.acts, first.own, second.acts, second.own)
			assert.LessOrEqual(t, 3*second.own, first.own, "form and sizes are the sheet's")
			u.quiet()
		})
	}
}

// through is a unit that went to Hand over: its job, the acts it took, and those of its form and sizes.
type through struct {
	tag       string
	acts, own int
}

func (u *user) throughOwn(family, model string, sizes invented.Sizes) through {
	u.t.Helper()
	before := u.acts
	u.open("/jobs/new")
	u.typeInto(u.MustElement("#customer"), "Hallen Sawmill")
	u.typeInto(u.MustElement("#title"), model)
	u.MustElement(`input[value=` + family + `]`).MustEval(`() => this.focus()`)
	u.acts++
	u.Keyboard.MustType(' ')
	u.typeInto(u.MustElement("#complaint"), "weak")
	for name, text := range map[string]string{"maker": "Nordvik", "model": model} {
		if fields := u.MustElements("#" + name); len(fields) > 0 {
			u.typeInto(fields[0], text)
		}
	}
	u.press(u.MustElementR("button", "Open the job"))
	u.MustWait(`() => location.pathname.endsWith("/receive") && document.readyState === "complete"`)
	tag := strings.Split(u.MustInfo().URL, "/")[4]
	own := u.acts
	u.told(tag, []jobtest.Typed{{Field: "u1/maker", Text: "Nordvik"}, {Field: "u1/model", Text: model}})
	if len(u.state(tag).Family.Gauge) > 0 {
		u.open("/jobs/" + tag + "/receive?face=gauges")
		u.tap("u1/not_asked", "came in without its machine")
	}
	if u.state(tag).Family.Action == "pump" {
		u.open("/jobs/" + tag + "/receive")
		u.tap("u1/rotation", "right")
	}
	var needs []jobtest.Typed
	turns := u.state(tag).Family.Action == "pump" || u.state(tag).Family.Action == "motor"
	for name, text := range invented.Needs {
		if !turns && (name == "displacement" || name == "speed") {
			continue // a cylinder has neither, and no page asks
		}
		needs = append(needs, jobtest.Typed{Field: "u1/" + name, Text: text})
	}
	slices.SortFunc(needs, func(a, b jobtest.Typed) int { return strings.Compare(a.Field, b.Field) })
	u.told(tag, needs)
	forms := u.acts - own
	u.received(tag)

	u.runDown(tag, "strip")
	own = u.acts
	u.told(tag, jobtest.SizesTyped(u.state(tag), sizes))
	forms += u.acts - own
	u.told(tag, jobtest.FoundTyped(u.state(tag)))
	u.open("/jobs/" + tag + "/explain")
	u.tap("u1/conclusion/cause", "not_found")
	u.told(tag, []jobtest.Typed{{Field: "u1/conclusion/statement", Text: "Looked for and not found."}})
	u.settle(tag)
	u.kitting(tag)
	u.joints(tag)
	u.runDown(tag, "build")
	u.filled(tag)
	u.told(tag, jobtest.AgainTyped(u.state(tag)))
	require.Zero(u.t, u.state(tag).Open("build"), "%v", u.state(tag).Stops["build"])
	u.proved(tag)
	lead := people.Actor{Name: "Odd Renfeld", Role: people.RoleLead}
	require.NoError(u.t, u.shop.jobs.SignOff(u.Page.GetContext(), lead, tag, 1))
	u.open("/jobs/" + tag + "/handover")
	u.fill("job/collected_by", "Per Tveit")
	u.press(u.MustElementR("button", "^Hand over$"))
	u.MustWait(`() => [...document.querySelectorAll(".verdict")].some(v => v.innerText.includes("DONE"))`)
	return through{tag, u.acts - before, forms}
}

// received says of the unit as it came what the first step that asks for words asks.
func (u *user) received(tag string) {
	u.t.Helper()
	for _, step := range u.state(tag).Family.Tests {
		if !step.Received || len(step.Good) == 0 {
			continue
		}
		u.open("/jobs/" + tag + "/receive")
		u.tap("u1/attempt/0/point/"+step.Code+"/word", step.Good[0])
		return
	}
	u.t.Fatal("nothing is asked of the unit as it came")
}

// cautions reads each caution that stands on the page.
func (u *user) cautions() {
	u.t.Helper()
	for {
		u.ready()
		left := u.MustElements(".caution form button")
		if len(left) == 0 {
			return
		}
		u.press(left[0])
		u.MustWait(`(n) => document.querySelectorAll(".caution form button").length < n`, len(left))
	}
}

// told types or taps values where their fields stand, and leaves alone what stands there already.
func (u *user) told(tag string, values []jobtest.Typed) {
	u.t.Helper()
	at := ""
	for _, v := range values {
		if part, is := strings.CutSuffix(v.Field, "/found"); is &&
			u.state(tag).ByCode[part[len("u1/part/"):]].Found == v.Text {
			continue // counted as it came off
		}
		for _, page := range pagesOf(u.state(tag), tag, v.Field) {
			if page != at {
				u.open(page)
				at = page
			}
			if u.MustEval(`(f) => document.querySelector('[data-field="' + f + '"], [data-set="' + f + '"]') === null &&
				document.getElementById(f.replaceAll(" ", "_")) === null`, v.Field).
				Bool() {
				continue
			}
			break
		}
		if u.stands(v.Field) {
			continue
		}
		switch slot := v.Field[strings.LastIndex(v.Field, "/")+1:]; {
		case strings.HasPrefix(slot, "leaf:"):
			u.leaf(v.Field, v.Text)
		case len(u.MustElements(fmt.Sprintf(`[data-set=%q][data-value=%q]`, v.Field, v.Text))) > 0:
			u.unfoldSet(v)
			u.tap(v.Field, v.Text)
		case len(u.MustElements(fmt.Sprintf(`[data-field=%q]`, v.Field))) > 0:
			u.unfold(v.Field)
			u.fill(v.Field, v.Text)
		default:
			if !strings.HasPrefix(v.Field, "u1/need_") && !strings.HasPrefix(v.Field, "u1/setting") {
				u.t.Errorf("no page has %s = %s", v.Field, v.Text)
			}
			at = ""
		}
	}
}

func (u *user) unfoldSet(v jobtest.Typed) {
	shut := fmt.Sprintf(`details:not([open]):has([data-set=%q]) > summary`, v.Field)
	if folds := u.MustElements(shut); len(folds) > 0 {
		u.press(folds[0])
		u.ready()
	}
}

// stands reports that something stands in a field already.
func (u *user) stands(field string) bool {
	return u.MustEval(`(f) => [...document.querySelectorAll('[data-field="' + f + '"], [data-set="' + f + '"]')]
		.some((x) => x.dataset.base)`, field).Bool()
}

// pagesOf are the pages on which a field may stand, the likely one first.
func pagesOf(st *bench.State, tag, field string) (out []string) {
	words := strings.Split(field, "/")
	job := "/jobs/" + tag + "/"
	switch {
	case words[1] == "conclusion":
		return []string{job + "explain"}
	case words[1] != "part":
		for _, face := range []string{"", "?face=needs", "?face=fluid", "?face=variant", "?face=gauges"} {
			out = append(out, job+"receive"+face)
		}
		return out
	}
	part := "?part=" + words[2]
	if len(words) > 4 && words[3] == "feature" {
		part += "&feature=" + words[4]
		if words[5] == unit.StageBuilt {
			return []string{job + "build?part=" + words[2]}
		}
		return []string{job + "measure" + part}
	}
	for _, station := range []string{"strip", "measure", "build", "decide"} {
		out = append(out, job+station+part)
	}
	return out
}
