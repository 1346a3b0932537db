// Package exchange writes a job as one open JSON document and reads it back.
// The format is described by docs/job.schema.json; quantities stand as typed,
// and every value is named as in the table of core/entry.
//
// A document may leave out whatever the unit's family lays out by itself:
// parts and features not named come with the family's counts and limits.
package exchange

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
	"time"

	"corvek/core/entry"
	"corvek/core/unit"
)

// Format and Version mark the documents this package writes. Documents of the
// version before are brought to this one as they are read.
const (
	Format  = "corvek.job"
	Version = 2
)

// Document is a job document as read, not yet held against the shop.
type Document struct {
	root   map[string]any
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
	case "2":
	default:
		return nil, fmt.Errorf("this document has version %s; this program reads versions 1 and %d", version, Version)
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
	head, _ := d.root["job"].(map[string]any)
	tag, _ := head["tag"].(string)
	return tag
}

// Shift moves every date by whole days, so that a demo always stands at today.
func (d *Document) Shift(days int) { shift(d.root, days) }

// shiftMoments moves all moments of an object.
func shiftMoments(v any, days int) {
	of, _ := v.(map[string]any)
	for name, x := range of {
		text, _ := x.(string)
		if t, err := time.Parse(time.RFC3339, text); err == nil {
			of[name] = t.AddDate(0, 0, days).Format(time.RFC3339)
		}
	}
}

func shift(v any, days int) {
	switch v := v.(type) {
	case []any:
		for _, x := range v {
			shift(x, days)
		}
	case map[string]any:
		for name, x := range v {
			text, is := x.(string)
			switch {
			case !is && name == "fill":
				shiftMoments(x, days)
			case !is:
				shift(x, days)
			case entry.HoldsDay(name) || name == "due_on":
				if day, ok := unit.ParseDate(text); ok {
					v[name] = string(day.Add(days))
				}
			case name == "at" || strings.HasSuffix(name, "_at") || name == "timer_until" ||
				strings.HasPrefix(name, "hold_"):
				if t, err := time.Parse(time.RFC3339, text); err == nil {
					v[name] = t.AddDate(0, 0, days).Format(time.RFC3339Nano)
				}
			}
		}
	}
}
