package bench

import "corvek/core/quantity"

// Highest is the highest pressure in Pa that was really read of this unit as it is, 0 for none.
func (st *Tested) Highest() (pressure float64) {
	for _, s := range st.Shown {
		if !s.Read || len(s.Moved) > 0 {
			continue
		}
		for i := range s.Judged.Figures {
			if f := &s.Judged.Figures[i]; f.Q.Dim == quantity.Pressure && !f.Q.IsZero() {
				pressure = max(pressure, f.Q.SI)
			}
		}
	}
	return pressure
}
