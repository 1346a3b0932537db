package e2e

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/unit"
	"corvek/internal/job/jobtest"
	"corvek/internal/whole"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A unit is taken apart and built by its running list alone: each row is answered where it stands, Enter does it and
// the hand is on the next. No page is changed, and hardly a line of the record says only that a part came off or went
// in. The pump by keys, the brake by one thumb.
func TestARunningListIsWorkedDown(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	for _, c := range []struct {
		family  string
		pointer bool
	}{{"external_gear_pump", false}, {"winch_brake_pack", true}} {
		t.Run(c.family, func(t *testing.T) {
			t.Parallel()
			s := serve(t)
			u := enter(t, s, "iva", c.pointer)
			tag := jobtest.Taken(t, s.jobs, c.family)
			u.runDown(tag, "strip")
			require.Empty(t, u.state(tag).OffNext())
			jobtest.MeasuredAndDecided(t, s.jobs, tag)
			u.runDown(tag, "build")
			st := u.state(tag)
			for _, p := range st.Parts {
				assert.True(t, p.Step.Done || p.Alone, p.Code)
				assert.Empty(t, p.Step.Over, p.Code)
			}
			for _, stop := range st.Stops["build"] {
				assert.Contains(
					t,
					[]unit.StopKind{unit.StopFill, unit.StopAgain, unit.StopRework, unit.StopCaution},
					stop.Kind,
					stop.Text,
				)
			}
			bare, _ := u.bareLines(tag)
			t.Logf(
				"%s: %d parts, %d acts, %d lines that say only off or fitted",
				c.family,
				len(st.Parts),
				u.acts,
				bare,
			)
			assert.LessOrEqual(t, bare, 2*len(st.Parts)*2/3)
			u.quiet()
		})
	}
}

// runDown works the running list of a station down.
func (u *user) runDown(tag, station string) {
	u.t.Helper()
	u.open("/jobs/" + tag + "/" + station)
	u.cautions()
	address := u.MustInfo().URL
	for {
		u.ready()
		// Once all is done, the sheet of what is still to settle shows in the place of the list.
		at := u.MustEval(`() => document.querySelector("#run")?.dataset.at || ""`).Str()
		if at == "" {
			break
		}
		u.answerRow(tag, station, at)
		u.MustWait(`(at) => document.querySelector("#run")?.dataset.at !== at`, at)
	}
	assert.Equal(u.t, address, u.MustInfo().URL, "no page was changed")
}

// answerRow answers what the row at work asks, and does it.
func (u *user) answerRow(tag, station, code string) {
	u.t.Helper()
	p := u.state(tag).ByCode[code]
	row := fmt.Sprintf(`[id="run-%s"] form `, code)
	asks := func(selector string) *rod.Element {
		all := u.MustElements(row + selector)
		if len(all) == 0 {
			return nil
		}
		return all[0]
	}
	pick := func(name, value string) {
		el := asks(fmt.Sprintf(`input[name=%s][value=%q]`, name, value))
		if el == nil || el.MustProperty("checked").Bool() {
			return
		}
		u.acts++
		if u.pointer {
			el.MustTap()
			return
		}
		el.MustEval(`() => this.focus()`)
		u.Keyboard.MustType(input.Space)
	}
	if station == "strip" {
		facing := p.Def.Facing
		if facing == "" && len(p.Def.Facings) > 0 {
			facing = p.Def.Facings[0]
		}
		pick("facing", facing)
	} else {
		feel := build.Free
		if build.Slides(u.state(tag).Family.Action, p.Def.Kind) {
			feel = build.Falls
		}
		pick("turn", string(feel))
		pick("cycled", "yes")
		if el := asks(`input[name=stack_fit]`); el != nil {
			pick("stack_fit", el.MustProperty("value").String())
		}
	}
	for _, name := range []string{"found", "count"} {
		if el := asks("input[name=" + name + "]"); el != nil {
			u.typeInto(el, fmt.Sprint(p.Expected))
		}
	}
	if el := asks("input[name=torque]"); el != nil {
		u.typeInto(el, torqueOf(u.t, p))
	}
	button := asks("button.run-act")
	asked := asks("input:is([name=found], [name=count], [name=torque], [name=turn], [name=cycled])")
	if !u.pointer && asked == nil {
		at := button.MustEval(`() => document.activeElement === this`).Bool()
		assert.True(u.t, at || p.Def.Facings != nil, "%s: Enter alone does it", code)
	}
	u.press(button)
}

// torqueOf is what a joint is tightened to, in N·m: as it is worked out, or a figure of the bench where nothing
// says it.
func torqueOf(t testing.TB, p *bench.Part) string {
	j, _ := build.JointOf(p.Def, p.Part.Joint)
	tight, err := build.Tighten(j)
	if err != nil || tight.Torque == 0 {
		return "60"
	}
	return fmt.Sprintf("%.1f", tight.Torque)
}

// bareLines counts the lines of a record that say only that a part came off or went in, and all of them.
func (u *user) bareLines(tag string) (bare, all int) {
	u.t.Helper()
	for line, err := range u.shop.jobs.Store.Lines(context.Background(), tag) {
		require.NoError(u.t, err)
		all++
		if strings.HasSuffix(line.Field, "/off") || strings.HasSuffix(line.Field, "/step/done") {
			bare++
		}
	}
	return bare, all
}
