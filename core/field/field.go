// Package field carries the one error that reaches a user at the place where
// he typed: which entry is wrong, and what is accepted there.
package field

import "fmt"

// Error says what is wrong with one named entry.
type Error struct {
	Field string // the entry's name, such as "bore" or "readings[1]"
	Text  string // the reader's words, without the name
}

func (e *Error) Error() string {
	if e.Field == "" {
		return e.Text
	}
	return e.Field + ": " + e.Text
}

// Errorf makes an Error for the named entry.
func Errorf(name, format string, args ...any) *Error {
	return &Error{Field: name, Text: fmt.Sprintf(format, args...)}
}
