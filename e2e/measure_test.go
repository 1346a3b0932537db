package e2e

import (
	"context"
	"fmt"
	"testing"

	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/whole"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// One family's sheets filled whole by hand, in mixed units: every figure stays
// as it was typed, and nothing is left to measure.
func TestWholeMeasureSheetInMixedUnits(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	s := serve(t)
	ctx, who := context.Background(), people.Actor{Name: "Mirre Stoll", Role: people.RoleTechnician}
	tag, err := s.jobs.Create(ctx, who, job.NewJob{Customer: "Inner Sound Ferries", Title: "Ramp clutch slave",
		Complaint: "sinks", Family: "slave_cylinder"})
	require.NoError(t, err)
	s.nobodyToAsk(t, tag)
	require.NoError(t, s.jobs.TakeOffRest(ctx, who, tag, 1))
	u := enter(t, s, "mirre", false)
	typed := map[string]string{}
	for _, p := range u.state(tag).Parts {
		for _, f := range p.Features {
			u.open(fmt.Sprintf("/jobs/%s/measure?part=%s&feature=%s", tag, p.Code, f.Code))
			if tiles := u.MustElements("main .gtile"); len(tiles) > 0 {
				tiles[0].MustFocus()
				u.Keyboard.MustType(input.Enter)
				u.MustWait(`() => Alpine.store("sent").idle() &&
					document.querySelector(".gtile[aria-pressed=true]") !== null`)
				continue
			}
			for i, slot := range f.Spec.Slots() {
				figure := map[string]string{"h1": "0.8665 in", "s1": "21.970 mm"}[slot]
				if figure == "" {
					figure = []string{"22.010 mm", "0.8666 in"}[i%2]
				}
				if f.Code == "free_length" {
					figure = "2-3/8 in"
				}
				typed[f.Path()+"/"+slot] = figure
				el := u.MustElement(fmt.Sprintf(`[data-field="u1/part/%s/feature/%s/found/%s"]`, f.Part.Code,
					f.Code, slot))
				el.MustFocus()
				u.MustInsertText(figure)
				u.Keyboard.MustType(input.Enter)
			}
			u.MustWait(`() => Alpine.store("sent").idle() && document.querySelectorAll("input.unsaved").length === 0`)
		}
	}
	st := u.state(tag)
	for _, p := range st.Parts {
		for _, f := range p.Features {
			assert.True(t, f.Found.Complete, "%s %s", p.Name, f.Def.Name)
			for _, slot := range f.Spec.Slots() {
				if want, ok := typed[f.Path()+"/"+slot]; ok {
					assert.Equal(t, want, f.Entry("found", slot), "kept as typed")
				}
			}
		}
	}
	assert.Empty(t, st.Stops["measure"], "nothing is left to measure")
	u.quiet()
}
