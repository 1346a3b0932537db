package web

import (
	"strings"

	"corvek/core/unit"
	"corvek/internal/job"

	"github.com/labstack/echo/v5"
)

// KitPage joins the pieces from the bag to the places that wait for one.
type KitPage struct {
	JobPage
	Variant  string // the kit that belongs to this unit's variant
	Rows     []KitRow
	Places   []Named
	ToSettle int
	Left     []LeftRow
	Cautions Cautions
	Stops    []StopRow
}

// KitRow is a place with the pieces put to it.
type KitRow struct {
	Part    *job.PartState
	Name    string // as a piece is called
	Need    int
	Lacking int
	Full    bool
	Pieces  []PieceRow
}

// PieceRow is a piece at its place.
type PieceRow struct {
	*unit.Piece
	Away Press
	Why  *Entry // of a piece too many
}

// LeftRow is a piece without a place.
type LeftRow struct {
	*unit.Piece
	Belongs Belongs
	Why     Entry
}

func kitPage(l *look) KitPage {
	p := KitPage{JobPage: l.page(), ToSettle: len(l.st.KitIssues), Cautions: l.cautions(), Stops: l.stops()}
	if v := l.st.Plain.VariantNamed(l.unit.Variant); v != nil {
		p.Variant = v.Kit
	}
	places := map[string]bool{}
	for _, x := range l.st.Parts {
		if x.Place == nil {
			continue
		}
		places[x.Code] = true
		p.Places = append(p.Places, Named{x.Code, x.Name})
		p.Rows = append(p.Rows, l.kitRow(x))
	}
	for _, k := range l.unit.Kit {
		if !places[k.Part] {
			p.Left = append(p.Left, LeftRow{k, l.pieceBelongs(k, p.Places),
				l.field(l.unit.PieceRef(k.Number, "left_reason"))})
		}
	}
	return p
}

func (l *look) kitRow(x *job.PartState) KitRow {
	r := KitRow{Part: x, Name: strings.ToLower(x.Name), Need: x.Place.Need, Lacking: max(0, x.Expected-x.Filled),
		Full: x.Filled >= x.Place.Need}
	for _, k := range l.unit.Kit {
		if k.Part != x.Code {
			continue
		}
		piece := PieceRow{Piece: k, Away: l.press(l.unit.PieceRef(k.Number, "place"), "", k.Part)}
		if x.Filled > x.Place.Need {
			why := l.field(l.unit.PieceRef(k.Number, "left_reason"))
			piece.Why = &why
		}
		r.Pieces = append(r.Pieces, piece)
	}
	return r
}

func (s *Server) addPiece(c *echo.Context) error {
	n, err := countOf(c)
	if err != nil {
		return err
	}
	return done(c, s.jobs.AddPiece(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), c.FormValue("number"),
		c.FormValue("name"), n, c.FormValue("place")))
}
