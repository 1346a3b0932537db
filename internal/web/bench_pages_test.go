package web

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func (b *browser) state(tag string, unit int) *job.State {
	b.site.t.Helper()
	st, err := b.site.server.jobs.Load(context.Background(), tag, unit)
	require.NoError(b.site.t, err)
	return st
}

func (b *browser) set(tag, field, value, base string) (*http.Response, string) {
	return b.post("/jobs/"+tag+"/set", url.Values{"field": {field}, "value": {value}, "base": {base}})
}

// A family that cannot be read is refused with its line, and what was typed is
// still in the page; a good one holds at once.
func TestLibraryRefusesWithTheLine(t *testing.T) {
	s := serve(t)
	lead := s.as("odd")
	_, page := lead.get("/library/check_valve")
	require.Contains(t, page, "code: check_valve")
	text, err := s.server.jobs.FamilyText(context.Background(), "check_valve")
	require.NoError(t, err)
	broken := strings.Replace(text, "parts:", "partz:", 1)
	res, body := lead.post("/library/check_valve", url.Values{"text": {broken}, "reason": {"a try"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "check_valve.yaml")
	assert.Contains(t, body, "line")
	assert.Contains(t, body, "partz:", "nothing typed is lost")
	assert.Contains(t, body, `value="a try"`)
	res, _ = lead.post("/library/check_valve", url.Values{"text": {strings.Replace(text, "name: Check valve",
		"name: Check valve of ours", 1)}, "reason": {"ours"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = lead.get("/library")
	assert.Contains(t, page, "Check valve of ours")
	res, _ = lead.post("/library/new_thing", url.Values{"text": {text}, "reason": {"x"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode,
		"the code in the text must be the code it is kept under")
	res, _ = lead.get("/library/no_such_family")
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
}

func TestInstrumentsTellWhatIsWrong(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	for _, c := range []struct{ name, kind, res, due, says string }{
		{"", "calipers", "0.02 mm", "", "say which one"},
		{"calipers 9", "", "0.02 mm", "", "say what it is"},
		{"calipers 9", "calipers", "0.02 bar", "", "mm"},
		{"calipers 9", "calipers", "0.02 mm", "next week", "date like"},
	} {
		res, body := b.post("/instruments", url.Values{"name": {c.name}, "kind": {c.kind}, "resolution": {c.res},
			"due_on": {c.due}})
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, c.says)
		assert.Contains(t, body, c.says)
		assert.Contains(t, body, `value="`+c.res+`"`, "nothing typed is lost")
	}
	res, _ := b.post("/instruments", url.Values{"name": {"calipers 9"}, "kind": {"calipers"},
		"resolution": {"0.01 mm"}, "due_on": {"2020-01-01"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page := b.get("/instruments")
	assert.Contains(t, page, "calipers 9")
	assert.Contains(t, page, "overdue")
}

func TestReceiveFacesAndToteTag(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/jobs/T-0426/receive?face=gauges")
	assert.Contains(t, page, "AT THE UNIT")
	_, page = b.get("/jobs/T-0426/receive?face=variant")
	assert.Contains(t, page, "Five friction plates")
	assert.Contains(t, page, "model number ends 5")
	_, page = b.get("/jobs/T-0426/receive?face=fluid")
	assert.Contains(t, page, "BALANCED")
	_, page = b.get("/jobs/T-0426/tag")
	assert.Contains(t, page, "data:image/png;base64,")
	assert.Contains(t, page, "/jobs/T-0426", "the address the code opens")

	// Another unit and a second account.
	res, body := b.post("/jobs/T-0426/receive/unit", url.Values{"family": {"check_valve"}, "name": {"Holding valve"}})
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	assert.Contains(t, body, "unit=3")
	_, page = b.get("/jobs/T-0426/receive?unit=3")
	assert.Contains(t, page, "Holding valve")
	assert.Equal(t, 3, strings.Count(page, `aria-label="units of this job"`)+strings.Count(page,
		`title="Brake and clutch pack"`)+strings.Count(page, `title="Winch motor"`))
	res, body = b.post("/jobs/T-0426/receive/unit", url.Values{"family": {"dragon"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, `"field":"family"`)
	res, body = b.post("/jobs/T-0426/receive/account", url.Values{"teller": {"Deckhand"}, "words": {""}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, `"field":"words"`)
}

func TestPartsAreFoundByTyping(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	for asked, want := range map[string]string{"11": "Front needles", "rear_plate": "Rear side plate",
		"rear side": "Rear side plate", "spring relief": "Relief spring", "DOWEL": "Dowel pins"} {
		_, page := b.get("/jobs/T-0417/strip?find=" + url.QueryEscape(asked))
		assert.Regexp(t, `<h2><span>\d+</span> `+want, page, asked)
	}
	_, page := b.get("/jobs/T-0417/strip?find=flux+capacitor")
	assert.Contains(t, page, "no part of this unit is called “flux capacitor”")
	res, body := b.post("/jobs/T-0417/strip/part", url.Values{"name": {"Odd ring"}, "kind": {"spacer"},
		"count": {"two"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, `"field":"count"`)
}

func TestTimerShowsOnTheRack(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	res, body := b.set("T-0412", "job/timer_until", "90 min", "")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page := b.get("/rack")
	assert.Contains(t, page, "ready in 1 h 29 min")
	res, _ = b.set("T-0412", "job/timer_until", "3 bar", "")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	_, _ = b.set("T-0412", "job/timer_until", "0", "")
	_, page = b.get("/rack")
	assert.NotContains(t, page, "ready in 1 h")
}

func TestFiguresArePutOnAJob(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	res, body := b.post("/toolbox/creep_leak/put", url.Values{"bore": {"80 mm"}, "creep": {"12 mm"},
		"duration": {"10 min"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, `"field":"job"`)
	form := url.Values{"bore": {"80 mm"}, "creep": {"12 mm"}, "duration": {"10 min"}, "to_job": {"T-0412"},
		"note": {"over one watch"}}
	res, body = b.post("/toolbox/creep_leak/put", form)
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	for _, path := range []string{"/jobs/T-0412/record", "/jobs/T-0412/handover", "/jobs/T-0412/report"} {
		_, page := b.get(path)
		assert.Contains(t, page, "over one watch", path)
	}
	res, _ = s.as("tove").post("/toolbox/creep_leak/put", form)
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
}

// The paper for a dispute says who opened the unit, what was made by the bench
// and left out, and what was not photographed; it takes no side.
func TestDisputePaper(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	st := b.state("T-0421", 1)
	_, page := b.get("/jobs/T-0421/dispute")
	assert.Contains(t, page, "not opened in this record")
	ev := func(name, code string) string { return "u1/evidence/" + code + "/" + name }
	for _, set := range [][3]string{{ev("state", "ball_stuck"), "seen", ""},
		{ev("state", "plunger_scored"), "seen", ""}, {ev("origin", "plunger_scored"), "made_by_us", "found_so"},
		{ev("state", "moisture"), "absent", ""}, {ev("state", "seat_marked"), "seen", ""},
		{ev("origin", "seat_marked"), "unknown", "found_so"}} {
		res, body := b.set("T-0421", set[0], set[1], set[2])
		require.Equal(t, http.StatusOK, res.StatusCode, body)
	}
	if st.Job.WarrantyHold {
		res, body := b.set("T-0421", "job/warranty_hold", "", "yes")
		require.Equal(t, http.StatusOK, res.StatusCode, body)
	}
	res, body := b.set("T-0421", fmt.Sprintf("u1/part/%s/off", st.Parts[0].Code), "yes", "")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page = b.get("/jobs/T-0421/dispute")
	text := plain(page)
	assert.Regexp(t, `Opened by Iva Brask, \d+`, text)
	assert.Contains(t, text, "Made at this bench, and left out of the reasoning: Plunger scored")
	assert.Contains(t, text, "Of unknown origin, and counted for less: Check seat marked or wide")
	assert.Contains(t, text, "Looked for and not found: Water or rust in the air part")
	assert.Contains(t, page, "opened: a part taken off")
	for _, word := range []string{"blame", "fault of", "guilty", "lie"} {
		assert.NotContains(t, strings.ToLower(page), word+" ")
	}
}
