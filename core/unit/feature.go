package unit

import (
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/quantity"
)

// Feature is something measured, with the limit that holds on this unit.
type Feature struct {
	OfPart `json:"-"`
	Place  int `json:"-" gorm:"position"` // among those of its part, from 1, as it was kept

	Code        string            `json:"code,omitempty" gorm:"primaryKey"`
	Lower       quantity.Quantity `json:"lower,omitzero" gorm:"serializer:length"`
	Upper       quantity.Quantity `json:"upper,omitzero" gorm:"serializer:length"`
	LimitSource string            `json:"standing,omitempty" gorm:"column:standing"` // where the limit is from
	Source      string            `json:"source,omitempty"`                          // the document it stands in
	Measured    string            `json:"measured,omitempty"`                        // total or each
	LimitFor    string            `json:"limit_for,omitempty"`                       // total or each
	Instrument  string            `json:"instrument,omitempty"`
	Resolution  quantity.Quantity `json:"resolution,omitzero" gorm:"serializer:length"`
	Tool        string            `json:"tool,omitempty"`                              // kind of the instrument
	Permitted   quantity.Quantity `json:"permitted,omitzero" gorm:"serializer:length"` // largest error, certified
	Setting     quantity.Quantity `json:"setting,omitzero" gorm:"serializer:length"`   // of the ring it is set by

	New AsNew `json:"new,omitzero" gorm:"embedded;embeddedPrefix:new_"`
	// What it was brought to by a rework: as new from then on. New stays what it was found against
	Made Made `json:"made,omitzero" gorm:"embedded;embeddedPrefix:made_"`

	Readings []*Reading `json:"readings,omitempty" gorm:"foreignKey:JobID,Unit,Part,Feature"`
}

// Made is the size that a rework brought a feature to, or the band of it.
type Made struct {
	Low    quantity.Quantity `json:"low,omitzero" gorm:"serializer:length"`
	High   quantity.Quantity `json:"high,omitzero" gorm:"serializer:length"`
	Source string            `json:"source,omitempty"` // who made it so, and on what paper that stands
}

// AsNew is it as a size that what comes after is judged by.
func (m Made) AsNew() AsNew {
	return AsNew{Low: m.Low, High: m.High, From: NewRework, Source: m.Source}
}

// AsNew is the size that a feature of this unit had when it was new, and where that is known from.
type AsNew struct {
	Low    quantity.Quantity `json:"low,omitzero" gorm:"serializer:length"`  // the size, or the lower end of a band
	High   quantity.Quantity `json:"high,omitzero" gorm:"serializer:length"` // the upper end, zero of a point
	From   string            `json:"from,omitempty"`                         // one of the New constants
	Source string            `json:"source,omitempty"`                       // document and page, place, job
}

// Where a size as new is known from.
const (
	NewDocument = "document" // the maker's
	NewDrawing  = "drawing"
	NewSheet    = "sheet"   // the shop's sheet of the model
	NewUnworn   = "unworn"  // a place of this part where nothing ran, made to one size with the worn one
	NewSister   = "sister"  // a new or sister part, measured here
	NewTold     = "told"    // said by somebody, no document
	NewRework   = "rework"  // what it was brought to
	NewEarlier  = "earlier" // guidance of an earlier version: no size of this unit
)

// NewFrom are they in the order they are offered.
var NewFrom = []string{NewUnworn, NewDocument, NewDrawing, NewSheet, NewSister, NewTold, NewRework}

// Holds reports that there is a size as new to go by. Where nobody said whence it is, there is none.
func (n AsNew) Holds() bool { return !n.Low.IsZero() && n.From != "" && n.From != NewEarlier }

// Middle is the size, or the middle of its band, in m.
func (n AsNew) Middle() float64 { return (n.Low.SI + max(n.Low.SI, n.High.SI)) / 2 }

// Half is half the width of the band, in m; 0 of a point.
func (n AsNew) Half() float64 { return (max(n.Low.SI, n.High.SI) - n.Low.SI) / 2 }

// Said notes that a size as new was typed, or taken out. Another one than the sheet's is not the sheet's.
func (f *Feature) Said() {
	switch {
	case f.New.Low.IsZero():
		f.New = AsNew{}
	case f.New.From == NewSheet:
		f.New.From, f.New.Source = "", ""
	}
}

// Typed notes that a limit was typed here: it is the shop's then, and no longer what
// shipped.
func (f *Feature) Typed() {
	switch family.LimitSource(f.LimitSource) {
	case family.SourceSheet:
		f.LimitSource, f.Source = string(family.SourceShop), ""
	case "", family.SourceGuidance, family.SourceNone, family.SourceEarlier:
		f.LimitSource = string(family.SourceShop)
	}
}

// LimitFrom is what the limit is worth: a maker's or a standard's only with the document
// it stands in.
func (f *Feature) LimitFrom() family.LimitSource {
	s := family.LimitSource(f.LimitSource)
	if f.Source == "" && (s == family.SourceMaker || s == family.SourceStandard) {
		return family.SourceShop
	}
	return s
}

// The stages a reading belongs to.
const (
	StageFound = "found"
	StageBuilt = "built"
)

// Reading is one figure, leaf or grade.
type Reading struct {
	OfFeature `json:"-"`

	Round int               `json:"round,omitempty" gorm:"primaryKey"`
	Stage string            `json:"stage,omitempty" gorm:"primaryKey"`
	Slot  string            `json:"slot,omitempty" gorm:"primaryKey"`
	Value string            `json:"value,omitempty"` // as typed
	Size  quantity.Quantity `json:"-" gorm:"-"`      // the figure, where the slot holds one
	By    string            `json:"by,omitempty" gorm:"column:by_name"`
	At    time.Time         `json:"at,omitzero"`
}

// QuestionMark stands behind a figure that lies far from the unit's own size, until
// somebody says that it is so. It is kept with the figure, so that every paper shows it.
const QuestionMark = " ?"

// Questioned reports that nobody has said yet that the figure is so.
func (r *Reading) Questioned() bool { return strings.HasSuffix(r.Value, QuestionMark) }

// Plain is what was typed, without the question.
func (r *Reading) Plain() string { return strings.TrimSuffix(r.Value, QuestionMark) }

// Measure reads the figure of a reading once, where its slot holds one.
func (r *Reading) Measure() {
	r.Size = quantity.Quantity{}
	if q, err := quantity.Parse(r.Value, quantity.Length); err == nil {
		r.Size = q
	}
}

// Newest are a stage's readings of the last round that has any. A later round's
// readings replace those of an earlier one as a whole: mixing leaves of before
// and after a rework would contradict itself.
func (f *Feature) Newest(stage string) []*Reading {
	newest := 0
	for _, r := range f.Readings {
		if r.Stage == stage {
			newest = max(newest, r.Round)
		}
	}
	var out []*Reading
	for _, r := range f.Readings {
		if r.Stage == stage && r.Round == newest {
			out = append(out, r)
		}
	}
	return out
}
