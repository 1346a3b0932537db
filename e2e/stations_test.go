package e2e

import (
	"context"
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/internal/people"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A new pump goes through all nine stations, once with the keyboard alone and
// once with the pointer alone; the figures on the pages are checked on the way.
func TestNewPumpThroughAllNineStations(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	for _, way := range []struct {
		name    string
		pointer bool
	}{{"keyboard", false}, {"pointer", true}} {
		if way.pointer && os.Getenv("CORVEK_EVERY") == "" {
			continue // in the long trial; each station is worked by pointer in tests of its own
		}
		t.Run(way.name, func(t *testing.T) {
			t.Parallel()
			s := serve(t)
			s.stand(t)
			u := enter(t, s, "iva", way.pointer)
			tag := u.newPump()
			u.receive(tag)
			u.strip(tag)
			u.measure(tag)
			u.explain(tag)
			u.decide(tag)
			u.kitting(tag)
			u.build(tag)
			u.prove(tag)
			u.handOver(tag)
			u.quiet()
		})
	}
}

func (u *user) state(tag string) *bench.State {
	u.t.Helper()
	st, err := u.shop.jobs.Load(context.Background(), tag, 1)
	require.NoError(u.t, err)
	return st
}

func (u *user) newPump() string {
	u.open("/jobs")
	u.press(u.MustElementR("a", "New job"))
	u.MustWait(`() => location.pathname === "/jobs/new" && document.readyState === "complete"`)
	u.typeInto(u.MustElement("#customer"), "ostrey")
	u.MustWait(`() => document.querySelector(".field .buttons button") !== null`)
	u.press(u.MustElementR(".field .buttons button", "Ostrey"))
	u.typeInto(u.MustElement("#title"), "spare press pump")
	radio := u.MustElement(`input[value=external_gear_pump]`)
	if u.pointer {
		radio.MustClick()
	} else {
		radio.MustEval(`() => this.focus()`)
		u.Keyboard.MustType(' ')
	}
	u.typeInto(u.MustElement("#complaint"), "weak when hot")
	u.press(u.MustElementR("button", "Open the job"))
	u.MustWait(`() => location.pathname.endsWith("/receive") && document.readyState === "complete"`)
	return strings.Split(u.MustInfo().URL, "/")[4]
}

func (u *user) receive(tag string) {
	id := func(name string) string { return fmt.Sprintf("u1/%s", name) }
	u.open("/jobs/" + tag + "/receive?face=gauges")
	u.tap("u1/not_asked", "came in without its machine")
	u.open("/jobs/" + tag + "/receive")
	u.tap("job/symptom/weak_hot", "yes")
	u.fill(id("displacement"), "32 cc/rev")
	u.tap(id("rotation"), "right")
	u.fill(id("speed"), "1450 rpm")
	u.says("46.40 L/min", "12.26 gpm") // 32 cc · 1450/min
	u.fill(id("duty_pressure"), "175 bar")
	u.fill(id("viscosity"), "46 cSt")
	u.fill(id("fluid"), "mineral oil vg 68")
	u.tap("u1/attempt/0/point/hand_turn/word", "uniform drag")
	u.fill("u1/attempt/0/point/p100/flow", "37.8 L/min")
	u.says("81.5 % volumetric") // 37.8 / 46.4
	// The pressure of the plan stands beside its field and never in it.
	pressure := u.MustElement(`[data-field="u1/attempt/0/point/p100/pressure"]`)
	assert.Empty(u.t, pressure.MustProperty("value").String())
	assert.Contains(u.t, pressure.MustParent().MustParent().MustText(), "plan: 175.0 bar")
	u.fill("u1/attempt/0/point/p100/pressure", "175 bar")
	assert.Zero(u.t, u.state(tag).Open("receive"))
}

func (u *user) strip(tag string) {
	u.station(2)
	u.press(u.MustElementR("button", "I have read it"))
	u.ready()
	u.MustWait(`() => !document.body.innerText.includes("I have read it")`)
	u.press(u.MustElementR("button", "came off as expected"))
	u.MustWait(`() => document.querySelector(".big-n").textContent.trim() === "26"`)
	u.ready()
	for {
		u.ready()
		counted := u.MustElements("#counts button:enabled")
		if len(counted) == 0 {
			break
		}
		left := len(counted)
		u.press(counted[0])
		u.MustWait(`(n) => document.querySelectorAll("#counts button:enabled").length < n`, left)
	}
	for _, p := range u.state(tag).Parts {
		if len(p.Def.Facings) == 0 {
			continue
		}
		u.open(fmt.Sprintf("/jobs/%s/strip?part=%s", tag, p.Code))
		facing := p.Def.Facing
		if facing == "" {
			facing = p.Def.Facings[0]
		}
		u.tap(fmt.Sprintf("u1/part/%s/facing", p.Code), facing)
	}
	require.Zero(u.t, u.state(tag).Open("strip"), "%v", u.state(tag).Stops["strip"])
}

// leaf says how a feeler leaf goes, by its key, or by a tap on the leaf and one on the word.
func (u *user) leaf(field, state string) {
	u.t.Helper()
	u.ready()
	id := strings.ReplaceAll(field, " ", "_")
	if u.pointer {
		u.press(u.MustElement(fmt.Sprintf(`[id=%q]`, id)))
		u.press(u.MustElement(fmt.Sprintf(`[id="says-%s"] [data-says=%q]`, id, state)))
	} else {
		u.acts++
		u.MustElement(fmt.Sprintf(`[id=%q]`, id)).MustEval(`() => this.focus()`)
		u.Keyboard.MustType(map[string]inputKey{"goes": 'g', "drags": 'd', "stops": 's'}[state])
	}
	u.ready()
}

func (u *user) measure(tag string) {
	u.station(3)
	st := u.state(tag)
	sheet := func(part, feature string) (prefix string) {
		p := st.ByCode[part]
		for _, f := range p.Features {
			if f.Code == feature {
				u.open(fmt.Sprintf("/jobs/%s/measure?part=%s&feature=%s", tag, p.Code, feature))
				return fmt.Sprintf("u1/part/%s/feature/%s/found/", f.Part.Code, f.Code)
			}
		}
		u.t.Fatalf("no feature %s.%s", part, feature)
		return ""
	}
	own := sheet("drive_gear", "tip")
	sizes := map[string]string{"tip": "48 mm", "width": "35 mm", "side_land": "22 mm", "tip_land": "16 mm"}
	for size, text := range sizes {
		u.fill(strings.Replace(own, "/tip/", "/"+size+"/", 1)+"v1", text)
	}
	side := sheet("rear_plate", "side_clearance")
	u.tap(strings.TrimSuffix(side, "found/")+"measured", "total")
	u.leaf(side+"leaf:7 thou", "goes")
	u.says("OUT", "limit 0.035 to 0.140 mm") // 0.1 to 0.2 % of 35 mm, out at twice
	u.leaf(side+"leaf:8 thou", "drags")
	u.leaf(side+"leaf:9 thou", "stops")
	u.says("OUT", "by the thickest leaf that goes in", "drive gear and shaft: journals")
	tip := sheet("body", "tip_clearance")
	u.tap(strings.TrimSuffix(tip, "found/")+"measured", "total")
	u.leaf(tip+"leaf:4 thou", "goes")
	u.leaf(tip+"leaf:5 thou", "stops")
	u.says("IN", "1.79 L/min")
	for _, plate := range []string{"front_plate", "rear_plate"} {
		u.tap(sheet(plate, "face")+"grade", "3")
		u.says("OUT", "nail catches")
	}
	for _, gear := range []string{"drive_gear", "driven_gear"} {
		grid := sheet(gear, "journal")
		as := strings.TrimSuffix(grid, "found/")
		u.fill(as+"new_low", "20 mm")
		u.tap(as+"new_from", "unworn")
		for i, v := range []string{"19.991 mm", "19.990 mm", "19.993 mm", "19.992 mm"} {
			u.fill(fmt.Sprintf("%sr%dc%d", grid, i/2+1, i%2+1), v)
		}
		u.says("IN", "19.990 mm", "0.010 mm to spare")
	}
	u.says("8.79 L/min", "18.9 %") // 7.00, by hand in core/proof, and 1.79 of 46.4
	u.fill(sheet("relief_spring", "free_length")+"v1", "42.1 mm")
	u.fill(sheet("check_spring", "free_length")+"v1", "21.0 mm")
	require.Zero(u.t, u.state(tag).Open("measure"), "%v", u.state(tag).Stops["measure"])
}

func (u *user) explain(tag string) {
	u.station(4)
	// It came without its machine, so that nobody is sent to look at the filter: whoever knows of it finds the mark.
	for code, words := range map[string]string{"fine_lines": "fine parallel", "filter_bypass": "bypass"} {
		u.typeInto(u.MustElement("#board-find"), words)
		u.tap(fmt.Sprintf("u1/evidence/%s/state", code), "seen")
	}
	u.says("Hard dirt in the oil")
	require.Equal(u.t, "contamination", u.state(tag).Explained().Ranking[0].Cause.Code)
	u.tap("u1/conclusion/cause", "contamination")
	u.says("The cause lies outside the unit")
	cause, _ := u.state(tag).Knowledge.CauseByCode("contamination")
	u.tap("u1/conclusion/action", cause.Action)
	u.tap("u1/conclusion/owner", "the customer")
	require.Zero(u.t, u.state(tag).Open("explain"))
}

func (u *user) decide(tag string) {
	u.station(5)
	u.open("/jobs/" + tag + "/decide?part=rear_plate")
	u.fill("u1/shims_fitted", "0.12 mm, 0.06 mm")
	u.fill("u1/shims_available", "0.02 mm x4")
	u.lookedAt()
	u.says("0.056 mm") // 0.2159 − 0.18 + 0.02: new it has 0.035 to 0.070
	require.Zero(u.t, u.state(tag).Open("decide"), "%v", u.state(tag).Stops["decide"])
	require.Equal(u.t, "rework", string(u.state(tag).ByCode["rear_plate"].Choice()))
}

// lookedAt says in one act that all that nobody spoke of was looked at, and is sound.
func (u *user) lookedAt() {
	u.t.Helper()
	u.ready()
	if len(u.MustElements("#unseen")) == 0 {
		return
	}
	u.press(u.MustElement("#unseen summary"))
	u.press(u.MustElementR("#unseen button", "^All"))
	u.MustWait(`() => !document.querySelector("#unseen")`)
}

func (u *user) kitting(tag string) {
	u.station(6)
	for {
		u.ready()
		buttons := u.MustElements(`.kit li form[action$="kit/piece"] button`)
		if len(buttons) == 0 {
			break
		}
		left := len(buttons)
		if counted, count, _ := buttons[0].MustParent().Has("input[name=count]"); counted {
			place := strings.TrimPrefix(*buttons[0].MustParents("li")[0].MustAttribute("id"), "place-")
			count.MustInput(fmt.Sprint(u.state(tag).ByCode[place].Expected))
		}
		u.press(buttons[0])
		u.MustWait(`(n) => document.querySelectorAll(".kit li form[action$='kit/piece'] button").length < n`, left)
	}
	require.Zero(u.t, u.state(tag).Open("kit"))
}

func (u *user) build(tag string) {
	u.station(7)
	u.fitAll(tag)
	u.says("26")
	for _, p := range u.state(tag).Parts {
		for _, f := range p.Features {
			if !f.Def.Clearance {
				continue
			}
			goes, stops := "2 thou", "3 thou"
			if f.Code == "tip_clearance" {
				goes, stops = "3 thou", "4 thou"
			}
			u.leaf(fmt.Sprintf("u1/part/%s/feature/%s/built/leaf:%s", f.Part.Code, f.Code, goes), "goes")
			u.leaf(fmt.Sprintf("u1/part/%s/feature/%s/built/leaf:%s", f.Part.Code, f.Code, stops), "stops")
		}
	}
	require.Zero(u.t, u.state(tag).Open("build"), "%v", u.state(tag).Stops["build"])
}

func (u *user) prove(tag string) {
	u.station(8)
	for range 2 {
		u.ready()
		left := len(u.MustElements(".caution form button"))
		u.press(u.MustElement(".caution form button"))
		u.MustWait(`(n) => document.querySelectorAll(".caution form button").length < n`, left)
	}
	u.ready()
	u.connect(tag)
	u.runPlan(tag)
	u.MustWait(`() => document.querySelectorAll("tr.good").length === 8`)
	u.press(u.MustElementR("button", "Close the attempt"))
	u.MustElementR(".verdict", "EXERCISE")
	u.ready()
	a := u.state(tag).Attempts[0]
	for _, p := range a.Points {
		if p.Test.Code == "p100" {
			// Sides at 2.5 thou and tips at 3.5: 0.18 + 0.84 L/min of leak with the oil at 46 °C,
			// less while the stand is not warm yet.
			flow, _ := p.Read("flow")
			assert.InDelta(u.t, 46.4-1.02, flow*6e4, 0.9)
		}
	}
	require.NotZero(u.t, u.state(tag).Open("prove"), "an exercise proves nothing")
	require.Empty(u.t, u.MustElements("#live"), "the stand was let go with the attempt")
	u.run(tag)
	require.Zero(u.t, u.state(tag).Open("prove"), "%v", u.state(tag).Stops["prove"])
}

// run takes the second attempt with figures of the unit's own, each hold run.
func (u *user) run(tag string) {
	u.t.Helper()
	u.typeInto(u.MustElement("#one_change"), "run on the real stand")
	u.press(u.MustElementR("button", "Start attempt 2"))
	u.MustElementR("h2", "Attempt 2")
	at := func(step, name string) string { return fmt.Sprintf("u1/attempt/2/point/%s/%s", step, name) }
	for _, told := range [][2]string{{"ran_on_stand", "pump stand"}, {"ran_on_oil", "mineral oil VG 46"},
		{"pressure_gauge", "stand gauge 400"}, {"flow_meter", "turbine meter 120"}} {
		u.unfold("u1/attempt/2/" + told[0])
		u.fill("u1/attempt/2/"+told[0], told[1])
	}
	u.ready()
	now := time.Now()
	for _, step := range []string{"hand_turn", "run_in", "p25", "p50", "p75", "p100", "relief", "leak_watch",
		"complaint"} {
		u.ready()
		start := fmt.Sprintf(`form[action$="prove/hold"]:has([value=%q]) button`, step)
		if holds := u.MustElements(start); len(holds) > 0 {
			u.press(holds[0])
			u.MustWait(`(step) => document.querySelector('form[action$="prove/hold"]:has([value="' + step + '"])')
				.parentElement.querySelector("[data-until]") !== null`, step)
			// The clock of the shop moves on while it is held, and he looks in between,
			// or the bench would count as left alone.
			for range 2 {
				now = now.Add(5*time.Minute + 30*time.Second)
				at := now
				u.shop.clock.Store(&at)
				u.open("/jobs/" + tag + "/prove")
			}
			u.press(u.MustElement(fmt.Sprintf(`form[action$="prove/held"]:has([value=%q]) button`, step)))
			u.MustWait(`() => document.querySelector('form[action$="prove/held"]') === null`)
		}
		switch step {
		case "hand_turn":
			u.tap(at(step, "word"), "free")
		case "run_in":
			u.tap(at(step, "word"), "quiet")
			u.fill(at(step, "temperature"), "48 °C")
		case "leak_watch":
			u.tap(at(step, "word"), "dry")
			u.fill(at(step, "pressure"), "197 bar")
			u.fill(at(step, "temperature"), "52 °C")
		case "complaint":
			u.tap(at(step, "word"), "gone")
			u.fill(at(step, "pressure"), "175 bar")
			u.fill(at(step, "temperature"), "58 °C")
		case "relief":
			u.fill(at(step, "pressure"), "197 bar")
		default:
			u.fill(at(step, "pressure"), map[string]string{"p25": "44 bar", "p50": "88 bar", "p75": "131 bar",
				"p100": "175 bar"}[step])
			u.fill(at(step, "flow"), "45.9 L/min")
			if step == "p100" {
				u.fill(at(step, "speed"), "1450 rpm")
				u.fill(at(step, "temperature"), "52 °C")
			}
		}
	}
	u.ready()
	u.press(u.MustElementR("button", "Close the attempt"))
	u.MustElementR(".verdict", "PASSED")
	u.MustElementR(".standing", "PROVED")
}

func (u *user) handOver(tag string) {
	u.station(9)
	u.says("READY")
	u.fill("job/collected_by", "Hanna Ode")
	u.ready()
	u.press(u.MustElementR("button", "^Hand over$"))
	u.MustElementR("[role=alert]", "a lead has to sign the papers")
	lead := people.Actor{Name: "Odd Renfeld", Role: people.RoleLead}
	require.NoError(u.t, u.shop.jobs.SignOff(u.Page.GetContext(), lead, tag, 1)) // at the desk, meanwhile
	u.open("/jobs/" + tag + "/handover")
	u.press(u.MustElementR("button", "^Hand over$"))
	u.MustWait(`() => [...document.querySelectorAll(".verdict")].some(v => v.innerText.includes("DONE"))`)
	require.True(u.t, u.state(tag).Job.HandedOver())
	u.open("/jobs/" + tag + "/report")
	paper := u.MustElement("body").MustText()
	for _, words := range []string{"PROVED", "Hard dirt in the oil", "8.79 L/min",
		"Flush tank and lines", "0.203 mm to under 0.229 mm"} {
		assert.Contains(u.t, paper, words)
	}
}
