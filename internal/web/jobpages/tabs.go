package jobpages

import (
	"slices"
)

// Tabs are the faces of a sheet, one of them turned up.
type Tabs []Tab

// Tab is one of several faces of a sheet.
type Tab struct {
	Name, URL string
	On        bool
	Tone      string // a mark behind the name: a verdict's tone, or "none" for what is still to do
}

// Chosen is the number of the face that is turned up, from 0.
func (t Tabs) Chosen() int { return max(0, slices.IndexFunc(t, func(x Tab) bool { return x.On })) }

// tab turns up a face of the page.
func (l *look) tab(face, name string) Tab {
	return Tab{Name: name, URL: l.faceURL(face), On: l.face == face}
}
