package job

import (
	"corvek/core/field"
	"corvek/core/unit"
)

// mayOpen refuses to take a part off a unit that the gauges hold.
func (w *writing) mayOpen(ref unit.Ref) error {
	st, err := w.before(ref.Unit)
	if err != nil {
		return err
	}
	if why := st.Shut(); why != "" {
		return field.Errorf(ref.String(), "not opened yet: %s", why)
	}
	return nil
}
