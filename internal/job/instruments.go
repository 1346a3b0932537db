package job

import (
	"strings"

	"corvek/core/shop"
	"corvek/core/unit"
)

// Overdue reports that an instrument's calibration has run out.
func Overdue(i shop.Instrument, today unit.Date) bool {
	return i.DueOn != nil && today > unit.DateOf(*i.DueOn) // it holds through its day
}

// overdue says of the tool something was measured with that its calibration has run out;
// "" where it holds.
func (st *State) overdue(f *FeatureState) string {
	i, ok := st.Tools[strings.ToLower(strings.TrimSpace(f.Instrument))]
	if !ok || !Overdue(i, st.today) {
		return ""
	}
	return i.Name + " was due for calibration on " + i.DueOn.Format("2 Jan 2006")
}
