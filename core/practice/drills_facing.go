package practice

import (
	"math/rand/v2"
	"strings"

	"corvek/core/family"
)

// Line is a unit pulled apart, of which a part is asked.
type Line struct{ Family, Part string }

// drawFacing shows a unit pulled apart, as it belongs, and asks which way round one of its parts goes in.
func drawFacing(t *Task, r *rand.Rand) {
	for range 500 {
		f := pick(r, t.families.List()...)
		var faced []*family.Part
		for i := range f.Parts {
			if p := &f.Parts[i]; p.Facing != "" && p.Turns == nil && len(p.Facings) > 1 {
				faced = append(faced, p)
			}
		}
		if len(faced) == 0 {
			continue
		}
		p := pick(r, faced...)
		t.Line = &Line{f.Code, p.Code}
		t.say("%s. In the line stands %s, as it belongs.", f.Name, strings.ToLower(p.Name))
		a := Ask{Name: "It goes in"}
		for _, way := range p.Facings {
			a.Options = append(a.Options, Option{Words: way, Right: way == p.Facing, Says: "It goes in " + p.Facing +
				". The drawing shows it from the left, as it comes off."})
		}
		r.Shuffle(len(a.Options), func(i, k int) { a.Options[i], a.Options[k] = a.Options[k], a.Options[i] })
		t.Asks = []Ask{a}
		return
	}
	panic("no family has a part with two ways round")
}
