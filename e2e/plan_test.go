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

	// Drawn to the row of Mirre Stoll, a day to the right.
	at := u.bar(task).MustElement("svg").MustShape().Box()
	row := u.MustElement(`[data-row="1"]`).MustShape().Box()
	mouse := u.Page.Mouse
	mouse.MustMoveTo(at.X+2, at.Y+at.Height/2)
	mouse.MustDown(proto.InputMouseButtonLeft)
	require.NoError(t, mouse.MoveLinear(proto.Point{X: at.X + 150, Y: row.Y + 23}, 4))
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
