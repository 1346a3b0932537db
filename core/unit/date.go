package unit

import "time"

// Date is a day of the calendar without a clock, written 2031-05-27; "" is no
// day. Dates compare as their text does.
type Date string

// ParseDate reads a day; ok is false for anything else.
func ParseDate(text string) (Date, bool) {
	if _, err := time.Parse(time.DateOnly, text); err != nil {
		return "", false
	}
	return Date(text), true
}

// DateOf is the day of a moment.
func DateOf(t time.Time) Date { return Date(t.Format(time.DateOnly)) }

// Time is midnight of the day in UTC, the zero time for no day.
func (d Date) Time() time.Time {
	t, err := time.Parse(time.DateOnly, string(d))
	if err != nil {
		return time.Time{}
	}
	return t
}

// Add moves a day; no day stays none.
func (d Date) Add(days int) Date {
	if d == "" {
		return ""
	}
	return DateOf(d.Time().AddDate(0, 0, days))
}
