package web

import (
	"fmt"

	"corvek/core/unit"
)

// Belongs ties a piece that was found, or came in the bag, to the part it
// belongs to.
type Belongs struct {
	ID, Field, Part string
	Nowhere         string // what is said while it belongs to no part
	Parts           []Named
	ReadOnly        bool
}

func (p *Page) belongs(ref unit.Ref, part, nowhere string) Belongs {
	return Belongs{ID: fieldID(ref), Field: ref.String(), Part: part, Nowhere: nowhere, ReadOnly: !p.CanWork()}
}

// PieceBelongs offers the places of the kit that wait for a piece.
func (p *Page) PieceBelongs(piece *unit.Piece, places []KitRow) Belongs {
	b := p.belongs(p.S.Unit.PieceRef(piece.Number, "place"), piece.Part, "no place")
	for _, r := range places {
		b.Parts = append(b.Parts, Named{r.Part.Code, r.Part.Name})
	}
	return b
}

// LooseBelongs offers all parts, with how many pieces each is short.
func (p *Page) LooseBelongs(found *unit.Loose) Belongs {
	b := p.belongs(p.S.Unit.LooseRef(found.Number, "part"), found.Part, "nothing yet")
	for _, x := range p.S.Parts {
		n := Named{x.Code, x.Name}
		if x.Missing > 0 {
			n.Name += fmt.Sprintf(" (%d missing)", x.Missing)
		}
		b.Parts = append(b.Parts, n)
	}
	return b
}
