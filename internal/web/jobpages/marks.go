package jobpages

import (
	"fmt"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/unit"
)

// MarksView are the marks that a part of its kind can bear, and what is said of
// those that were seen. It stands at Strip and at Measure: where the hand is.
type MarksView struct {
	Part   string
	Code   string // of the part
	Add    string // where a picture of a mark is sent
	CSRF   string
	Sound  Press
	Marks  []MarkPress
	Seen   []MarkRow
	Source []string // marks that the record tells of by itself
	Breaks bool     // the part is not kept without a reason
}

// MarkPress is the button of one mark.
type MarkPress struct {
	Words string
	Press
}

// MarkRow is a mark that was seen, with what tells how far to trust it.
type MarkRow struct {
	Words string
	Grade Choice
	More  []Choice
	Note  Entry
	Code  string
	Shots []string // addresses of the pictures that show it
}

func (l *look) marks(x *bench.Part) *MarksView {
	v := &MarksView{Part: x.Name, Code: x.Code, CSRF: l.CSRF,
		Sound: l.toggle(l.unit.PartRef(x.Code, "sound"), x.Sound), Breaks: x.Breaking()}
	for _, m := range family.MarksOf(x.Def.Kind) {
		ref := func(name string) unit.Ref { return l.unit.PartMarkRef(x.Code, m.Code, name) }
		said := x.LastSaid(m.Code)
		press := l.press(ref("state"), unit.MarkSeen, said.State)
		if m.Code == bench.MarkSeized { // the same as how it came off, and written there
			stuck := l.unit.PartRef(x.Code, "stuck")
			press = l.press(stuck, entry.CameSeized, x.Stuck)
			if x.CameStuck() {
				press.Value, press.On = "", true
			}
		} else if said.State == unit.MarkSeen {
			press.Value, press.On = "", true
			v.Seen = append(v.Seen, MarkRow{Words: m.Text, Grade: l.choose(ref("grade")).Named(m.Text + ": how much"),
				More: []Choice{l.listed(ref("origin")), l.listed(ref("found_how")), l.listed(ref("age"))},
				Note: l.field(ref("note")), Code: m.Code, Shots: l.showing(x.Code, m.Code)})
		}
		v.Marks = append(v.Marks, MarkPress{m.Text, press})
	}
	if l.CanWork() {
		v.Add = l.page().Act("pictures")
	}
	for _, m := range x.Seen {
		if m.Source != "" {
			v.Source = append(v.Source, m.Text()+" ("+m.Source+")")
		}
	}
	return v
}

// showing are the pictures of a mark on a part.
func (l *look) showing(part, mark string) (out []string) {
	for _, number := range l.st.Showing(part, mark) {
		out = append(out, fmt.Sprintf("/jobs/%s/pictures/%d", l.job.Tag, number))
	}
	return out
}
