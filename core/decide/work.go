package decide

// Work is what the chosen rework comes to.
type Work struct {
	Hours float64 // at the bench, one after another
	Days  float64 // away: what goes out goes out together
}

// WorkOf adds up the routes of the parts that are reworked.
func WorkOf(routes []Route) (w Work) {
	for _, r := range routes {
		w.Hours += r.Hours
		w.Days = max(w.Days, r.Days)
	}
	return w
}
