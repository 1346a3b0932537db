package e2e

import (
	"sync/atomic"
	"testing"
	"time"

	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// After a rest the bench asks who is there before it takes a conclusion, over the
// page, and goes on with what was typed; another takes over with four digits.
func TestARestedBenchAsksAndGoesOn(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	var rest atomic.Int64
	s.jobs.Now = func() time.Time { return time.Now().Add(time.Duration(rest.Load())) }
	u := enter(t, s, "iva", false)
	u.open("/jobs/T-0417/explain")
	rest.Store(int64(time.Hour))

	const statement = "The rear plate was scored by dirt."
	el := u.MustElement(`[data-field="u1/conclusion/statement"]`)
	el.MustEval(`() => { this.focus(); this.select(); }`)
	u.Keyboard.MustType(input.Backspace)
	u.MustInsertText(statement)
	u.Keyboard.MustType(input.Tab)
	u.MustWait(`() => document.getElementById("again").open`)
	answer := func(secret string) {
		u.MustInsertText(secret)
		u.Keyboard.MustType(input.Enter)
	}
	assert.Equal(t, "again-in", u.MustEval(`() => document.activeElement.id`).Str(), "the caret stands in the question")
	answer("0000")
	u.MustWait(`() => document.getElementById("again-e").textContent.includes("neither your code")`)
	answer("2601")
	u.MustWait(`() => !document.getElementById("again").open && Alpine.store("sent").idle()`)
	assert.Equal(t, statement, u.state("T-0417").Unit.Conclusion().Statement)

	u.press(u.MustElement("a.me"))
	u.MustWait(`() => location.pathname === "/change" && document.readyState === "complete"`)
	for _, tile := range u.MustElements(".tile") {
		if tile.MustElement("b").MustText() == "MS" {
			u.focus(tile.MustElement("input"))
			u.Keyboard.MustType(input.Space)
			break
		}
	}
	u.MustElement("#secret").MustEval(`() => this.focus()`)
	answer("3905")
	u.MustWait(`() => location.pathname === "/jobs/T-0417/explain" && document.readyState === "complete"`)
	assert.Equal(t, "MS", u.MustElement("a.me").MustText())
}
