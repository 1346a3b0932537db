package e2e

import (
	"fmt"
	"testing"
	"time"

	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"
)

// The stack editor by pointer: a flipped spring is seen, turned over, taken out
// and put in again; by keyboard the same piece is turned with Enter.
func TestStackEditor(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	p := u.state("T-0426").ByCode["disc_springs"]
	at := fmt.Sprintf("/jobs/T-0426/strip?part=%s", p.Code)
	u.open(at)
	u.says("dished spring at place 4 is turned over")
	piece := func(n int) string { return fmt.Sprintf(`.pieces g.pc:nth-of-type(%d)`, 2*n-1) }
	saved := func(text string) {
		t.Helper()
		u.MustWait(`() => Alpine.store("sent").idle()`)
		require.Eventually(t, func() bool { return u.state("T-0426").ByCode["disc_springs"].StackFound == text },
			time.Minute, 50*time.Millisecond, text)
	}
	u.MustElement(piece(4)).MustScrollIntoView().MustClick()
	saved(p.Stack.Def.As)
	u.MustWait(`() => !document.body.innerText.includes("turned over")`)

	u.MustElement(`.pieces g.drop[aria-label="take out 8"]`).MustClick()
	u.MustWait(`() => document.querySelectorAll(".pieces g.pc").length === 7`)
	u.MustWait(`() => document.body.innerText.includes("a dished spring is missing before place 8")`)
	u.press(u.MustElementR("button", "Dished spring ◀"))
	u.MustWait(`() => document.querySelectorAll(".pieces g.pc").length === 8`)
	saved(p.Stack.Def.As)

	u.MustElement(piece(1)).MustFocus()
	u.Keyboard.MustType(input.Enter)
	u.MustWait(`() => document.body.innerText.includes("dished spring at place 1 is turned over")`)
	u.quiet()
}
