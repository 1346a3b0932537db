package e2e

import (
	"context"
	"fmt"
	"testing"
	"time"

	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A unit that is another than its family is made true at the bench: an assembly once
// more, a part chosen by what it looks like; and it is kept for the next one.
func TestAUnitMadeTrueAtTheBench(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "odd", true)
	u.open("/jobs/T-0417/strip?part=relief_cap")
	u.press(u.MustElement("#different > summary"))
	u.typeInto(u.MustElement("#d-asm"), "a second bore is open")
	u.press(u.MustElementR("#different button", "One more Relief valve"))
	u.MustWait(`() => document.querySelector("#page").innerText.includes("of 30 parts off")`)

	u.open("/jobs/T-0417/strip?part=shims")
	u.press(u.MustElementR("a", "Add a part the list does not have"))
	u.MustWait(`() => location.search.includes("face=add") && document.readyState === "complete"`)
	u.typeInto(u.MustElement("#x-name"), "Wear ring")
	u.press(u.MustElementR("button", "Add part"))
	u.MustWait(`() => document.querySelector('[data-err="kind"]').innerText.includes("looks like")`)
	u.typeInto(u.MustElement("#x-name"), "Wear ring")
	u.press(u.MustElement(`label:has(> input[name=kind][value=o_ring])`))
	u.press(u.MustElementR("button", "Add part"))
	u.MustWait(`() => location.search.includes("part=extra-1") && document.readyState === "complete"`)
	u.says("Wear ring")
	ring := u.state("T-0417").ByCode["extra-1"]
	require.NotNil(t, ring)
	assert.Equal(t, "o_ring", ring.Def.Kind)
	assert.True(t, ring.Def.Renew)

	u.press(u.MustElement("#keep > summary"))
	u.press(u.MustElementR("#keep a", "Keep it for the next of this model"))
	u.MustWait(`() => location.pathname.endsWith("/sheet") && document.readyState === "complete"`)
	u.says("Wear ring: more than the family")
	u.press(u.MustElementR("button", "Keep the ticked ones"))
	found := s.jobs.SheetsOf(u.state("T-0417").Unit)
	require.Len(t, found, 1)
	require.Eventually(t, func() bool {
		m, err := s.jobs.Store.SheetHistory(context.Background(), found[0].ID)
		return err == nil && len(m.Versions) == 2 && len(m.Versions[0].Doc.Parts) == 1
	}, patience, 50*time.Millisecond)
	u.open(fmt.Sprintf("/library/sheets/%d", found[0].ID))
	u.says("Wear ring: more than the family", "kept from T-0417")
	u.quiet()
}
