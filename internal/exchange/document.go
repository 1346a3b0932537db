// Package exchange writes a job as one open JSON document and reads it back. A document is the job
// as core/unit declares it, with its record; quantities stand as typed. docs/job.schema.json is made
// from the same types.
//
// A document that was written here is whole: what it does not say is not so. One that was made by
// hand may leave out whatever the unit's family lays out by itself: parts and features that it
// does not name come with the family's counts and limits.
package exchange

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
)

// Format and Version mark the documents this package writes. Documents of the
// versions before are brought to this one as they are read.
const (
	Format  = "corvek.job"
	Version = 4
)

// Document is a job document as read, not yet held against the shop.
type Document struct {
	root   map[string]any
	was    map[string]string // where what stands at a path stood in a file of an earlier version; nil of this one
	worked []calculation
}

// calculation is what went into a calculator and what came out, as written: the
// order of an answer's figures is the order in which they are read.
type calculation struct {
	Inputs json.RawMessage `json:"inputs"`
	Answer json.RawMessage `json:"answer"`
}

// Parse reads a document and checks its head.
func Parse(text []byte) (*Document, error) {
	if err := bounded(text); err != nil {
		return nil, err
	}
	dec := json.NewDecoder(bytes.NewReader(text))
	dec.UseNumber()
	d := &Document{}
	if err := dec.Decode(&d.root); err != nil {
		return nil, fmt.Errorf("this is not a job document: %w", reason(err))
	}
	if _, err := dec.Token(); !errors.Is(err, io.EOF) {
		return nil, errors.New("this is not a job document: there is something after its end")
	}
	if d.root["format"] != Format {
		return nil, fmt.Errorf("this is not a job document: format is %q, %q is wanted",
			fmt.Sprint(d.root["format"]), Format)
	}
	var kept struct {
		Worked []calculation `json:"worked_figures"`
	}
	if json.Unmarshal(text, &kept) == nil {
		d.worked = kept.Worked
	}
	switch version := fmt.Sprint(d.root["version"]); version {
	case "1":
		d.fromFirst()
		d.fromSecond()
		d.fromThird()
	case "2":
		d.fromSecond()
		d.fromThird()
	case "3":
		d.fromThird()
	case "4":
	default:
		return nil, fmt.Errorf("this document has version %s; this program reads versions 1 to %d", version, Version)
	}
	return d, nil
}

func reason(err error) error {
	var syntax *json.SyntaxError
	switch {
	case errors.As(err, &syntax):
		return fmt.Errorf("%s at character %d", syntax.Error(), syntax.Offset)
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return errors.New("it ends too early")
	}
	return errors.New("an object is wanted")
}

// Tag is the tag of the document's job.
func (d *Document) Tag() string {
	tag, _ := d.root["tag"].(string)
	return tag
}
