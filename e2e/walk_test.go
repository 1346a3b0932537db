package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/exchange"
	"corvek/internal/whole"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
)

// A hand that taps without looking: it picks any control that shows, by mouse, finger or
// key, once or twice. The judge knows what the control said before the act and what the
// exported job says after it, and nothing else.

// control is what a reader sees of one.
type control struct {
	N       int    `json:"n"`
	Label   string `json:"label"`   // its own words
	Pressed bool   `json:"pressed"` // as it is drawn
	About   string `json:"about"`   // what stands around it: group, row, heading
	Field   bool   `json:"field"`   // can be typed into
	Form    bool   `json:"form"`    // sends a form
}

const controls = `() => {
	const words = (x) => (x ? x.innerText || x.textContent : "").replace(/\s+/g, " ").trim();
	const all = [...document.querySelectorAll("main button, main input[data-field], main g[role=button]")];
	window.walk = all.filter((x) => !x.disabled && !x.readOnly && x.checkVisibility({ visibilityProperty: true }) &&
		!x.closest("[x-cloak], .answered") && x.getBoundingClientRect().width > 0 && x.type !== "file");
	return JSON.stringify(window.walk.map((x, n) => {
		const label = x.matches("input") ? words(document.querySelector('label[for="' + x.id + '"]')) : words(x);
		const about = [];
		for (let at = x; at && at.id !== "page"; at = at.parentElement) {
			about.push(at.getAttribute("aria-label") || "");
			if (at.matches("li, tr, .row, .frame, .inline, .flag, .field, .leaf-says, article"))
				about.push(words(at.querySelector("b, th, .label, .tag, label")));
			if (at.matches("section, .sheet")) about.push(words(at.querySelector("h2")));
			if (at.matches("details")) about.push(words(at.querySelector("summary")));
		}
		const lead = document.querySelector("main h2");
		return { n, label: x.getAttribute("aria-label") || label, pressed: x.getAttribute("aria-pressed") === "true",
			about: about.concat(words(lead)).filter(Boolean).join(" | "), field: x.matches("input"),
			form: x.matches("button") && x.type === "submit" };
	}));
}`

// changed is one value of the exported job that is another than before.
type changed struct{ path, before, after string }

// exported is the job as a flat list of values by their place.
func (u *user) exported(tag string) map[string]string {
	var b bytes.Buffer
	j, err := u.shop.jobs.Store.Job(context.Background(), tag)
	require.NoError(u.t, err)
	require.NoError(u.t, exchange.Text(&b, j, func(func(unit.Entry, error) bool) {}))
	var doc any
	require.NoError(u.t, json.Unmarshal(b.Bytes(), &doc))
	flat, out := map[string]string{}, map[string]string{}
	flatten("", doc, flat)
	for path, value := range flat {
		out[asEntered(path)] = value
	}
	return out
}

// asEntered gives a path of a document the name under which its value is entered: a control is
// called by that, wherever the value stands.
func asEntered(path string) string {
	scope := unit.ScopeUnit
	for of, at := range map[unit.Scope]string{unit.ScopePart: "/parts/", unit.ScopePiece: "/kit/",
		unit.ScopePoint: "/points/"} {
		if strings.Contains(path, at) {
			scope = of
		}
	}
	if !strings.HasPrefix(path, "/units/") && !strings.HasPrefix(path, "/pictures/") {
		path, scope = "/job"+path, unit.ScopeJob
	}
	for _, f := range entry.Fields(scope) {
		if at, nested := strings.CutSuffix(path, "/"+strings.Join(f.Path(), "/")); nested && len(f.Path()) > 1 {
			return at + "/" + f.Name
		}
	}
	return path
}

func flatten(path string, v any, out map[string]string) {
	switch v := v.(type) {
	case map[string]any:
		for name, x := range v {
			flatten(path+"/"+name, x, out)
		}
	case []any:
		for i, x := range v {
			at := strconv.Itoa(i)
			if word, is := x.(string); is {
				out[path+"/"+word] = "yes" // a set: in which order is not said
				continue
			}
			if m, is := x.(map[string]any); is {
				at = ""
				for _, k := range []string{"code", "number", "slot", "stage", "round", "caution", "place", "route"} {
					if name, has := m[k]; has {
						at += fmt.Sprint("·", name)
					}
				}
				if at == "" {
					at = strconv.Itoa(i)
				}
			}
			flatten(path+"/"+at, x, out)
		}
	default:
		if text := fmt.Sprint(v); text != "" && text != "false" {
			out[path] = text
		}
	}
}

// beside are values that come with another and that nobody reads off a button.
var beside = regexp.MustCompile(
	`/taken/|/grounds/|/(by|at|who|round|over|taken_out|read_at|version|station|started|until|` +
		`waiting|stage|slot|code|number|source|origin|kind_of|hold_until|hold_to|held|answered_at)$`,
)

func differences(before, after map[string]string) (out []changed) {
	for _, path := range slices.Sorted(maps.Keys(mergedKeys(before, after))) {
		if before[path] != after[path] && !beside.MatchString(path) {
			out = append(out, changed{path, before[path], after[path]})
		}
	}
	return out
}

func mergedKeys(a, b map[string]string) map[string]string {
	all := maps.Clone(a)
	maps.Copy(all, b)
	return all
}

// said are words by which a control names a value whose own words are others.
var said = map[string][]string{
	"off": {"off", "back on"}, "done": {"fitted", "take out again"},
	"found": {"found", "counted", "all", "one more", "one less"},
	"sound": {"looked at: sound"}, "dry": {"dry, not oiled"}, "snug": {"snug is enough"},
	"bit":   {"a piece of a broken one"},
	"cause": {"set as root cause", "root cause", "cause not found"}, "warranty_hold": {"warranty"},
	"cycled": {"moved, and free of it"}, "route": {"this way"}, "goes": {"this way"}, "policy": {"overhaul", "needed"},
}

// forms are what the buttons of forms may change, by their words.
var forms = []struct{ words, path string }{
	{"^The rest came off", `/(off|found)$`}, {"earlier|later", `ordinal|/parts/`}, {"^Add", `/(loose|parts|kit)/`},
	{"^counted$|^received$", `/kit/`}, {"^I have read it", `/acknowledgements/`}, {"^start ", `/attempts/`},
	{"^Start attempt", `/attempts/`}, {"^Close the attempt", `/attempts/`}, {"^New round", `/(rounds|attempts|parts)/`},
	{"^Waive", `/(stop_passes|passes)`}, {"^Take it back", `/causes/`}, {"^Name it", `/causes/`},
	{"^undo$", `.`}, {"^One more |^No ", `/(more|parts)`}, {"^Use it: ", `/units`}, {"^Given to him", `/job/`},
	{"^Join|^goes here|^here$", `/kit/`},
	{"^Keep ", `.`}, {"^Hand over|^HAND OVER", `/job/|papers`}, {"^This unit has so many", `/parts/`},
	{"^Run it|^Take|let it go|^Practice|stand", `/attempts/`}, {"^Ask back", `follow`},
	{"^Note", `.`}, {"^Write it", `.`},
	{"back|asked|answer", `follow`}, {"^take .* away from here$", `/kit/`},
}

// judge holds what changed against what the control said.
func judge(c control, diff []changed) error {
	if len(diff) == 0 {
		return nil
	}
	if c.Form {
		for _, f := range forms {
			if regexp.MustCompile(f.words).MatchString(c.Label) {
				for _, d := range diff {
					if !regexp.MustCompile(f.path).MatchString(d.path) {
						return fmt.Errorf("%s is nothing that %q says", d.path, c.Label)
					}
				}
				return nil
			}
		}
		// A place of the kit is a button that brings the chosen piece there.
		if strings.Contains(c.About, "Parts needed and received") && strings.Contains(thing(diff[0].path), "kit") {
			return nil
		}
		return fmt.Errorf("nobody knows what %q may do", c.Label)
	}
	things := map[string]bool{}
	for _, d := range diff {
		things[thing(d.path)] = true
	}
	if len(things) > 1 {
		return fmt.Errorf("it changed more than one thing: %v", diff)
	}
	var err error
	told := 0
	for _, d := range diff {
		if with.MatchString(d.path) && len(diff) > 1 {
			continue // it is judged by what it comes with
		}
		if err = says(c, d); err != nil {
			return err
		}
		told++
	}
	if told == 0 {
		return fmt.Errorf("nothing of it is what it says: %v", diff)
	}
	return nil
}

// with are values that go with another of the same part: what was taken out is loose and
// uncounted, what came off was counted, a choice that is taken back loses its reason.
var with = regexp.MustCompile(`/(torque|found|turn|reason|count|facing|freed|route)$`)

// thing is what a value belongs to: a part, a mark, a step; of a unit or job the value itself.
func thing(path string) string {
	words := strings.Split(path, "/")
	for i, w := range words {
		several := []string{"parts", "evidence", "loose_items", "kit", "causes", "conclusions"}
		if slices.Contains(several, w) && i+1 < len(words) {
			return w + words[i+1]
		}
	}
	return path
}

// says reports that a control named the value that changed, and what it became.
func says(c control, d changed) error {
	name := d.path[strings.LastIndex(d.path, "/")+1:]
	label := plain(c.Label + " | " + c.About)
	own := plain(c.Label)
	if text, known := named(d); known {
		if own != plain(text) && !(own == "looked at: sound" && text == "sound") {
			return fmt.Errorf("%s became %q, which is %q and not %q", d.path, d.after, text, c.Label)
		}
		return direction(c, d)
	}
	for _, value := range []string{d.after, d.before} {
		if value == "" {
			continue
		}
		candidates := []string{value, wording.Plain(value)}
		for _, scope := range []unit.Scope{unit.ScopeJob, unit.ScopeUnit, unit.ScopeEvidence, unit.ScopePart,
			unit.ScopePartMark, unit.ScopeDecision, unit.ScopeStep, unit.ScopeFeature, unit.ScopePoint,
			unit.ScopeConclusion, unit.ScopeCause, unit.ScopeLoose, unit.ScopePiece, unit.ScopeRework,
			unit.ScopePicture, unit.ScopeAttempt, unit.ScopeReading, unit.ScopeLimit} {
			candidates = append(candidates, wording.Choice(scope, name, value))
		}
		for _, w := range candidates {
			if w = plain(w); w != "" && (strings.Contains(own, w) || len(own) > 2 && strings.Contains(w, own)) {
				return direction(c, d)
			}
		}
	}
	for _, w := range said[name] {
		if strings.Contains(own, w) {
			return direction(c, d)
		}
	}
	// A flag goes by its own name: what was answered is the button, what for stands beside it.
	if flagNamed(name, label) {
		return direction(c, d)
	}
	return fmt.Errorf("%s became %q from %q, which %q does not say", d.path, d.after, d.before, c.Label)
}

// named are the words of what is told apart by the place it stands at, or by a number.
func named(d changed) (text string, known bool) {
	words := strings.Split(d.path, "/")
	for i, w := range words {
		if i+1 == len(words) {
			break
		}
		code := strings.Split(strings.TrimPrefix(words[i+1], "·"), "·")[0]
		switch {
		case w == "marks" && strings.HasSuffix(d.path, "/state"):
			m, known := family.PartMark(code)
			return m.Text, known
		case w == "symptoms":
			return family.SymptomText(code)
		case w == "readings" && code == "grade":
			n, err := strconv.Atoi(d.after + map[bool]string{true: d.before}[d.after == ""])
			if err != nil || n >= len(family.Grades) {
				return "", false
			}
			return family.Grades[n], true
		case w == "fill":
			value := d.after + map[bool]string{true: d.before}[d.after == ""]
			return map[bool]string{true: "not here", false: "done"}[value == "none"], true
		}
	}
	return "", false
}

// direction reports that what was pressed is taken back, and what was not is set.
func direction(c control, d changed) error {
	switch {
	case c.Pressed && d.after != "" && d.before == "":
		return fmt.Errorf("%s was set to %q by %q, which stood pressed", d.path, d.after, c.Label)
	case strings.Contains(plain(c.Label), "take out") && d.after != "",
		strings.Contains(plain(c.Label), "back on") && d.after != "",
		strings.HasPrefix(plain(c.Label), "fitted") && d.after == "",
		strings.HasPrefix(plain(c.Label), "off") && d.after == "":
		return fmt.Errorf("%s became %q by %q, which says the opposite", d.path, d.after, c.Label)
	}
	return nil
}

func flagNamed(name, label string) bool {
	if strings.Contains(label, plain(wording.Plain(name))) {
		return true
	}
	for _, scope := range []unit.Scope{unit.ScopePart, unit.ScopeStep, unit.ScopeUnit, unit.ScopeJob, unit.ScopeFeature,
		unit.ScopeDecision, unit.ScopeRework, unit.ScopePiece, unit.ScopeLoose} {
		if f, known := entry.Find(scope, name); known && f.Name == name && strings.Contains(label, plain(f.Label)) {
			return true
		}
	}
	return false
}

var notWords = regexp.MustCompile(`[^a-z0-9.:,]+`)

func plain(text string) string {
	return strings.TrimSpace(notWords.ReplaceAllString(strings.ToLower(text), " "))
}

// act does to a control what the hand does.
func (u *user) act(way string, c control, typed string) {
	el, err := u.Timeout(5 * time.Second).ElementByJS(rod.Eval(`(n) => window.walk[n]`, c.N))
	if err != nil {
		return
	}
	if _, err := el.Eval(`() => this.scrollIntoView({block: "center"})`); err != nil {
		return
	}
	press := func() {
		switch way {
		case "mouse":
			_ = el.Timeout(2*time.Second).Click(proto.InputMouseButtonLeft, 1)
		case "touch":
			_ = el.Timeout(2 * time.Second).Tap()
		default:
			_, _ = el.Eval(`() => this.focus()`)
			if !c.Field {
				u.Keyboard.MustType(input.Enter)
			}
		}
	}
	press()
	switch {
	case !c.Field:
		return
	case way == "touch":
		for _, k := range typed {
			u.padTap(string(k))
		}
		u.padTap([]string{"✓", "→"}[int(typed[0])%2])
	default:
		u.MustInsertText(typed)
		u.Keyboard.MustType(input.Enter)
	}
}

// padTap touches a key of the pad where it stands.
func (u *user) padTap(k string) {
	at := u.MustEval(`(k) => {
		const key = [...document.querySelectorAll("#pad button")].find((x) => x.innerText === k);
		const b = key && key.checkVisibility() && key.getBoundingClientRect();
		return b ? [b.x + b.width / 2, b.y + b.height / 2] : [];
	}`, k).Arr()
	if len(at) == 2 {
		u.Touch.MustTap(at[0].Num(), at[1].Num())
	}
}

// walkedStations are the places where the hand walks.
var walkedStations = map[string]string{
	"receive": "/jobs/T-0417/receive", "strip": "/jobs/T-0417/strip", "measure": "/jobs/T-0417/measure",
	"explain": "/jobs/T-0417/explain", "decide": "/jobs/T-0417/decide", "kit": "/jobs/T-0409/kit",
	"build": "/jobs/T-0398/build", "prove": "/jobs/T-0398/prove", "handover": "/jobs/T-0417/handover",
}

// TestTappingWithoutLooking walks a little at each station; CORVEK_WALK says how many acts
// of each kind, 300 in the long trial.
func TestTappingWithoutLooking(t *testing.T) {
	t.Parallel()
	acts, seed := 7, uint64(11) // the same walk each time
	if testing.Short() {
		acts = 3
	}
	if n, err := strconv.Atoi(os.Getenv("CORVEK_WALK")); err == nil {
		acts, seed = n, uint64(time.Now().UnixNano())
	}
	if n, err := strconv.ParseUint(os.Getenv("CORVEK_SEED"), 10, 64); err == nil {
		seed = n
	}
	t.Logf("CORVEK_SEED=%d", seed)
	r := rand.New(rand.NewPCG(seed, 1))
	u := enter(t, serve(t), "iva", true)
	if acts > 20 {
		u.Page = u.CancelTimeout().Timeout(3 * time.Hour)
	}
	u.open(walkedStations["prove"])
	u.typeInto(u.MustElement("#one_change"), "new cap ring")
	u.press(u.MustElementR("button", "Start attempt 2"))
	u.MustWait(`() => Alpine.store("sent").idle() && document.querySelector(".points input") !== null`)
	ways := []string{"mouse", "touch", "keys"}
	for i, station := range whole.Every(t, 3, unit.Stations) {
		if acts < 20 { // a little, each time by another hand
			ways = ways[:1]
			ways[0] = []string{"mouse", "touch", "keys"}[(i+int(seed%3))%3]
		}
		for _, way := range ways {
			u.walk(r, walkedStations[station], way, acts)
		}
	}
	u.quiet()
}

// some control of some group: a page has many marks and one way off.
func some(r *rand.Rand, all []control) control {
	groups := map[string][]control{}
	for _, c := range all {
		groups[c.About] = append(groups[c.About], c)
	}
	names := slices.Sorted(maps.Keys(groups))
	group := groups[names[r.IntN(len(names))]]
	return group[r.IntN(len(group))]
}

// ends are acts that close what is walked on, and those whose field wants words.
var ends = regexp.MustCompile(`(?i)hand (it )?over|withdraw|sign off|close the attempt|open (it|the job) again`)

// doubleTap is the longest a hand takes for a double tap; a machine under load may be slower
// with the second half.
const doubleTap = 400 * time.Millisecond

func (u *user) walk(r *rand.Rand, path, way string, acts int) {
	tag := strings.Split(path, "/")[2]
	u.open(path)
	before := u.exported(tag)
	tally := map[string]int{}
	for range acts {
		if !strings.HasSuffix(strings.Split(u.MustInfo().URL, "?")[0], path) {
			u.open(path) // an act led away
		}
		u.ready()
		var all []control
		require.NoError(u.t, json.Unmarshal([]byte(u.MustEval(controls).Str()), &all))
		all = slices.DeleteFunc(all, func(c control) bool { return ends.MatchString(c.Label) })
		if len(all) == 0 {
			return
		}
		c := some(r, all)
		twice := !c.Field && r.IntN(5) == 0
		typed := strconv.Itoa(1 + r.IntN(8))
		began, apart := time.Now(), false
		u.act(way, c, typed)
		if twice {
			u.act(way, c, typed)
			apart = time.Since(began) > doubleTap
		}
		u.ready()
		after := u.exported(tag)
		diff := differences(before, after)
		before = after
		if apart { // two taps, and the second had another label
			tally["two"]++
			continue
		}
		if c.Field {
			if err := typedInto(c, diff, typed); err != nil {
				u.t.Errorf("%s by %s: %q (%s): %v", path, way, c.Label, c.About, err)
			}
		} else if err := judge(c, diff); err != nil {
			u.t.Errorf("%s by %s: %q (%s, pressed %t): %v", path, way, c.Label, c.About, c.Pressed, err)
		}
		if len(diff) > 0 {
			tally["wrote"]++
		} else {
			tally["nothing"]++
		}
	}
	u.t.Logf("%s by %s: %v", path, way, tally)
}

// typedInto requires that what was typed went where it was typed, and nowhere else.
func typedInto(c control, diff []changed, typed string) error {
	things := map[string]bool{}
	for _, d := range diff {
		things[thing(d.path)] = true
		if !strings.Contains(d.after, typed) && !strings.Contains(strings.Join(diffWords(diff), " "), typed) {
			return fmt.Errorf("%s became %q though %q was typed", d.path, d.after, typed)
		}
	}
	if len(things) > 1 {
		return fmt.Errorf("it changed more than one thing: %v", diff)
	}
	return nil
}

func diffWords(diff []changed) (out []string) {
	for _, d := range diff {
		out = append(out, d.after)
	}
	return out
}
