// Package sheet is what a shop knows of a model: the form made true and the sizes, threads, springs, limits,
// settings and lessons that its units taught, each with where it is from. A sheet is kept from a job and used by
// the next unit of the model, which wins over it.
package sheet

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode"

	"corvek/core/quantity"
)

// Sheet is one version of what is known of a model.
type Sheet struct {
	Family string `json:"family"`
	Maker  string `json:"maker"`
	Model  string `json:"model"`

	// Of which units of the model it holds; nothing said, of all.
	Suffix     string `json:"suffix,omitempty"` // the model number ends so
	SerialFrom int    `json:"serial_from,omitempty"`
	SerialTo   int    `json:"serial_to,omitempty"`
	Mark       string `json:"mark,omitempty"` // code of an identity mark that they bear

	Variant string            `json:"variant,omitempty"` // of the family
	More    map[string]string `json:"more,omitempty"`    // assemblies that stand more often
	Parts   []Part            `json:"parts,omitempty"`   // that the family has not, or that are not there
	Values  []Value           `json:"values,omitempty"`
	Kit     []Piece           `json:"kit,omitempty"`
	Lessons []Lesson          `json:"lessons,omitempty"`
}

// Part is a part of the form made true.
type Part struct {
	Code   string `json:"code"`
	Name   string `json:"name,omitempty"`
	Kind   string `json:"kind,omitempty"`
	Branch string `json:"branch,omitempty"`
	After  string `json:"after,omitempty"`  // code of the part that it comes off after
	Count  int    `json:"count,omitempty"`  // of one that the family has not
	Absent string `json:"absent,omitempty"` // why one of the family's is not there
}

// Value is something known, by the address it has in a unit.
type Value struct {
	Key    string `json:"key"` // part/drive_gear/feature/journal/new_low
	Text   string `json:"text"`
	Source string `json:"source,omitempty"` // the job that it was kept from
	Seen   []Seen `json:"seen,omitempty"`   // what each unit that was measured had
}

// Seen is what one unit had.
type Seen struct {
	Job  string `json:"job"`
	Text string `json:"text"`
}

// Piece is a line of the repair kit that fitted.
type Piece struct {
	Number string `json:"number,omitempty"`
	Name   string `json:"name,omitempty"`
	Count  int    `json:"count"`
	Part   string `json:"part,omitempty"`
	Left   string `json:"left,omitempty"` // why it was left over
}

// Lesson is what a unit of the model taught.
type Lesson struct {
	Job  string `json:"job"`
	Text string `json:"text"`
}

// What a sheet may hold.
const (
	MostValues  = 4000
	MostParts   = 400
	MostSeen    = 200
	MostLessons = 100
)

// Name is what the sheet is called: maker and model, with what it holds of.
func (s *Sheet) Name() string {
	name := strings.TrimSpace(s.Maker + " " + s.Model)
	if s.Suffix != "" {
		name += " …" + s.Suffix
	}
	return name
}

// Value finds a value by its key, nil where it is not known.
func (s *Sheet) Value(key string) *Value {
	if i := slices.IndexFunc(s.Values, func(v Value) bool { return v.Key == key }); i >= 0 {
		return &s.Values[i]
	}
	return nil
}

// Units are the jobs that stand behind the sheet, each once.
func (s *Sheet) Units() (jobs []string) {
	add := func(job string) {
		if job != "" && !slices.Contains(jobs, job) {
			jobs = append(jobs, job)
		}
	}
	for _, v := range s.Values {
		add(v.Source)
		for _, x := range v.Seen {
			add(x.Job)
		}
	}
	for _, l := range s.Lessons {
		add(l.Job)
	}
	slices.Sort(jobs)
	return jobs
}

// Spread is how the units that were measured differ.
type Spread struct {
	Units       int
	Mean, Least float64 // in base units
	Most        float64
}

// Spread works out mean and range of what units had; ok is false where fewer than two were measured.
func (v *Value) Spread() (s Spread, ok bool) {
	s.Least, s.Most = math.Inf(1), math.Inf(-1)
	for _, x := range v.Seen {
		q, err := quantity.Parse(x.Text, quantity.Length)
		if err != nil {
			continue
		}
		s.Units++
		s.Mean += q.SI
		s.Least, s.Most = math.Min(s.Least, q.SI), math.Max(s.Most, q.SI)
	}
	if s.Units < 2 {
		return Spread{Units: s.Units}, false
	}
	s.Mean /= float64(s.Units)
	return s, true
}

// Plain is a maker or a model as it is compared: people write case, blanks and dashes as they like.
func Plain(text string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) {
			return unicode.ToUpper(r)
		}
		return -1
	}, text)
}

// Clone shares nothing with s.
func (s *Sheet) Clone() *Sheet {
	c := *s
	c.Parts, c.Kit, c.Lessons = slices.Clone(s.Parts), slices.Clone(s.Kit), slices.Clone(s.Lessons)
	c.Values = slices.Clone(s.Values)
	for i := range c.Values {
		c.Values[i].Seen = slices.Clone(s.Values[i].Seen)
	}
	if s.More != nil {
		c.More = map[string]string{}
		for k, v := range s.More {
			c.More[k] = v
		}
	}
	return &c
}

// HoldsOf says of which units of its model a sheet holds, empty of all: two sheets of a model with
// the same text are one sheet.
func (s *Sheet) HoldsOf() string {
	if s.Suffix == "" && s.SerialFrom == 0 && s.SerialTo == 0 && s.Mark == "" {
		return ""
	}
	return fmt.Sprintf("%s/%d-%d/%s", Plain(s.Suffix), s.SerialFrom, s.SerialTo, s.Mark)
}
