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
	// In the tables of one store, 0 where it was never kept
	ID int64 `json:"-"`

	Tag string `json:"tag,omitempty"`
	// Steps with every change
	Version int64 `json:"-"`
	// Where it stands, worked out anew with every change
	Station  string   `json:"-"`
	Customer Customer `json:"customer,omitzero"`

	CustomerID int64 `json:"-"`

	Title     string `json:"title,omitempty"`
	Complaint string `json:"complaint,omitempty"`
	Caller    string `json:"caller,omitempty"`
	// Codes
	Symptoms []string `json:"symptoms,omitempty" gorm:"serializer:words"`
	// On_condition or full_overhaul
	Policy string `json:"policy,omitempty"`
	// Code of what it waits for
	Waiting     string `json:"waiting,omitempty"`
	WaitingNote string `json:"waiting_note,omitempty"`
	// Where it is done, of several shops; "" where there is one
	Site string `json:"site,omitempty"`
	// Who has it, and what the one who handed it on left half done, until it was read
	HeldBy     string `json:"held_by,omitempty"`
	HalfDone   string `json:"half_done,omitempty"`
	ReceivedOn Date   `json:"received_on,omitempty" gorm:"serializer:day"`
	PromisedOn Date   `json:"promised_on,omitempty" gorm:"serializer:day"`
	// The machine stands, and there is none in its place
	Stands bool `json:"stands,omitempty"`
	// The day on which it is ready, as whoever runs the machine was told
	ToldDay      Date   `json:"told_day,omitempty" gorm:"serializer:day"`
	WarrantyHold bool   `json:"warranty_hold,omitempty"`
	WarrantyNote string `json:"warranty_note,omitempty"`
	Lesson       string `json:"lesson,omitempty"`
	// Only a part is asked for: which; and where the valves of its drain and its suction line are
	PartOnly string `json:"part_only,omitempty"`
	ValvesAt string `json:"valves_at,omitempty"`
	// For the one who runs the unit: what is normal, and where he can do harm
	OperatorNote string `json:"operator_note,omitempty"`
	// Station at which the lesson matters
	LessonAt    string `json:"lesson_at,omitempty"`
	CollectedBy string `json:"collected_by,omitempty"`
	// Given back with the unit
	GaveOldParts bool   `json:"gave_old_parts,omitempty"`
	GaveSprings  bool   `json:"gave_springs,omitempty"`
	GaveCard     bool   `json:"gave_card,omitempty"`
	TimerNote    string `json:"timer_note,omitempty"`
	// Zero where no timer runs
	TimerUntil time.Time `json:"timer_until,omitzero" gorm:"serializer:moment"`
	// Zero until then
	HandedOverAt time.Time `json:"handed_over_at,omitzero" gorm:"serializer:moment"`

	// Zero where it was not
	WithdrawnAt     time.Time `json:"withdrawn_at,omitzero" gorm:"serializer:moment"`
	WithdrawnBy     string    `json:"withdrawn_by,omitempty"`
	WithdrawnReason string    `json:"withdrawn_reason,omitempty"`

	// Worked in all, which is not what was reckoned with
	WorkedHours quantity.Quantity `json:"worked_hours,omitzero" gorm:"serializer:time;bare:h"`
	LabourHours quantity.Quantity `json:"labour_hours,omitzero" gorm:"serializer:time;bare:h"`
	// Money an hour
	LabourRate  quantity.Quantity `json:"labour_rate,omitzero" gorm:"serializer:number"`
	PartsCost   quantity.Quantity `json:"parts_cost,omitzero" gorm:"serializer:number"`
	OutsideCost quantity.Quantity `json:"outside_cost,omitzero" gorm:"serializer:number"`
	RebuildDays quantity.Quantity `json:"rebuild_days,omitzero" gorm:"serializer:number"`
	NewPrice    quantity.Quantity `json:"new_price,omitzero" gorm:"serializer:number"`
	NewDays     quantity.Quantity `json:"new_days,omitzero" gorm:"serializer:number"`
	// A day
	DowntimeCost quantity.Quantity `json:"downtime_cost,omitzero" gorm:"serializer:number"`
	// Until the parts are here
	PartsDays quantity.Quantity `json:"parts_days,omitzero" gorm:"serializer:number"`
	// Share of a new one's life, where somebody says so
	LifeRebuild  quantity.Quantity `json:"life_rebuild,omitzero" gorm:"serializer:number"`
	LifeOverhaul quantity.Quantity `json:"life_overhaul,omitzero" gorm:"serializer:number"`
	Quote        Quote             `json:"quote,omitzero" gorm:"embedded"`

	Units            []*Unit            `json:"units,omitempty" gorm:"foreignKey:JobID"`
	Acknowledgements []*Acknowledgement `json:"acknowledgements,omitempty" gorm:"foreignKey:JobID"`
	Waivers          []*Waiver          `json:"stop_passes,omitempty" gorm:"foreignKey:JobID"`
	Reopenings       []*Reopening       `json:"reopenings,omitempty" gorm:"foreignKey:JobID"`
	FollowUps        []*FollowUp        `json:"follow_ups,omitempty" gorm:"foreignKey:JobID"`
	Pictures         []*Picture         `json:"pictures,omitempty" gorm:"foreignKey:JobID"`
	Worked           []*Worked          `json:"worked_figures,omitempty" gorm:"foreignKey:JobID"`
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

// Waiver gives how a stop was waived, nil when it was not.
func (j *Job) Waiver(code string) *Waiver {
	return find(j.Waivers, func(p *Waiver) bool { return p.Code == code })
}

// Picture gives a picture by its number, nil when there is none.
func (j *Job) Picture(number int) *Picture {
	return find(j.Pictures, func(p *Picture) bool { return p.Number == number })
}

// Customer owns the units.
type Customer struct {
	ID int64 `json:"-"`

	Name    string `json:"name,omitempty"`
	Place   string `json:"place,omitempty"`
	Contact string `json:"contact,omitempty"`
}

// Acknowledgement says who read a serious caution.
type Acknowledgement struct {
	OfJob `json:"-"`

	Caution string    `json:"caution,omitempty" gorm:"primaryKey"`
	By      string    `json:"by,omitempty" gorm:"column:by_name"`
	At      time.Time `json:"at,omitzero"`
}

// Waiver waives a stop with a lead's reason, which the report prints.
type Waiver struct {
	OfJob `json:"-"`

	Code   string    `json:"code,omitempty" gorm:"primaryKey"`            // of a StopCode
	Text   string    `json:"stop_text,omitempty" gorm:"column:stop_text"` // the stop's words on that day
	Reason string    `json:"reason,omitempty"`
	By     string    `json:"by,omitempty" gorm:"column:by_name"`
	At     time.Time `json:"at,omitzero"`
}

// Reopening is a lead's opening of a job that had been handed over; every later
// paper prints it.
type Reopening struct {
	OfJob `json:"-"`

	Number     int       `json:"number,omitempty" gorm:"primaryKey"` // from 1 within the job
	HandedOver time.Time `json:"handed_over_at,omitzero"`
	Reason     string    `json:"reason,omitempty"`
	By         string    `json:"by,omitempty" gorm:"column:by_name"`
	At         time.Time `json:"at,omitzero"`
	// What the reason touches: the unit itself, or its papers alone
	Touches string `json:"touches,omitempty"`
}

// What a job is opened again for.
const (
	TouchesUnit   = "unit"   // what was shown before holds no more until it is shown again
	TouchesPapers = "papers" // a name, an address: the unit was not touched
)

// Reopen takes the hand-over back and keeps why.
func (j *Job) Reopen(by, reason, touches string, at time.Time) {
	j.Reopenings = append(j.Reopenings, &Reopening{Number: len(j.Reopenings) + 1, HandedOver: j.HandedOverAt,
		Reason: reason, By: by, At: at, Touches: touches})
	j.HandedOverAt = time.Time{}
}

// Picture is an evidence picture; its content stays in the store.
type Picture struct {
	OfJob `json:"-"`

	Number         int            `json:"number,omitempty" gorm:"primaryKey"` // from 1 within the job
	Name           string         `json:"name,omitempty"`
	MediaType      string         `json:"media_type,omitempty"`
	Caption        string         `json:"caption,omitempty"`
	BeforeCleaning bool           `json:"before_cleaning,omitempty"`
	Width          int            `json:"width,omitempty"`
	Height         int            `json:"height,omitempty"`
	Unit           int            `json:"unit,omitempty"` // the unit it shows, from 1
	Part           string         `json:"part,omitempty"` // code, "" for the unit as a whole
	Mark           string         `json:"mark,omitempty"` // code of the mark on the part that it shows
	Marks          []*PictureMark `json:"marks,omitempty" gorm:"foreignKey:JobID,Picture"`
}

// PictureMark is a numbered mark on a picture.
type PictureMark struct {
	OfPicture `json:"-"`

	Number   int     `json:"number,omitempty" gorm:"primaryKey"`
	X        float64 `json:"x,omitempty"` // shares of the picture's width and height
	Y        float64 `json:"y,omitempty"`
	Note     string  `json:"note,omitempty"`
	Evidence string  `json:"evidence,omitempty"` // code of the mark it shows
	Part     string  `json:"part,omitempty"`     // code of the part it shows
	Mark     string  `json:"mark,omitempty"`     // code of the mark on that part
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
	OfJob `json:"-"`

	Number     int    `json:"line,omitempty" gorm:"primaryKey;column:line"`
	Calculator string `json:"calculator,omitempty"`
	Note       string `json:"note,omitempty"`
	// Of which unit of the job, and of what of it: a part, part.feature; "" of the whole
	Unit   int    `json:"unit,omitempty"`
	About  string `json:"about,omitempty"`
	Inputs string `json:"inputs,omitempty"`
	// By input: where the unit had it from. What is not named was typed in the Toolbox.
	Whence map[string]string `json:"whence,omitempty" gorm:"serializer:json"`
	Answer string            `json:"answer,omitempty"`
	By     string            `json:"by,omitempty" gorm:"column:by_name"`
	At     time.Time         `json:"at,omitzero"`
}

// RoleLead is the role of who answers for papers and waives what stands in the way.
const RoleLead = "lead"

// Entry is a line of the record: who did what, and what it was before.
type Entry struct {
	Who    string    `json:"who"`
	Role   string    `json:"role,omitempty"` // in which he did it; "" on lines of earlier versions and of other stores
	At     time.Time `json:"at"`
	Action string    `json:"action"`          // in words, for reading only
	Event  *Event    `json:"event,omitempty"` // what it was as data, nil for a field that was set and for other acts
	Field  string    `json:"field,omitempty"` // a Ref, "" where the action says it all
	Before string    `json:"before,omitempty"`
	After  string    `json:"after,omitempty"`

	Brought bool `json:"brought,omitempty"` // came with a job from another store's record
}

// Is reports that the line is of an event of a kind.
func (e Entry) Is(kind string) bool { return e.Event != nil && e.Event.Kind == kind }

func find[T any](rows []*T, is func(*T) bool) *T {
	for _, r := range rows {
		if is(r) {
			return r
		}
	}
	return nil
}
