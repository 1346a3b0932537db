package e2e

import (
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// bar is the bar of a task in the plan, in the row of whom it needs first.
func (u *user) bar(task string) *rod.Element { return u.MustElement(`[data-task="` + task + `"]`) }

// A bar is drawn to another's row, moved by keys, put back, and a pin that makes the job late is found and left again.
func TestThePlanIsMovedByHandAndByKeys(t *testing.T) {
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "odd", false)
	u.open("/plan")
	const task = "T-0426/1/strip"
	require.Contains(t, *u.bar(task).MustAttribute("aria-label"), "T-0426")

	// Drawn to the row of Mirre Stoll, to another day on which somebody is there; not to one who cannot do it.
	at := u.bar(task).MustElement("svg").MustShape().Box()
	row := u.MustElement(`[data-row="1"]`).MustShape().Box()
	day := u.MustEval(`(x) => Math.max(...[...document.querySelectorAll("[data-day]:not([data-shut])")]
		.map((d) => d.getBoundingClientRect()).filter((d) => d.right < innerWidth && d.left > x).map((d) => d.left))`,
		at.X).Num() + 30
	mouse := u.Page.Mouse
	mouse.MustMoveTo(at.X+2, at.Y+at.Height/2)
	mouse.MustDown(proto.InputMouseButtonLeft)
	hands := u.MustElement(`[data-name="Odd Renfeld"]`).MustShape().Box()
	require.NoError(t, mouse.MoveLinear(proto.Point{X: day, Y: hands.Y + 23}, 4))
	u.MustElementR(".plan-hint.against", "Odd Renfeld: not for this")
	require.NoError(t, mouse.MoveLinear(proto.Point{X: day, Y: row.Y + 23}, 4))
	u.MustElementR(".plan-hint:not(.against)", `Mirre Stoll, \w{3} \d+ \w{3} \d\d:\d\d`)
	mouse.MustUp(proto.InputMouseButtonLeft)
	u.MustElementR("p", "Pinned by Odd Renfeld")
	assert.Contains(t, *u.bar(task).MustAttribute("aria-label"), "Mirre Stoll")
	drawn := *u.bar(task).MustAttribute("aria-label")

	// Half an hour later, by a key.
	u.bar(task).MustFocus()
	u.Page.Keyboard.MustType(input.ArrowRight)
	u.MustWait(`(was) => document.querySelector('[data-task="`+task+`"]')?.getAttribute("aria-label") !== was`, drawn)
	u.MustWait(`() => document.activeElement.getAttribute("data-task") === "` + task + `"`) // for the next key
	u.MustElementR("button", "Undo this move").MustClick()
	u.MustWait(`(was) => document.querySelector('[data-task="`+task+`"]')?.getAttribute("aria-label") === was`, drawn)

	// What it does to the job is told, and it is left to the plan again.
	u.MustElementR("button", "Leave it to the plan again").MustClick()
	u.MustWait(`() => !document.body.textContent.includes("Pinned by Odd Renfeld")`)
}

// A finger that is wider than the bars under it is asked which one it means.
func TestNarrowBarsAreToldApart(t *testing.T) {
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "odd", false)
	u.open("/plan")
	crowd := u.MustEval(`() => {
		const bars = [...document.querySelectorAll("a.plan-bar")].map((a) => [a, a.getBoundingClientRect()]);
		for (const [a, b] of bars) {
			const near = bars.filter(([, o]) => o.top === b.top && Math.abs(o.left - b.right) < 12 && o.width < 40);
			if (b.width < 40 && near.length > 0) {
				return [b.right - 2, b.top + b.height / 2, a.getAttribute("href"), near[0][0].getAttribute("href")];
			}
		}
	}`).Arr()
	require.Len(t, crowd, 4, "the demo has short tasks beside each other")
	u.Touch.MustTap(crowd[0].Num(), crowd[1].Num())
	for _, href := range crowd[2:] {
		u.MustElement(`.plan-near a[href="` + href.Str() + `"]`)
	}
	u.MustElement(`.plan-near a[href="` + crowd[3].Str() + `"]`).MustClick()
	u.MustWait(`(href) => location.pathname + location.search === href.split("#")[0]`, crowd[3].Str())
}
