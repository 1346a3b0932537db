package practice

import (
	"fmt"
	"math"
	"math/rand/v2"

	"corvek/core/quantity"
	"corvek/core/spring"
)

// A disc of a usual size, by its outside and thickness in mm; its inside is half of that, and it stands as high over
// flat as leaves three quarters of it a straight line.
var discs = [][2]float64{{40, 2}, {50, 2.5}, {63, 3}, {80, 4}, {100, 5}}

// drawStack asks how many dished springs give a force over a travel: nested ones add force, opposed ones add travel.
func drawStack(t *Task, r *rand.Rand) {
	size := pick(r, discs...)
	d := spring.Disc{Outside: size[0] / 1e3, Inside: size[0] * 0.51 / 1e3, Thickness: size[1] / 1e3,
		Cone: 0.55 * size[1] / 1e3, Youngs: spring.SteelYoungs, Poisson: spring.SteelPoisson}
	s := 0.75 * d.Cone
	one := math.Round(d.Force(s)/10) * 10
	nested, opposed := between(r, 2, 4), between(r, 3, 8)
	needs := math.Round(one*(float64(nested)-0.05-0.6*r.Float64())/100) * 100
	travels := math.Round(s*(float64(opposed)-0.05-0.6*r.Float64())*1e5) / 1e5
	force, length := fmt.Sprintf("%.0f N", needs), fmt.Sprintf("%.2f mm", travels*1e3)
	each, by := fmt.Sprintf("%.0f N", one), fmt.Sprintf("%.2f mm", s*1e3)
	if t.Inch {
		lbf, inch := in("lbf", quantity.Force), in("in", quantity.Length)
		force, length = lbf.Format(needs, 0), inch.Format(travels, 3)
		each, by = lbf.Format(one, 0), inch.Format(s, 3)
	}
	t.say("A dished spring gives %s when it is pressed by %s, three quarters of the way to flat.", each, by)
	t.say("A brake needs at least %s, and its stack gives way by at least %s.", force, length)
	n, m := math.Ceil(needs/one-1e-9), math.Ceil(travels/s-1e-9)
	t.Asks = []Ask{
		{Name: "So many lie nested, the same way round", Want: n, Step: 1, Within: 0.1, slips: []slip{
			{m, "That is for the travel: opposed springs add travel, nested ones add force."},
			{n - 1, "Those give less than it needs; the next whole one is taken."},
			{n * m, "That is the whole stack; asked is how many lie the same way round."},
		}},
		{Name: "And the whole stack has", Want: n * m, Step: 1, Within: 0.1, slips: []slip{
			{n + m, "Each of the opposed packs has so many nested: they are multiplied."},
			{m, "That is how many packs stand opposed; each has its nested springs."},
			{n, "That is one pack; they are opposed until the travel is there."},
		}},
	}
}
