package sheet

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"strings"

	"corvek/core/field"
	"corvek/core/unit"
)

// Format and Version mark a sheet that is written to a file.
const (
	Format  = "corvek.sheet"
	Version = 1
)

// MostText is how long a file of a sheet may be, in bytes.
const MostText = 4 << 20

type document struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	*Sheet
}

// Text writes the sheet as a document.
func (s *Sheet) Text() ([]byte, error) {
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	err := enc.Encode(document{Format, Version, s})
	return b.Bytes(), err
}

// Read reads a document of a sheet. Errors say what is wrong in plain words.
func Read(text []byte) (*Sheet, error) {
	if len(text) > MostText {
		return nil, fmt.Errorf("is longer than %d MB", MostText>>20)
	}
	d := document{Sheet: &Sheet{}}
	if err := field.DecodeJSON(text, &d, true); err != nil {
		return nil, fmt.Errorf("is no sheet: %s", err)
	}
	if d.Format != Format || d.Version != Version {
		return nil, fmt.Errorf(
			"is no sheet: format %q version %d, %q version %d is wanted",
			d.Format,
			d.Version,
			Format,
			Version,
		)
	}
	return d.Sheet, d.Check()
}

// mostLine is how long one text of a sheet may be, in letters.
const mostLine = 4000

// Check refuses a sheet that cannot stand.
func (s *Sheet) Check() error {
	switch {
	case strings.TrimSpace(s.Family) == "" || Plain(s.Model) == "":
		return errors.New("a sheet names its family and its model")
	case len(s.Values) > MostValues || len(s.Parts) > MostParts || len(s.Lessons) > MostLessons ||
		len(s.Kit) > MostParts:
		return fmt.Errorf(
			"a sheet holds at most %d values, %d parts and %d lessons",
			MostValues,
			MostParts,
			MostLessons,
		)
	case s.SerialTo > 0 && s.SerialFrom > s.SerialTo:
		return errors.New("its range of serials runs backwards")
	}
	seen := map[string]bool{}
	for _, v := range s.Values {
		ref, err := unit.ParseRef("u1/" + v.Key)
		switch {
		case err != nil || !belongs(ref):
			return fmt.Errorf("%q is nothing that belongs to a model", v.Key)
		case v.Key == "" || v.Text == "":
			return errors.New("a value has a key and a text")
		case seen[v.Key]:
			return fmt.Errorf("%s stands in it twice", v.Key)
		case len([]rune(v.Text)) > mostLine || len(v.Key) > mostLine || len(v.Seen) > MostSeen:
			return fmt.Errorf("%s is longer than a value can be", v.Key)
		}
		seen[v.Key] = true
	}
	for _, p := range s.Parts {
		if p.Code == "" || p.Absent == "" && (p.Name == "" || p.Kind == "") {
			return errors.New("a part has a code, a name and a kind, or is not there")
		}
	}
	return nil
}
