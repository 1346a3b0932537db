package report_test

import (
	"testing"
	"time"

	"corvek/core/entry"
	"corvek/core/handover"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/people"
	"corvek/internal/report"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A sign-off counts for its own unit, by its last, when a lead of this shop wrote it, and while
// what it was written for is as it was. What a line says in words counts for nothing.
func TestSignedOff(t *testing.T) {
	at := time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC)
	j := &unit.Job{Tag: "T-1", Units: []*unit.Unit{{Number: 1, Rounds: []*unit.Round{{Number: 1}}}}}
	state, err := entry.PapersState(j)
	require.NoError(t, err)
	line := func(role string, e unit.Event) unit.Entry {
		return unit.Entry{Who: "Odd", Role: role, At: at, Action: wording.Event(e), Event: &e}
	}
	sign := func(number int, state string) unit.Entry {
		return line(people.RoleLead, unit.Event{Kind: unit.EventSignedOff, Unit: number, Lines: 3, Head: "ab",
			State: state})
	}
	set := func(field string) unit.Entry { return unit.Entry{Who: "Odd", At: at, Action: "set", Field: field} }
	words := func(action string) unit.Entry { return unit.Entry{Who: "Iva", At: at, Action: action} }
	of := func(kind string) unit.Entry { return line(people.RoleTechnician, unit.Event{Kind: kind}) }
	brought, byHim := sign(1, state), sign(1, state)
	brought.Brought, byHim.Role = true, people.RoleTechnician
	earlier := line(people.RoleLead, unit.Event{Kind: unit.EventSignedOff, Unit: 1, Lines: 3, Head: "ab",
		On: at.AddDate(-1, 0, 0)})
	for _, c := range []struct {
		name    string
		record  []unit.Entry
		version int
		holds   bool
		says    string
	}{
		{"never", nil, 0, false, "No lead has signed"},
		{"another unit", []unit.Entry{sign(2, state)}, 0, false, "No lead"},
		{"brought", []unit.Entry{brought}, 0, false, "No lead"},
		{"forged in words", []unit.Entry{words(sign(1, state).Action)}, 0, false, "No lead"},
		{"by a technician", []unit.Entry{byHim}, 0, false, "No lead"},
		{"signed", []unit.Entry{set("u1/speed"), sign(1, state)}, 1, true,
			"Lead, 14 May 2031 09:00. Version 1, record of 3 lines"},
		{"handed over after", []unit.Entry{sign(1, state), of(unit.EventHandedOver), of(unit.EventPaperKept),
			set("job/collected_by"), of(unit.EventCameBack)}, 1, true, "Version 1"},
		{"changed after", []unit.Entry{sign(1, "1:another"), set("u1/speed"), of(unit.EventPicture)}, 1, false,
			"2 changes were written after Odd signed version 1 off"},
		{"a change that calls itself a hand-over", []unit.Entry{sign(1, "1:another"), words("handed over")}, 1, false,
			"A change was written"},
		{"changed and changed back", []unit.Entry{sign(1, state), set("u1/speed"), set("u1/speed")}, 1, true,
			"Version 1"},
		{"changed beside the record", []unit.Entry{sign(1, "1:another")}, 1, false, "no line of the record tells why"},
		{"signed anew", []unit.Entry{sign(1, "1:another"), set("u1/speed"), sign(1, state)}, 2, true, "Version 2"},
		{"of an earlier version", []unit.Entry{earlier}, 1, true, "14 May 2030"},
		{"of an earlier version, changed since", []unit.Entry{earlier, set("u1/speed")}, 1, false, "A change was"},
	} {
		s, err := handover.SignedOff(j, 1, func(yield func(unit.Entry, error) bool) {
			for _, e := range c.record {
				if !yield(e, nil) {
					return
				}
			}
		})
		require.NoError(t, err)
		assert.Equal(t, c.version, s.Version, c.name)
		assert.Equal(t, c.holds, s.Holds(), c.name)
		assert.Contains(t, report.Seal(s).Words, c.says, c.name)
	}
}
