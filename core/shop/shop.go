// Package shop is what a shop keeps beside its jobs, as far as a unit on the bench is held
// against it: instruments, the head of its papers, and what earlier jobs taught.
package shop

import (
	"slices"
	"strings"
	"time"

	"corvek/core/unit"
)

// Instrument is something that is measured with.
type Instrument struct {
	ID         uint
	Name       string
	Kind       string
	Resolution string // finest step, as typed
	Class      string // of a gauge: largest error in percent of full scale
	FullScale  string
	Permitted  string     // of a length instrument: largest error, as certified
	Setting    string     // of one that compares: largest error of the ring or block it is set by
	DueOn      *time.Time // last day of its calibration, nil where none is kept
	LostOn     *time.Time // since then it is not found, nil while it is there
}

// Calibration is what a calibration of an instrument found, as it came to it.
type Calibration struct {
	ID           uint
	InstrumentID uint
	On           unit.Date  `gorm:"column:on_day;serializer:day"`
	Result       string     // one of CalibrationResults
	DueOn        *time.Time // the last day of what follows
	Note         string
	ByName       string
	At           time.Time `gorm:"default:now()"`
}

// What a calibration can find of an instrument as it came.
const (
	CalibrationHeld     = "held"     // within what it is allowed
	CalibrationAdjusted = "adjusted" // within, and set right
	CalibrationOut      = "out"      // not within: what was read with it is in doubt since it last held
)

// CalibrationResults are they.
var CalibrationResults = []string{CalibrationHeld, CalibrationAdjusted, CalibrationOut}

// DueSoon is how many days before its last day a calibration is told of.
const DueSoon = 30

// Soon reports that its calibration ends within DueSoon days.
func (i Instrument) Soon(today unit.Date) bool {
	return i.DueOn != nil && !i.Overdue(today) && today.Add(DueSoon) >= unit.DateOf(*i.DueOn)
}

// Overdue reports that its calibration has run out; it holds through its day.
func (i Instrument) Overdue(today unit.Date) bool {
	return i.DueOn != nil && today > unit.DateOf(*i.DueOn)
}

// Instruments are those of a shop, by name in small letters.
type Instruments map[string]Instrument

// Named finds an instrument as people write its name.
func (all Instruments) Named(name string) (i Instrument, known bool) {
	i, known = all[strings.ToLower(strings.TrimSpace(name))]
	return i, known
}

// There are those that are not lost, by name: what is offered to measure with.
func (all Instruments) There() (out []Instrument) {
	for _, i := range all {
		if i.LostOn == nil {
			out = append(out, i)
		}
	}
	slices.SortFunc(out, func(a, b Instrument) int { return strings.Compare(a.Name, b.Name) })
	return out
}

// AskAfter is how many days an offer is left with the customer before his answer is asked for.
const AskAfter = 7

// Letterhead is what stands at the head of the shop's papers.
type Letterhead struct {
	Name    string
	Address string // lines
	Mark    []byte // a PNG or JPEG, nil for none
	Sheet   string // a4 or letter
	Site    string // where the pages are opened, for the code on the papers; "" where it is not said

	LeadSigns bool // a unit goes out only with papers that a lead signed off
	Practice  bool `gorm:"-" json:",omitzero"` // of a bench of practice: no paper of it stands for a unit

	LeadConfirms bool // what a technician keeps on the sheet of a model holds only when a lead confirmed it
}

// Lesson is what a job that was handed over left for the next unit of its kind.
type Lesson struct {
	Tag, Family, Model, Variant string
	Station                     string // where it is shown, "" at Receive
	Text                        string
}

// Of picks the lessons for a unit of the job: of its family, and of its model or variant.
func Of(all []Lesson, tag string, u *unit.Unit) (out []Lesson) {
	same := func(a, b string) bool {
		return strings.TrimSpace(a) != "" && strings.EqualFold(strings.TrimSpace(a), strings.TrimSpace(b))
	}
	for _, l := range all {
		if l.Tag != tag && l.Family == u.Family && (same(l.Variant, u.Variant) || same(l.Model, u.Model)) {
			out = append(out, l)
		}
	}
	return out
}
