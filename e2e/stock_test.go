package e2e

import (
	"testing"

	"corvek/internal/job"
	"corvek/internal/people"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A place is filled of a drawer by one press and taken back by another; the label of a drawer is scanned like a bag.
func TestAPlaceIsFilledOfADrawer(t *testing.T) {
	t.Parallel()
	s := serve(t)
	u := enter(t, s, "iva", false)
	left := func() int {
		all, err := s.jobs.Store.Stock(t.Context())
		require.NoError(t, err)
		for _, i := range all.Items {
			if i.Number == "GC-RS50" {
				return i.Left()
			}
		}
		return 0
	}
	u.open("/jobs/T-0412/kit")
	u.press(u.MustElement(`#place-rod_seal form[action*="kit/take"] button`))
	u.MustWait(`() => document.querySelector("#place-rod_seal .pc")?.textContent.includes("Rod seal")`)
	assert.Equal(t, 3, left())
	u.press(u.MustElement("#undo button"))
	u.MustWait(`() => !document.querySelector("#place-rod_seal .pc")`)
	assert.Equal(t, 4, left())

	all, err := s.jobs.Store.Stock(t.Context())
	require.NoError(t, err)
	for _, i := range all.Items {
		if i.Number == "GC-W50" {
			u.typeInto(u.MustElement("#kp-number"), "http://bench.example/stock/lots/"+i.Lots[0].Code)
		}
	}
	u.press(u.MustElementR("button", "^Received$"))
	u.MustWait(`() => document.querySelector("#place-wiper .pc")?.textContent.includes("Wiper")`)
}

// A board that is looked at shows what another bench wrote, with nobody asking for it.
func TestTheBoardHearsOtherBenches(t *testing.T) {
	t.Parallel()
	s := serve(t)
	board := enter(t, s, "odd", false)
	board.open("/jobs")
	bay := `() => document.querySelector("#job-T-0412").closest(".bay").querySelector("h2").textContent`
	require.Contains(t, board.MustEval(bay).Str(), "outside work")
	who := people.Actor{Name: "Iva Brask", Role: people.RoleTechnician}
	_, err := s.jobs.Set(t.Context(), who, "T-0412", job.Edit{Field: "job/waiting", Value: "stand", Base: "outside"})
	require.NoError(t, err)
	board.MustWait(`() => (` + bay + `)().includes("the stand")`)
}
