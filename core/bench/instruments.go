package bench

// overdue says of the tool something was measured with that its calibration has run out;
// "" where it holds.
func (st *Given) overdue(f *Feature) string {
	i, ok := st.Tools.Named(f.Instrument)
	if !ok || !i.Overdue(st.Today) {
		return ""
	}
	return i.Name + " was due for calibration on " + i.DueOn.Format("2 Jan 2006")
}
