// Package document is what a paper is made of, whoever reads it: on a page, printed, or as a
// PDF. A paper is written once, as a list of blocks; the page and the PDF both lay out that
// list, so that they cannot say different things.
package document

import (
	"slices"
	"time"
)

// Size is the sheet that a paper is printed on.
type Size string

// The sheets there are.
const (
	A4     Size = "a4"
	Letter Size = "letter"
)

// Sizes are the sheets a shop can choose from.
var Sizes = []Size{A4, Letter}

// millimetres of a sheet, upright.
func (s Size) millimetres() (width, height float64) {
	if s == Letter {
		return 215.9, 279.4
	}
	return 210, 297
}

// Shop is who the paper is from.
type Shop struct {
	Name    string
	Address string // lines
	Mark    []byte // a PNG or JPEG, nil where the shop has none
	Size    Size
}

// Document is one paper.
type Document struct {
	Shop      Shop
	Tag, Kind string // of the job, and what paper it is
	Title     string // "" where the blocks begin by themselves
	Printed   time.Time
	Opens     string // address that the code on the paper opens, "" for no code
	Foot      string // what stands small at the foot of every page
	Layout    string // class of the page: card, tag, or "" for a report
	Blocks    []Block

	Style, Icon string // addresses, for the page
	More        []Link // for the page alone, and never printed
	// Load gets a picture by the address that its drawing names, nil where there are none.
	Load func(address string) ([]byte, error)
}

// Link leads on from the page of a paper.
type Link struct{ Name, Address string }

// codeAtHead reports that the head bears the code, since no block does.
func (d Document) codeAtHead() bool {
	return d.Opens != "" && !slices.ContainsFunc(d.Blocks, func(b Block) bool { return b.kind() == "code" })
}

// Day writes when the paper was printed.
func (d Document) Day() string { return d.Printed.Format("2 January 2006") }

// Add puts blocks at the end.
func (d *Document) Add(blocks ...Block) { d.Blocks = append(d.Blocks, blocks...) }

// Block is a part of a paper that stands by itself.
type Block interface{ kind() string }

// Tone says how a text is meant; its words say it too.
type Tone string

// The tones there are.
const (
	Plain  Tone = ""
	Good   Tone = "petrol"
	Look   Tone = "ochre"
	Danger Tone = "red"
)

// Heading begins a part.
type Heading struct{ Text string }

// Text is a paragraph, begun by words that stand out.
type Text struct {
	Lead, Text string
	Quiet      bool
}

// Lines are a list.
type Lines struct {
	Items   []string
	Ordered bool
	Large   bool // read at the machine
}

// Banner is what must be read first, with all that belongs to it in the same size; below it, smaller, why.
type Banner struct {
	Text  string
	Items []string
	Tone  Tone
}

// Big is read from afar: the tag on a tote.
type Big struct{ Text string }

// Facts are names with their values, two beside one another.
type Facts struct{ Rows []Fact }

// Fact is a name with its value.
type Fact struct{ Name, Value string }

// Table is rows under heads; shares divide the width.
type Table struct {
	Heads  []string
	Shares []float64
	Rows   [][]Cell
	None   string // stands where there are no rows
}

// Cell is a place of a table.
type Cell struct {
	Lines   []Line
	Verdict string // in, out, undecided: drawn and written
	Drawing string // SVG
}

// Line is a line of a cell.
type Line struct {
	Text        string
	Bold, Small bool
	Large       bool
	Box         bool // a box to tick stands before it
}

// Cells makes plain cells.
func Cells(texts ...string) []Cell {
	out := make([]Cell, len(texts))
	for i, t := range texts {
		if t != "" {
			out[i] = Cell{Lines: []Line{{Text: t}}}
		}
	}
	return out
}

// Drawing is a drawing of ours over the width, or over a part of it.
type Drawing struct {
	Name string // over it, never apart from it
	SVG  string
	Part bool
}

// Pictures are photographs with their marks, two beside one another.
type Pictures struct{ List []Picture }

// Picture is one of them.
type Picture struct {
	Drawing, Caption string
	Marks            []Fact
}

// Boxes are answers to tick.
type Boxes struct{ Names []string }

// Checks are boxes to tick one under another.
type Checks struct{ Items []string }

// Signs are lines to sign on.
type Signs struct{ Names []string }

// Seal is a sign-off and what it stands for.
type Seal struct {
	Signed bool
	Who    string
	Words  string // on which day, for which version, by which fingerprint
}

// Code is the code that opens the job, large.
type Code struct{}

// Small is for fingerprints and addresses.
type Small struct{ Text string }

// Lead is what a seal says first, on page and paper alike.
func (s Seal) Lead() string {
	if s.Signed {
		return "Signed off by " + s.Who
	}
	return "NOT SIGNED OFF"
}

func (Heading) kind() string  { return "heading" }
func (Text) kind() string     { return "text" }
func (Lines) kind() string    { return "lines" }
func (Banner) kind() string   { return "banner" }
func (Big) kind() string      { return "big" }
func (Facts) kind() string    { return "facts" }
func (Table) kind() string    { return "table" }
func (Drawing) kind() string  { return "drawing" }
func (Pictures) kind() string { return "pictures" }
func (Boxes) kind() string    { return "boxes" }
func (Checks) kind() string   { return "checks" }
func (Signs) kind() string    { return "signs" }
func (Seal) kind() string     { return "seal" }
func (Code) kind() string     { return "code" }
func (Small) kind() string    { return "small" }
