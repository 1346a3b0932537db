package bench

import (
	"slices"

	"corvek/core/family"
	"corvek/core/quantity"
)

// Untried names what the machine asks of the unit and no step of its test reached: oil as cold and as hot
// as there, and standing as long; and what a step does not show by itself.
func (st *Tested) Untried(units quantity.System) (out []string) {
	low, high, read := st.temperatures()
	n := st.Unit.Need
	show := func(celsius float64) string { return quantity.Show(celsius, quantity.Temperature, units) }
	for _, c := range []struct {
		asked quantity.Quantity
		words string
		got   float64
		short bool
	}{
		{n.Cold, "cold: the coldest oil that was read had ", low, low > n.Cold.SI+family.NearKelvin},
		{n.Hot, "hot: the hottest oil that was read had ", high, high < n.Hot.SI-family.NearKelvin},
	} {
		switch {
		case c.asked.IsZero():
		case !read:
			out = append(out, "Nothing at the machine's "+show(c.asked.SI)+": no temperature was read.")
		case c.short:
			out = append(out, "Nothing "+c.words+show(c.got)+", the machine's has "+show(c.asked.SI)+".")
		}
	}
	if !n.Standing.IsZero() && !st.stood() {
		out = append(out, "Nothing after standing as long as on the machine, "+n.Standing.In(units)+".")
	}
	for _, step := range st.Plan() {
		if s := st.Shown[step.Code]; step.Unsaid != "" && s != nil && s.NotHere == "" && s.Read {
			out = append(out, step.Name+": "+step.Unsaid+".")
		}
	}
	return out
}

// temperatures are the coldest and the hottest oil at a step that shows something.
func (st *Tested) temperatures() (low, high float64, read bool) {
	for _, s := range st.Shown {
		if !s.Read || len(s.Moved) > 0 {
			continue
		}
		for i := range s.Judged.Figures {
			f := &s.Judged.Figures[i]
			if f.Q.Dim != quantity.Temperature || f.Q.IsZero() {
				continue
			}
			if !read {
				low, high, read = f.Q.SI, f.Q.SI, true
			}
			low, high = min(low, f.Q.SI), max(high, f.Q.SI)
		}
	}
	return low, high, read
}

// stood reports that a step shows something after standing as long as on the machine: it was held that
// long, or it is the one that is run after standing.
func (st *Tested) stood() bool {
	for _, s := range st.Shown {
		first := slices.ContainsFunc(s.Test.Reads, func(r family.Read) bool { return r.Of == "need_turns" })
		if s.Read && len(s.Moved) == 0 && (first || s.Held.Seconds() >= st.Unit.Need.Standing.SI) {
			return true
		}
	}
	return false
}
