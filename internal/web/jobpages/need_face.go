package jobpages

import (
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/internal/answer"
)

// NeedFace is what the machine asks of the unit: for each claim that it will owe, what must be told
// for its level.
type NeedFace struct {
	Claims []NeedOf
	Hold   []Entry // cold, hot, after standing, and the complaint's own condition
}

// NeedOf is what must be told for one claim.
type NeedOf struct {
	Says   string
	Open   bool // something of it is not told
	Fields []Entry
}

// beside are what must be told together with a need.
var beside = map[string][]string{
	"need_line_pull": {"need_drum", "need_rope", "need_layer", "need_factor"},
	"need_creep":     {"need_load_time", "need_leak"},
}

// always are what is asked of every machine.
var always = []string{"need_cold", "need_hot", "need_standing", "need_complaint_pressure",
	"need_complaint_temperature", "need_complaint_time"}

func (l *look) needFace() *NeedFace {
	face := &NeedFace{Hold: l.ofUnit(always...)}
	asked := map[string]bool{}
	for i := range l.st.Claims {
		c := &l.st.Claims[i]
		if c.Code == family.ComplaintTest {
			continue
		}
		var names []string
		for _, need := range c.Needs {
			for _, name := range append([]string{need}, beside[need]...) {
				if strings.HasPrefix(name, "need_") && !asked[name] && !slices.Contains(always, name) {
					asked[name] = true
					names = append(names, name)
				}
			}
		}
		if len(names) == 0 {
			continue
		}
		n := NeedOf{Says: answer.Capital(c.Says), Fields: l.ofUnit(names...)}
		for _, name := range names {
			n.Open = n.Open || l.unit.Needed(name).IsZero()
		}
		face.Claims = append(face.Claims, n)
	}
	return face
}
