package exchange

import (
	"archive/zip"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"path"
	"strings"
	"time"

	"corvek/internal/store"
)

// FromJob makes the document of a stored job. Attachments name the files their
// content goes to.
func FromJob(j *store.Job, history []store.RecordEntry) *Document {
	d := &Document{Format: Format, Version: Version,
		Customer: Customer{j.Customer.Name, j.Customer.Place, j.Customer.Contact},
		Job: Job{Tag: j.Tag, Title: j.Title, Complaint: j.Complaint, Caller: j.Caller, Symptoms: strings.Fields(j.Symptoms), Policy: j.Policy, Waiting: j.Waiting,
			WaitingNote: j.WaitingNote, Station: j.Station, ReceivedOn: j.ReceivedOn.Format(time.DateOnly), WarrantyHold: j.WarrantyHold, WarrantyNote: j.WarrantyNote,
			LabourHours: j.LabourHours, LabourRate: j.LabourRate, PartsCost: j.PartsCost, OutsideCost: j.OutsideCost, RebuildDays: j.RebuildDays,
			NewPrice: j.NewPrice, NewDays: j.NewDays, DowntimeCost: j.DowntimeCost, Lesson: j.Lesson, HandedOverAt: utc(j.HandedOverAt), TimerNote: j.TimerNote, TimerUntil: utc(j.TimerUntil)},
	}
	if j.PromisedOn != nil {
		d.Job.PromisedOn = j.PromisedOn.Format(time.DateOnly)
	}
	codes, unitOf := map[uint]string{}, map[uint]int{}
	for i := range j.Units {
		for _, p := range j.Units[i].Parts {
			codes[p.ID], unitOf[p.ID] = p.Code, i
		}
		d.Units = append(d.Units, fromUnit(&j.Units[i], codes))
	}
	for _, a := range j.Acknowledgements {
		d.Acknowledgements = append(d.Acknowledgements, Acknowledgement{a.Caution, a.ByName, a.At.UTC()})
	}
	for _, p := range j.StopPasses {
		d.StopPasses = append(d.StopPasses, StopPass{p.Code, p.StopText, p.Reason, p.ByName, p.At.UTC()})
	}
	for i, a := range j.Attachments {
		x := Attachment{File: fmt.Sprintf("files/%02d%s", i+1, path.Ext(a.Name)), Name: a.Name, MediaType: a.MediaType,
			Caption: a.Caption, BeforeCleaning: a.BeforeCleaning, Part: codeOf(codes, a.PartID)}
		for _, m := range a.Marks {
			x.Marks = append(x.Marks, Mark{m.Number, m.X, m.Y, m.Note, m.Evidence, codeOf(codes, m.PartID)})
			if m.PartID != nil && x.Unit == 0 && unitOf[*m.PartID] > 0 {
				x.Unit = unitOf[*m.PartID] + 1
			}
		}
		if a.PartID != nil && unitOf[*a.PartID] > 0 {
			x.Unit = unitOf[*a.PartID] + 1
		}
		d.Attachments = append(d.Attachments, x)
	}
	for _, w := range j.WorkedFigures {
		d.Worked = append(d.Worked, Worked{w.Calculator, w.Note, json.RawMessage(w.Inputs), json.RawMessage(w.Answer), w.ByName, w.At.UTC()})
	}
	for i := len(history) - 1; i >= 0; i-- {
		e := history[i]
		d.Record = append(d.Record, Entry{e.Who, e.At.UTC(), e.Action, e.Field, e.Before, e.After})
	}
	return d
}

func utc(t *time.Time) *time.Time {
	if t == nil {
		return nil
	}
	u := t.UTC()
	return &u
}

func codeOf(codes map[uint]string, id *uint) string {
	if id == nil {
		return ""
	}
	return codes[*id]
}

func fromUnit(u *store.Unit, codes map[uint]string) Unit {
	out := Unit{Family: u.Family, Name: u.Name, Maker: u.Maker, Model: u.Model, Serial: u.Serial, Variant: u.Variant, Rotation: u.Rotation, Fluid: u.Fluid,
		Viscosity: u.Viscosity, Density: u.Density, Displacement: u.Displacement, Speed: u.Speed, DutyPressure: u.DutyPressure, Temperature: u.Temperature,
		Hours: u.Hours, Filtration: u.Filtration, Changed: u.Changed, Modification: u.Modification, ShimsFitted: u.ShimsFitted, ShimsAvailable: u.ShimsAvailable,
		OffBody: u.OffBody, OffGears: u.OffGears, Gauge: u.Gauge, Marks: u.Marks, Capacity: u.Capacity, LevelBefore: u.LevelBefore, Drained: u.Drained, Water: u.Water,
		Gained: u.GainedElsewhere, Vessel: u.Vessel, DrainedLook: u.DrainedLook, Flushed: u.Flushed, Kept: u.ModificationKept}
	for _, a := range u.Accounts {
		out.Accounts = append(out.Accounts, Account{a.Teller, a.Words})
	}
	for _, r := range u.Rounds {
		out.Rounds = append(out.Rounds, Round{r.Number, r.Reason, r.BackTo, r.OpenedBy, r.OpenedAt.UTC()})
	}
	for _, p := range u.Parts {
		out.Parts = append(out.Parts, fromPart(p))
	}
	for _, l := range u.LooseItems {
		out.Loose = append(out.Loose, Loose{l.What, l.Place, l.Count, codeOf(codes, l.PartID), l.Note})
	}
	for _, e := range u.Evidence {
		out.Evidence = append(out.Evidence, Evidence{e.Round, e.Code, e.State, e.Origin, e.Note, e.FoundHow, e.Age})
	}
	for _, c := range u.Conclusions {
		out.Conclusions = append(out.Conclusions, Conclusion{c.Round, c.Cause, c.Proximate, c.Contributing, c.Statement, c.Action, c.Owner})
	}
	for _, k := range u.KitPieces {
		out.Kit = append(out.Kit, Piece{k.Number, k.Name, k.Count, codeOf(codes, k.PartID), k.LeftReason})
	}
	for _, a := range u.Attempts {
		x := Attempt{a.Number, a.Round, a.Source, a.OneChange, a.ConditionRepeated, a.Note, a.Closed, a.Verdict, a.ByName, a.At.UTC(), nil}
		for _, p := range a.Points {
			x.Points = append(x.Points, Point{p.Code, p.Pressure, p.Flow, p.Speed, p.Temperature, p.Word})
		}
		out.Attempts = append(out.Attempts, x)
	}
	return out
}

func fromPart(p store.Part) Part {
	out := Part{Code: p.Code, Expected: p.Expected, Off: p.Off, Found: p.Found, Facing: p.Facing, Fastener: p.Fastener, Note: p.Note, Explained: p.Explained,
		Witness: p.Witness, Stuck: p.Stuck, Freed: p.Freed, Stack: p.StackFound, StackFit: p.StackFit}
	if p.Kind != "" {
		out.Name, out.Kind, out.Branch, out.Place = p.Name, p.Kind, p.Branch, p.Ordinal
	}
	for _, f := range p.Features {
		x := Feature{Code: f.Code, Lower: &f.Lower, Upper: &f.Upper, Standing: f.Standing, Measured: f.Measured, LimitFor: f.LimitFor, Instrument: f.Instrument, Resolution: &f.Resolution}
		for _, r := range f.Readings {
			x.Readings = append(x.Readings, Reading{r.Round, r.Stage, r.Slot, r.Value, r.ByName, r.At.UTC()})
		}
		out.Features = append(out.Features, x)
	}
	for _, d := range p.Decisions {
		out.Decisions = append(out.Decisions, Decision{d.Round, d.Choice, d.Reason})
	}
	for _, b := range p.BuildSteps {
		out.Steps = append(out.Steps, Step{b.Round, b.Done, b.Facing, b.Turn, b.Torque, b.Note, b.ByName})
	}
	return out
}

// Write puts a job as a zip of job.json and its attachments.
func Write(ctx context.Context, s *store.Store, tag string, w io.Writer) error {
	j, err := s.Job(ctx, tag)
	if err != nil {
		return err
	}
	history, err := s.History(ctx, j.ID, 100_000)
	if err != nil {
		return err
	}
	d := FromJob(j, history)
	z := zip.NewWriter(w)
	f, err := z.Create("job.json")
	if err != nil {
		return err
	}
	enc := json.NewEncoder(f)
	enc.SetIndent("", "  ")
	enc.SetEscapeHTML(false)
	if err := enc.Encode(d); err != nil {
		return err
	}
	for i, a := range j.Attachments {
		whole, err := s.Attachment(ctx, a.ID)
		if err != nil {
			return err
		}
		f, err := z.Create(d.Attachments[i].File)
		if err != nil {
			return err
		}
		if _, err := f.Write(whole.Content); err != nil {
			return err
		}
	}
	return z.Close()
}
