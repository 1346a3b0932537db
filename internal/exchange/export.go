package exchange

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"iter"
	"maps"
	"path"
	"slices"
	"strconv"
	"time"

	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/store"
)

// object is a JSON object whose members keep their order.
type object []member

type member struct {
	name  string
	value any
}

// MarshalJSON writes the members in their order.
func (o object) MarshalJSON() ([]byte, error) {
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	b.WriteByte('{')
	for i, m := range o {
		if i > 0 {
			b.WriteByte(',')
		}
		if err := enc.Encode(m.name); err != nil {
			return nil, err
		}
		b.WriteByte(':')
		if err := enc.Encode(m.value); err != nil {
			return nil, err
		}
	}
	b.WriteByte('}')
	return b.Bytes(), nil
}

func (o *object) add(name string, v any) { *o = append(*o, member{name, v}) }

// text adds words that are there.
func (o *object) text(name, v string) {
	if v != "" {
		o.add(name, v)
	}
}

func (o *object) at(name string, t time.Time) { o.add(name, t.UTC().Format(time.RFC3339Nano)) }

// list adds a list that is not empty.
func list[T any](o *object, name string, rows []T, of func(T) object) {
	if len(rows) == 0 {
		return
	}
	out := make([]object, len(rows))
	for i, r := range rows {
		out[i] = of(r)
	}
	o.add(name, out)
}

// with gives the object with the declared values of a scope that are not empty.
func (o object) with(p *entry.Place, scope unit.Scope) object {
	o.fields(p, scope, false)
	return o
}

// fields adds the declared values of a scope; empty ones are left out unless
// all are wanted.
func (o *object) fields(p *entry.Place, scope unit.Scope, all bool) {
	for _, f := range entry.Fields(scope) {
		if many[f.Name] {
			continue
		}
		text := f.Get(p)
		if text == "" && !all {
			continue
		}
		switch {
		case f.Kind == entry.Flag:
			o.add(f.Name, text == entry.Yes)
		case f.Kind == entry.Whole && f.Required:
			n, _ := strconv.Atoi(text)
			o.add(f.Name, n)
		default:
			o.add(f.Name, text)
		}
	}
}

// many are fields told apart by a code, which stand as a list or an object.
var many = map[string]bool{"symptom": true, "gauge": true, "identity": true, "flush": true, "fill": true,
	"more": true}

// document makes the document of a job, all but its record.
func document(j *unit.Job) object {
	head := object{{"tag", j.Tag}}
	head.fields(&entry.Place{Job: j}, unit.ScopeJob, false)
	if len(j.Symptoms) > 0 {
		head.add("symptoms", j.Symptoms)
	}
	customer := object{{"name", j.Customer.Name}}
	customer.text("place", j.Customer.Place)
	customer.text("contact", j.Customer.Contact)
	d := object{{"format", Format}, {"version", Version}, {"job", head}, {"customer", customer}}
	list(&d, "units", j.Units, fromUnit)
	list(&d, "acknowledgements", j.Acknowledgements, func(a *unit.Acknowledgement) object {
		o := object{{"caution", a.Caution}, {"by", a.By}}
		o.at("at", a.At)
		return o
	})
	list(&d, "stop_passes", j.Waivers, func(p *unit.Waiver) object {
		o := object{{"code", p.Code}, {"stop_text", p.Text}, {"reason", p.Reason}, {"by", p.By}}
		o.at("at", p.At)
		return o
	})
	list(&d, "reopenings", j.Reopenings, func(r *unit.Reopening) object {
		o := object{{"reason", r.Reason}, {"by", r.By}}
		o.at("handed_over_at", r.HandedOver)
		o.at("at", r.At)
		return o
	})
	list(&d, "follow_ups", j.FollowUps, func(f *unit.FollowUp) object {
		o := object{{"unit", f.Unit}, {"kind", f.Kind}, {"due_on", string(f.DueOn)}, {"asked_by", f.AskedBy}}
		if f.Answered() {
			o.text("result", f.Result)
			o.text("note", f.Note)
			o.text("answered_by", f.AnsweredBy)
			o.at("answered_at", f.AnsweredAt)
		}
		return o
	})
	list(&d, "attachments", j.Pictures, fromPicture)
	list(&d, "worked_figures", j.Worked, func(w *unit.Worked) object {
		o := object{{"calculator", w.Calculator}}
		o.text("note", w.Note)
		o.add("inputs", json.RawMessage(w.Inputs))
		o.add("answer", json.RawMessage(w.Answer))
		o.add("by", w.By)
		o.at("at", w.At)
		return o
	})
	return d
}

func fromEntry(e unit.Entry) object {
	o := object{{"who", e.Who}}
	o.text("role", e.Role)
	o.at("at", e.At)
	o.add("action", e.Action)
	if e.Event != nil {
		o.add("event", e.Event)
	}
	o.text("field", e.Field)
	o.text("before", e.Before)
	o.text("after", e.After)
	if e.Brought {
		o.add("brought", true)
	}
	return o
}

// fileOf is where a picture's content lies in the zip.
func fileOf(p *unit.Picture) string {
	return fmt.Sprintf("files/%02d%s", p.Number, path.Ext(p.Name))
}

func fromPicture(p *unit.Picture) object {
	o := object{{"file", fileOf(p)}, {"number", p.Number}, {"name", p.Name}, {"media_type", p.MediaType}}
	o.fields(&entry.Place{Picture: p}, unit.ScopePicture, false)
	o.add("unit", p.Unit)
	o.text("part", p.Part)
	o.text("mark", p.Mark)
	list(&o, "marks", p.Marks, func(m *unit.PictureMark) object {
		x := object{{"number", m.Number}, {"x", m.X}, {"y", m.Y}}
		x.text("note", m.Note)
		x.text("evidence", m.Evidence)
		x.text("part", m.Part)
		x.text("mark", m.Mark)
		return x
	})
	return o
}

func fromUnit(u *unit.Unit) object {
	o := object{{"family", u.Family}}
	o.fields(&entry.Place{Unit: u}, unit.ScopeUnit, false)
	o.answers("gauge", u.Gauge)
	o.answers("identity", u.Identity)
	o.answers("flush", u.Flushes)
	o.answers("fill", u.Filled)
	o.answers("more", u.More)
	list(&o, "accounts", u.Accounts, func(a *unit.Account) object {
		return object{{"number", a.Number}, {"teller", a.Teller}, {"words", a.Words}}
	})
	list(&o, "rounds", u.Rounds, func(r *unit.Round) object {
		x := object{{"number", r.Number}}
		x.text("reason", r.Reason)
		x.text("back_to", r.BackTo)
		x.text("opened_by", r.OpenedBy)
		x.at("opened_at", r.OpenedAt)
		return x
	})
	list(&o, "parts", u.Parts, fromPart)
	list(&o, "loose", u.Loose, func(l *unit.Loose) object {
		return object{{"number", l.Number}}.with(&entry.Place{Loose: l}, unit.ScopeLoose)
	})
	list(&o, "evidence", u.Marks, func(m *unit.UnitMark) object {
		return object{{"round", m.Round}, {"code", m.Code}}.with(&entry.Place{Mark: &m.Mark}, unit.ScopeEvidence)
	})
	list(&o, "conclusions", u.Conclusions, func(c *unit.Conclusion) object {
		return object{{"round", c.Round}}.with(&entry.Place{Conclusion: c}, unit.ScopeConclusion)
	})
	list(&o, "causes", u.Causes, func(c *unit.NamedCause) object {
		return object{{"number", c.Number}, {"round", c.Round}}.with(&entry.Place{Cause: c}, unit.ScopeCause)
	})
	list(&o, "kit", u.Kit, func(k *unit.Piece) object {
		return object{{"line", k.Number}}.with(&entry.Place{Piece: k}, unit.ScopePiece)
	})
	list(&o, "step_limits", u.Limits, func(l *unit.StepLimit) object {
		return object{{"code", l.Code}}.with(&entry.Place{Limit: l}, unit.ScopeLimit)
	})
	list(&o, "attempts", u.Attempts, func(a *unit.Attempt) object {
		x := object{{"number", a.Number}, {"round", a.Round}}.with(&entry.Place{Attempt: a}, unit.ScopeAttempt)
		x.text("by", a.By)
		x.at("at", a.At)
		list(&x, "points", a.Points, func(p *unit.Point) object {
			return object{{"code", p.Code}}.with(&entry.Place{Point: p}, unit.ScopePoint)
		})
		return x
	})
	return o
}

func (o *object) answers(name string, m map[string]string) {
	var out object
	for _, k := range slices.Sorted(maps.Keys(m)) {
		out.add(k, m[k])
	}
	if out != nil {
		o.add(name, out)
	}
}

func fromPart(p *unit.Part) object {
	o := object{{"code", p.Code}}
	if p.Kind != "" {
		o.add("name", p.Name)
		o.add("kind", p.Kind)
		o.text("branch", p.Branch)
	}
	o.fields(&entry.Place{Part: p}, unit.ScopePart, false)
	list(&o, "features", p.Features, func(f *unit.Feature) object {
		x := object{{"code", f.Code}}
		// A limit that was taken away must not come back from the family.
		x.fields(&entry.Place{Feature: f}, unit.ScopeFeature, true)
		list(&x, "readings", f.Readings, func(r *unit.Reading) object {
			y := object{{"round", r.Round}, {"stage", r.Stage}, {"slot", r.Slot}, {"value", r.Value}}
			y.text("by", r.By)
			y.at("at", r.At)
			return y
		})
		return x
	})
	list(&o, "marks", p.Marks, func(m *unit.PartMark) object {
		return object{{"round", m.Round}, {"code", m.Code}}.with(&entry.Place{Mark: &m.Mark}, unit.ScopePartMark)
	})
	list(&o, "decisions", p.Decisions, func(d *unit.Decision) object {
		return object{{"round", d.Round}}.with(&entry.Place{Decision: d}, unit.ScopeDecision)
	})
	list(&o, "reworks", p.Reworks, func(r *unit.Rework) object {
		return object{{"route", r.Route}}.with(&entry.Place{Rework: r}, unit.ScopeRework)
	})
	list(&o, "steps", p.Steps, func(s *unit.Step) object {
		x := object{{"round", s.Round}}.with(&entry.Place{Step: s}, unit.ScopeStep)
		x.text("by", s.By)
		return x
	})
	return o
}

// mostRecord is the longest record that is written.
const mostRecord = 100_000

// Short refuses a record that is too long for one file: none leaves a part of it
// out unsaid.
func Short(ctx context.Context, s *store.Store, tag string) error {
	lines, err := s.RecordLength(ctx, tag)
	if err == nil && lines > mostRecord {
		err = field.Errorf("record", "has more than %d lines, too many for one file; copy the whole store instead",
			mostRecord)
	}
	return err
}

// Write puts a job as a zip of job.json and its pictures.
func Write(ctx context.Context, s *store.Store, tag string, w io.Writer) error {
	j, err := s.Job(ctx, tag)
	if err != nil {
		return err
	}
	if err := Short(ctx, s, tag); err != nil {
		return err
	}
	z := zip.NewWriter(w)
	f, err := z.Create("job.json")
	if err != nil {
		return err
	}
	if err := Text(f, j, s.Lines(ctx, tag)); err != nil {
		return err
	}
	for _, p := range j.Pictures {
		c, _, err := s.Picture(ctx, tag, p.Number)
		if err != nil {
			return err
		}
		if err := put(z, fileOf(p), c.Bytes); err != nil {
			return err
		}
	}
	return z.Close()
}

// Text writes the document of a job; record is oldest first and written line by
// line, because it has no end of its own.
func Text(w io.Writer, j *unit.Job, record iter.Seq2[unit.Entry, error]) error {
	head, err := pretty("", document(j))
	if err != nil {
		return err
	}
	// The record is the last member: the document is closed behind it.
	head = bytes.TrimSuffix(head, []byte("\n}\n"))
	if _, err := w.Write(append(head, ",\n  \"record\": ["...)); err != nil {
		return err
	}
	between := "\n    "
	for e, err := range record {
		if err != nil {
			return err
		}
		line, err := pretty("    ", fromEntry(e))
		if err != nil {
			return err
		}
		if _, err := io.WriteString(w, between+string(bytes.TrimSpace(line))); err != nil {
			return err
		}
		between = ",\n    "
	}
	_, err = io.WriteString(w, "\n  ]\n}\n")
	return err
}

// pretty writes JSON as people read it.
func pretty(indent string, o object) ([]byte, error) {
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetIndent(indent, "  ")
	enc.SetEscapeHTML(false)
	err := enc.Encode(o)
	return b.Bytes(), err
}

func put(z *zip.Writer, name string, content []byte) error {
	f, err := z.Create(name)
	if err != nil {
		return err
	}
	_, err = f.Write(content)
	return err
}
