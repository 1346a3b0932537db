package trace

import (
	"bufio"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/quantity"
)

// MostRows is how long a log may be: a day at ten samples a second.
const MostRows = 24 * 3600 * 10

// MostSpan is from the first sample of a log to its last at most.
const MostSpan = 48 * time.Hour

// Years that a clock of a stand can show.
const (
	firstYear = 1990
	lastYear  = 2199
)

// mostColumns keeps a log to what a stand has.
const mostColumns = 64

// Column says what a column of a log is: a figure of the stand in a unit.
type Column struct {
	Heading string
	Figure  string
	Unit    string
}

// Mapping says how a log of another stand is read.
type Mapping struct {
	Time    string // heading of the column of the time
	Columns []Column
}

// SimulatedColumn is the heading of a column that says that a file is of an exercise.
const SimulatedColumn = "simulated"

// ReadCSV reads a log: a heading, then a line a sample. The time is seconds from the start,
// a clock like 14:02:00.5, or a date with a clock; decimal commas are taken where fields are
// parted by semicolons. Errors name the line.
func ReadCSV(r io.Reader, m Mapping, day time.Time) (*Trace, error) {
	buffered := bufio.NewReader(r)
	first, err := buffered.Peek(4096)
	if len(first) == 0 {
		return nil, errors.New("the log is empty")
	}
	if err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, bufio.ErrBufferFull) {
		return nil, err
	}
	in := csv.NewReader(buffered)
	in.TrimLeadingSpace, in.FieldsPerRecord, in.ReuseRecord = true, -1, true
	heading, _, _ := strings.Cut(string(first), "\n")
	in.Comma = separator(heading)
	comma := in.Comma != ','
	row, err := in.Read()
	if err != nil {
		return nil, fmt.Errorf("line 1: %w", err)
	}
	places, err := m.places(row)
	if err != nil {
		return nil, err
	}
	t := &Trace{Simulated: slices.ContainsFunc(row, func(cell string) bool {
		return strings.Contains(strings.ToLower(cell), SimulatedColumn)
	})}
	for _, c := range m.Columns {
		t.Channels = append(t.Channels, c.Figure)
	}
	for line := 2; ; line++ {
		row, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, fmt.Errorf("line %d: %w", line, err)
		}
		if len(t.Samples) == MostRows {
			return nil, fmt.Errorf("line %d: a log holds at most %d samples", line, MostRows)
		}
		s, err := places.sample(row, comma, day)
		if err != nil {
			return nil, fmt.Errorf("line %d: %w", line, err)
		}
		if n := len(t.Samples); n > 0 && s.At.Before(t.Samples[n-1].At) {
			return nil, fmt.Errorf("line %d: its time lies before that of the line above", line)
		}
		if len(t.Samples) > 0 && s.At.Sub(t.Samples[0].At) > MostSpan {
			return nil, fmt.Errorf(
				"line %d: its time lies more than %d hours after the first; a log is of one test",
				line,
				int(MostSpan.Hours()),
			)
		}
		if y := s.At.Year(); y < firstYear || y > lastYear {
			return nil, fmt.Errorf("line %d: its time is of the year %d", line, y)
		}
		t.Samples = append(t.Samples, s)
	}
	if len(t.Samples) == 0 {
		return nil, errors.New("the log has a heading and no samples")
	}
	return t, nil
}

func separator(heading string) rune {
	switch {
	case strings.Contains(heading, "\t"):
		return '\t'
	case strings.Contains(heading, ";"):
		return ';'
	}
	return ','
}

// place is where a column stands and how its figures become base units.
type place struct {
	at   int
	unit quantity.Unit
}

type places struct {
	time int
	of   []place
}

func (m Mapping) places(heading []string) (p places, err error) {
	at := func(name string) (int, error) {
		for i, h := range heading {
			if strings.EqualFold(strings.TrimSpace(strings.TrimPrefix(h, "\ufeff")), strings.TrimSpace(name)) {
				return i, nil
			}
		}
		return 0, fmt.Errorf("line 1: there is no column %q", name)
	}
	if len(m.Columns) == 0 || len(m.Columns) > mostColumns {
		return p, fmt.Errorf("a log has 1 to %d columns that are read", mostColumns)
	}
	if p.time, err = at(m.Time); err != nil {
		return p, err
	}
	for _, c := range m.Columns {
		f, known := family.FigureByCode(c.Figure)
		if !known {
			return p, fmt.Errorf("%q is no figure of the stand", c.Figure)
		}
		x := place{unit: quantity.Unit{Factor: 1}}
		if f.Dim != quantity.Number || c.Unit != "" {
			unit, ok := quantity.UnitByName(c.Unit, f.Dim)
			if !ok {
				return p, fmt.Errorf("column %q: %q is no unit of %s", c.Heading, c.Unit, f.Dim)
			}
			x.unit = unit
		}
		if x.at, err = at(c.Heading); err != nil {
			return p, err
		}
		p.of = append(p.of, x)
	}
	return p, nil
}

func (p places) sample(row []string, comma bool, day time.Time) (s Sample, err error) {
	if p.time >= len(row) {
		return s, errors.New("has no time")
	}
	if s.At, err = moment(strings.TrimSpace(row[p.time]), comma, day); err != nil {
		return s, err
	}
	for _, x := range p.of {
		v := math.NaN()
		if x.at < len(row) && strings.TrimSpace(row[x.at]) != "" {
			if v, err = number(row[x.at], comma); err != nil {
				return s, err
			}
			v = v*x.unit.Factor + x.unit.Offset
		}
		s.Values = append(s.Values, v)
	}
	return s, nil
}

func number(text string, comma bool) (float64, error) {
	text = strings.TrimSpace(text)
	if comma {
		text = strings.Replace(text, ",", ".", 1)
	}
	v, err := strconv.ParseFloat(text, 64)
	if err != nil || math.IsNaN(v) || math.IsInf(v, 0) {
		return 0, fmt.Errorf("%q is no number", text)
	}
	return v, nil
}

var clocks = []string{time.RFC3339, "2006-01-02 15:04:05", "2006-01-02T15:04:05", "02.01.2006 15:04:05"}

// mostSeconds is how far from its start a sample of a log may lie.
const mostSeconds = 366 * 86400

func moment(text string, comma bool, day time.Time) (time.Time, error) {
	if seconds, err := number(text, comma); err == nil {
		if seconds < 0 || seconds > mostSeconds {
			return time.Time{}, fmt.Errorf("%q is no time in seconds from the start", text)
		}
		return day.Add(time.Duration(seconds * float64(time.Second))), nil
	}
	for _, layout := range clocks {
		if t, err := time.Parse(layout, text); err == nil {
			return t, nil
		}
	}
	for _, layout := range []string{"15:04:05", "15:04"} {
		if t, err := time.Parse(layout, text); err == nil {
			return day.Add(t.Sub(t.Truncate(24 * time.Hour))), nil
		}
	}
	return time.Time{}, fmt.Errorf("%q is no time: use seconds, 14:02:00 or 2031-05-27 14:02:00", text)
}
