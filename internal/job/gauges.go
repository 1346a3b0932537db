package job

import (
	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/stops"
	"corvek/core/unit"
)

// Shut says why the unit is not opened yet: the gauges hold it and no lead opened
// it all the same. It is "" where it may be opened.
func (st *State) Shut() string {
	code, why := stops.GaugeHold(st.Gauge, st.Unit)
	if why == "" || st.Job.Pass(code.String()) != nil {
		return ""
	}
	return why + ". A lead can open it all the same, with a reason"
}

// mayOpen refuses to take a part off a unit that the gauges hold.
func (w *writing) mayOpen(ref unit.Ref, value string) error {
	if ref.Scope != unit.ScopePart || ref.Name != "off" || value != entry.Yes {
		return nil
	}
	st, err := w.state(ref.Unit)
	if err != nil {
		return err
	}
	if why := st.Shut(); why != "" {
		return field.Errorf(ref.String(), "not opened yet: %s", why)
	}
	return nil
}
