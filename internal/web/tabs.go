package web

// Tab is one of several faces of a sheet.
type Tab struct {
	Name, URL string
	On        bool
	Tone      string // a mark behind the name: a verdict's tone, or "none" for what is still to do
}

// tab turns up a face of the page.
func (l *look) tab(face, name string) Tab {
	return Tab{Name: name, URL: l.faceURL(face), On: l.face == face}
}
