package exchange

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"corvek/core/calc"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/internal/job"
	"corvek/internal/picture"
	"corvek/internal/store"
)

// Limits of what is read, so that a hostile file cannot fill the memory.
const (
	MaxDocument   = 32 << 20
	MaxAttachment = 20 << 20
	maxFiles      = 500
)

// ErrTagTaken says that a job of this tag is there already.
var ErrTagTaken = errors.New("a job with this tag is here already")

// Files gives the content of an attachment by the name in the document.
type Files func(name string) ([]byte, error)

// Parse reads a document and checks its head.
func Parse(text []byte) (*Document, error) {
	d := &Document{}
	if err := field.DecodeJSON(text, d, true); err != nil {
		return nil, fmt.Errorf("this is not a job document: %w", err)
	}
	switch {
	case d.Format != Format:
		return nil, fmt.Errorf("this is not a job document: format is %q, %q is wanted", d.Format, Format)
	case d.Version != Version:
		return nil, fmt.Errorf("this document has version %d; this program reads version %d", d.Version, Version)
	case strings.TrimSpace(d.Job.Tag) == "" || strings.TrimSpace(d.Customer.Name) == "":
		return nil, errors.New("a job document needs a tag and a customer")
	case len(d.Units) == 0:
		return nil, errors.New("a job document needs at least one unit")
	}
	return d, nil
}

// OpenZip reads a zip written by Write.
func OpenZip(r io.ReaderAt, size int64) (*Document, Files, error) {
	z, err := zip.NewReader(r, size)
	if err != nil {
		return nil, nil, fmt.Errorf("this is not a zip file: %w", err)
	}
	if len(z.File) > maxFiles {
		return nil, nil, fmt.Errorf("the zip holds %d files; at most %d are read", len(z.File), maxFiles)
	}
	files := func(name string) ([]byte, error) { return readZip(z, name, MaxAttachment) }
	text, err := readZip(z, "job.json", MaxDocument)
	if err != nil {
		return nil, nil, err
	}
	d, err := Parse(text)
	return d, files, err
}

func readZip(z *zip.Reader, name string, most int64) ([]byte, error) {
	f, err := z.Open(name)
	if err != nil {
		return nil, fmt.Errorf("the zip has no %s", name)
	}
	defer f.Close()
	// Read one byte over the limit: a header may lie about the size.
	text, err := io.ReadAll(io.LimitReader(f, most+1))
	if err == nil && int64(len(text)) > most {
		err = fmt.Errorf("%s is larger than %d MB", name, most>>20)
	}
	return text, err
}

// Import stores the job of a document.
func Import(ctx context.Context, s *job.Service, d *Document, files Files, who string) error {
	taken, err := s.Store.TagTaken(ctx, d.Job.Tag)
	if err != nil {
		return err
	}
	if taken {
		return fmt.Errorf("%s: %w", d.Job.Tag, ErrTagTaken)
	}
	j, err := toJob(s.Families(), d)
	if err != nil {
		return err
	}
	for _, a := range d.Attachments {
		content, err := files(a.File)
		if err != nil {
			return err
		}
		row, err := takePicture(a, content)
		if err != nil {
			return fmt.Errorf("%s %w", a.File, err)
		}
		j.Attachments = append(j.Attachments, row)
	}
	for _, w := range d.Worked {
		row, err := takeWorked(w)
		if err != nil {
			return err
		}
		j.WorkedFigures = append(j.WorkedFigures, row)
	}
	ties := takeTies(j, d)
	var record []store.RecordEntry
	for _, e := range d.Record {
		record = append(record, store.RecordEntry{Who: e.Who, At: e.At, Action: e.Action, Field: e.Field, Before: e.Before, After: e.After})
	}
	if err := s.Store.CreateJob(ctx, j, who, "imported"); err != nil {
		return err
	}
	return s.Store.Tie(ctx, j, ties, record)
}

// takeTies notes which rows point at parts, which have no number before they are stored.
func takeTies(j *store.Job, d *Document) []store.PartTie {
	var ties []store.PartTie
	for ui := range d.Units {
		for i, l := range d.Units[ui].Loose {
			if l.Part != "" {
				ties = append(ties, store.PartTie{Unit: ui, Code: l.Part, Loose: &j.Units[ui].LooseItems[i]})
			}
		}
		for i, k := range d.Units[ui].Kit {
			if k.Place != "" {
				ties = append(ties, store.PartTie{Unit: ui, Code: k.Place, Piece: &j.Units[ui].KitPieces[i]})
			}
		}
	}
	for i, a := range d.Attachments {
		unit := max(1, a.Unit) - 1
		if unit >= len(d.Units) {
			unit = 0
		}
		if a.Part != "" {
			ties = append(ties, store.PartTie{Unit: unit, Code: a.Part, Attachment: &j.Attachments[i]})
		}
		for k, m := range a.Marks {
			if m.Part != "" {
				ties = append(ties, store.PartTie{Unit: unit, Code: m.Part, Mark: &j.Attachments[i].Marks[k]})
			}
		}
	}
	return ties
}

func toJob(lib family.Library, d *Document) (*store.Job, error) {
	h := d.Job
	j := &store.Job{Tag: h.Tag, Title: h.Title, Complaint: h.Complaint, Caller: h.Caller, Symptoms: strings.Join(h.Symptoms, " "), Policy: h.Policy, Waiting: h.Waiting,
		WaitingNote: h.WaitingNote, Station: h.Station, WarrantyHold: h.WarrantyHold, WarrantyNote: h.WarrantyNote, LabourHours: h.LabourHours, LabourRate: h.LabourRate,
		PartsCost: h.PartsCost, OutsideCost: h.OutsideCost, RebuildDays: h.RebuildDays, NewPrice: h.NewPrice, NewDays: h.NewDays, DowntimeCost: h.DowntimeCost,
		Lesson: h.Lesson, HandedOverAt: h.HandedOverAt, TimerNote: h.TimerNote, TimerUntil: h.TimerUntil, Customer: store.Customer{Name: d.Customer.Name, Place: d.Customer.Place, Contact: d.Customer.Contact}}
	var err error
	if j.ReceivedOn, err = time.Parse(time.DateOnly, h.ReceivedOn); err != nil {
		return nil, fmt.Errorf("job.received_on is a date like 2031-05-27, not %q", h.ReceivedOn)
	}
	if h.PromisedOn != "" {
		at, err := time.Parse(time.DateOnly, h.PromisedOn)
		if err != nil {
			return nil, fmt.Errorf("job.promised_on is a date like 2031-05-27, not %q", h.PromisedOn)
		}
		j.PromisedOn = &at
	}
	for i, u := range d.Units {
		row, err := toUnit(lib, u, i+1, j.ReceivedOn)
		if err != nil {
			return nil, err
		}
		j.Units = append(j.Units, *row)
	}
	for _, a := range d.Acknowledgements {
		j.Acknowledgements = append(j.Acknowledgements, store.Acknowledgement{Caution: a.Caution, ByName: a.By, At: a.At})
	}
	for _, p := range d.StopPasses {
		j.StopPasses = append(j.StopPasses, store.StopPass{Code: p.Code, StopText: p.StopText, Reason: p.Reason, ByName: p.By, At: p.At})
	}
	return j, nil
}

func toUnit(lib family.Library, u Unit, ordinal int, received time.Time) (*store.Unit, error) {
	f := lib[u.Family]
	if f == nil {
		return nil, fmt.Errorf("units[%d]: the family %q is not in the library", ordinal-1, u.Family)
	}
	row := job.NewUnit(f, ordinal, received, "")
	row.Name, row.Maker, row.Model, row.Serial, row.Variant, row.Rotation = u.Name, u.Maker, u.Model, u.Serial, u.Variant, u.Rotation
	row.Fluid, row.Viscosity, row.Density, row.Displacement, row.Speed = u.Fluid, u.Viscosity, u.Density, u.Displacement, u.Speed
	row.DutyPressure, row.Temperature, row.Hours, row.Filtration, row.Changed = u.DutyPressure, u.Temperature, u.Hours, u.Filtration, u.Changed
	row.Modification, row.ShimsFitted, row.ShimsAvailable, row.OffBody, row.OffGears = u.Modification, u.ShimsFitted, u.ShimsAvailable, u.OffBody, u.OffGears
	row.Gauge, row.Marks, row.Capacity, row.LevelBefore, row.Drained, row.Water = u.Gauge, u.Marks, u.Capacity, u.LevelBefore, u.Drained, u.Water
	row.GainedElsewhere, row.Vessel, row.DrainedLook, row.Flushed, row.ModificationKept = u.Gained, u.Vessel, u.DrainedLook, u.Flushed, u.Kept
	for _, a := range u.Accounts {
		row.Accounts = append(row.Accounts, store.Account{Teller: a.Teller, Words: a.Words})
	}
	if len(u.Rounds) > 0 {
		row.Rounds = nil
		for _, r := range u.Rounds {
			row.Rounds = append(row.Rounds, store.Round{Number: r.Number, Reason: r.Reason, BackTo: r.BackTo, OpenedBy: r.OpenedBy, OpenedAt: r.OpenedAt})
		}
	}
	for _, p := range u.Parts {
		at := partRow(row.Parts, p.Code)
		if at == nil && p.Kind != "" {
			at = addPart(&row, p)
		}
		if at == nil {
			return nil, fmt.Errorf("units[%d]: the family %s has no part %q", ordinal-1, f.Code, p.Code)
		}
		if err := overlay(at, p); err != nil {
			return nil, fmt.Errorf("units[%d]: %w", ordinal-1, err)
		}
	}
	inOrder(&row, u.Parts)
	for _, l := range u.Loose {
		row.LooseItems = append(row.LooseItems, store.LooseItem{What: l.What, Place: l.Place, Count: l.Count, Note: l.Note})
	}
	for _, e := range u.Evidence {
		origin := e.Origin
		if origin == "" {
			origin = "found_so"
		}
		row.Evidence = append(row.Evidence, store.Evidence{Round: e.Round, Code: e.Code, State: e.State, Origin: origin, Note: e.Note, FoundHow: e.How, Age: e.Age})
	}
	for _, c := range u.Conclusions {
		row.Conclusions = append(row.Conclusions, store.Conclusion{Round: c.Round, Cause: c.Cause, Proximate: c.Proximate, Contributing: c.Contributing, Statement: c.Statement, Action: c.Action, Owner: c.Owner})
	}
	for _, k := range u.Kit {
		row.KitPieces = append(row.KitPieces, store.KitPiece{Number: k.Number, Name: k.Name, Count: k.Count, LeftReason: k.LeftReason})
	}
	if len(u.Attempts) > 0 {
		row.Attempts = nil
		for _, a := range u.Attempts {
			x := store.Attempt{Number: a.Number, Round: a.Round, Source: a.Source, OneChange: a.OneChange, ConditionRepeated: a.ConditionRepeated, Note: a.Note, Closed: a.Closed, Verdict: a.Verdict, ByName: a.By, At: a.At}
			for _, p := range a.Points {
				x.Points = append(x.Points, store.Point{Code: p.Code, Pressure: p.Pressure, Flow: p.Flow, Speed: p.Speed, Temperature: p.Temperature, Word: p.Word})
			}
			row.Attempts = append(row.Attempts, x)
		}
	}
	return &row, nil
}

func partRow(parts []store.Part, code string) *store.Part {
	for i := range parts {
		if parts[i].Code == code {
			return &parts[i]
		}
	}
	return nil
}

// overlay writes what the document says over what the family laid out.
func overlay(row *store.Part, p Part) error {
	row.Off, row.Found, row.Facing, row.Note, row.Explained = p.Off, p.Found, p.Facing, p.Note, p.Explained
	row.Witness, row.Stuck, row.Freed, row.StackFound, row.StackFit = p.Witness, p.Stuck, p.Freed, p.Stack, p.StackFit
	if p.Expected > 0 {
		row.Expected = p.Expected
	}
	if p.Fastener != "" {
		row.Fastener = p.Fastener
	}
	for _, f := range p.Features {
		var at *store.Feature
		for i := range row.Features {
			if row.Features[i].Code == f.Code {
				at = &row.Features[i]
			}
		}
		if at == nil {
			return fmt.Errorf("the part %s has no feature %q", p.Code, f.Code)
		}
		for _, set := range []struct{ to, from *string }{{&at.Lower, f.Lower}, {&at.Upper, f.Upper}, {&at.Resolution, f.Resolution},
			{&at.Standing, filled(f.Standing)}, {&at.Measured, filled(f.Measured)}, {&at.LimitFor, filled(f.LimitFor)}, {&at.Instrument, filled(f.Instrument)}} {
			if set.from != nil {
				*set.to = *set.from
			}
		}
		for _, r := range f.Readings {
			at.Readings = append(at.Readings, store.Reading{Round: r.Round, Stage: r.Stage, Slot: r.Slot, Value: r.Value, ByName: r.By, At: r.At})
		}
	}
	for _, d := range p.Decisions {
		row.Decisions = append(row.Decisions, store.Decision{Round: d.Round, Choice: d.Choice, Reason: d.Reason})
	}
	for _, b := range p.Steps {
		row.BuildSteps = append(row.BuildSteps, store.BuildStep{Round: b.Round, Done: b.Done, Facing: b.Facing, Turn: b.Turn, Torque: b.Torque, Note: b.Note, ByName: b.By})
	}
	return nil
}

func filled(s string) *string {
	if s == "" {
		return nil
	}
	return &s
}

// inOrder puts the parts in the document's order when it names them all: a unit
// need not have come apart as its family says.
func inOrder(u *store.Unit, parts []Part) {
	place := map[string]int{}
	for i, p := range parts {
		place[p.Code] = i
	}
	for _, p := range u.Parts {
		if _, named := place[p.Code]; !named {
			return
		}
	}
	slices.SortStableFunc(u.Parts, func(a, b store.Part) int { return place[a.Code] - place[b.Code] })
	for i := range u.Parts {
		u.Parts[i].Ordinal = i + 1
	}
}

// addPart puts a part that the family does not know into its place of the order.
func addPart(u *store.Unit, p Part) *store.Part {
	place := p.Place
	if place < 1 || place > len(u.Parts)+1 {
		place = len(u.Parts) + 1
	}
	u.Parts = slices.Insert(u.Parts, place-1, store.Part{Code: p.Code, Name: p.Name, Kind: p.Kind, Branch: p.Branch, Expected: max(1, p.Expected)})
	for i := range u.Parts {
		u.Parts[i].Ordinal = i + 1
	}
	return &u.Parts[place-1]
}

// takePicture keeps a picture as it came, after looking that it is one. A drawn
// picture is served so that it can run nothing.
func takePicture(a Attachment, content []byte) (store.Attachment, error) {
	row := store.Attachment{Name: a.Name, MediaType: a.MediaType, Caption: a.Caption, BeforeCleaning: a.BeforeCleaning, Content: content, Marks: takeMarks(a.Marks)}
	switch a.MediaType {
	case "image/svg+xml":
		return row, nil
	case "image/jpeg", "image/png", "image/webp":
		var err error
		row.Width, row.Height, row.Thumb, err = picture.Look(content)
		return row, err
	}
	return row, fmt.Errorf("is of the kind %q; pictures are JPEG, PNG, WebP or SVG", a.MediaType)
}

func takeMarks(marks []Mark) []store.PictureMark {
	var out []store.PictureMark
	for _, m := range marks {
		out = append(out, store.PictureMark{Number: m.Number, X: m.X, Y: m.Y, Note: m.Note, Evidence: m.Evidence})
	}
	return out
}

// takeWorked keeps a calculation as it stands, written tightly so that it
// compares equal when it goes out again.
func takeWorked(w Worked) (store.WorkedFigure, error) {
	if _, err := calc.Find(w.Calculator); err != nil {
		return store.WorkedFigure{}, fmt.Errorf("worked_figures: there is no calculator called %q", w.Calculator)
	}
	var in, out bytes.Buffer
	if json.Compact(&in, w.Inputs) != nil || json.Compact(&out, w.Answer) != nil || in.Len() == 0 || out.Len() == 0 {
		return store.WorkedFigure{}, fmt.Errorf("worked_figures: %s needs inputs and answer", w.Calculator)
	}
	return store.WorkedFigure{Calculator: w.Calculator, Note: w.Note, Inputs: in.String(), Answer: out.String(), ByName: w.By, At: w.At}, nil
}
