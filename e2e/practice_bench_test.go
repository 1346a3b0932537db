package e2e

import (
	"fmt"
	"net/http/httptest"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/hidden"
	"corvek/core/invented"
	"corvek/core/proof"
	"corvek/core/unit"
	"corvek/demo/demotest"
	"corvek/internal/casebook"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/store/storetest"
	"corvek/internal/web"
	"corvek/internal/whole"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

// serveBench is the demo with a bench of practice and its stand; its jobs are those that lie on that bench.
func serveBench(t *testing.T) *shop {
	t.Helper()
	jobs := demotest.Jobs(t)
	own, err := job.Practice(storetest.New(t), jobs)
	require.NoError(t, err)
	app, server, err := web.New(web.Config{Jobs: jobs, Bench: own, Demo: true, HashCost: bcrypt.MinCost, Pace: 8,
		LookTime: time.Minute})
	require.NoError(t, err)
	t.Cleanup(server.Close)
	s := &shop{Server: httptest.NewServer(app), jobs: own}
	t.Cleanup(s.Close)
	s.stand(t)
	if s.book, err = casebook.New(jobs, own); err != nil {
		t.Fatal(err)
	}
	return s
}

// cased is somebody who works on a unit of practice: what he writes down is what his looks show him.
type cased struct {
	*user
	tag    string
	looked []string
}

// begins has a unit of practice on his bench that is always the same.
func (u *user) begins(family, kind string, seed uint64) *cased {
	u.t.Helper()
	p, err := u.shop.book.Shop.Store.PersonBySignIn(u.t.Context(), "iva")
	require.NoError(u.t, err)
	tag, err := u.shop.book.Begin(u.t.Context(), people.Actor{ID: p.ID, Name: p.Name, Role: p.Role}, family, kind, seed)
	require.NoError(u.t, err)
	u.open("/practice")
	u.press(u.MustElementR("a", tag))
	u.MustWait(`(at) => location.pathname.startsWith(at) && document.readyState === "complete"`, "/jobs/"+tag+"/")
	return &cased{user: u, tag: tag}
}

// pages are those on which a field may stand, the likely one first.
func (c *cased) pages(ref unit.Ref) []string {
	job := "/jobs/" + c.tag + "/"
	switch ref.Scope {
	case unit.ScopeJob, unit.ScopeUnit, unit.ScopePoint:
		if ref.Number > 0 {
			return []string{job + "prove"}
		}
		return []string{job + "receive", job + "receive?face=gauges", job + "receive?face=fluid"}
	case unit.ScopeEvidence:
		e, _ := c.state(c.tag).Known.EvidenceByCode(ref.Code)
		return []string{job + "explain?mark=" + url.QueryEscape(e.Text), job + "explain?marks=all"}
	case unit.ScopePartMark:
		return []string{job + "strip?part=" + ref.Part, job + "measure?part=" + ref.Part}
	}
	return pagesOf(c.state(c.tag), c.tag, ref.String())
}

// finds opens a page on which a field stands, and gives how it is pointed at; "" where none has it.
func (c *cased) finds(ref unit.Ref) string {
	c.t.Helper()
	at := fmt.Sprintf(`main [data-set=%q], main [data-field=%q]`, ref.String(), ref.String())
	for _, page := range c.pages(ref) {
		c.open(page)
		if len(c.MustElements(at)) == 0 {
			continue
		}
		c.MustEval(`(at) => { for (let d = document.querySelector(at).closest("details:not([open])"); d;
			d = d.parentElement.closest("details:not([open])")) d.open = true; }`, at)
		return at
	}
	return ""
}

// looks looks at a field, and writes down what he sees; a figure as it truly is, since that is what he reads.
func (c *cased) looks(ref unit.Ref) (says string) {
	c.t.Helper()
	c.looked = append(c.looked, ref.String())
	at := c.finds(ref)
	if at == "" {
		return "" // no page asks for it as the unit lies there
	}
	el := c.MustElement(at)
	says, wrote := c.looksAt(el)
	if text := c.truly(ref); !wrote && text != "" && el.MustAttribute("data-set") == nil {
		c.fill(ref.String(), text)
	}
	c.ready()
	return says
}

// looksAt looks where something stands, and writes down what can be written down as it was seen.
func (c *cased) looksAt(el *rod.Element) (says string, wrote bool) {
	c.t.Helper()
	c.ready()
	if c.pointer {
		c.press(el)
	} else {
		c.focusIn(el)
		c.ctrlEnter()
	}
	c.MustWait(`() => document.querySelector("#look").checkVisibility()`)
	c.ready()
	says = c.MustElement("#look").MustText()
	write := c.MustElement("#look .is-primary")
	if wrote = write.MustVisible(); wrote && c.pointer {
		c.press(write)
	} else if wrote {
		c.ctrlEnter()
	}
	c.ready()
	c.closes()
	return says, wrote
}

// focusIn goes to an element, or to what can be reached in it.
func (c *cased) focusIn(el *rod.Element) {
	if el.MustMatches("fieldset") {
		el = el.MustElement("input")
	}
	c.focus(el)
}

func (c *cased) ctrlEnter() {
	k := c.KeyActions().Press(input.ControlLeft)
	k.Type(input.Enter).Release(input.ControlLeft).MustDo()
}

func (c *cased) closes() {
	c.MustEval(`() => { const x = document.querySelector("#look"); if (x.checkVisibility()) Alpine.$data(x).close(); }`)
}

// truly is what stands at a place of the unit as it is.
func (c *cased) truly(ref unit.Ref) string {
	if ref.Scope != unit.ScopeReading {
		return ""
	}
	j, err := c.shop.jobs.Store.Job(c.t.Context(), "H"+c.tag[1:])
	require.NoError(c.t, err)
	for _, f := range j.Unit(1).Part(ref.Part).Features {
		if f.Code == ref.Feature {
			for _, r := range f.Newest(unit.StageFound) {
				if r.Slot == ref.Name {
					return r.Value
				}
			}
		}
	}
	return ""
}

// complains writes down what was complained of.
func (c *cased) complains() {
	for _, e := range c.state(c.tag).Knowledge.Evidence {
		words := strings.ToLower(c.state(c.tag).Job.Complaint)
		text, _ := family.SymptomText(e.From.Symptom)
		if text != "" && strings.Contains(words, strings.ToLower(text)) {
			ref := unit.JobRef("symptom")
			ref.Code = e.From.Symptom
			if !slices.Contains(c.looked, ref.String()) {
				c.looks(ref)
			}
		}
	}
}

// solves looks at what the record says is worth a look, until a cause is as good as sure.
func (c *cased) solves() *explain.Cause {
	c.t.Helper()
	for range 40 {
		st := c.state(c.tag)
		lead, p := st.Knowledge.Standing(st.Findings).Lead()
		if len(st.Findings) > 0 && p >= explain.Sure {
			return lead
		}
		next := c.next()
		require.NotNil(c.t, next, "nothing is left to look at")
		if next.Opens && st.Situation().Reached == explain.Outside {
			c.apart()
		}
		for _, e := range append([]*explain.Evidence{next.Evidence}, next.Or...) {
			for _, ref := range hidden.Where(c.state(c.tag), e) {
				if p := c.state(c.tag).ByCode[ref.Part]; p != nil && !p.Off && !p.Alone {
					c.apart()
				}
				if !slices.Contains(c.looked, ref.String()) {
					c.looks(ref)
				}
			}
		}
	}
	c.t.Fatal("it is not solved")
	return nil
}

func (c *cased) next() *explain.Check {
	st := c.state(c.tag)
	list := st.Next()
	at := slices.IndexFunc(list, func(n explain.Check) bool {
		return slices.ContainsFunc(hidden.Where(st, n.Evidence), func(r unit.Ref) bool {
			return !slices.Contains(c.looked, r.String())
		})
	})
	if at < 0 {
		return nil
	}
	return &list[at]
}

// apart lets the unit be opened, and takes it apart part by part.
func (c *cased) apart() {
	c.t.Helper()
	if c.state(c.tag).Unit.NotAsked == "" {
		_, err := c.shop.jobs.Set(c.t.Context(), iva, c.tag, job.Edit{Field: "u1/not_asked",
			Value: "nobody is left there"})
		require.NoError(c.t, err)
	}
	c.open("/jobs/" + c.tag + "/strip")
	c.cautions()
	for {
		c.ready()
		at := c.MustEval(`() => document.querySelector("#run")?.dataset.at || ""`).Str()
		if at == "" {
			return
		}
		for _, el := range c.MustElements("#run form [data-look]") {
			c.looked = append(c.looked, *el.MustAttribute("data-look"))
			c.looksAt(el)
		}
		c.press(c.MustElement("#run form .run-act"))
		c.MustWait(`(at) => document.querySelector("#run")?.dataset.at !== at`, at)
	}
}

// turn turns looking on or off.
func (c *cased) turn(on bool) {
	c.t.Helper()
	c.ready()
	button := c.MustElement(".prac-bar button")
	if (*button.MustAttribute("aria-pressed") == "true") != on {
		c.press(button)
	}
	c.MustWait(`(on) => document.querySelector(".prac-bar button").ariaPressed === String(on)`, on)
}

// names concludes a cause and is told what it was.
func (c *cased) names(cause *explain.Cause) string {
	c.t.Helper()
	c.turn(false)
	c.open("/jobs/" + c.tag + "/explain")
	c.tap("u1/conclusion/cause", cause.Code)
	c.press(c.MustElementR(".prac-bar a", "I know it"))
	c.MustElementR("h2", "You take it for")
	c.press(c.MustElementR("button", "That is it"))
	c.MustElement(".prac-ways")
	return c.MustElement("main h2").MustText()
}

// A unit of practice is worked from the caller to PROVED, by keys and by thumb: asked, looked at, named, mended as it
// asks, built, and run on the stand, which shows it as it is.
func TestAUnitOfPracticeFromCallerToProved(t *testing.T) {
	whole.Only(t)
	for name, pointer := range map[string]bool{"by keys": false, "by thumb": true} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			u := enter(t, serveBench(t), "iva", pointer)
			c := u.begins("check_valve", hidden.Own, 7)
			c.complains()
			cause := c.solves()
			assert.Contains(t, c.names(cause), "Yes: "+cause.Name)
			c.mends(cause)
			claim, missing := c.state(c.tag).Claim()
			assert.Equal(t, proof.Proved, claim, "%v", missing)
			u.quiet()
		})
	}
}

// mends takes it apart, looks at all of it, renews what the trouble is on, builds it and runs its test.
func (c *cased) mends(cause *explain.Cause) {
	c.t.Helper()
	c.open("/jobs/" + c.tag + "/strip")
	if c.state(c.tag).Situation().Reached != explain.Stripped {
		c.apart()
	}
	c.turn(true)
	for _, v := range invented.Found(c.state(c.tag)) {
		if hidden.Shows(v.Ref) && !slices.Contains(c.looked, v.Ref.String()) {
			c.looks(v.Ref)
		}
	}
	c.turn(false)
	for _, p := range c.state(c.tag).Parts {
		if cause.RenewsPart(p.Code, p.Def.Kind) || p.Choice() == decide.Rework || len(p.Seen) > 0 {
			c.open("/jobs/" + c.tag + "/decide?part=" + p.Code)
			if p.Decision.Choice != string(decide.Replace) {
				c.tap("u1/part/"+p.Code+"/decision/choice", string(decide.Replace))
			}
		}
	}
	c.settle(c.tag)
	c.open("/jobs/" + c.tag + "/decide")
	c.kitting(c.tag)
	c.joints(c.tag)
	c.runDown(c.tag, "build")
	c.filled(c.tag)
	c.told(c.tag, jobtest.AgainTyped(c.state(c.tag)))
	c.open("/jobs/" + c.tag + "/prove")
	c.cautions()
	c.press(c.MustElementR("button", "Start attempt 1"))
	c.press(c.MustElementR(".stand button", "practice"))
	c.MustWait(`() => document.querySelector("#live")?.dataset.state === "idle"`)
	jobtest.RunsOn(c.t, c.shop.jobs, c.tag)
	jobtest.Limits(c.t, c.shop.jobs, c.tag)
	c.runPlan(c.tag)
	c.press(c.MustElementR("button", "Close the attempt"))
	c.MustElementR(".verdict", "PASSED")
}

// What goes wrong at a real bench goes wrong here: what was measured first was wiped, and what was wiped is not seen
// any more; a part that is still on is not looked at; a cause named too early is called what it was, and he is told
// what he did not look at.
func TestAUnitOfPracticeByWrongWays(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serveBench(t), "iva", true)
	c := u.begins("spool_divider", hidden.Own, 3)
	u.open("/jobs/" + c.tag + "/measure")
	at := "main [data-field*='/found/'], main [data-set*='/found/']"
	says, _ := c.looksAt(u.MustElement(at))
	assert.Contains(t, says, "still on the unit")
	c.apart()
	st := c.state(c.tag)
	e, ref := unwashed(st)
	require.NotNil(t, e)
	f := st.ByCode[e.Part].Features[0]
	c.looks(st.Unit.ReadingRef(e.Part, f.Code, unit.StageFound, f.Spec.Slots()[0]))
	for range 2 {
		assert.Contains(t, c.looks(ref), "Wiped before anybody looked", "and stays so")
	}
	c.complains()
	p, err := u.shop.book.Shop.Store.PersonBySignIn(t.Context(), "iva")
	require.NoError(t, err)
	row, err := u.shop.book.Shop.Store.PracticeCaseOf(t.Context(), p.ID, c.tag)
	require.NoError(t, err)
	ranking := c.state(c.tag).Explained().Ranking
	wrong := ranking[slices.IndexFunc(ranking, func(r explain.Ranked) bool {
		return !slices.Contains(row.Causes, r.Cause.Code)
	})].Cause
	assert.Contains(t, c.names(wrong), "No. You took it for: "+wrong.Name)
	u.says("Never looked at", "It was named before", "Too late for")
	is, known := c.state(c.tag).Known.CauseByCode(row.Causes[0])
	require.True(t, known)
	c.mends(is)
	claim, missing := c.state(c.tag).Claim()
	assert.Equal(t, proof.Proved, claim, "%v", missing)
	c.turn(true)
	assert.Contains(t, c.looks(ref), "Wiped before anybody looked", "and stays so to the end")
	u.quiet()
}

// unwashed is a mark that goes when its part is wiped, and where it is looked for.
func unwashed(st *bench.State) (*explain.Evidence, unit.Ref) {
	for i := range st.Knowledge.Evidence {
		e := &st.Knowledge.Evidence[i]
		if p := st.ByCode[e.Part]; e.Unwashed && p != nil && len(p.Features) > 0 {
			return e, hidden.Where(st, e)[0]
		}
	}
	return nil, unit.Ref{}
}
