package e2e

import (
	"encoding/json"
	"strings"
	"testing"

	"corvek/core/calc"
	"corvek/internal/answer"
	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The Toolbox by keyboard alone: figures are worked out while they are typed, a
// wrong one is told at its field, a disc is turned over, the answer goes to a job.
func TestToolboxByKeyboard(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", false)
	u.open("/toolbox/disc_stack?for=T-0412")
	type pair struct{ field, text string }
	for _, p := range []pair{{"outside", "50 mm"}, {"inside", "25.4 mm"}, {"thickness", "2 mm"},
		{"cone_height", "1.4 lb"}, {"stack", "><"}, {"force", "3000 N"}} {
		u.MustElement("#in-" + p.field).MustFocus()
		u.Page.Keyboard.MustType([]input.Key(p.text)...)
	}
	u.MustWait(`() => document.querySelector(".field:has(#in-cone_height) .is-danger")?.textContent.includes("mm")`)
	cone := u.MustElement("#in-cone_height")
	cone.MustSelectAllText()
	u.Page.Keyboard.MustType([]input.Key("1.4 mm")...)
	u.MustWait(`() => document.querySelectorAll(".stack [data-flip]").length === 2`)
	assert.Contains(t, u.MustInfo().URL, "outside=50+mm", "the address carries the inputs")
	// Force 3000 N on one opposed pair: twice the travel of one disc.
	u.says("Free length", "6.800 mm", "Groups\t1, 1")

	u.MustElement(`.stack [data-flip="1"]`).MustFocus()
	u.Page.Keyboard.MustType(input.Enter)
	u.MustWait(`() => document.querySelector("#in-stack").value === ">>"`)
	u.MustWait(`() => document.querySelector("#page").innerText.includes("5.400 mm")`) // nested: 1.4 + 2·2

	u.MustElement("#put-note").MustFocus()
	u.Page.Keyboard.MustType([]input.Key("brake stack as found")...)
	nav := u.MustWaitNavigation()
	u.Page.Keyboard.MustType(input.Enter)
	nav()
	u.MustWait(`() => location.pathname.endsWith("/T-0412/record") && document.readyState === "complete"`)
	u.says("WORKED OUT FOR THIS JOB", "brake stack as found")
	kept := u.state("T-0412").Job.Worked
	last := kept[len(kept)-1]
	require.Equal(t, "disc_stack", last.Calculator)
	assert.Contains(t, last.Inputs, `"stack":">>"`)
	assert.True(t, strings.HasPrefix(last.Answer, `{"name":"disc_stack"`))
	u.quiet()
}

// Every calculator's page answers its own example within the width of the screen.
func TestEveryCalculatorHasAWorkingPage(t *testing.T) {
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "mirre", true)
	for _, d := range whole.Every(t, 8, calc.All()) {
		var in map[string]any
		require.NoError(t, json.Unmarshal([]byte(d.Example), &in))
		u.MustNavigate(s.URL + "/toolbox/" + d.Name + "?" + answer.Query(in).Encode()).MustWaitLoad()
		assert.NotEmpty(t, u.MustElements(".results tr"), d.Name)
		assert.Empty(t, u.MustElements(".is-danger[role=alert]:not(:empty)"), d.Name)
		wide := u.MustEval(`() => document.documentElement.scrollWidth - innerWidth`).Int()
		assert.LessOrEqual(t, wide, 0, "%s is wider than the screen", d.Name)
	}
	u.quiet()
}
