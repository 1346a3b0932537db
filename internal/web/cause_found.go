package web

import "strings"

// CauseFound is the concluded cause as the stations after Explain tell it: what was
// found rules what is renewed, what is tried at the stand and who does what outside.
type CauseFound struct {
	Name, Lies, Remedy, Prevention, Action, Owner string
	Outside                                       bool
}

// causeFound is nil while no cause is concluded.
func (l *look) causeFound() *CauseFound {
	c := l.st.Cause
	if c == nil {
		return nil
	}
	plain := func(s string) string { return strings.TrimSuffix(strings.TrimSpace(s), ".") }
	return &CauseFound{Name: c.Name, Lies: c.Lies(), Remedy: plain(c.Remedy), Prevention: plain(c.Prevention),
		Action: plain(l.st.Conclude.Action), Owner: plain(l.st.Conclude.Owner), Outside: c.Where == "outside"}
}
