// Package store keeps jobs in PostgreSQL through GORM, with the schema in
// versioned SQL migrations.
//
// Quantities are kept as text exactly as typed ("7 thou"); whoever computes
// parses them. Everything that belongs to a job hangs off its row, and every
// write takes that row's lock, so that two people's writes are ordered.
package store

import "time"

// Person may sign in.
type Person struct {
	ID           uint
	SignIn       string
	Name         string
	Initials     string
	Role         string
	PasswordHash string
	CreatedAt    time.Time
}

// Customer owns units.
type Customer struct {
	ID      uint
	Name    string
	Place   string
	Contact string
}

// Job is what one tote tag stands for.
type Job struct {
	ID           uint
	Tag          string
	CustomerID   uint
	Customer     Customer
	Title        string
	Complaint    string
	Caller       string
	Symptoms     string // codes, blank-separated
	Policy       string
	Waiting      string
	WaitingNote  string
	Station      string
	ReceivedOn   time.Time
	PromisedOn   *time.Time
	WarrantyHold bool
	WarrantyNote string
	LabourHours  string
	LabourRate   string
	PartsCost    string
	OutsideCost  string
	RebuildDays  string
	NewPrice     string
	NewDays      string
	DowntimeCost string
	Lesson       string
	TimerNote    string
	TimerUntil   *time.Time
	HandedOverAt *time.Time
	Version      int64
	CreatedAt    time.Time
	UpdatedAt    time.Time

	Units            []Unit
	Acknowledgements []Acknowledgement
	StopPasses       []StopPass
	Attachments      []Attachment
	WorkedFigures    []WorkedFigure
}

// Unit is one hydraulic unit of a job.
type Unit struct {
	ID               uint
	JobID            uint
	Ordinal          int
	Family           string
	Name             string
	Maker            string
	Model            string
	Serial           string
	Variant          string
	Rotation         string
	Fluid            string
	Viscosity        string
	Density          string
	Displacement     string
	Speed            string
	DutyPressure     string
	Temperature      string
	Hours            string
	Filtration       string
	Changed          string
	Modification     string
	ShimsFitted      string
	ShimsAvailable   string
	OffBody          string
	OffGears         string
	Gauge            string // question=answer, blank-separated
	Marks            string // mark=yes or mark=no, blank-separated
	Capacity         string
	LevelBefore      string
	Drained          string
	Water            string
	GainedElsewhere  string
	Vessel           string
	DrainedLook      string
	Flushed          string
	ModificationKept string // what became of the field modification at Build

	Accounts    []Account
	Rounds      []Round
	Parts       []Part
	LooseItems  []LooseItem
	Evidence    []Evidence
	Conclusions []Conclusion
	KitPieces   []KitPiece
	Attempts    []Attempt
}

// Round is one pass through the stations; a failed test opens the next.
type Round struct {
	ID       uint
	UnitID   uint
	Number   int
	Reason   string
	BackTo   string
	OpenedBy string
	OpenedAt time.Time
}

// Part is a line of the strip record.
type Part struct {
	ID         uint
	UnitID     uint
	Code       string
	Name       string
	Ordinal    int
	Expected   int
	Off        bool
	Found      string
	Facing     string
	Fastener   string
	Note       string
	Explained  string
	Kind       string // of a part that the family does not know
	Branch     string
	Witness    string
	Stuck      string
	Freed      string
	StackFound string
	StackFit   string

	Features   []Feature
	Decisions  []Decision
	BuildSteps []BuildStep
}

// LooseItem was found lying loose.
type LooseItem struct {
	ID     uint
	UnitID uint
	What   string
	Place  string
	Count  int
	PartID *uint
	Note   string
}

// Feature is something measured, with its limit on this job.
type Feature struct {
	ID         uint
	PartID     uint
	Code       string
	Lower      string
	Upper      string
	Standing   string
	Measured   string
	LimitFor   string
	Instrument string
	Resolution string

	Readings []Reading
}

// Reading is one figure, leaf or grade, as typed.
type Reading struct {
	ID        uint
	FeatureID uint
	Round     int
	Stage     string
	Slot      string
	Value     string
	ByName    string
	At        time.Time
}

// Evidence is a mark looked for: seen, absent, or not looked.
type Evidence struct {
	ID       uint
	UnitID   uint
	Round    int
	Code     string
	State    string
	Origin   string
	Note     string
	FoundHow string
	Age      string
}

// TableName is singular, as the word is.
func (Evidence) TableName() string { return "evidence" }

// Conclusion is what was found to be the cause.
type Conclusion struct {
	ID           uint
	UnitID       uint
	Round        int
	Cause        string
	Proximate    string
	Contributing string
	Statement    string
	Action       string
	Owner        string
}

// Decision is a person's choice for a part.
type Decision struct {
	ID     uint
	PartID uint
	Round  int
	Choice string
	Reason string
}

// KitPiece is a line of the repair kit.
type KitPiece struct {
	ID         uint
	UnitID     uint
	Number     string
	Name       string
	Count      int
	PartID     *uint
	LeftReason string
}

// BuildStep is the fitting of a part.
type BuildStep struct {
	ID     uint
	PartID uint
	Round  int
	Done   bool
	Facing string
	Turn   string
	Torque string
	Note   string
	ByName string
}

// Attempt is a run of the bench test; number 0 is as received.
type Attempt struct {
	ID                uint
	UnitID            uint
	Round             int
	Number            int
	Source            string
	OneChange         string
	ConditionRepeated string
	Note              string
	Closed            bool
	Verdict           string
	ByName            string
	At                time.Time

	Points []Point
}

// Point is one step of an attempt.
type Point struct {
	ID          uint
	AttemptID   uint
	Code        string
	Pressure    string
	Flow        string
	Speed       string
	Temperature string
	Word        string
}

// Attachment is a picture or file of a job. Content is loaded only when asked for.
type Attachment struct {
	ID             uint
	JobID          uint
	PartID         *uint
	Name           string
	MediaType      string
	Caption        string
	BeforeCleaning bool
	Content        []byte
	Thumb          []byte
	Width, Height  int

	Marks []PictureMark
}

// PictureMark is a numbered mark on a picture; X and Y are shares of its size.
type PictureMark struct {
	ID           uint
	AttachmentID uint
	Number       int
	X, Y         float64
	Note         string
	Evidence     string
	PartID       *uint
}

// Account is what one person told of a unit. Two that agree are two sources
// and no proof: they may have it from one another.
type Account struct {
	ID     uint
	UnitID uint
	Teller string
	Words  string
}

// Instrument is a measuring tool of the shop.
type Instrument struct {
	ID         uint
	Name       string
	Kind       string
	Resolution string
	DueOn      *time.Time
}

// FamilyVersion is a family as the shop wrote it; the newest of a code holds.
type FamilyVersion struct {
	ID     uint
	Code   string
	Text   string
	Reason string
	ByName string
	At     time.Time
}

// WorkedFigure is a calculation that somebody put on the job, with its inputs
// and the answer of that day as JSON.
type WorkedFigure struct {
	ID         uint
	JobID      uint
	Calculator string
	Note       string
	Inputs     string
	Answer     string
	ByName     string
	At         time.Time
}

// Acknowledgement says who read a serious caution.
type Acknowledgement struct {
	ID      uint
	JobID   uint
	Caution string
	ByName  string
	At      time.Time
}

// StopPass lets a stop pass with a lead's reason.
type StopPass struct {
	ID       uint
	JobID    uint
	Code     string
	StopText string
	Reason   string
	ByName   string
	At       time.Time
}

// RecordEntry says who did what and when.
type RecordEntry struct {
	ID     uint
	JobID  *uint
	Who    string
	At     time.Time
	Action string
	Field  string
	Before string
	After  string
}
