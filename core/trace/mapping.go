package trace

import (
	"errors"
	"fmt"
	"strings"
)

// ParseMapping reads how a log is read, a line a column:
//
//	time = t [s]
//	pressure = P1 in bar
//
// Errors name the line.
func ParseMapping(text string) (m Mapping, err error) {
	for at, line := range strings.Split(text, "\n") {
		line = strings.TrimSpace(line)
		if line == "" {
			continue
		}
		code, rest, ok := strings.Cut(line, "=")
		code, rest = strings.TrimSpace(code), strings.TrimSpace(rest)
		if !ok || rest == "" {
			return m, fmt.Errorf("line %d: write figure = heading in unit, as in pressure = P1 in bar", at+1)
		}
		if code == "time" {
			m.Time = rest
			continue
		}
		c := Column{Figure: code, Heading: rest}
		if i := strings.LastIndex(rest, " in "); i >= 0 {
			c.Heading, c.Unit = strings.TrimSpace(rest[:i]), strings.TrimSpace(rest[i+4:])
		}
		m.Columns = append(m.Columns, c)
		if len(m.Columns) > mostColumns {
			return m, fmt.Errorf("line %d: a log has at most %d columns that are read", at+1, mostColumns)
		}
	}
	switch {
	case m.Time == "":
		return m, errors.New("say which column is the time, as in time = t")
	case len(m.Columns) == 0:
		return m, errors.New("say which column is which figure, as in pressure = P1 in bar")
	}
	return m, nil
}
