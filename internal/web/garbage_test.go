package web

import (
	"context"
	"io"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"testing"

	"corvek/core/calc"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// nasty is what people, scripts and slips send.
var nasty = []string{
	"", " ", "0", "-1", "1", "2", "3", "9", "999999", "99999999999999999999", "NaN", "1e400", "0.5", "63 mm",
	"1/0 in", "3000 lb", "½ in", "yes", "no", "seen", "absent", "goes", "stops", "keep", "replace", "build",
	"strip",
	"T-0417", "T-0388", "T-0426", "no-such", "../../etc/passwd", "%00", "\x00", "\xff\xfe",
	"'; DROP TABLE jobs; --", "<script>alert(1)</script>", "{{.}}", `{"a":`, "☃", "a\nb\r\nc",
	strings.Repeat("x", 5000),
	"external_gear_pump", "check_valve", "axial_piston_pump", "measure", "receive", "explain", "matrix", "story",
	"gauges", "variant", "fluid", "in", "cylinder", ">><<", "rear_plate*2", "0.10 mm x2", "2031-05-14", "2026-W48",
}

var formNames = []string{
	"field", "value", "base", "unit", "part", "feature", "face", "find", "count", "name", "kind", "what", "place",
	"number", "code", "reason", "back_to", "change", "caution", "family", "customer", "title", "words", "teller",
	"after", "by", "x", "y", "note", "evidence", "text", "resolution", "due_on", "for", "to_job", "job", "theory",
	"mark", "marks",
	"with", "thumb", "sign_in", "password", "bore", "pressure", "stack", "goes", "stops", "readings", "one_change",
}

// Whatever is sent to whichever address, the answer is in words: never a fault
// of the server, and the demo's jobs can be opened afterwards.
func TestGarbageIsAnsweredInWords(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	heads := []string{
		"job", "u1", "u2", "u999999", "u-1", "picture/1", "picture/x", "u1/part/rear_plate", "u1/part/no_such",
		"u1/part/rear_plate/decision", "u1/part/rear_plate/step",
		"u1/part/rear_plate/feature/side_clearance", "u1/part/rear_plate/feature/none", "u1/evidence/fine_lines",
		"u1/evidence/none", "u1/conclusion",
		"u1/loose/1", "u1/piece/1", "u1/attempt/0", "u1/attempt/1", "u1/attempt/0/point/p100",
		"u1/attempt/0/point/none", "", "x", "//",
	}
	rest := []string{"state", "gauge/case_drain", "identity/x", "found", "facing", "note", "stuck", "stack_found",
		"speed", "displacement", "upper", "lower", "instrument", "found/leaf:7 thou", "found/r1c1",
		"found/r999c999", "hand_turn/word", "p100/flow", "cause", "done", "torque", "choice", "timer_until",
		"warranty_hold", "milky_oil", "symptom/weak_hot", "promised_on", ""}
	names := make([]string, 0, 50)
	for _, d := range calc.All() {
		names = append(names, d.Name)
	}
	rapid.Check(t, func(t *rapid.T) {
		routes := s.server.routes()
		r := routes[rapid.IntRange(0, len(routes)-1).Draw(t, "route")]
		word := func(label string) string { return rapid.SampledFrom(nasty).Draw(t, label) }
		path := r.Path
		for _, p := range []struct {
			param  string
			likely []string
		}{{":tag", []string{"T-0417", "T-0388", "T-0426"}}, {":name", names},
			{":code", []string{"check_valve", "vane_pump"}},
			{":station", []string{"receive", "strip", "measure", "explain", "decide", "kit", "build", "prove",
				"handover"}}, {":number", []string{"1", "2"}}} {
			value := rapid.SampledFrom(p.likely).Draw(t, p.param)
			if rapid.IntRange(0, 9).Draw(t, "odd "+p.param) == 0 {
				value = word(p.param)
			}
			path = strings.Replace(path, p.param, url.PathEscape(value), 1)
		}
		form := url.Values{}
		for range rapid.IntRange(0, 6).Draw(t, "fields") {
			form.Set(rapid.SampledFrom(formNames).Draw(t, "name"), word("value"))
		}
		if rapid.Bool().Draw(t, "a field of the record") {
			form.Set("field", rapid.SampledFrom(heads).Draw(t, "head")+"/"+rapid.SampledFrom(rest).Draw(t, "rest"))
		}
		if rapid.Bool().Draw(t, "unit") {
			form.Set("unit", strconv.Itoa(rapid.IntRange(-1, 4).Draw(t, "unit number")))
		}
		if path == "/sign-out" || path == "/sign-in" {
			return // the tester stays
		}
		var res *http.Response
		var err error
		switch {
		case r.Method == http.MethodGet:
			res, err = b.Get(s.URL + path + "?" + form.Encode())
		case strings.HasPrefix(path, "/api/"):
			res, err = b.Post(s.URL+path, "application/json", strings.NewReader(word("body")))
		default:
			form.Set("csrf", b.csrf)
			res, err = b.PostForm(s.URL+path, form)
		}
		if err != nil {
			t.Fatalf("%s %s: %v", r.Method, path, err)
		}
		defer res.Body.Close()
		if strings.HasPrefix(res.Header.Get("Content-Type"), "text/event-stream") {
			return // goes on for as long as its reader stays
		}
		body, _ := io.ReadAll(res.Body)
		if res.StatusCode >= 500 {
			t.Fatalf("%s %s %v: %d\n%.600s", r.Method, path, form, res.StatusCode, body)
		}
		if res.StatusCode >= 400 && len(strings.TrimSpace(string(body))) == 0 {
			t.Fatalf("%s %s %v: %d without a word", r.Method, path, form, res.StatusCode)
		}
	})
	for _, tag := range []string{"T-0388", "T-0417", "T-0426"} {
		_, err := s.server.Jobs.Load(context.Background(), tag, 1)
		require.NoError(t, err, tag)
	}
}
