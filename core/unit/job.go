// Package unit holds a job and its units as they really are: what was told,
// taken off, counted, measured, seen, decided, fitted and tested. A family is
// only where a unit starts; every judgement reads the unit.
//
// The types are plain values without a database or a page behind them.
// Quantities are read once, when a job is loaded, and keep what was typed.
package unit

import (
	"slices"
	"time"

	"corvek/core/quantity"
)

// Job is what one tote tag stands for: a customer's units and what becomes of
// them.
type Job struct {
	Tag      string
	Version  int64  // steps with every change
	Station  string // where it stands, worked out anew with every change
	Customer Customer

	Title        string
	Complaint    string
	Caller       string
	Symptoms     []string // codes
	Policy       string   // on_condition or full_overhaul
	Waiting      string   // code of what it waits for
	WaitingNote  string
	ReceivedOn   Date
	PromisedOn   Date
	WarrantyHold bool
	WarrantyNote string
	Lesson       string
	LessonAt     string // station at which it matters
	CollectedBy  string
	GaveOldParts bool // given back with the unit
	GaveSprings  bool
	GaveCard     bool
	TimerNote    string
	TimerUntil   time.Time // zero where no timer runs
	HandedOverAt time.Time // zero until then

	WithdrawnAt     time.Time // zero where it was not
	WithdrawnBy     string
	WithdrawnReason string

	LabourHours  quantity.Quantity
	LabourRate   quantity.Quantity // money an hour
	PartsCost    quantity.Quantity
	OutsideCost  quantity.Quantity
	RebuildDays  quantity.Quantity
	NewPrice     quantity.Quantity
	NewDays      quantity.Quantity
	DowntimeCost quantity.Quantity // a day
	PartsDays    quantity.Quantity // until the parts are here
	LifeRebuild  quantity.Quantity // share of a new one's life, where somebody says so
	LifeOverhaul quantity.Quantity
	Quote        Quote

	Units            []*Unit
	Acknowledgements []*Acknowledgement
	Passes           []*Pass
	Reopenings       []*Reopening
	FollowUps        []*FollowUp
	Pictures         []*Picture
	Worked           []*Worked
}

// HandedOver reports that the job is closed.
func (j *Job) HandedOver() bool { return !j.HandedOverAt.IsZero() }

// Withdrawn reports that a lead took the job off the board: it should not be.
func (j *Job) Withdrawn() bool { return !j.WithdrawnAt.IsZero() }

// Closed reports that nothing is written on the job any more.
func (j *Job) Closed() bool { return j.HandedOver() || j.Withdrawn() }

// HandOver is the number of the hand-over that holds or comes next, from 1.
func (j *Job) HandOver() int { return len(j.Reopenings) + 1 }

// Unit gives a unit by its number, counted from 1; nil when there is none.
func (j *Job) Unit(number int) *Unit {
	if number < 1 || number > len(j.Units) {
		return nil
	}
	return j.Units[number-1]
}

// HasSymptom reports that a symptom was told.
func (j *Job) HasSymptom(code string) bool {
	for _, s := range j.Symptoms {
		if s == code {
			return true
		}
	}
	return false
}

// Acknowledged gives who read a caution, nil when nobody did.
func (j *Job) Acknowledged(caution string) *Acknowledgement {
	return find(j.Acknowledgements, func(a *Acknowledgement) bool { return a.Caution == caution })
}

// Pass gives how a stop was waived, nil when it was not.
func (j *Job) Pass(code string) *Pass {
	return find(j.Passes, func(p *Pass) bool { return p.Code == code })
}

// Picture gives a picture by its number, nil when there is none.
func (j *Job) Picture(number int) *Picture {
	return find(j.Pictures, func(p *Picture) bool { return p.Number == number })
}

// Customer owns the units.
type Customer struct {
	Name, Place, Contact string
}

// Acknowledgement says who read a serious caution.
type Acknowledgement struct {
	Caution string
	By      string
	At      time.Time
}

// Pass waives a stop with a lead's reason, which the report prints.
type Pass struct {
	Code   string // of a StopCode
	Text   string // the stop's words on that day
	Reason string
	By     string
	At     time.Time
}

// Reopening is a lead's opening of a job that had been handed over; every later
// paper prints it.
type Reopening struct {
	Number     int // from 1 within the job
	HandedOver time.Time
	Reason     string
	By         string
	At         time.Time
}

// Reopen takes the hand-over back and keeps why.
func (j *Job) Reopen(by, reason string, at time.Time) {
	j.Reopenings = append(j.Reopenings, &Reopening{Number: len(j.Reopenings) + 1, HandedOver: j.HandedOverAt,
		Reason: reason, By: by, At: at})
	j.HandedOverAt = time.Time{}
}

// Picture is an evidence picture; its content stays in the store.
type Picture struct {
	Number         int // from 1 within the job
	Name           string
	MediaType      string
	Caption        string
	BeforeCleaning bool
	Width, Height  int
	Unit           int    // the unit it shows, from 1
	Part           string // code, "" for the unit as a whole
	Mark           string // code of the mark on the part that it shows
	Marks          []*PictureMark
}

// PictureMark is a numbered mark on a picture.
type PictureMark struct {
	Number   int
	X, Y     float64 // shares of the picture's width and height
	Note     string
	Evidence string // code of the mark it shows
	Part     string // code of the part it shows
	Mark     string // code of the mark on that part
}

// Shows reports that the picture, or a place on it, shows a mark on a part of a unit.
func (p *Picture) Shows(unit int, part, mark string) bool {
	if p.Unit != unit {
		return false
	}
	return p.Part == part && p.Mark == mark || slices.ContainsFunc(p.Marks, func(m *PictureMark) bool {
		return m.Part == part && m.Mark == mark
	})
}

// Worked is a calculation that was put on the job, with inputs and answer of
// that day as JSON.
type Worked struct {
	Number     int
	Calculator string
	Note       string
	Inputs     string
	Answer     string
	By         string
	At         time.Time
}

// Entry is a line of the record: who did what, and what it was before.
type Entry struct {
	Who    string
	At     time.Time
	Action string
	Field  string // a Ref, "" where the action says it all
	Before string
	After  string

	Brought bool // came with a job from another store's record
}

// Acts of the record that are looked for again, by papers and by the store.
const (
	ActHandedOver = "handed over"
	ActSignedOff  = "signed off the papers of unit " // with its number and the record as it stood behind
	ActKeptPaper  = "kept the paper of the day "     // with its name behind
)

func find[T any](rows []*T, is func(*T) bool) *T {
	for _, r := range rows {
		if is(r) {
			return r
		}
	}
	return nil
}
