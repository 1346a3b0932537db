package e2e

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A unit that is another than its family is made true at the bench: an assembly once
// more, a part chosen by what it looks like; and it is kept for the next one.
func TestAUnitMadeTrueAtTheBench(t *testing.T) {
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
	u.typeInto(u.MustElement("#keep input[name=name]"), "Double relief")
	u.press(u.MustElementR("#keep button", "Keep for the next GX-32"))
	require.Eventually(t, func() bool {
		kept, err := s.jobs.Store.FamilyHistory(context.Background(), "external_gear_pump/double_relief")
		return err == nil && len(kept) == 1
	}, patience, 50*time.Millisecond)
	u.open("/library/external_gear_pump")
	u.says("Double relief", "the shop's own", "kept from T-0417")
	u.quiet()
}
