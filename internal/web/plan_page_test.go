package web

import (
	"net/http"
	"net/url"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"corvek/core/unit"
	"corvek/core/workshop"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/planning"
	"corvek/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// taskIn finds the address of a task of a kind in the plan that is shown.
func taskIn(t *testing.T, page, kind string) (tag, task string) {
	t.Helper()
	found := regexp.MustCompile(`/plan\?task=([^"]*%2F` + kind + `)#task"`).FindStringSubmatch(page)
	require.NotNil(t, found, "no %s in the plan", kind)
	task, err := url.QueryUnescape(found[1])
	require.NoError(t, err)
	tag, _, _ = strings.Cut(task, "/")
	return tag, task
}

func TestThePlanIsPinnedAndLeftAgain(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/plan")
	assert.Contains(t, page, "jobs in hand")
	assert.Contains(t, page, "T-0421</a> 36 parts in: pinned to", "the demo has a pin that cannot be held")
	assert.Regexp(t, `<b class="red">1 late</b>`, page)
	_, why := b.get("/plan?why=T-0417")
	assert.Contains(t, why, "What would help most, as tried")
	assert.Regexp(t, `</b> in 80 of 100`, why)
	assert.Regexp(t, `The promised [^.]* holds in \d+ of 100`, why)
	_, paper := b.get("/plan/today")
	assert.Contains(t, paper, "Mirre Stoll")
	res, pdf := b.get("/plan/today.pdf")
	assert.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
	assert.True(t, strings.HasPrefix(pdf, "%PDF"))

	tag, task := taskIn(t, page, "strip")
	_, page = b.get("/plan?task=" + url.QueryEscape(task))
	assert.Contains(t, page, `id="task"`)
	for _, c := range []struct {
		form url.Values
		says string
	}{
		{url.Values{"task": {"T-9999/1/strip"}}, "is not in the plan any more"},
		{url.Values{"task": {task}}, "say with whom, where or when"},
		{url.Values{"task": {task}, "person": {"Odd Renfeld"}}, "cannot do this"},
		{url.Values{"task": {task}, "place": {"east stand"}}, "it cannot be done at east stand"},
		{url.Values{"task": {task}, "start": {"soon"}}, "is a day and an hour"},
		{url.Values{"task": {task}, "start": {"2020-01-01T08:00"}}, "is over"},
	} {
		res, body := b.post("/plan/pin", c.form)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, c.says)
		assert.Contains(t, body, c.says)
	}
	res, _ = b.post("/plan/pin", url.Values{"task": {task}, "person": {"Mirre Stoll"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = b.get("/plan?task=" + url.QueryEscape(task))
	assert.Contains(t, page, "Pinned by Iva Brask")
	assert.Regexp(t, `aria-label="`+tag+`: [^"]*, Mirre Stoll[^"]*, pinned"`, page)
	res, _ = b.post("/plan/free", url.Values{"task": {task}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = b.get("/plan?task=" + url.QueryEscape(task))
	assert.NotContains(t, page, "Pinned by Iva Brask")

	// It is moved by its bar and by keys, and put back.
	res, body := b.post("/plan/move", url.Values{"task": {task}, "x": {"600"}, "row": {"99"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "is none of the rows")
	res, _ = b.post("/plan/move", url.Values{"task": {task}, "x": {"600"}, "row": {"0"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = b.get(res.Header.Get("Location"))
	assert.Contains(t, page, "Pinned by Iva Brask")
	assert.Contains(t, page, "Undo this move")
	for _, step := range []string{"later", "earlier", "down", "up"} {
		res, _ = b.post("/plan/move", url.Values{"task": {task}, "step": {step}, "row": {"0"}})
		assert.Equal(t, http.StatusSeeOther, res.StatusCode, step)
	}
	res, _ = b.post("/plan/undo", url.Values{"task": {task}, "was": {"free"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = b.get("/plan?task=" + url.QueryEscape(task))
	assert.NotContains(t, page, "Pinned by Iva Brask")

	res, _ = s.as("tove").post("/plan/pin", url.Values{"task": {task}, "person": {"Mirre Stoll"}})
	assert.Equal(t, http.StatusForbidden, res.StatusCode, "who only looks pins nothing")
}

func TestTheShopBehindTheBenchIsSetUp(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	_, page := b.get("/plan/shop")
	person := regexp.MustCompile(`name="person" value="(\d+)">\s*<h3>Iva Brask`).FindStringSubmatch(page)
	require.NotNil(t, person)
	id := person[1]
	for _, c := range []struct {
		path string
		form url.Values
		says string
	}{
		{"/plan/hands", url.Values{"person": {id}, "hours": {"all day"}}, "is no weekday"},
		{"/plan/hands", url.Values{"person": {id}, "skill": {"bench"}}, "say when Iva Brask is there"},
		{"/plan/hands", url.Values{"person": {"99999"}}, ""},
		{"/plan/away", url.Values{"person": {id}, "from": {"soon"}}, "is a day like"},
		{"/plan/away", url.Values{"person": {id}, "from": {"2031-05-20"}, "to": {"2031-05-19"}},
			"before the first day"},
		{"/plan/away", url.Values{"person": {"x"}, "from": {"2031-05-20"}}, "say who"},
		{"/plan/close", url.Values{"day": {"32"}}, "is a day like"},
		{"/plan/place", url.Values{"kind": {"stand"}}, "say what it is called"},
		{"/plan/place", url.Values{"name": {"x"}, "kind": {"roof"}}, "say what it is"},
		{"/plan/place", url.Values{"name": {"x"}, "kind": {"stand"}, "pressure": {"250 kg"}}, "bar"},
	} {
		res, body := b.post(c.path, c.form)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, "%s %v", c.path, c.form)
		assert.Contains(t, body, c.says)
	}
	posts := func(path string, form url.Values) {
		res, _ := b.post(path, form)
		assert.Equal(t, http.StatusSeeOther, res.StatusCode, "%s %v", path, form)
	}
	tomorrow := time.Now().AddDate(0, 0, 1).Format(time.DateOnly)
	posts("/plan/hands", url.Values{"person": {id}, "hours": {"Mon-Sun 6-14"}, "skill": {"bench", "test"}})
	posts("/plan/away", url.Values{"person": {id}, "from": {tomorrow}, "note": {"fair"}})
	posts("/plan/close", url.Values{"day": {tomorrow}, "called": {"feast of nets"}})
	posts("/plan/place", url.Values{"name": {"big stand"}, "kind": {"stand"}, "pressure": {"400 bar"}})
	_, page = b.get("/plan/shop")
	for _, says := range []string{"Mon-Sun 6-14", "feast of nets", "big stand", "400 bar", "fair"} {
		assert.Contains(t, page, says)
	}
	posts("/plan/open", url.Values{"day": {tomorrow}})
	for path, form := range map[string]string{"/plan/back": "/plan/back", "/plan/place/drop": "/plan/place/drop"} {
		row := regexp.MustCompile(`action="` + form + `"[\s\S]*?name="id" value="(\d+)"`).FindStringSubmatch(page)
		require.NotNil(t, row, path)
		posts(path, url.Values{"id": {row[1]}})
	}
	_, page = b.get("/plan/shop")
	assert.NotContains(t, page, "feast of nets")
	assert.Contains(t, page, "Nobody is.")

	res, _ := s.as("iva").get("/plan/shop")
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
}

// The plan that a day began with is kept once, and the next day is held against it.
func TestThePlanOfADayIsKept(t *testing.T) {
	t.Parallel()
	s := serve(t)
	jobs := s.jobs()
	plans := planning.New(jobs)
	first, err := plans.Now(t.Context())
	require.NoError(t, err)
	assert.Empty(t, first.Left, "all jobs of the board are read")
	again, err := plans.Now(t.Context())
	require.NoError(t, err)
	assert.Same(t, first, again, "nothing changed, so nothing is worked out")
	other, err := planning.New(jobs).Now(t.Context())
	require.NoError(t, err)
	assert.Equal(t, first.Plan, other.Plan, "every instance makes the same plan")

	require.NoError(t, plans.KeepDay(t.Context()))
	require.NoError(t, plans.KeepDay(t.Context()))
	now := jobs.Now
	jobs.Now = func() time.Time { return now().AddDate(0, 0, 1) }
	next, err := plans.Now(t.Context())
	require.NoError(t, err)
	assert.NotEmpty(t, next.Stood)
	assert.Positive(t, next.Plan.Cost.Moved, "what nobody did yesterday has another day")
	_, page := s.as("iva").get("/plan")
	assert.Contains(t, page, "Moved since yesterday")

	strip := workshop.Key{Tag: "T-0426", Unit: 1, Code: "strip"}
	require.NoError(t, jobs.Store.SavePin(t.Context(), &store.PlanPin{
		Spot: workshop.Spot{Key: strip, Person: "Mirre Stoll"}, ByName: "Odd Renfeld"}))
	pinned, err := plans.Now(t.Context())
	require.NoError(t, err)
	for i, k := range pinned.Laid.Keys {
		if k == strip {
			person, _ := pinned.Laid.On(pinned.Plan.Tasks[i])
			assert.Equal(t, "Mirre Stoll", person)
		}
	}
}

// What is signed off and as it was needs no lead any more.
func TestASignOffIsNotPlannedTwice(t *testing.T) {
	t.Parallel()
	s := serve(t)
	jobs := s.jobs()
	tag := jobtest.Built(t, jobs, "external_gear_pump")
	kinds := func() (out []string) {
		p, err := planning.New(jobs).Now(t.Context())
		require.NoError(t, err)
		for _, k := range p.Laid.Keys {
			if k.Tag == tag {
				out = append(out, k.Code)
			}
		}
		return out
	}
	built := kinds()
	assert.Equal(t, []string{"set_up", "prove", "sign", "hand_over"}, built[len(built)-4:])
	assert.NotContains(t, built, "strip")
	assert.NotContains(t, built, "build")

	lead := people.Actor{Name: "Odd Renfeld", Role: people.RoleLead}
	ending := unit.Ref{Scope: unit.ScopeUnit, Unit: 1, Name: "ending"}
	_, err := jobs.Set(t.Context(), lead, tag, job.Edit{Field: ending.String(), Value: unit.EndReturned})
	require.NoError(t, err)
	st, err := jobs.Load(t.Context(), tag, 1)
	require.NoError(t, err)
	for _, stop := range st.Stops["receive"] {
		require.NoError(
			t,
			jobs.WaiveStop(t.Context(), lead, tag, 1, stop.StopCode.String(), "it goes back as it came"),
		)
	}
	assert.Equal(t, []string{"sign", "hand_over"}, kinds())
	require.NoError(t, jobs.SignOff(t.Context(), lead, tag, 1))
	assert.Equal(t, []string{"hand_over"}, kinds())
}

// The plan finds a day that still holds once it is promised, and promises it.
func TestThePlanPromisesADayThatHolds(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	res, page := b.post("/plan/promise", url.Values{"tag": {"T-9999"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, page, "is not in the plan any more")
	before := b.state("T-0417", 1).Job.PromisedOn
	res, _ = b.post("/plan/promise", url.Values{"tag": {"T-0417"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	after := b.state("T-0417", 1).Job.PromisedOn
	assert.Greater(t, after, before)
	_, page = b.get("/plan?why=T-0417")
	found := regexp.MustCompile(`The promised ([^.]*) holds in (\d+) of 100`).FindStringSubmatch(page)
	require.NotNil(t, found)
	assert.Equal(t, after.Time().Format("Mon 2 Jan"), found[1])
	share, err := strconv.Atoi(found[2])
	require.NoError(t, err)
	assert.GreaterOrEqual(t, share, 80)
	_, page = b.get("/plan")
	assert.NotContains(t, page, "1 late")
}

// The plan is looked at as far ahead as it goes, two weeks at a time.
func TestThePlanAhead(t *testing.T) {
	t.Parallel()
	s := serve(t)
	iva := s.as("iva")
	day := func(n int) string { return ">" + s.jobs().Now().AddDate(0, 0, n).Format("Mon 2") + "</text>" }
	from := 0
	for narrow := true; narrow; from++ { // a day on which nobody is there has no name
		wd := s.jobs().Now().AddDate(0, 0, from).Weekday()
		narrow = wd == time.Saturday || wd == time.Sunday
	}
	from--
	_, page := iva.get("/plan")
	assert.Contains(t, page, day(from))
	assert.NotContains(t, page, day(from+14))
	assert.Contains(t, page, "plan-now")
	_, page = iva.get("/plan?ahead=1")
	assert.Contains(t, page, day(from+14))
	assert.NotContains(t, page, day(from))
	assert.NotContains(t, page, "plan-now")
	assert.Contains(t, page, `href="/plan?ahead=2"`)
	for _, odd := range []string{"-1", "9999", "x"} {
		res, _ := iva.get("/plan?ahead=" + odd)
		assert.Equal(t, http.StatusOK, res.StatusCode, odd)
	}
}

// What somebody writes of a unit tells the plan that he is at it: it stays with him, and the page says so.
func TestThePlanKnowsWhatIsBegun(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("mirre")
	_, page := b.get("/plan")
	tag, task := taskIn(t, page, "strip")
	assert.NotContains(t, page, " runs\"", "nobody is at anything yet")
	j, err := s.server.Store.Job(t.Context(), tag)
	require.NoError(t, err)
	u := j.Units[0]
	field := u.PartRef(u.Parts[0].Code, "note").String()
	mirre := people.Actor{ID: 1, Name: "Mirre Stoll", Role: people.RoleTechnician}
	_, err = s.server.Jobs.Set(t.Context(), mirre, tag, job.Edit{Field: field, Value: "loose on the shaft",
		Base: u.Parts[0].Note})
	require.NoError(t, err)
	_, page = b.get("/plan?task=" + url.QueryEscape(task))
	assert.Contains(t, page, "<b>Begun</b> with Mirre Stoll")
	assert.Contains(t, page, " runs\"")
	assert.Contains(t, page, "<b>now–")
}
