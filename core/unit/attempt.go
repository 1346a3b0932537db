package unit

import (
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/quantity"
)

// StepLimit is what a figure of a step of the test must be on this unit.
type StepLimit struct {
	OfUnit `json:"-"`

	Code   string            `json:"code,omitempty" gorm:"primaryKey"` // STEP.FIGURE
	Least  quantity.Quantity `json:"least,omitzero" gorm:"serializer:typed"`
	Most   quantity.Quantity `json:"most,omitzero" gorm:"serializer:typed"`
	Source string            `json:"source,omitempty"` // the document or the person that says so
}

// Measure reads a limit in the dimension of the figure that it is of, as typed.
func (l *StepLimit) Measure() {
	g, _ := family.FigureByCode(l.Figure())
	l.Least, l.Most = quantity.Kept(l.Least.Typed, g.Dim, ""), quantity.Kept(l.Most.Typed, g.Dim, "")
}

// StepLimit finds the unit's own limit of a figure, nil where it has none.
func (u *Unit) StepLimit(step, figure string) *StepLimit {
	return find(u.Limits, func(l *StepLimit) bool { return l.Code == step+"."+figure })
}

// Figure is the code of the figure that is limited.
func (l *StepLimit) Figure() string {
	_, figure, _ := strings.Cut(l.Code, ".")
	return figure
}

// Step is the code of the step that reads it.
func (l *StepLimit) Step() string {
	step, _, _ := strings.Cut(l.Code, ".")
	return step
}

// LimitRef addresses a field of the unit's own limit of a figure.
func (u *Unit) LimitRef(step, figure, name string) Ref {
	return Ref{Scope: ScopeLimit, Unit: u.Number, Code: step + "." + figure, Name: name}
}

// Attempt is a run of the bench test; number 0 is as received.
type Attempt struct {
	OfUnit `json:"-"`

	Number    int       `json:"number,omitempty" gorm:"primaryKey"`
	Round     int       `json:"round,omitempty"`
	Source    string    `json:"source,omitempty"` // typed or simulated
	OneChange string    `json:"one_change,omitempty"`
	Note      string    `json:"note,omitempty"`
	Closed    bool      `json:"closed,omitempty"`
	Verdict   string    `json:"verdict,omitempty"`
	By        string    `json:"by,omitempty" gorm:"column:by_name"`
	At        time.Time `json:"at,omitzero"`
	Points    []*Point  `json:"points,omitempty" gorm:"foreignKey:JobID,Unit,Attempt"`

	// Number of what stood when it was closed, 0 where nobody kept it
	Ground int `json:"ground,omitempty"`

	ChangeKind    string `json:"change_kind,omitempty"` // of the one change: what was done, to which part
	ChangePart    string `json:"change_part,omitempty"`
	SecondChange  string `json:"second_change,omitempty"` // made at once with it
	SecondKind    string `json:"second_kind,omitempty"`
	SecondPart    string `json:"second_part,omitempty"`
	PressureGauge string `json:"pressure_gauge,omitempty"` // the shop's names of what the figures were read with
	FlowMeter     string `json:"flow_meter,omitempty"`
	Thermometer   string `json:"thermometer,omitempty"`

	RanOn RanOn `json:"ran_on,omitzero" gorm:"embedded;embeddedPrefix:ran_on_"`
}

// RanOn is what a test was run on: the stand, and the oil, gas or grease in it.
type RanOn struct {
	Stand       string            `json:"stand,omitempty"`
	Oil         string            `json:"oil,omitempty"`
	Temperature quantity.Quantity `json:"temperature,omitzero" gorm:"serializer:temperature"`
	Viscosity   quantity.Quantity `json:"viscosity,omitzero" gorm:"serializer:kinematic viscosity"`
	Clean       string            `json:"clean,omitempty"` // by ISO 4406, as 18/16/13
}

// Where an attempt's figures are from.
const (
	SourceTyped     = "typed"
	SourceStand     = "stand"     // a real one, over its link
	SourceLog       = "log"       // a log that another stand wrote
	SourceSimulated = "simulated" // an exercise
	SourceUnknown   = "unknown"   // a stand that did not say what it is
)

// Point finds a step of the attempt, nil where nothing was entered.
func (a *Attempt) Point(code string) *Point {
	return find(a.Points, func(p *Point) bool { return p.Code == code })
}

// Point is one step of an attempt.
type Point struct {
	OfAttempt `json:"-"`

	Code string `json:"code,omitempty" gorm:"primaryKey"`
	// What was read, by the code of the figure
	Figures map[string]quantity.Quantity `json:"figures,omitempty" gorm:"serializer:figures"`
	Word    string                       `json:"word,omitempty"`
	// Zero where no hold began
	HoldFrom time.Time `json:"hold_from,omitzero" gorm:"serializer:moment"`
	// Zero while it runs
	HoldTo time.Time `json:"hold_to,omitzero" gorm:"serializer:moment"`
	// How each figure came, what was seen under word, the ends of the hold under theirs
	Taken map[string]*Taking `json:"taken,omitempty" gorm:"serializer:json"`
	// Portions of oil that were put in, in their order
	Pours []Pour `json:"pours,omitempty" gorm:"serializer:json"`
	// Why it is not possible on this stand, "" where it is
	Skipped string `json:"not_applicable,omitempty" gorm:"column:not_applicable"`
}

// Figure is what was read of one thing; the zero quantity where it was not.
func (p *Point) Figure(code string) quantity.Quantity { return p.Figures[code] }

// Put writes a figure; an empty one is taken away.
func (p *Point) Put(code string, q quantity.Quantity) {
	if q.IsZero() {
		delete(p.Figures, code)
		return
	}
	if p.Figures == nil {
		p.Figures = map[string]quantity.Quantity{}
	}
	p.Figures[code] = q
}

// Empty reports that nothing was entered at the step.
func (p *Point) Empty() bool {
	return len(p.Figures) == 0 && p.Word == "" && p.Skipped == ""
}

// Held is how long the step was held, 0 while the hold runs.
func (p *Point) Held() time.Duration {
	if p.HoldFrom.IsZero() || p.HoldTo.Before(p.HoldFrom) {
		return 0
	}
	return p.HoldTo.Sub(p.HoldFrom)
}

// Attempt finds a run of the test by its number, nil when there is none.
func (u *Unit) Attempt(number int) *Attempt {
	return find(u.Attempts, func(a *Attempt) bool { return a.Number == number })
}
