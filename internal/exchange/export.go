package exchange

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"iter"
	"path"

	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/store"
)

// document is a job as it is written: its own members, and what only a file has. Its record is
// written apart.
type document struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	Whole   bool   `json:"whole"`
	*unit.Job
	Worked []worked `json:"worked_figures,omitempty"` // in place of the job's own
}

// worked is a calculation with its inputs and its answer as they are, and not as text.
type worked struct {
	*unit.Worked
	Inputs json.RawMessage `json:"inputs"`
	Answer json.RawMessage `json:"answer"`
}

// documentOf makes the document of a job, all but its record.
func documentOf(j *unit.Job) document {
	d := document{Format: Format, Version: Version, Whole: true, Job: j}
	for _, w := range j.Worked {
		d.Worked = append(d.Worked, worked{w, json.RawMessage(w.Inputs), json.RawMessage(w.Answer)})
	}
	return d
}

// fileOf is where a picture's content lies in the zip, where its document does not say.
func fileOf(p *unit.Picture) string {
	return fmt.Sprintf("files/%02d%s", p.Number, path.Ext(p.Name))
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
	head, err := pretty("", documentOf(j))
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
		e.At = e.At.UTC()
		line, err := pretty("    ", e)
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
func pretty(indent string, v any) ([]byte, error) {
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetIndent(indent, "  ")
	enc.SetEscapeHTML(false)
	err := enc.Encode(v)
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
