package bench

import (
	"fmt"
)

// Rating is what the unit is asked against what its maker rates it for.
type Rating struct {
	Over  bool // more than it is made for
	Spare bool // so much less that it need not be brought back to as-new limits
	Words string
}

// spareShare is the share of its rating up to which a unit is said to have something to spare: shop guidance.
const spareShare = 0.8

// Rating sets the working pressure against the rated one; ok is false where one of them is not known.
func (st *Rated) Rating() (r Rating, ok bool) {
	rated, known := st.Unit.RatedPressure.Known()
	if !known || !st.Duty.HasPressure || rated <= 0 {
		return r, false
	}
	share := st.Duty.Pressure / rated
	at := fmt.Sprintf("asked %s, rated for %s (%s %% of it)", st.Unit.DutyPressure.Typed, st.Unit.RatedPressure.Typed,
		fmt.Sprintf("%.0f", 100*share))
	switch {
	case share > 1:
		return Rating{Over: true, Words: "It is " + at + ": more than its maker made it for"}, true
	case share <= spareShare:
		return Rating{Spare: true, Words: "It is " + at + ": it need not be brought back to as-new limits; " +
			"what it must deliver at its duty decides"}, true
	}
	return Rating{Words: "It is " + at}, true
}
