package job

import (
	"strings"

	"corvek/core/unit"
	"corvek/internal/store"
)

// Overdue reports that an instrument's calibration has run out.
func Overdue(i store.Instrument, today unit.Date) bool {
	return i.DueOn != nil && today > unit.DateOf(*i.DueOn) // it holds through its day
}

// stopInstruments asks for readings that can be trusted: taken with a tool in
// calibration, and fine enough for the limit.
func (st *State) stopInstruments() {
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if !f.Found.Any && !f.Built.Any {
				continue
			}
			if i, ok := st.Tools[strings.ToLower(strings.TrimSpace(f.Instrument))]; ok && Overdue(i, st.today) {
				st.stopAt(f, "measure", unit.StopCalibration, "%s: %s was due for calibration on %s", p.Name,
					i.Name, i.DueOn.Format("2 Jan 2006"))
			}
			if f.Spec.TooCoarse() {
				st.stopAt(f, "measure", unit.StopCoarse, "%s: %s of %s cannot judge so narrow a limit", p.Name,
					strings.ToLower(f.Def.Name), f.Resolution.Typed)
			}
		}
	}
}
