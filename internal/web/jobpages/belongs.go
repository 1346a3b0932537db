package jobpages

import (
	"fmt"

	"corvek/core/unit"
	"corvek/internal/web/site"
)

// Belongs ties a piece that was found, or came in the bag, to the part it
// belongs to.
type Belongs struct {
	ID, Field, Part string
	Nowhere         string // what is said while it belongs to no part
	Parts           []site.Named
	ReadOnly        bool
}

func (l *look) belongs(ref unit.Ref, part, nowhere string) Belongs {
	return Belongs{ID: fieldID(ref), Field: ref.String(), Part: part, Nowhere: nowhere, ReadOnly: !l.CanWork()}
}

// looseBelongs offers all parts, with how many pieces each is short.
func (l *look) looseBelongs(found *unit.Loose) Belongs {
	b := l.belongs(l.unit.LooseRef(found.Number, "part"), found.Part, "nothing yet")
	for _, x := range l.st.Parts {
		n := site.Named{Code: x.Code, Name: x.Name}
		if x.Missing > 0 {
			n.Name += fmt.Sprintf(" (%d missing)", x.Missing)
		}
		b.Parts = append(b.Parts, n)
	}
	return b
}
