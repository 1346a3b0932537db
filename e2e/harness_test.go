// Package e2e drives the application in a real Chromium, as its users would:
// with the keyboard alone and with the pointer alone.
package e2e

import (
	"context"
	"fmt"
	"log/slog"
	"net/http/httptest"
	"os"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"corvek/demo/demotest"
	"corvek/internal/casebook"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store/storetest"
	"corvek/internal/web"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/cdp"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/launcher/flags"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

var (
	launch  sync.Once
	browser *rod.Browser
	starter *launcher.Launcher
)

func TestMain(m *testing.M) {
	slog.SetDefault(slog.New(slog.DiscardHandler))
	storetest.Main(stopper{m})
}

// stopper closes the browser before the database goes.
type stopper struct{ m *testing.M }

func (s stopper) Run() int {
	code := s.m.Run()
	if browser != nil {
		_ = browser.Close()
		starter.Cleanup()
	}
	return code
}

func chromium(t testing.TB) string {
	// The shell draws pages and nothing around them: the same, for half the work.
	for _, p := range []string{"/usr/bin/chromium-headless-shell", "/usr/bin/chromium", "/usr/bin/chromium-browser",
		"/usr/bin/google-chrome"} {
		if _, err := os.Stat(p); err == nil {
			return p
		}
	}
	t.Fatal("no browser for these tests; on Debian: apt-get install chromium (./check does it)")
	return ""
}

// chrome is the one browser of these tests, started when first asked for.
func chrome(t testing.TB) *rod.Browser {
	t.Helper()
	launch.Do(func() {
		starter = launcher.New().Bin(chromium(t)).NoSandbox(os.Geteuid() == 0)
		for _, name := range []flags.Flag{"disable-background-networking", "no-first-run", "disable-component-update"} {
			starter.Set(name)
		}
		starter.Set("host-resolver-rules", "MAP "+plainHost+" 127.0.0.1")
		// Pages are drawn for pictures alone: what draws them fast on a screen costs here.
		starter.Set("disable-gpu").Set("in-process-gpu").Set("force-prefers-reduced-motion")
		starter.Set("disable-features", "BackForwardCache,Translate,OptimizationHints,MediaRouter,PaintHolding")
		client := cdp.MustStartWithURL(context.Background(), starter.MustLaunch(), nil)
		browser = rod.New().Client(movedOn{client}).MustConnect()
	})
	return browser
}

// shop is the demo served for one test.
type shop struct {
	*httptest.Server
	jobs  *job.Service
	book  *casebook.Book            // of units of practice, where those are its jobs
	clock atomic.Pointer[time.Time] // what the shop's clock shows; nil for the real one
}

func serve(t testing.TB) *shop {
	t.Helper()
	jobs := demotest.Jobs(t)
	app, server, err := web.New(web.Config{Jobs: jobs, Demo: true, HashCost: bcrypt.MinCost, Pace: 8,
		LookTime: time.Minute})
	require.NoError(t, err)
	t.Cleanup(server.Close)
	s := &shop{Server: httptest.NewServer(app), jobs: jobs}
	jobs.Now = func() time.Time {
		if now := s.clock.Load(); now != nil {
			return *now
		}
		return time.Now()
	}
	t.Cleanup(s.Close)
	return s
}

// nobodyToAsk says that nobody at the machine can be asked, so that the unit may be
// opened.
func (s *shop) nobodyToAsk(t testing.TB, tag string) {
	t.Helper()
	who := people.Actor{Name: "Iva Brask", Role: people.RoleTechnician}
	_, err := s.jobs.Set(context.Background(), who, tag, job.Edit{Field: "u1/not_asked",
		Value: "came in without its machine"})
	require.NoError(t, err)
}

// user is one person at one screen.
type user struct {
	*rod.Page
	t       *testing.T
	shop    *shop
	pointer bool // acts with one finger alone; else with the keyboard alone
	faults  *faults
	acts    int // presses and fields typed so far
}

// faults are what went wrong behind the page, noted as the browser tells it.
type faults struct {
	sync.Mutex
	seen []string
}

func (f *faults) note(format string, args ...any) {
	f.Lock()
	defer f.Unlock()
	f.seen = append(f.seen, fmt.Sprintf(format, args...))
}

// enter opens a screen of its own and signs in.
func enter(t *testing.T, s *shop, who string, pointer bool) *user {
	t.Helper()
	page := chrome(t).MustIncognito().MustPage()
	page.MustSetViewport(1280, 800, 1, false)
	u := &user{Page: page.Timeout(12 * time.Minute), t: t, shop: s, pointer: pointer, faults: &faults{}}
	t.Cleanup(func() { _ = page.Close() })
	u.watch()
	u.open("/sign-in")
	u.press(u.MustElement(`form input[name=sign_in][value="` + who + `"]`).MustParent().MustElement("button"))
	u.MustWait(`() => location.pathname !== "/sign-in" && document.readyState === "complete"`)
	return u
}

// watch notes console errors and requests that leave the application.
func (u *user) watch() {
	go u.EachEvent(func(e *proto.RuntimeExceptionThrown) {
		u.faults.note("exception: %s %v", e.ExceptionDetails.Text, e.ExceptionDetails.Exception)
	}, func(e *proto.RuntimeConsoleAPICalled) {
		if e.Type == proto.RuntimeConsoleAPICalledTypeError || e.Type == proto.RuntimeConsoleAPICalledTypeWarning {
			u.faults.note("console %s: %v", e.Type, e.Args)
		}
	}, func(e *proto.LogEntryAdded) {
		// A refused entry answers 422 or 409 on purpose; everything else is a fault.
		if e.Entry.Level == proto.LogLogEntryLevelError && !strings.Contains(e.Entry.Text, "422") &&
			!strings.Contains(e.Entry.Text, "409") && !strings.Contains(e.Entry.Text, "ERR_CONNECTION") {
			u.faults.note("log: %s %s", e.Entry.Text, e.Entry.URL)
		}
	}, func(e *proto.NetworkRequestWillBeSent) {
		url := e.Request.URL
		if !strings.HasPrefix(url, u.shop.URL) && !strings.HasPrefix(url, "data:") &&
			!strings.HasPrefix(url, "about:") {
			u.faults.note("outside request: %s", url)
		}
	})()
	_ = proto.RuntimeEnable{}.Call(u)
	_ = proto.LogEnable{}.Call(u)
	_ = proto.NetworkEnable{}.Call(u)
}

func (u *user) open(path string) {
	u.t.Helper()
	u.MustNavigate(u.shop.URL + path)
	u.ready()
}

// refused waits until a form says at a field what is wrong.
func (u *user) refused(words string) {
	u.t.Helper()
	u.MustWait(`(words) => [...document.querySelectorAll(".help.is-danger")]
		.some((x) => x.textContent.includes(words))`, words)
}

// ready waits until the page stands and nothing is under way.
func (u *user) ready() {
	u.t.Helper()
	u.MustWait(`() => document.readyState === "complete" && (!window.Alpine || Alpine.store("sent").idle())`)
}

// MustWait waits until a condition holds. A page that is still being built may
// lack what the condition looks at; that is "not yet". It ends the test with the
// condition, its last fault and the page's words if it never holds.
func (u *user) MustWait(condition string, args ...any) {
	u.t.Helper()
	tried := `(...args) => { try { return {held: !!(` + condition +
		`)(...args)} } catch (e) { return {fault: String(e)} } }`
	var fault string
	// To ask costs page and test: what does not come at once is asked for less and less often.
	pause := 8 * time.Millisecond
	for until := time.Now().Add(patience); time.Now().Before(until); pause = min(pause*3/2, 160*time.Millisecond) {
		answer := u.MustEval(tried, args...)
		if answer.Get("held").Bool() {
			return
		}
		fault = answer.Get("fault").String()
		time.Sleep(pause)
	}
	u.faults.Lock()
	defer u.faults.Unlock()
	u.t.Fatalf("waited in vain for %s (%s) at %s, faults %q:\n%s", condition, fault, u.MustInfo().URL, u.faults.seen,
		u.MustElement("body").MustText())
}

// press activates a button or link: by a click, or by focus and Enter.
func (u *user) press(el *rod.Element) {
	u.t.Helper()
	u.acts++
	if u.pointer {
		u.MustWait(`() => !window.Alpine || Alpine.store("page").seen(performance.now())`)
		el.Timeout(patience).MustTap() // what is covered is never reached
		return
	}
	u.focus(el)
	u.Keyboard.MustType(input.Enter)
}

// focus goes to an element as the keyboard can: the Tab key stops at it, or at
// another of its group, from where arrows lead to it.
func (u *user) focus(el *rod.Element) {
	u.t.Helper()
	members := el.MustEval(`() => {
		const group = this.tabIndex < 0 && this.closest("[role=group], [role=tablist]");
		if (!group) {
			if (this.tabIndex >= 0) this.focus();
			return 0;
		}
		const all = [...group.querySelectorAll("button, a")];
		all.find((x) => x.tabIndex >= 0)?.focus();
		return all.length;
	}`).Int()
	at := func() bool { return el.MustEval(`() => document.activeElement === this`).Bool() }
	for range members {
		if at() {
			break
		}
		u.Keyboard.MustType(input.ArrowRight)
	}
	require.True(u.t, at(), "cannot be reached by keyboard: %s", el.MustHTML())
}

// tap presses the button of a field with this value and waits for the save.
func (u *user) tap(field, value string) {
	u.t.Helper()
	u.ready()
	u.press(u.MustElement(fmt.Sprintf(`[data-set=%q][data-value=%q]`, field, value)))
	u.ready()
}

// fill types into a field and goes on; by keys, or tap by tap on the pad.
func (u *user) fill(field, text string) {
	u.t.Helper()
	u.ready()
	el := u.MustElement(fmt.Sprintf(`[data-field=%q]`, field))
	u.typeInto(el, text)
	u.ready()
}

func (u *user) typeInto(el *rod.Element, text string) {
	u.t.Helper()
	u.acts++
	if !u.pointer {
		el.MustEval(`() => { this.focus(); this.select(); }`)
		u.Keyboard.MustType(input.Backspace)
		u.MustInsertText(text)
		u.Keyboard.MustType(input.Tab)
		return
	}
	el.MustTap()
	u.MustWait(`() => document.getElementById("pad").checkVisibility()`)
	pad := u.MustElement("#pad")
	for range len([]rune(el.MustProperty("value").String())) {
		u.key(pad, "⌫")
	}
	rest := text
	for rest != "" {
		// A unit that the pad offers is one tap.
		if strings.HasPrefix(rest, " ") {
			unit := strings.TrimSpace(rest)
			if tapKey(pad, unit) {
				break
			}
		}
		r := []rune(rest)[0]
		u.key(pad, string(r))
		rest = rest[len(string(r)):]
	}
	u.key(pad, "✓")
}

// key taps one key of the pad, changing the layout when the key is on the other.
func (u *user) key(pad *rod.Element, k string) {
	u.t.Helper()
	if k == " " {
		k = "␣"
	}
	lower := strings.ToLower(k)
	if !has(pad, lower) {
		require.True(u.t, tapKey(pad, "abc") || tapKey(pad, "123"), "the pad has no other layout")
	}
	if k != lower {
		require.True(u.t, tapKey(pad, "⇧"), "the pad has no capitals")
	}
	require.True(u.t, tapKey(pad, lower), "the pad has no key %q", k)
}

// has reports whether the pad shows a key; one question for all keys, because
// a question for each made up half the time of these tests.
func has(pad *rod.Element, k string) bool {
	return pad.MustEval(`k => [...this.querySelectorAll("button")].some(b => b.innerText === k)`, k).Bool()
}

// tapKey taps the key, or reports that the pad does not show it.
func tapKey(pad *rod.Element, k string) bool {
	return pad.MustEval(`k => {
		const key = [...this.querySelectorAll("button")].find(b => b.innerText === k);
		if (!key) return false;
		key.click();
		return true;
	}`, k).Bool()
}

// text is everything the page says.
func (u *user) text() string { return u.MustElement("#page").MustText() }

// says requires the page to show the words.
func (u *user) says(words ...string) {
	u.t.Helper()
	u.ready()
	all := u.text()
	for _, w := range words {
		require.Contains(u.t, all, w)
	}
}

// station goes to a station by its number key, or by a tap on the rail.
func (u *user) station(n int) {
	u.t.Helper()
	u.ready()
	href := *u.MustElement(fmt.Sprintf(`[data-station="%d"]`, n)).MustAttribute("href")
	if u.pointer {
		u.MustElement(fmt.Sprintf(`[data-station="%d"]`, n)).MustClick()
	} else {
		u.MustEval(`() => document.activeElement && document.activeElement.blur()`)
		u.Keyboard.MustType(input.Key(rune('0' + n)))
	}
	u.MustWait(`(path) => location.pathname === path.split("?")[0] && document.readyState === "complete"`, href)
	u.ready()
}

// quiet requires that no console error and no outside request was seen.
func (u *user) quiet() {
	u.t.Helper()
	u.faults.Lock()
	defer u.faults.Unlock()
	require.Empty(u.t, u.faults.seen)
}
