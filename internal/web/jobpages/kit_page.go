package jobpages

import (
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/kit"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/draw"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// KitPage joins the pieces from the bag to the places that wait for one.
type KitPage struct {
	JobPage
	Variant  string // the kit that belongs to this unit's variant
	Came     Entry  // the kit that came
	Rows     []KitRow
	Places   []site.Named
	ToSettle int
	Place    *PlaceSheet // the chosen place
	Piece    *PieceSheet // the chosen piece
	Left     []LeftRow
	GoesOut  bool // a part goes out to be worked on
	Mixed    string
	Cautions Cautions
	Stops    []StopRow
}

// KitRow is a place with the pieces put to it.
type KitRow struct {
	Part     *bench.Part
	Link     string
	Selected bool
	Name     string // as a piece is called
	Says     string // size and material, order
	Oversize string // how much larger the seals of a honed bore must be
	Need     int
	Lacking  int
	Full     bool
	Pieces   []PieceRow
	Stock    *StockRow // what may be taken first, nil where the stock has none
}

// PieceRow is a piece at its place.
type PieceRow struct {
	*unit.Piece
	Link   string
	Faults []string
	Why    *Entry // of a piece too many
}

// LeftRow is a piece without a place.
type LeftRow struct {
	*unit.Piece
	Link      string
	Fits      []site.Named // the places it may be for
	ToStock   bool         // it may be laid into a drawer
	Elsewhere []string
	Unfit     bool
	Sizes     []string
	Why       Entry
}

// PlaceSheet is what the seal or part of a place is, and how its new one is got.
type PlaceSheet struct {
	Part     string // code
	No       int
	Name     string
	Identity []Entry
	Measured []Entry
	Size     *SizeView
	Says     []kit.Finding
	Order    []Entry
	State    Choice
	Stock    []StockRow
	Booked   string // pieces that are promised to it, in words
}

// SizeView offers the standard sizes that were found from what was measured.
type SizeView struct {
	Found []Press
	Names []string
}

// PieceSheet is what a piece that came is, and how it fits.
type PieceSheet struct {
	*unit.Piece
	Identity, Measured []Entry
	Size               *SizeView
	Says               []kit.Finding
	Fit                Choice
	Gap                Entry
}

// PageOf is a thing on the page of Kit, with the page around it.
type PageOf struct {
	Page KitPage
	Of   any
}

func kitPage(l *look, piece int) KitPage {
	p := KitPage{JobPage: l.page(), ToSettle: len(l.st.KitIssues), Mixed: l.st.Mixed, Cautions: l.cautions(),
		Stops: l.stops()}
	if v := l.st.Plain.VariantNamed(l.unit.Variant); v != nil {
		p.Variant = v.Kit
	}
	p.Came = l.field(l.unit.Ref("kit_came"))
	names := map[string]string{}
	for _, x := range l.st.Parts {
		for _, w := range x.Going() {
			p.GoesOut = p.GoesOut || w.Days > 0
		}
		if x.Place == nil {
			continue
		}
		names[x.Code] = x.Name
		p.Places = append(p.Places, site.Named{Code: x.Code, Name: x.Name})
		p.Rows = append(p.Rows, l.kitRow(x))
	}
	for _, k := range l.st.Pieces {
		if names[k.Part] == "" {
			p.Left = append(p.Left, l.leftRow(k, names))
		}
		if k.Number == piece {
			p.Piece = l.pieceSheet(k)
		}
	}
	if p.Piece == nil && l.partAsked && l.part.Place != nil {
		p.Place = l.placeSheet(l.part)
	}
	return p
}

func (l *look) pieceLink(k *unit.Piece) string {
	return withQuery(l.link("kit", "", ""), "piece="+strconv.Itoa(k.Number))
}

func (l *look) kitRow(x *bench.Part) KitRow {
	r := KitRow{Part: x, Link: l.link("kit", x.Code, ""), Selected: l.partAsked && x == l.part,
		Name: strings.ToLower(x.Name), Need: x.Place.Need, Lacking: max(0, x.Expected-x.Filled),
		Full: x.Filled >= x.Place.Need}
	r.Says = strings.Join(said(x.Seal.Standard, x.Seal.Size, x.Seal.Material, order(x.Order)), " ")
	if over := l.st.Oversize(x); over > 0 {
		r.Oversize = draw.Length(l.Units)(over)
	}
	if offers := l.stockRows(x); len(offers) > 0 && !offers[0].Stops {
		r.Stock = &offers[0]
	}
	for _, k := range l.st.Pieces {
		if k.Part != x.Code {
			continue
		}
		piece := PieceRow{Piece: k.Piece, Link: l.pieceLink(k.Piece)}
		for _, f := range findings(k.Bears, k.Age) {
			if f.Stops {
				piece.Faults = append(piece.Faults, f.Text)
			}
		}
		if x.Filled > x.Place.Need {
			why := l.field(l.unit.PieceRef(k.Number, "left_reason"))
			piece.Why = &why
		}
		r.Pieces = append(r.Pieces, piece)
	}
	return r
}

// order says how far an order is.
func order(o unit.Order) string {
	if o.State == "" {
		return ""
	}
	words := wording.Choice(unit.ScopePart, "order_state", o.State)
	if o.Days > 0 {
		words += ", " + wording.Counted(o.Days, "day", "days")
	}
	if o.Due != "" {
		words += ", due " + string(o.Due)
	}
	return "· " + words
}

func said(words ...string) (out []string) {
	for _, w := range words {
		if w != "" {
			out = append(out, w)
		}
	}
	return out
}

func findings(of ...*kit.Finding) (out []kit.Finding) {
	for _, f := range of {
		if f != nil {
			out = append(out, *f)
		}
	}
	return out
}

func (l *look) leftRow(k *bench.Piece, names map[string]string) LeftRow {
	r := LeftRow{Piece: k.Piece, Link: l.pieceLink(k.Piece), Elsewhere: k.Elsewhere, Sizes: k.Sizes,
		Unfit: k.Fit.Bad(), Why: l.field(l.unit.PieceRef(k.Number, "left_reason"))}
	r.ToStock = k.ToLot == "" && !k.Fit.Damaged()
	for _, code := range k.Fits {
		r.Fits = append(r.Fits, site.Named{Code: code, Name: names[code]})
	}
	return r
}

// Fields by which a seal or a bearing is known.
var (
	identity = []string{"standard", "size", "material", "hardness", "cure", "maker_no"}
	ofRing   = []string{"inside", "section"}
	ofLip    = []string{"shaft", "bore", "width", "outside"}
)

// measuredOf are the places of a kind that are measured to find the size.
func measuredOf(kind string) []string {
	switch kind {
	case "lip_seal", "bearing":
		return ofLip
	case "gasket":
		return nil
	}
	return ofRing
}

func (l *look) placeSheet(x *bench.Part) *PlaceSheet {
	ref := func(name string) unit.Ref { return l.unit.PartRef(x.Code, "seal_"+name) }
	v := &PlaceSheet{
		Part:  x.Code,
		No:    l.partNo(),
		Name:  x.Name,
		State: l.choose(l.unit.PartRef(x.Code, "order_state")).Wrap(),
		Order: l.ofPart("order_supplier", "order_number", "order_placed", "order_days", "order_due",
			"order_came", "price", "handling"),
	}
	if identified(x.Def) {
		v.Identity, v.Measured = l.fields(ref, identity), l.fields(ref, measuredOf(x.Def.Kind))
		v.Size = l.sizes(x.Seal, ref("size"))
	} else {
		v.Identity = l.fields(ref, []string{"size", "maker_no"})
	}
	v.Stock, v.Booked = l.stockRows(x), l.booked(x)
	setting := l.st.Setting()
	if f, ok := setting.Bears(x.Seal.Material); ok {
		v.Says = append(v.Says, f)
	}
	if f, ok := setting.Age(x.Seal.Material, x.Seal.Cure, true); ok {
		f.Text = "the one that came out: " + f.Text
		v.Says = append(v.Says, f)
	}
	return v
}

// identified reports that a part is of a kind that is known by standard, size and material.
func identified(def *family.Part) bool {
	switch def.Kind {
	case "o_ring", "backup_ring", "lip_seal", "piston_seal", "gasket", "bearing":
		return true
	}
	return false
}

// sizes offers what was found, nil where nothing was measured yet.
func (l *look) sizes(s unit.Seal, ref unit.Ref) *SizeView {
	found := kit.Sizes(s, 3)
	if len(found) == 0 {
		return nil
	}
	v := &SizeView{Names: found}
	for _, size := range found {
		press := l.press(ref, size, s.Size)
		press.On = size == s.Size
		v.Found = append(v.Found, press)
	}
	return v
}

func (l *look) pieceSheet(k *bench.Piece) *PieceSheet {
	ref := func(name string) unit.Ref { return l.unit.PieceRef(k.Number, name) }
	kind := ""
	if x := l.st.ByCode[k.Part]; x != nil {
		kind = x.Def.Kind
	}
	return &PieceSheet{Piece: k.Piece, Identity: l.fields(ref, identity), Measured: l.fields(ref, measuredOf(kind)),
		Size: l.sizes(k.Seal, ref("size")), Says: findings(k.Bears, k.Age), Fit: l.choose(ref("fit")).Wrap(),
		Gap: l.field(ref("fit_gap"))}
}

func (s *Pages) addPiece(c *echo.Context) error {
	n, err := site.CountOf(c)
	if err != nil {
		return err
	}
	return site.Done(
		c,
		s.Jobs.AddPiece(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("number"),
			strings.TrimSpace(c.FormValue("name")), n, c.FormValue("place")),
	)
}

func (s *Pages) addPieces(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.AddPieces(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("list")),
	)
}

func (s *Pages) joinPiece(c *echo.Context) error {
	piece, err := strconv.Atoi(c.FormValue("piece"))
	if err != nil {
		return field.Errorf("piece", "is not a piece of this kit")
	}
	return site.Done(c, s.Jobs.JoinPiece(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), piece,
		c.FormValue("place")))
}
