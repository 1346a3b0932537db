package draw

import "math"

// TurnStep is how a shaft turned once a joint was made.
type TurnStep struct {
	No     int
	Torque float64 // N·m, 0 where nobody measured
	Feel   string  // "" where nobody said
	Bad    bool
}

// Turning draws how hard a shaft turns over the steps of a build, so that the step since which
// it is stiff is seen at once. at is that step's index, −1 for none; unit writes a torque.
func Turning(steps []TurnStep, at int, text func(nm float64) string) string {
	most, any := 0.0, false
	for _, s := range steps {
		most = math.Max(most, s.Torque)
		any = any || s.Torque > 0 || s.Feel != ""
	}
	if !any {
		return ""
	}
	const w, left, right, top = 420.0, 14.0, 14.0, 26.0
	floor := 112.0
	if most == 0 {
		floor = 34
	}
	h := floor + 38
	px := func(i int) float64 {
		if len(steps) == 1 {
			return w / 2
		}
		return left + float64(i)*(w-left-right)/float64(len(steps)-1)
	}
	py := func(nm float64) float64 { return floor - nm/most*(floor-top) }
	s := newSheet("plot turning", w, h, "how hard the shaft turns after each joint")
	s.path("pl-ax", "M%v %v H%v", left-8, floor, w-right+8)
	started, x0, y0 := false, 0.0, 0.0
	for i, step := range steps {
		x := px(i)
		if i == at {
			s.rect("stiff", x-9, top-16, 18, floor-top+34)
		}
		if step.Torque > 0 {
			y := py(step.Torque)
			if started {
				s.path("pl-c rebuilt", "M%v %v L%v %v", x0, y0, x, y)
			}
			started, x0, y0 = true, x, y
			s.circle("pl-p rebuilt", x, y, 5)
			s.text("pl-t", x, y-9, "middle", text(step.Torque))
		}
		if step.Feel != "" {
			mark := "○"
			if step.Bad {
				mark = "✕"
			}
			s.text("pl-t", x, floor+16, "middle", mark)
		}
		s.text("pl-t", x, floor+32, "middle", num(float64(step.No)))
	}
	return s.svg()
}
