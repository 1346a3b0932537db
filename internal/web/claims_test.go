package web

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"net/http/httptest"
	"net/url"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/demo"
	"corvek/internal/exchange"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
	"pgregory.net/rapid"
)

// A hand that wants PROVED without having deserved it does whatever a technician and a lead can do, in
// any order, over the real handlers. The judge beside it knows nothing of the program's rules: it keeps
// the record of the acts (what was shown last at each step, on what, and what moved since), and says
// whether the claim was earned.

// bench1 is who begins an exercise, which no form does.
var bench1 = people.Actor{Name: "iva", Role: people.RoleTechnician}

// reading is something that was read at a step, and the world as it was then.
type reading struct {
	good     bool
	pressure float64 // Pa, of the pressure of the step
	world    map[string]string
}

// tried is a step in one attempt.
type tried struct {
	read     map[string]reading // figures, and "word"
	from, to map[string]string  // the world at the ends of its hold
	held     time.Duration
}

// try is an attempt.
type try struct {
	exercise, closed bool
	steps            map[string]*tried
}

// judge is the record of acts.
type judge struct {
	world map[string]string // what was done to unit, parts and complaint
	duty  float64           // Pa
	tries []try
}

// before is a copy that later acts do not change.
func (j *judge) before() *judge {
	c := &judge{world: maps.Clone(j.world), duty: j.duty}
	for _, t := range j.tries {
		own := try{t.exercise, t.closed, map[string]*tried{}}
		for code, s := range t.steps {
			again := *s
			again.read = maps.Clone(s.read)
			own.steps[code] = &again
		}
		c.tries = append(c.tries, own)
	}
	return c
}

// last is the open attempt, nil where there is none.
func (j *judge) last() *try {
	if n := len(j.tries); n > 0 && !j.tries[n-1].closed {
		return &j.tries[n-1]
	}
	return nil
}

func (t *try) step(code string) *tried {
	if t.steps[code] == nil {
		t.steps[code] = &tried{read: map[string]reading{}}
	}
	return t.steps[code]
}

// stands reports that nothing on which a step rests is another than in a world of before.
func (j *judge) stands(f *family.Family, step *family.Test, then map[string]string) bool {
	for key := range mergedWorlds(j.world, then) {
		if j.world[key] == then[key] {
			continue
		}
		kind, of, _ := strings.Cut(key, ":")
		part, _, _ := strings.Cut(of, "/")
		switch kind {
		case "complaint":
			if step.Code != family.ComplaintTest {
				continue
			}
		case "part":
			if p, known := f.PartByCode(part); known && step.Assembly != "" && p.Assembly != step.Assembly {
				continue
			}
		}
		return false
	}
	return true
}

func mergedWorlds(a, b map[string]string) map[string]string {
	all := maps.Clone(a)
	maps.Copy(all, b)
	return all
}

// shown says why a step was not shown, "" where it was.
func (j *judge) shown(f *family.Family, step *family.Test) string {
	for i := len(j.tries) - 1; i >= 0; i-- {
		t := &j.tries[i]
		s := t.steps[step.Code]
		if t.exercise || s == nil || len(s.read) == 0 {
			continue
		}
		if !t.closed {
			return "its test goes on"
		}
		must := []string{}
		if len(step.Words) > 0 {
			must = append(must, "word")
		}
		for _, r := range step.Reads {
			if !r.May {
				must = append(must, r.Figure)
			}
		}
		for _, name := range must {
			if _, there := s.read[name]; !there {
				return name + " was not read"
			}
		}
		for name, r := range s.read {
			switch {
			case !r.good:
				return name + " was bad"
			case !j.stands(f, step, r.world):
				return "something moved since " + name + " was read"
			case name == "pressure" && step.Pressure > 0 && step.At != family.AtStated && step.At != family.AtRodEnd &&
				r.pressure < 0.96*step.Pressure*j.duty:
				return "duty is higher now"
			}
		}
		if step.Hold != "" {
			hold, _ := quantity.Parse(step.Hold, quantity.Time)
			if s.held.Seconds() < hold.SI || !j.stands(f, step, s.from) || !j.stands(f, step, s.to) {
				return "it was not held its time on what stands"
			}
		}
		return ""
	}
	return "nobody ran it"
}

// deceiver acts on one job, with its judge.
type deceiver struct {
	r          *rapid.T
	site       *served
	iva, odd   *browser
	tag        string
	clock      *atomic.Int64
	j          *judge
	now        *bench.State
	shop       *entry.Shop
	past       []*judge // before each act that can be taken back
	did        []string
	code       string
	sound      map[string]map[string]string // what a sound unit shows, by step and name
	bare, kept []string                     // parts with a piece at their place, and without
}

// state is the unit as the program has it after the last act.
func (d *deceiver) state() *bench.State {
	if d.now == nil {
		st, err := d.site.server.Jobs.Load(d.site.t.Context(), d.tag, 1)
		require.NoError(d.r, err)
		d.now = st
	}
	return d.now
}

// act posts a form and reports whether it was taken.
func (d *deceiver) act(b *browser, path string, form url.Values) bool {
	if form == nil {
		form = url.Values{}
	}
	before, version := d.j.before(), d.state().Job.Version
	res, body := b.post("/jobs/"+d.tag+"/"+path, form)
	d.now = nil
	if res.StatusCode == http.StatusForbidden || res.StatusCode == http.StatusUnauthorized { // the bench has rested
		again := d.site.as(map[bool]string{true: "odd", false: "iva"}[b == d.odd])
		b.Client, b.csrf = again.Client, again.csrf
		res, body = b.post("/jobs/"+d.tag+"/"+path, form)
	}
	if res.StatusCode >= 500 {
		d.r.Fatalf("%s %v: %s", path, form, body)
	}
	switch now := d.state().Job.Version; {
	case b != d.iva && now != version:
		d.past = nil // what another did meanwhile is not taken back with it
	case now != version && path != "undo":
		d.past = append(d.past, before)
	}
	d.did = append(d.did, fmt.Sprint(path, " ", form.Get("field"), " ", form.Get("value"), form.Get("code"),
		form.Get("one_change"), form.Get("touches"), " ", res.StatusCode))
	return res.StatusCode == http.StatusOK
}

// set writes a field over whatever stands there.
func (d *deceiver) set(address, value string) bool {
	ref, err := unit.ParseRef(address)
	require.NoError(d.r, err)
	place, f, err := entry.Resolve(d.state().Job.Clone(), ref, d.shop)
	if err != nil {
		return false // it has no such field now
	}
	return d.act(d.iva, "set", url.Values{"field": {address}, "value": {value}, "base": {f.Get(place)}})
}

// attempt is the open one as the program has it, nil for none.
func (d *deceiver) attempt() *bench.Attempt {
	if a := d.state().Attempt(); a != nil && !a.Closed {
		return a
	}
	return nil
}

func (d *deceiver) steps() (out []proof.PlanStep) {
	for _, s := range d.state().Plan() {
		if s.Skipped == "" {
			out = append(out, s)
		}
	}
	return out
}

func (d *deceiver) pick(of []string, what string) string {
	return rapid.SampledFrom(of).Draw(d.r, what)
}

// read types one thing of a step, and tells the judge whether it was good.
func (d *deceiver) read(step *family.Test, name, text string, good bool) {
	a, t := d.attempt(), d.j.last()
	if a == nil || t == nil {
		return
	}
	ref := d.state().Unit.PointRef(a.Number, step.Code, name).String()
	if !d.set(ref, text) {
		return
	}
	if text == "" {
		delete(t.step(step.Code).read, name)
		return
	}
	r := reading{good: good, world: maps.Clone(d.j.world)}
	if name == "pressure" {
		q, _ := quantity.Parse(text, quantity.Pressure)
		r.pressure = q.SI
	}
	t.step(step.Code).read[name] = r
}

// typed are what is read at a step, in an order that does not change.
func (d *deceiver) typed(step *family.Test) []string {
	return slices.Sorted(maps.Keys(d.sound[step.Code]))
}

// hold holds a step its time, or half of it.
func (d *deceiver) hold(step *family.Test, long bool) {
	t := d.j.last()
	if step.Hold == "" || t == nil || !d.act(d.iva, "prove/hold", url.Values{"code": {step.Code}}) {
		return
	}
	s := t.step(step.Code)
	s.from, s.to, s.held = maps.Clone(d.j.world), nil, 0
	q, _ := quantity.Parse(step.Hold, quantity.Time)
	passed := time.Duration(q.SI * float64(time.Second))
	if !long {
		passed /= 2
	}
	d.clock.Add(int64(passed))
	if d.act(d.iva, "prove/held", url.Values{"code": {step.Code}}) {
		s.to, s.held = maps.Clone(d.j.world), passed
	}
}

// whole runs a step as it should be run.
func (d *deceiver) whole(step *family.Test) {
	d.hold(step, true)
	for _, name := range d.typed(step) {
		d.read(step, name, d.sound[step.Code][name], true)
	}
}

// bad are figures that no sound unit shows.
var bad = map[string]string{"flow": "1 L/min", "leakage": "9 L/min", "leakage_in": "9 L/min", "leakage_out": "9 L/min",
	"case_flow": "30 L/min", "pressure": "3 bar", "stroke": "20 mm", "drift": "400 mm", "temperature": "",
	"start_torque": "1 N·m", "torque": "1 N·m", "drag_torque": "9000 N·m", "time": "", "breakaway": "90 bar",
	"rest_stroke": "90 mm", "reseat": "20 bar", "falling": "4 bar", "cracking": "900 bar", "turns": "40",
	"volume": "90 L", "force": "", "outlet_b": "90 L/min", "vent": "50 L/min"}

func (d *deceiver) acts() map[string]func() {
	steps := d.steps()
	step := func() *family.Test { return &steps[rapid.IntRange(0, len(steps)-1).Draw(d.r, "step")].Test }
	world := func(key, value string, ok bool) {
		if ok {
			d.j.world[key] = value
		}
	}
	part := func(of []string) string { return d.pick(of, "part") }
	all := map[string]func(){
		"whole step": func() { d.whole(step()) },
		"bad figure": func() {
			s := step()
			for _, r := range s.Reads {
				if text := bad[r.Figure]; text != "" && !r.May && (r.Figure != "pressure" || s.Pressure > 0) &&
					(r.Figure != "time" && r.Figure != "torque" || r.Of != "") && (r.Figure != "volume" || r.By != "") {
					d.read(s, r.Figure, text, false)
					return
				}
			}
			for _, w := range s.Words {
				if !slices.Contains(s.Good, w) {
					d.read(s, "word", w, false)
					return
				}
			}
		},
		"figure gone": func() {
			s := step()
			d.read(s, d.pick(d.typed(s), "figure"), "", false)
		},
		"short hold": func() { d.hold(step(), false) },
		"close": func() {
			if d.act(d.iva, "prove/close", nil) {
				if t := d.j.last(); t != nil {
					t.closed = true
				}
			}
		},
		"next": func() {
			if d.act(d.iva, "prove/attempt", url.Values{"one_change": {"nothing, run once more"}}) {
				d.j.tries = append(d.j.tries, try{steps: map[string]*tried{}})
			}
		},
		"exercise": func() {
			if t := d.j.last(); t != nil &&
				d.site.server.Jobs.BeginExercise(d.site.t.Context(), bench1, d.tag, 1) == nil {
				d.past, t.exercise, d.now = nil, true, nil
				d.did = append(d.did, "exercise")
			}
		},
		"not possible": func() {
			if a := d.attempt(); a != nil {
				d.set(
					d.state().Unit.PointRef(a.Number, step().Code, "not_applicable").String(),
					"no drive of that size",
				)
			}
		},
		"serial": func() {
			v := d.pick([]string{"", "S-1", "S-2"}, "serial")
			world("unit:serial", v, d.set("u1/serial", v))
		},
		"fluid": func() {
			v := d.pick([]string{"mineral oil VG 46", "mineral oil VG 100"}, "fluid")
			world("unit:fluid", v, d.set("u1/fluid", v))
		},
		"duty": func() {
			v := d.pick([]string{"175 bar", "400 bar"}, "duty")
			if q, _ := quantity.Parse(v, quantity.Pressure); d.set("u1/duty_pressure", v) {
				d.j.duty = q.SI
			}
		},
		"complaint": func() {
			v := d.pick([]string{"It is weak", "It leaks"}, "complaint")
			world("complaint:words", v, d.set("job/complaint", v))
		},
		"out and in": func() {
			p := part(append(slices.Clone(d.kept), d.bare...))
			if d.set("u1/part/"+p+"/step/done", "") {
				world("part:"+p+"/out", fmt.Sprint(len(d.did)), true)
			}
			d.set("u1/part/"+p+"/step/done", "yes")
		},
		"broken": func() {
			if len(d.kept) == 0 {
				return
			}
			p, v := part(d.kept), d.pick([]string{"", "seen"}, "mark")
			world("part:"+p+"/mark", v, d.set("u1/part/"+p+"/mark/broken/state", v))
		},
		"new piece": func() {
			if len(d.kept) == 0 {
				return
			}
			p := part(d.kept)
			if d.act(d.iva, "kit/piece", url.Values{"name": {"one more"}, "count": {"1"}, "place": {p}}) {
				world("part:"+p+"/piece", fmt.Sprint(len(d.did)), true)
			}
		},
		"wide limit": func() {
			s := step()
			for _, r := range s.Reads {
				if g, _ := family.FigureByCode(r.Figure); g.Dim == quantity.Flow {
					d.set(d.state().Unit.LimitRef(s.Code, r.Figure, "most").String(), "999 L/min")
					return
				}
			}
		},
		"wide setting": func() {
			d.set("u1/setting_low", "2 bar")
		},
		"waive": func() {
			for _, stops := range d.state().Stops {
				for _, s := range stops {
					if s.Waived == nil {
						d.act(d.odd, "pass", url.Values{"code": {s.String()}, "reason": {"it will hold"}})
						return
					}
				}
			}
		},
		"there and back": func() {
			if rapid.IntRange(0, 3).Draw(d.r, "rarely") > 0 {
				return // its papers are drawn, which takes as long as all the rest
			}
			d.set("job/collected_by", "the driver")
			touches := d.pick([]string{unit.TouchesUnit, unit.TouchesPapers}, "touches")
			if !d.act(d.odd, "hand-over", nil) {
				return
			}
			ok := d.act(d.odd, "reopen", url.Values{"reason": {"it came back"}, "touches": {touches}})
			world("unit:opened", fmt.Sprint(len(d.did)), ok && touches == unit.TouchesUnit)
		},
		"undo": func() {
			version := url.Values{"version": {fmt.Sprint(d.state().Job.Version)}}
			if n := len(d.past); n > 0 && d.act(d.iva, "undo", version) {
				d.j, d.past = d.past[n-1], d.past[:n-1]
			}
		},
	}
	d.tricks(all, step)
	return all
}

// tricks are acts in a row, each of which somebody might hope to get through with.
func (d *deceiver) tricks(all map[string]func(), step func() *family.Test) {
	try := func(acts ...func()) func() {
		return func() {
			for _, act := range append([]func(){all["next"]}, acts...) {
				act()
				d.earned()
			}
		}
	}
	all["a bad try"] = try(all["bad figure"], all["close"])
	all["an exercise for a try"] = try(all["exercise"], all["whole step"], all["close"])
	all["held on another"] = try(func() {
		s := step()
		d.hold(s, true)
		all["serial"]()
		for _, name := range d.typed(s) {
			d.read(s, name, d.sound[s.Code][name], true)
		}
	}, all["close"])
	all["held too short"] = try(func() {
		s := step()
		d.hold(s, false)
		for _, name := range d.typed(s) {
			d.read(s, name, d.sound[s.Code][name], true)
		}
	}, all["close"])
	all["half a step"] = try(all["whole step"], all["figure gone"], all["close"])
	all["left open"] = try(all["whole step"])
	another := func() {
		v := map[bool]string{true: "S-2", false: "S-1"}[d.state().Unit.Serial == "S-1"]
		if d.set("u1/serial", v) {
			d.j.world["unit:serial"] = v
		}
	}
	all["nothing is possible"] = try(another, func() {
		for _, s := range d.steps() {
			if d.attempt() == nil {
				return
			}
			d.set(d.state().Unit.PointRef(d.attempt().Number, s.Code, "not_applicable").String(), "no time")
		}
	}, all["close"])
	all["all but one hold"] = try(func() {
		of := step()
		d.hold(of, true)
		another()
		for _, s := range d.steps() {
			if s.Code != of.Code {
				d.hold(&s.Test, true)
			}
			for _, name := range d.typed(&s.Test) {
				d.read(&s.Test, name, d.sound[s.Code][name], true)
			}
		}
	}, all["close"])
}

// earned holds what the program claims against the record of acts.
func (d *deceiver) earned() {
	st := d.state()
	claim, _ := st.Claim()
	if claim != proof.Proved {
		return
	}
	for _, s := range d.steps() {
		if why := d.j.shown(st.Family, &s.Test); why != "" {
			d.r.Fatalf("%s %s is PROVED, and %s: %s\n  %s", d.code, d.tag, s.Name, why, strings.Join(d.did, "\n  "))
		}
		if shown := st.Shown[s.Code]; shown.Judged.Verdict == "out" {
			d.r.Fatalf("%s is PROVED over a row that is out: %s", d.code, s.Name)
		}
	}
}

// proven is a job of a family that was proved honestly, as a document.
type proven struct {
	text  []byte
	sound map[string]map[string]string
}

func (s *served) proven(t *testing.T, code string, clock *time.Time) proven {
	jobs := s.server.Jobs
	tag := jobtest.Built(t, jobs, code)
	jobtest.Test(t, jobs, tag, clock)
	st, err := jobs.Load(t.Context(), tag, 1)
	require.NoError(t, err)
	claim, missing := st.Claim()
	require.Equal(t, proof.Proved, claim, missing)
	out := proven{sound: map[string]map[string]string{}}
	for _, step := range st.Plan() {
		if step.Skipped == "" {
			out.sound[step.Code] = jobtest.Reads(t, st, step.Code)
		}
	}
	var b bytes.Buffer
	require.NoError(t, exchange.Text(&b, st.Job, func(func(unit.Entry, error) bool) {}))
	out.text = b.Bytes()
	return out
}

// bareShop is a shop without a job or an instrument, of a technician and a lead, with the clock it goes by.
func bareShop(t *testing.T) (*served, *atomic.Int64) {
	jobs, err := job.New(storetest.New(t))
	require.NoError(t, err)
	hash, err := bcrypt.GenerateFromPassword([]byte(people.DemoPassword), bcrypt.MinCost)
	require.NoError(t, err)
	for signIn, role := range map[string]string{"iva": people.RoleTechnician, "odd": people.RoleLead} {
		require.NoError(t, jobs.Store.AddPerson(t.Context(), &store.Person{SignIn: signIn, Name: signIn, Initials: "X",
			Role: role, PasswordHash: string(hash)}, "test", "added"))
	}
	app, server, err := New(Config{Jobs: jobs, Demo: true, HashCost: bcrypt.MinCost})
	require.NoError(t, err)
	s := &served{httptest.NewServer(app), server, t}
	t.Cleanup(s.Close)
	clock := &atomic.Int64{}
	clock.Store(time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC).UnixNano())
	jobs.Now = func() time.Time { return time.Unix(0, clock.Load()).UTC() }
	return s, clock
}

// cheats is how many times a hundred sequences are tried; the long trial takes more of each hundred.
const cheats = 5

// Nobody gets PROVED by leaving out, by order, by change or by label.
func TestNobodyIsProvedWithoutHavingShownIt(t *testing.T) {
	t.Parallel()
	made := allProven(t)
	codes := slices.Sorted(maps.Keys(made))
	var proved, tested atomic.Int64
	for n := range cheats {
		t.Run(fmt.Sprintf("hundred %d", n+1), func(t *testing.T) {
			t.Parallel()
			s, clock := bareShop(t)
			number, iva, odd := 0, s.as("iva"), s.as("odd")
			rapid.Check(t, func(r *rapid.T) {
				code := rapid.SampledFrom(codes).Draw(r, "family")
				number++
				d := &deceiver{r: r, site: s, iva: iva, odd: odd, tag: fmt.Sprintf("C-%d", number),
					clock: clock, code: code, sound: made[code].sound}
				d.bring(made[code].text)
				for range rapid.IntRange(1, 4).Draw(r, "acts") {
					acts := d.acts()
					acts[d.pick(slices.Sorted(maps.Keys(acts)), "act")]()
					d.earned()
				}
				if claim, _ := d.state().Claim(); claim == proof.Proved {
					proved.Add(1)
				} else {
					tested.Add(1)
				}
			})
		})
	}
	t.Cleanup(func() { // when all hundreds are over
		t.Logf("%d stayed proved, %d did not", proved.Load(), tested.Load())
		if proved.Load() == 0 || tested.Load() == 0 {
			t.Error("the judge was never asked, or nothing ever fell")
		}
	})
}

// allProven makes a job of each family that was proved honestly.
func allProven(t *testing.T) map[string]proven {
	s, clock := bareShop(t)
	at := s.server.Jobs.Now()
	s.server.Jobs.Now = func() time.Time { return at }
	out := map[string]proven{}
	for _, f := range s.server.Jobs.Families().List() {
		out[f.Code] = s.proven(t, f.Code, &at)
	}
	clock.Store(at.UnixNano())
	return out
}

// bring takes the document in as a job of its own, and asks the judge to believe its first test.
func (d *deceiver) bring(text []byte) {
	var content map[string]any
	require.NoError(d.r, json.Unmarshal(text, &content))
	content["tag"] = d.tag
	text, err := json.Marshal(content)
	require.NoError(d.r, err)
	doc, err := exchange.Parse(text)
	require.NoError(d.r, err)
	ctx := d.site.t.Context()
	require.NoError(d.r, exchange.Import(ctx, d.site.server.Jobs, doc, demo.Files, "test"))
	st := d.state()
	claim, missing := st.Claim()
	require.Equal(d.r, proof.Proved, claim, "%s: %v", d.code, missing)
	d.shop, err = d.site.server.Jobs.Shop(ctx, "iva")
	require.NoError(d.r, err)
	d.j = &judge{world: map[string]string{}, duty: st.Duty.Pressure}
	d.j.world["unit:serial"], d.j.world["unit:fluid"] = st.Unit.Serial, st.Unit.Fluid
	d.j.world["complaint:words"] = st.Job.Complaint
	first := try{closed: true, steps: map[string]*tried{}}
	for _, s := range d.steps() {
		done := first.step(s.Code)
		for name, text := range d.sound[s.Code] {
			r := reading{good: true, world: maps.Clone(d.j.world)}
			if name == "pressure" {
				q, _ := quantity.Parse(text, quantity.Pressure)
				r.pressure = q.SI
			}
			done.read[name] = r
		}
		q, _ := quantity.Parse(s.Hold, quantity.Time)
		done.held = time.Duration(q.SI * float64(time.Second))
		done.from, done.to = maps.Clone(d.j.world), maps.Clone(d.j.world)
	}
	d.j.tries = []try{first}
	for _, p := range st.Parts {
		if slices.ContainsFunc(st.Unit.Kit, func(k *unit.Piece) bool { return k.Part == p.Code }) {
			d.bare = append(d.bare, p.Code)
		} else {
			d.kept = append(d.kept, p.Code)
		}
	}
}
