package report_test

import (
	"testing"
	"time"

	"corvek/core/unit"
	"corvek/internal/report"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A sign-off counts for its own unit, by its last, and not when it came from elsewhere.
func TestSignedOff(t *testing.T) {
	at := time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC)
	act := func(action, field string) unit.Entry {
		return unit.Entry{Who: "Odd", At: at, Action: action, Field: field}
	}
	brought := act(unit.SignedOff(1, "record of 9 lines"), "")
	brought.Brought = true
	for _, c := range []struct {
		name    string
		record  []unit.Entry
		version int
		holds   bool
		says    string
	}{
		{"never", nil, 0, false, "No lead has signed"},
		{"another unit", []unit.Entry{act(unit.SignedOff(2, "record of 1 lines"), "")}, 0, false, "No lead"},
		{"unit 12 is not unit 1", []unit.Entry{act(unit.SignedOff(12, "record of 1 lines"), "")}, 0, false, "No lead"},
		{"brought", []unit.Entry{brought}, 0, false, "No lead"},
		{"signed", []unit.Entry{act("set", "u1/speed"), act(unit.SignedOff(1, "record of 1 lines"), "")}, 1, true,
			"Lead, 14 May 2031 09:00. Version 1, record of 1 lines."},
		{"handed over after", []unit.Entry{act(unit.SignedOff(1, "record"), ""), act(unit.ActHandedOver, ""),
			act(unit.ActKeptPaper+"report.pdf", ""), act("set", "job/collected_by")}, 1, true, "Version 1"},
		{"changed after", []unit.Entry{act(unit.SignedOff(1, "record"), ""), act("set", "u1/speed"),
			act("added a picture", "")}, 1, false, "2 changes were written after Odd signed version 1 off"},
		{"signed anew", []unit.Entry{act(unit.SignedOff(1, "record"), ""), act("set", "u1/speed"),
			act(unit.SignedOff(1, "record of 3 lines"), "")}, 2, true, "Version 2, record of 3 lines"},
	} {
		s, err := report.SignedOff(1, func(yield func(unit.Entry, error) bool) {
			for _, e := range c.record {
				if !yield(e, nil) {
					return
				}
			}
		})
		require.NoError(t, err)
		assert.Equal(t, c.version, s.Version, c.name)
		assert.Equal(t, c.holds, s.Holds(), c.name)
		assert.Contains(t, s.Words(), c.says, c.name)
	}
}
