package bench

import (
	"strings"

	"corvek/core/family"
	"corvek/core/unit"
)

// MarkWords says what a mark on a picture shows: its part, its evidence, its note.
func (st *Rated) MarkWords(m *unit.PictureMark) string {
	var parts []string
	if p := st.ByCode[m.Part]; p != nil {
		parts = append(parts, p.Name)
	}
	if def, ok := family.PartMark(m.Mark); ok {
		parts = append(parts, def.Text)
	}
	if e, ok := st.Knowledge.EvidenceByCode(m.Evidence); ok {
		parts = append(parts, e.Text)
	}
	if m.Note != "" {
		parts = append(parts, m.Note)
	}
	return strings.Join(parts, ": ")
}

// Showing are the numbers of the pictures that show a mark on a part of this unit.
func (st *Rated) Showing(part, mark string) (out []int) {
	for _, p := range st.Job.Pictures {
		if p.Shows(st.Unit.Number, part, mark) {
			out = append(out, p.Number)
		}
	}
	return out
}
