// Package entry is the one table of what can be typed or tapped on a job: the
// name of each value, what kind it is, its label, what it accepts, and where on
// the unit it stands. Pages, single edits, import, export, the schema of job
// documents and the store all read it, so that a new value is one entry here,
// one column, and one place on a page.
package entry

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Kind is how a value is entered and kept.
type Kind string

// The kinds of value.
const (
	Line     Kind = "line"     // a line of text
	Area     Kind = "area"     // several lines of text
	Quantity Kind = "quantity" // number and unit
	Whole    Kind = "whole"    // a whole number, or nothing
	Choice   Kind = "choice"   // one of the choices
	Flag     Kind = "flag"     // yes or nothing
	Day      Kind = "day"      // a date
	Timer    Kind = "timer"    // a time from now; kept as the moment it ends
	PartOf   Kind = "part"     // the code of a part of the unit, or nothing
	Reading  Kind = "reading"  // a place of a sheet of readings
)

// Yes is what a flag holds when it is set; it holds nothing when it is not.
const Yes = "yes"

// Field is one value that can be entered.
type Field struct {
	Scope    unit.Scope
	Name     string
	Label    string
	Kind     Kind
	Dim      quantity.Dimension // of a quantity
	Bare     string             // unit in which a bare figure is taken where the page says none
	Required bool               // cannot be left empty
	Derived  bool               // kept and exported, but set by a command and not by typing
	Closing  bool               // written while a job is closed: what a lead signed for stands all the same
	Signed   bool               // somebody answers for it, and says anew who he is
	Beside   string             // the field of the same thing that may be set in one act with it
	Opens    bool               // yes takes the unit apart
	Lays     bool               // of what parts the unit consists follows it
	Clocked  bool               // yes stands for the moment at which it was done
	Fits     bool               // yes fits the part, and taking that back takes it out again
	Orders   bool               // tells that something is awaited from then on
	Tightens bool               // a figure of it tells that a fastener is more than in
	Choices  func(*Place) []string
	check    func(*Place, string) error

	dim    func(*Place) quantity.Dimension // of a quantity, where the place says it
	text   func(*Place) *string
	number func(*Place) *quantity.Quantity
	flag   func(*Place) *bool
	whole  func(*Place) *int
	moment func(*Place) *time.Time
	date   func(*Place) *unit.Date
	path   []string
	get    func(*Place) string
	set    func(*Place, string) error
	then   func(*Place) // what follows for the thing itself, once it was typed
}

// Most letters that a line and a longer text hold.
const (
	MostLine = 400
	MostArea = 4000
)

// DimAt is the dimension of a figure at a place.
func (f *Field) DimAt(p *Place) quantity.Dimension {
	switch {
	case f.Kind == Reading:
		return p.FeatureDef.Dim()
	case f.dim != nil:
		return f.dim(p)
	}
	return f.Dim
}

// Get is the value as it was typed.
func (f *Field) Get(p *Place) string {
	switch {
	case f.get != nil:
		return f.get(p)
	case f.number != nil:
		return f.number(p).Typed
	case f.flag != nil:
		return flagText(*f.flag(p))
	case f.whole != nil:
		return strconv.Itoa(*f.whole(p))
	case f.date != nil:
		return string(*f.date(p))
	case f.moment != nil:
		if t := *f.moment(p); !t.IsZero() {
			return t.UTC().Format(time.RFC3339)
		}
		return ""
	}
	return *f.text(p)
}

func flagText(on bool) string {
	if on {
		return Yes
	}
	return ""
}

// Set checks a value in its kind and writes it. The error says in the reader's
// words what is accepted, without the name of the field.
func (f *Field) Set(p *Place, text string) error {
	if err := f.accept(p, text); err != nil {
		return err
	}
	return f.Load(p, text)
}

// Load writes a value that was checked when it was first set, as the store keeps
// it. A quantity that cannot be read any more is kept as typed and is not a
// number, so that nothing is worked out from it.
func (f *Field) Load(p *Place, text string) error {
	switch {
	case f.set != nil:
		return f.set(p, text)
	case f.number != nil:
		*f.number(p) = quantity.Kept(text, f.DimAt(p), f.Bare)
	case f.flag != nil:
		*f.flag(p) = text == Yes
	case f.whole != nil:
		n, err := strconv.Atoi(text)
		if err != nil {
			return errWhole
		}
		*f.whole(p) = n
	case f.date != nil:
		*f.date(p) = unit.Date(text)
	case f.moment != nil:
		*f.moment(p), _ = time.Parse(time.RFC3339, text)
	default:
		*f.text(p) = text
	}
	return nil
}

// With gives the text that is kept for what was typed: a bare figure takes the
// unit that stood in the field, and a reading far from its unit's own size a question.
func (f *Field) With(p *Place, text, bare string) string {
	text = strings.TrimSpace(text)
	if f.Kind == Whole {
		return total(text)
	}
	if f.Kind != Reading || text == "" {
		return f.withUnit(p, text, bare)
	}
	spec, beside := p.spec(), p.Feature.Newest(p.Ref.Stage)
	text = f.withUnit(p, spec.Decimal(beside, p.Ref.Name, text, bare), bare)
	return spec.Asked(beside, p.Ref.Name, text)
}

func (f *Field) withUnit(p *Place, text, bare string) string {
	if bare == "" || text == "" {
		return text
	}
	ok := f.Kind == Quantity
	if f.Kind == Reading {
		ok = p.figures()
	}
	if dim := f.DimAt(p); !ok || dim == quantity.Number {
		return text
	}
	if _, err := quantity.Parse(text, quantity.Number); err != nil || strings.HasSuffix(text, "%") {
		return text
	}
	return text + " " + bare
}

var errWhole = fmt.Errorf("is a whole number, like 17")

// accept checks a value by its kind.
func (f *Field) accept(p *Place, text string) error {
	if text == "" && f.Required {
		return fmt.Errorf("cannot be left empty")
	}
	most := MostLine
	if f.Kind == Area {
		most = MostArea
	}
	if n := len([]rune(text)); n > most {
		return fmt.Errorf("is longer than %d letters", most)
	}
	if text != "" {
		if err := f.fits(p, text); err != nil {
			return err
		}
	}
	if f.check != nil {
		return f.check(p, text)
	}
	return nil
}

// mostWhole keeps a count to what a bench can hold.
const mostWhole = 100000

// fits checks a value that is there.
func (f *Field) fits(p *Place, text string) error {
	switch f.Kind {
	case Quantity:
		q, err := quantity.ParseDefault(text, f.DimAt(p), f.Bare)
		if err == nil && q.SI < 0 && f.DimAt(p) != quantity.Temperature {
			return fmt.Errorf("cannot be below zero")
		}
		return err
	case Whole:
		if n, err := strconv.Atoi(text); err != nil || n < 0 || n > mostWhole || text != strconv.Itoa(n) {
			return errWhole
		}
	case Flag:
		if text != Yes {
			return fmt.Errorf("%q is not offered; use yes or nothing", text)
		}
	case Day:
		if _, ok := unit.ParseDate(text); !ok {
			return fmt.Errorf("is a date like 2031-05-27")
		}
	case PartOf:
		if p.Unit.Part(text) == nil {
			return fmt.Errorf("%q is not a part of this unit", text)
		}
	case Choice:
		if offered := f.Choices(p); !slices.Contains(offered, text) {
			return fmt.Errorf("%q is not offered; use %s", text, strings.Join(offered, ", "))
		}
	}
	return nil
}

// Fields are the values of a scope, in the order of the pages.
func Fields(scope unit.Scope) []*Field { return byScope[scope] }

// Find gives a field of a scope by its name.
func Find(scope unit.Scope, name string) (*Field, bool) {
	for _, f := range byScope[scope] {
		if f.Name == name || f.Kind == Reading {
			return f, true
		}
	}
	return nil, false
}

var byScope = index(jobFields, pictureFields, unitFields, needFields, evidenceFields, conclusionFields, causeFields,
	looseFields, pieceFields, attemptFields, pointFields, limitFields, partFields, partMarkFields,
	decisionFields, reworkFields, stepFields, featureFields, readingFields)

// Of gives the field of an address; ok is false where there is none of that name.
func Of(address string) (f *Field, ok bool) {
	ref, err := unit.ParseRef(address)
	if err != nil {
		return nil, false
	}
	return Find(ref.Scope, ref.Name)
}

// Together reports that two addresses are set in one act: the second is the field that the first
// one's says, of the same thing.
func Together(first, second string) bool {
	f, ok := Of(first)
	if !ok || f.Beside == "" {
		return false
	}
	of, err := unit.ParseRef(first)
	of.Name = f.Beside
	return err == nil && of.String() == second
}

func index(tables ...[]*Field) map[unit.Scope][]*Field {
	out := map[unit.Scope][]*Field{}
	for _, table := range tables {
		for _, f := range table {
			if f.path == nil {
				f.path = pathOf(f)
			}
			out[f.Scope] = append(out[f.Scope], f)
		}
	}
	return out
}

// offer gives the same choices everywhere.
func offer(words ...string) func(*Place) []string {
	return func(*Place) []string { return words }
}

// refuse makes an error at a field.
func refuse(ref string, err error) *field.Error { return field.Errorf(ref, "%s", err) }
