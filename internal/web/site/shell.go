package site

import (
	"html/template"

	"corvek/core/shop"
	"corvek/core/unit"
)

// StationHelp is what a station is for, in a few lines.
type StationHelp struct {
	Name  string
	Lines []string
}

// JobShell is what stands around every page of a job: which job and unit it is,
// the stations, the line, and the way on.
type JobShell struct {
	Tag, Title, Customer string
	UnitName             string // "" where the job has one unit only
	Family               string
	Displacement         string
	Rotation             string
	Round                int // 0 in the first
	PromisedOn           unit.Date
	Promise              string // what is said of it
	Late                 bool
	HeldBy               string // first name of who has the job, "" while nobody does
	Mine                 bool   // it was handed to the reader, who has not read what is half done
	Open                 bool   // neither handed over nor withdrawn
	Pictures             int
	ToolboxURL           string
	Version              int64
	Station              string // "" beside the stations
	Here                 string // the station's address with what it shows, "" beside the stations
	Rail                 []RailItem
	Units                []UnitTab
	Line                 template.HTML
	LargeURL             string // the line alone
	Foot                 *Foot
	Help                 *StationHelp
	Lessons              []shop.Lesson // that earlier jobs of this variant left for the station
}

// RailItem is a station in the rail.
type RailItem struct {
	No          int
	Code, Name  string
	URL         string
	Stops       int
	Here        bool
	Begun, Done bool
	Owed        bool // the job's ending asks for it
}

// UnitTab is one unit of a job with several.
type UnitTab struct {
	No   int
	Name string
	URL  string
	Here bool
}

// Foot says what is in the way and where to go next.
type Foot struct {
	Stops    int
	StopText string
	StopURL  string
	NextText string
	NextURL  string
	PrevURL  string // previous part
	SuccURL  string // following part
	Undo     *UndoView
}

// UndoView is what the reader did last and can take back.
type UndoView struct {
	Words   string
	Action  string // where the form goes
	Version int64
	CSRF    string
}
