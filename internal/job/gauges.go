package job

import (
	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/unit"
)

// mayOpen refuses to take a part off a unit that the gauges hold.
func (w *writing) mayOpen(ref unit.Ref, value string) error {
	if ref.Scope != unit.ScopePart || ref.Name != "off" || value != entry.Yes {
		return nil
	}
	st, err := w.before(ref.Unit)
	if err != nil {
		return err
	}
	if why := st.Shut(); why != "" {
		return field.Errorf(ref.String(), "not opened yet: %s", why)
	}
	return nil
}
