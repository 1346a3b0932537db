package workshop

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// Week is when somebody is there, by weekday from Monday on: spans in minutes of the day.
type Week [7][]Span

// Span is from a minute of the day to another, the last one not in it.
type Span struct{ From, To int }

var weekdays = []string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"}

var hoursShape = regexp.MustCompile(`^([a-z]+)(?:\s*(?:-|–|to)\s*([a-z]+))?\s+(.+)$`)
var spanShape = regexp.MustCompile(`^(\d{1,2})(?:[:.](\d{2}))?\s*(?:-|–|to)\s*(\d{1,2})(?:[:.](\d{2}))?$`)

// mostHours is how long the text of a week may be.
const mostHours = 200

// ParseHours reads the hours of a week as people write them: "Mon-Fri 7:00-15:30, Sat 8-12", several spans of a day
// with "and" between them. Nothing is no hours.
func ParseHours(text string) (w Week, err error) {
	if len(text) > mostHours {
		return w, fmt.Errorf("is longer than %d letters", mostHours)
	}
	for _, piece := range strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return r == ',' || r == ';' }) {
		if piece = strings.TrimSpace(piece); piece == "" {
			continue
		}
		found := hoursShape.FindStringSubmatch(piece)
		if found == nil {
			return w, fmt.Errorf("%q: write days and hours, like Mon-Fri 7:00-15:30, Sat 8-12", piece)
		}
		from, err := weekday(found[1])
		if err != nil {
			return w, err
		}
		to := from
		if found[2] != "" {
			if to, err = weekday(found[2]); err != nil {
				return w, err
			}
		}
		for _, part := range strings.Split(found[3], "and") {
			s, err := span(strings.TrimSpace(part))
			if err != nil {
				return w, err
			}
			for d := from; ; d = (d + 1) % 7 {
				w[d] = append(w[d], s)
				if d == to {
					break
				}
			}
		}
	}
	return w, nil
}

func weekday(word string) (int, error) {
	for i, d := range weekdays {
		if len(word) >= 2 && strings.HasPrefix(word, d[:2]) {
			return i, nil
		}
	}
	return 0, fmt.Errorf("%q is no weekday", word)
}

func span(text string) (s Span, err error) {
	found := spanShape.FindStringSubmatch(text)
	if found == nil {
		return s, fmt.Errorf("%q: write hours like 7:00-15:30", text)
	}
	at := func(hour, minute string) int {
		h, _ := strconv.Atoi(hour)
		m, _ := strconv.Atoi(minute)
		if h > 24 || m > 59 {
			return -1
		}
		return 60*h + m
	}
	s = Span{at(found[1], found[2]), at(found[3], found[4])}
	if s.From < 0 || s.To < 0 || s.To > 24*60 || s.From >= s.To {
		return s, fmt.Errorf("%q does not go forward within a day", text)
	}
	return s, nil
}
