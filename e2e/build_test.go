package e2e

import (
	"fmt"
	"os"
	"testing"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/whole"

	"github.com/stretchr/testify/require"
)

// fitAll fits every part as it belongs, in the order of the page, and fills the unit.
func (u *user) fitAll(tag string) {
	u.t.Helper()
	for _, p := range u.state(tag).InOrder() {
		u.open(fmt.Sprintf("/jobs/%s/build?part=%s", tag, p.Code))
		if p.Code == "cover_bolts" && p.Def.Bolt.Thread == "M10" {
			u.says("37.8 N·m") // M10 8.8, oiled, 75 % of proof load
		}
		u.fitOne(tag, p)
	}
	u.filled(tag)
}

// filled says of each step of the filling that it is done, on the page of the part that shows them.
func (u *user) filled(tag string) {
	u.t.Helper()
	st := u.state(tag)
	u.open(fmt.Sprintf("/jobs/%s/build?part=%s", tag, st.InOrder()[0].Code))
	for _, f := range st.Filling() {
		u.tap("u1/fill/"+f.Code, "yes")
	}
}

// joints reads off the heads what a joint is worked out for.
func (u *user) joints(tag string) {
	u.t.Helper()
	for _, p := range u.state(tag).InOrder() {
		j, bolted := build.JointOf(p.Def, p.Part.Joint)
		if !bolted || p.Part.Joint.Snug || j.Thread != "" || !j.Bolts {
			continue
		}
		u.open(fmt.Sprintf("/jobs/%s/build?part=%s", tag, p.Code))
		own := func(name string) string { return fmt.Sprintf("u1/part/%s/%s", p.Code, name) }
		u.unfold(own("thread"))
		u.fill(own("thread"), "M10")
		u.unfold(own("class"))
		u.tap(own("class"), "8.8")
	}
}

// fitOne answers what is asked of one part, and presses Fitted.
func (u *user) fitOne(tag string, p *bench.Part) {
	u.t.Helper()
	st := u.state(tag)
	at := func(name string) string { return fmt.Sprintf("u1/part/%s/step/%s", p.Code, name) }
	for _, w := range p.Going() {
		if w.Kind.Flat {
			u.tap(fmt.Sprintf("u1/part/%s/rework/%s/flat_how", p.Code, w.Code), "blued")
			u.tap(fmt.Sprintf("u1/part/%s/feature/%s/built/grade", p.Code, w.For), "1")
		}
	}
	if _, right := build.FittingWays(p.Def); right != "" {
		u.tap(at("facing"), right)
	}
	if must, asked := st.CountsIn(p); asked {
		u.fill(at("count"), fmt.Sprint(must))
	}
	if p.Stack != nil && p.Def.Stack.As != "" {
		u.tap(at("stack_fit"), p.Def.Stack.As)
	}
	if st.Track(p).Worn() {
		u.fill(at("press"), "1.5 mm")
	}
	if j, bolted := build.JointOf(p.Def, p.Part.Joint); bolted {
		if j.Bolts && j.Thread == "" { // read off the head
			own := func(name string) string { return fmt.Sprintf("u1/part/%s/%s", p.Code, name) }
			u.unfold(own("thread"))
			u.fill(own("thread"), "M10")
			u.unfold(own("class"))
			u.tap(own("class"), "8.8")
			j, _ = build.JointOf(p.Def, u.state(tag).ByCode[p.Code].Part.Joint)
		}
		tight, err := build.Tighten(j)
		require.NoError(u.t, err)
		if !j.Bolts && tight.Torque == 0 {
			tight.Torque = 60
		}
		u.fill(at("torque"), fmt.Sprintf("%.1f N·m", tight.Torque))
	}
	if p.AsksFeel() {
		feel := build.Free
		if build.Slides(st.Family.Action, p.Def.Kind) {
			feel = build.Falls
		}
		u.tap(at("turn"), string(feel))
	}
	if p.Def.Reaches {
		u.tap(at("cycled"), "yes")
	}
	u.press(u.MustElement(fmt.Sprintf(`[data-set=%q]`, at("done"))))
	u.MustWait(`(f) => { const b = document.querySelector('[data-set="' + f + '"]'); return document.readyState `+
		`=== "complete" && window.Alpine && Alpine.store("sent").idle() && `+
		`(!b || b.dataset.base === "yes"); }`, at("done"))
}

// The units whose builds differ most go through Decide, Kit and Build by hand: kept where
// nothing was measured, with the reason, every place filled, every part fitted. Each is done
// with the keys and with one thumb where CORVEK_EVERY is set; else the brake pack, by keys.
func TestOtherUnitsAreDecidedKittedAndBuilt(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	families, ways := []string{"winch_brake_pack"}, []bool{false}
	if os.Getenv("CORVEK_EVERY") != "" {
		families = append(families, "intensifier_ram", "gas_booster", "cam_piston_pump", "directional_spool_valve")
		ways = append(ways, true)
	}
	for _, family := range families {
		for _, pointer := range ways {
			t.Run(fmt.Sprintf("%s thumb %t", family, pointer), func(t *testing.T) {
				t.Parallel()
				s := serve(t)
				u := enter(t, s, "iva", pointer)
				who := people.Actor{Name: "Iva Brask", Role: people.RoleTechnician}
				tag, err := s.jobs.Create(t.Context(), who, job.NewJob{Customer: "Somebody", Title: family,
					Complaint: "weak", Family: family})
				require.NoError(t, err)
				s.nobodyToAsk(t, tag)
				require.NoError(t, s.jobs.TakeOffRest(t.Context(), who, tag, 1))
				u.settle(tag)
				u.kitting(tag)
				u.fitAll(tag)
				for _, stop := range u.state(tag).Stops["build"] {
					require.Contains(t, []unit.StopKind{unit.StopAgain, unit.StopCaution}, stop.Kind, stop.Text)
				}
				u.quiet()
			})
		}
	}
}

// settle keeps every part that is open at Decide, with a reason.
func (u *user) settle(tag string) {
	u.t.Helper()
	for _, p := range u.state(tag).Parts {
		if p.Choice() != decide.Open {
			continue
		}
		at := "u1/part/" + p.Code + "/decision/"
		u.open(fmt.Sprintf("/jobs/%s/decide?part=%s", tag, p.Code))
		u.tap(at+"choice", string(decide.Keep))
		u.tap(at+"reason", "still fits well")
	}
	for _, stop := range u.state(tag).Stops["decide"] {
		require.Equal(u.t, unit.StopCaution, stop.Kind, stop.Text)
	}
}
