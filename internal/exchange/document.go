// Package exchange writes a job as one open JSON document and reads it back.
// The format is described by docs/job.schema.json; quantities stand as typed.
//
// A document may leave out whatever the unit's family lays out by itself:
// parts and features not named come with the family's counts and limits.
package exchange

import (
	"encoding/json"
	"time"
)

// Format and Version mark the documents this package reads.
const (
	Format  = "corvek.job"
	Version = 1
)

// Document is a whole job.
type Document struct {
	Format           string            `json:"format"`
	Version          int               `json:"version"`
	Job              Job               `json:"job"`
	Customer         Customer          `json:"customer"`
	Units            []Unit            `json:"units"`
	Acknowledgements []Acknowledgement `json:"acknowledgements,omitempty"`
	StopPasses       []StopPass        `json:"stop_passes,omitempty"`
	Attachments      []Attachment      `json:"attachments,omitempty"`
	Worked           []Worked          `json:"worked_figures,omitempty"`
	Record           []Entry           `json:"record,omitempty"`
}

// Worked is a calculation put on the job: what the calculator was given and
// what it answered then.
type Worked struct {
	Calculator string          `json:"calculator"`
	Note       string          `json:"note,omitempty"`
	Inputs     json.RawMessage `json:"inputs"`
	Answer     json.RawMessage `json:"answer"`
	By         string          `json:"by"`
	At         time.Time       `json:"at"`
}

// Customer owns the units.
type Customer struct {
	Name    string `json:"name"`
	Place   string `json:"place,omitempty"`
	Contact string `json:"contact,omitempty"`
}

// Job is the head of the job.
type Job struct {
	Tag          string     `json:"tag"`
	Title        string     `json:"title"`
	Complaint    string     `json:"complaint,omitempty"`
	Caller       string     `json:"caller,omitempty"`
	Symptoms     []string   `json:"symptoms,omitempty"`
	Policy       string     `json:"policy"`
	Waiting      string     `json:"waiting"`
	WaitingNote  string     `json:"waiting_note,omitempty"`
	Station      string     `json:"station"`
	ReceivedOn   string     `json:"received_on"`
	PromisedOn   string     `json:"promised_on,omitempty"`
	WarrantyHold bool       `json:"warranty_hold,omitempty"`
	WarrantyNote string     `json:"warranty_note,omitempty"`
	LabourHours  string     `json:"labour_hours,omitempty"`
	LabourRate   string     `json:"labour_rate,omitempty"`
	PartsCost    string     `json:"parts_cost,omitempty"`
	OutsideCost  string     `json:"outside_cost,omitempty"`
	RebuildDays  string     `json:"rebuild_days,omitempty"`
	NewPrice     string     `json:"new_price,omitempty"`
	NewDays      string     `json:"new_days,omitempty"`
	DowntimeCost string     `json:"downtime_cost,omitempty"`
	Lesson       string     `json:"lesson,omitempty"`
	TimerNote    string     `json:"timer_note,omitempty"`
	TimerUntil   *time.Time `json:"timer_until,omitempty"`
	HandedOverAt *time.Time `json:"handed_over_at,omitempty"`
}

// Unit is one unit with its layers.
type Unit struct {
	Family         string       `json:"family"`
	Name           string       `json:"name"`
	Maker          string       `json:"maker,omitempty"`
	Model          string       `json:"model,omitempty"`
	Serial         string       `json:"serial,omitempty"`
	Variant        string       `json:"variant,omitempty"`
	Rotation       string       `json:"rotation,omitempty"`
	Fluid          string       `json:"fluid,omitempty"`
	Viscosity      string       `json:"viscosity,omitempty"`
	Density        string       `json:"density,omitempty"`
	Displacement   string       `json:"displacement,omitempty"`
	Speed          string       `json:"speed,omitempty"`
	DutyPressure   string       `json:"duty_pressure,omitempty"`
	Temperature    string       `json:"temperature,omitempty"`
	Hours          string       `json:"hours,omitempty"`
	Filtration     string       `json:"filtration,omitempty"`
	Changed        string       `json:"changed,omitempty"`
	Modification   string       `json:"modification,omitempty"`
	ShimsFitted    string       `json:"shims_fitted,omitempty"`
	ShimsAvailable string       `json:"shims_available,omitempty"`
	OffBody        string       `json:"off_body,omitempty"`
	OffGears       string       `json:"off_gears,omitempty"`
	Gauge          string       `json:"gauge,omitempty"` // question=answer, blank-separated
	Marks          string       `json:"marks,omitempty"` // mark=yes or mark=no, blank-separated
	Capacity       string       `json:"capacity,omitempty"`
	LevelBefore    string       `json:"level_before,omitempty"`
	Drained        string       `json:"drained,omitempty"`
	Water          string       `json:"water,omitempty"`
	Gained         string       `json:"gained_elsewhere,omitempty"`
	Vessel         string       `json:"vessel,omitempty"`
	DrainedLook    string       `json:"drained_look,omitempty"`
	Flushed        string       `json:"flushed,omitempty"`
	Kept           string       `json:"modification_kept,omitempty"`
	Accounts       []Account    `json:"accounts,omitempty"`
	Rounds         []Round      `json:"rounds,omitempty"`
	Parts          []Part       `json:"parts,omitempty"`
	Loose          []Loose      `json:"loose,omitempty"`
	Evidence       []Evidence   `json:"evidence,omitempty"`
	Conclusions    []Conclusion `json:"conclusions,omitempty"`
	Kit            []Piece      `json:"kit,omitempty"`
	Attempts       []Attempt    `json:"attempts,omitempty"`
}

// Account is what one person told of the unit.
type Account struct {
	Teller string `json:"teller"`
	Words  string `json:"words"`
}

// Round is one pass through the stations.
type Round struct {
	Number   int       `json:"number"`
	Reason   string    `json:"reason,omitempty"`
	BackTo   string    `json:"back_to,omitempty"`
	OpenedBy string    `json:"opened_by,omitempty"`
	OpenedAt time.Time `json:"opened_at"`
}

// Part is a line of the strip record with its decisions and build steps.
type Part struct {
	Code      string     `json:"code"`
	Expected  int        `json:"expected,omitempty"`
	Off       bool       `json:"off,omitempty"`
	Found     string     `json:"found,omitempty"`
	Facing    string     `json:"facing,omitempty"`
	Fastener  string     `json:"fastener,omitempty"`
	Note      string     `json:"note,omitempty"`
	Explained string     `json:"explained,omitempty"`
	Name      string     `json:"name,omitempty"` // name, kind, branch and place: only of a part that the family does not know
	Kind      string     `json:"kind,omitempty"`
	Branch    string     `json:"branch,omitempty"`
	Place     int        `json:"place,omitempty"`
	Witness   string     `json:"witness,omitempty"`
	Stuck     string     `json:"stuck,omitempty"`
	Freed     string     `json:"freed,omitempty"`
	Stack     string     `json:"stack_found,omitempty"`
	StackFit  string     `json:"stack_fit,omitempty"`
	Features  []Feature  `json:"features,omitempty"`
	Decisions []Decision `json:"decisions,omitempty"`
	Steps     []Step     `json:"steps,omitempty"`
}

// Feature is something measured; limits not given are the family's.
type Feature struct {
	Code       string    `json:"code"`
	Lower      *string   `json:"lower,omitempty"`
	Upper      *string   `json:"upper,omitempty"`
	Standing   string    `json:"standing,omitempty"`
	Measured   string    `json:"measured,omitempty"`
	LimitFor   string    `json:"limit_for,omitempty"`
	Instrument string    `json:"instrument,omitempty"`
	Resolution *string   `json:"resolution,omitempty"`
	Readings   []Reading `json:"readings,omitempty"`
}

// Reading is one figure, leaf or grade.
type Reading struct {
	Round int       `json:"round"`
	Stage string    `json:"stage"`
	Slot  string    `json:"slot"`
	Value string    `json:"value"`
	By    string    `json:"by,omitempty"`
	At    time.Time `json:"at"`
}

// Loose is something found lying loose.
type Loose struct {
	What  string `json:"what"`
	Place string `json:"place,omitempty"`
	Count int    `json:"count"`
	Part  string `json:"part,omitempty"`
	Note  string `json:"note,omitempty"`
}

// Evidence is a mark looked for.
type Evidence struct {
	Round  int    `json:"round"`
	Code   string `json:"code"`
	State  string `json:"state"`
	Origin string `json:"origin,omitempty"`
	Note   string `json:"note,omitempty"`
	How    string `json:"found_how,omitempty"`
	Age    string `json:"age,omitempty"`
}

// Conclusion is the cause that was settled on.
type Conclusion struct {
	Round        int    `json:"round"`
	Cause        string `json:"cause,omitempty"`
	Proximate    string `json:"proximate,omitempty"`
	Contributing string `json:"contributing,omitempty"`
	Statement    string `json:"statement,omitempty"`
	Action       string `json:"action,omitempty"`
	Owner        string `json:"owner,omitempty"`
}

// Decision is a person's choice for a part.
type Decision struct {
	Round  int    `json:"round"`
	Choice string `json:"choice,omitempty"`
	Reason string `json:"reason,omitempty"`
}

// Piece is a line of the repair kit.
type Piece struct {
	Number     string `json:"number,omitempty"`
	Name       string `json:"name"`
	Count      int    `json:"count"`
	Place      string `json:"place,omitempty"`
	LeftReason string `json:"left_reason,omitempty"`
}

// Step is the fitting of a part.
type Step struct {
	Round  int    `json:"round"`
	Done   bool   `json:"done,omitempty"`
	Facing string `json:"facing,omitempty"`
	Turn   string `json:"turn,omitempty"`
	Torque string `json:"torque,omitempty"`
	Note   string `json:"note,omitempty"`
	By     string `json:"by,omitempty"`
}

// Attempt is a run of the test; number 0 is as received.
type Attempt struct {
	Number            int       `json:"number"`
	Round             int       `json:"round"`
	Source            string    `json:"source"`
	OneChange         string    `json:"one_change,omitempty"`
	ConditionRepeated string    `json:"condition_repeated,omitempty"`
	Note              string    `json:"note,omitempty"`
	Closed            bool      `json:"closed,omitempty"`
	Verdict           string    `json:"verdict,omitempty"`
	By                string    `json:"by,omitempty"`
	At                time.Time `json:"at"`
	Points            []Point   `json:"points,omitempty"`
}

// Point is one step of an attempt.
type Point struct {
	Code        string `json:"code"`
	Pressure    string `json:"pressure,omitempty"`
	Flow        string `json:"flow,omitempty"`
	Speed       string `json:"speed,omitempty"`
	Temperature string `json:"temperature,omitempty"`
	Word        string `json:"word,omitempty"`
}

// Acknowledgement says who read a caution.
type Acknowledgement struct {
	Caution string    `json:"caution"`
	By      string    `json:"by"`
	At      time.Time `json:"at"`
}

// StopPass is a stop that a lead let pass.
type StopPass struct {
	Code     string    `json:"code"`
	StopText string    `json:"stop_text"`
	Reason   string    `json:"reason"`
	By       string    `json:"by"`
	At       time.Time `json:"at"`
}

// Attachment is a picture; its content lies beside the document under File.
type Attachment struct {
	File           string `json:"file"`
	Name           string `json:"name"`
	MediaType      string `json:"media_type"`
	Caption        string `json:"caption,omitempty"`
	BeforeCleaning bool   `json:"before_cleaning,omitempty"`
	Unit           int    `json:"unit,omitempty"` // 1 when left out
	Part           string `json:"part,omitempty"`
	Marks          []Mark `json:"marks,omitempty"`
}

// Mark is a numbered mark on a picture; x and y are shares of its size.
type Mark struct {
	Number   int     `json:"number"`
	X        float64 `json:"x"`
	Y        float64 `json:"y"`
	Note     string  `json:"note,omitempty"`
	Evidence string  `json:"evidence,omitempty"`
	Part     string  `json:"part,omitempty"`
}

// Entry is a line of the record.
type Entry struct {
	Who    string    `json:"who"`
	At     time.Time `json:"at"`
	Action string    `json:"action"`
	Field  string    `json:"field,omitempty"`
	Before string    `json:"before,omitempty"`
	After  string    `json:"after,omitempty"`
}

// Shift moves every date by whole days, so that a demo always stands at today.
func (d *Document) Shift(days int) {
	date := func(s *string) {
		if t, err := time.Parse(time.DateOnly, *s); err == nil {
			*s = t.AddDate(0, 0, days).Format(time.DateOnly)
		}
	}
	at := func(t *time.Time) {
		if !t.IsZero() {
			*t = t.AddDate(0, 0, days)
		}
	}
	date(&d.Job.ReceivedOn)
	date(&d.Job.PromisedOn)
	for _, t := range []*time.Time{d.Job.HandedOverAt, d.Job.TimerUntil} {
		if t != nil {
			at(t)
		}
	}
	for i := range d.Worked {
		at(&d.Worked[i].At)
	}
	for i := range d.Units {
		u := &d.Units[i]
		for k := range u.Rounds {
			at(&u.Rounds[k].OpenedAt)
		}
		for k := range u.Attempts {
			at(&u.Attempts[k].At)
		}
		for k := range u.Parts {
			for m := range u.Parts[k].Features {
				rs := u.Parts[k].Features[m].Readings
				for n := range rs {
					at(&rs[n].At)
				}
			}
		}
	}
	for i := range d.Acknowledgements {
		at(&d.Acknowledgements[i].At)
	}
	for i := range d.StopPasses {
		at(&d.StopPasses[i].At)
	}
	for i := range d.Record {
		at(&d.Record[i].At)
	}
}
