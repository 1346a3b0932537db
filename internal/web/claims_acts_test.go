package web

import (
	"fmt"
	"maps"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"sync/atomic"
	"time"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/invented"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

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
				a := d.attempt() // which may begin with what was told earlier today
				d.j.tries = append(d.j.tries, try{oil: a != nil && a.RanOn.Oil != "", steps: map[string]*tried{}})
			}
		},
		"oil": func() {
			a, t := d.attempt(), d.j.last()
			v := d.pick([]string{"", "mineral oil VG 46"}, "oil")
			if a != nil && t != nil && d.set(d.state().Unit.AttemptRef(a.Number, "ran_on_oil").String(), v) {
				t.oil = v != ""
			}
		},
		"a need": func() {
			var told []string // creep and leak tell the same, and stand for one another
			for _, o := range d.state().Family.Owes {
				for _, need := range o.Needs {
					if invented.Needs[need] != "" && strings.HasPrefix(need, "need_") && need != "need_creep" &&
						need != "need_load_time" && !slices.Contains(told, need) {
						told = append(told, need)
					}
				}
			}
			if len(told) == 0 {
				return
			}
			need := d.pick(told, "need")
			text := d.pick([]string{"", invented.Needs[need]}, "told")
			if d.set("u1/"+need, text) {
				d.j.lacks[need] = text == ""
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
			d.act(d.odd, "sign-off", nil)
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
