package web

import (
	"net/http"
	"net/url"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/proof"
	"corvek/core/unit"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// From every state a technician comes to PROVED by what the page shows, and nothing is waived: after a
// failed test, after one that was closed with a hold too short, and after a comeback.
func TestATechnicianAlwaysHasANextAct(t *testing.T) {
	s, clock := bareShop(t)
	iva := s.as("iva")
	state := func(tag string) *bench.State {
		st, err := s.server.Jobs.Load(t.Context(), tag, 1)
		require.NoError(t, err)
		return st
	}
	claim := func(tag string) proof.Claim { c, _ := state(tag).Claim(); return c }
	post := func(b *browser, tag, path string, form url.Values) {
		t.Helper()
		res, body := b.post("/jobs/"+tag+"/"+path, form)
		require.Equal(t, http.StatusOK, res.StatusCode, body)
	}
	// next starts an attempt by the form that the page has, with what it offers.
	next := func(tag string) {
		t.Helper()
		_, page := iva.get("/jobs/" + tag + "/prove")
		require.Contains(t, page, `action="/jobs/`+tag+`/prove/attempt"`)
		form := url.Values{}
		if state(tag).Attempt() != nil {
			require.Contains(t, page, `data-value="nothing, run once more"`)
			form.Set("one_change", "nothing, run once more")
		}
		post(iva, tag, "prove/attempt", form)
		st := state(tag)
		told := map[string]string{"ran_on_oil": "mineral oil VG 46", "ran_on_temperature": "50 °C"}
		_, page = iva.get("/jobs/" + tag + "/prove")
		if st.Attempt().RanOn.Oil == "" {
			require.Contains(t, page, "On what is it run today? Asked once a shift")
		} else { // told today, but for how warm it is now
			require.Contains(t, page, "Run on mineral oil VG 46")
			delete(told, "ran_on_oil")
		}
		for name, text := range told {
			post(iva, tag, "set", url.Values{"field": {st.Unit.AttemptRef(st.Attempt().Number, name).String()},
				"value": {text}})
		}
	}
	step := func(tag, code string, held time.Duration, but map[string]string) {
		t.Helper()
		st := state(tag)
		test, known := st.Step(code)
		require.True(t, known)
		if test.Hold != "" {
			post(iva, tag, "prove/hold", url.Values{"code": {code}})
			_, page := iva.get("/jobs/" + tag + "/prove")
			require.Contains(t, page, `action="/jobs/`+tag+`/prove/held"`, "the hold can be ended")
			clock.Add(int64(held))
			post(iva, tag, "prove/held", url.Values{"code": {code}})
		}
		for name, text := range jobtest.Reads(t, state(tag), code) {
			if other := but[name]; other != "" {
				text = other
			}
			post(iva, tag, "set", url.Values{"field": {st.Unit.PointRef(st.Attempt().Number, code, name).String()},
				"value": {text}})
		}
	}
	whole := func(tag string, but map[string]string, held time.Duration) {
		t.Helper()
		for _, p := range state(tag).Plan() {
			if p.Skipped == "" {
				step(tag, p.Code, held, but)
			}
		}
		post(iva, tag, "prove/close", url.Values{})
	}
	var made []string
	built := func() string {
		tag := jobtest.Built(t, s.server.Jobs, "check_valve")
		made = append(made, tag)
		return tag
	}
	const long = 20 * time.Minute

	t.Run("a failed test", func(t *testing.T) {
		tag := built()
		next(tag)
		whole(tag, map[string]string{"leakage": "9 L/min"}, long)
		assert.Equal(t, proof.Tested, claim(tag))
		_, page := iva.get("/jobs/" + tag + "/prove")
		assert.Contains(t, page, "FAILED")
		next(tag)
		step(tag, "leak_watch", long, nil) // another row: what failed has failed all the same
		post(iva, tag, "prove/close", url.Values{})
		_, card := iva.get("/jobs/" + tag + "/start-up-card")
		assert.Contains(t, card, "Holds back pressure out")
		next(tag)
		step(tag, "back", long, nil) // only what failed is run again
		post(iva, tag, "prove/close", url.Values{})
		assert.Equal(t, proof.Proved, claim(tag))
	})
	t.Run("a hold too short", func(t *testing.T) {
		tag := built()
		next(tag)
		whole(tag, nil, time.Minute)
		assert.Equal(t, proof.Tested, claim(tag))
		_, page := iva.get("/jobs/" + tag + "/prove")
		assert.Contains(t, page, "its hold was not run to the end")
		next(tag)
		step(tag, "back", long, nil)
		step(tag, "leak_watch", long, nil)
		post(iva, tag, "prove/close", url.Values{})
		assert.Equal(t, proof.Proved, claim(tag))
	})
	t.Run("only one row could be tried before it failed", func(t *testing.T) {
		tag := built()
		next(tag)
		step(tag, "back", long, map[string]string{"word": "passes"})
		post(iva, tag, "prove/close", url.Values{})
		assert.Equal(t, "out", state(tag).Attempts[0].Verdict)
		next(tag)
		whole(tag, nil, long)
		assert.Equal(t, proof.Proved, claim(tag))
	})
	t.Run("a comeback", func(t *testing.T) {
		tag := built()
		next(tag)
		whole(tag, nil, long)
		require.Equal(t, proof.Proved, claim(tag))
		iva, odd := s.as("iva"), s.as("odd") // the bench has rested over the holds
		post(iva, tag, "set", url.Values{"field": {"u1/conclusion/cause"}, "value": {"not_found"}})
		post(iva, tag, "set", url.Values{"field": {"u1/conclusion/statement"}, "value": {"Looked for, and not found."}})
		post(iva, tag, "set", url.Values{"field": {"job/collected_by"}, "value": {"the driver"}})
		post(odd, tag, "sign-off", url.Values{})
		post(iva, tag, "hand-over", url.Values{})
		post(odd, tag, "reopen", url.Values{"reason": {"it weeps again"}, "touches": {unit.TouchesUnit}})
		assert.Equal(t, proof.Tested, claim(tag))
		_, page := iva.get("/jobs/" + tag + "/prove")
		assert.Contains(t, page, "since then: Opened again")
		next(tag)
		whole(tag, nil, long)
		assert.Equal(t, proof.Proved, claim(tag))
		assert.Empty(t, state(tag).Job.Waivers)
	})
	t.Run("not possible here", func(t *testing.T) {
		tag := built()
		next(tag)
		for _, p := range state(tag).Plan() {
			if p.Code != "back" {
				step(tag, p.Code, long, nil)
			}
		}
		_, page := iva.get("/jobs/" + tag + "/prove")
		assert.Contains(t, page, "not possible here")
		post(iva, tag, "set", url.Values{"field": {state(tag).Unit.PointRef(1, "back", "not_applicable").String()},
			"value": {"no measure small enough"}})
		post(iva, tag, "prove/close", url.Values{})
		assert.Equal(t, proof.Tested, claim(tag))
		assert.Empty(t, state(tag).Stops["prove"], "the unit can go, as what it is")
		_, paper := iva.get("/jobs/" + tag + "/certificate")
		assert.Contains(t, paper, "TESTED, NOT PROVED: up to 175.0 bar; not shown: holds back its load")
	})
	for _, tag := range made {
		_, record := iva.get("/jobs/" + tag + "/record")
		assert.NotRegexp(
			t,
			`[>\s]u\d+/|, ,|\b[a-z]+_[a-z]+\b:`,
			plain(record),
			"the record of %s in the shop's words",
			tag,
		)
	}
}
