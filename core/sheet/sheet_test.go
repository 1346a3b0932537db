package sheet_test

import (
	"strings"
	"testing"

	"corvek/core/sheet"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A sheet is found by maker and model as people write them; what is written almost so, or bears a suffix or a
// serial that is not known, is asked.
func TestSheetsAreFoundAsPeopleWrite(t *testing.T) {
	all := []*sheet.Sheet{
		{Family: "pump", Maker: "Fjellvik Pumpe", Model: "GX-32"},
		{Family: "pump", Maker: "Fjellvik Pumpe", Model: "GX-32", Suffix: "R1"},
		{Family: "pump", Maker: "Fjellvik Pumpe", Model: "GX-32", SerialFrom: 20400},
		{Family: "pump", Maker: "Fjellvik Pumpe", Model: "GX-32", Mark: "long_boss"},
		{Family: "pump", Maker: "Aksel", Model: "AV 71 P"},
	}
	for _, c := range []struct {
		name string
		u    unit.Unit
		want []bool // sure or asked, of each that is found
	}{
		{"as it stands, serial and mark not known", unit.Unit{Maker: "Fjellvik Pumpe", Model: "GX-32"},
			[]bool{true, false, false}},
		{"case, blanks and dashes", unit.Unit{Maker: "FJELLVIK-pumpe", Model: "gx 32", Serial: "20399",
			Identity: map[string]string{"long_boss": "no"}}, []bool{true}},
		{"without a maker, late", unit.Unit{Model: "gx32", Serial: "No. 20 400",
			Identity: map[string]string{"long_boss": "yes"}}, []bool{true, true, true}},
		{"with a suffix of its own sheet", unit.Unit{Model: "GX-32/R1", Serial: "1",
			Identity: map[string]string{"long_boss": "no"}}, []bool{true, true}},
		{"another size is asked, and never taken", unit.Unit{Model: "GX-320"}, []bool{false, false, false}},
		{"one letter left out", unit.Unit{Model: "AV 71"}, []bool{false}},
		{"two letters changed places", unit.Unit{Model: "VA 71 P"}, []bool{false}},
		{"another maker", unit.Unit{Maker: "Selden", Model: "AV 71 P"}, nil},
		{"a maker written almost so", unit.Unit{Maker: "Aksl", Model: "AV 71 P"}, []bool{false}},
		{"no model", unit.Unit{Maker: "Aksel"}, nil},
		{"another family", unit.Unit{Family: "motor", Model: "AV 71 P"}, nil},
	} {
		if c.u.Family == "" {
			c.u.Family = "pump"
		}
		var got []bool
		for _, f := range sheet.Find(all, &c.u) {
			got = append(got, f.Sure)
		}
		assert.Equal(t, c.want, got, c.name)
	}
}

// What two sheets of one unit disagree in is told, and the closer one is used.
func TestSheetsCombine(t *testing.T) {
	general := &sheet.Sheet{Model: "GX-32", Values: []sheet.Value{{Key: "speed", Text: "1450 rpm"},
		{Key: "duty_pressure", Text: "175 bar"}}}
	late := &sheet.Sheet{Model: "GX-32", Suffix: "R1", Variant: "late", Values: []sheet.Value{
		{Key: "duty_pressure", Text: "210 bar"}, {Key: "fluid", Text: "VG 46"}}}
	s, disagree := sheet.Joined([]sheet.Found{{Sheet: general}, {Sheet: late}})
	assert.Equal(t, "210 bar", s.Value("duty_pressure").Text)
	assert.Equal(t, "1450 rpm", s.Value("speed").Text)
	assert.Equal(t, "VG 46", s.Value("fluid").Text)
	assert.Equal(t, "late", s.Variant)
	assert.Equal(
		t,
		[]sheet.Disagreement{{Key: "duty_pressure", Was: "175 bar", Is: "210 bar", By: "GX-32 …R1"}},
		disagree,
	)
	assert.Equal(t, "175 bar", general.Value("duty_pressure").Text, "the sheet itself is as it was")
}

// Each figure says how many units stand behind it, with their mean and range.
func TestUnitsStandBehindAFigure(t *testing.T) {
	of := func(job, text string) *sheet.Sheet {
		return &sheet.Sheet{Model: "GX-32", Values: []sheet.Value{{Key: "part/gear/feature/tip/new_low", Text: text,
			Source: job, Seen: []sheet.Seen{{Job: job, Text: text}}}}}
	}
	all := func(string) bool { return true }
	s := sheet.Keep(nil, of("T-1", "48.00 mm"), all)
	_, ok := s.Values[0].Spread()
	assert.False(t, ok, "one unit has no spread")
	s = sheet.Keep(s, of("T-2", "48.04 mm"), func(string) bool { return false })
	s = sheet.Keep(s, of("T-2", "48.06 mm"), func(string) bool { return false })
	spread, ok := s.Values[0].Spread()
	require.True(t, ok)
	assert.Equal(t, 2, spread.Units, "a unit that is measured again is one")
	assert.InDelta(t, 48.03e-3, spread.Mean, 1e-12)
	assert.Equal(t, "48.00 mm", s.Values[0].Text, "what was not ticked stays")
	assert.Equal(t, []string{"T-1", "T-2"}, s.Units())
	items := sheet.Differences(s, of("T-3", "1.88976378 in"))
	assert.Empty(t, items, "48 mm in inch is no difference")
	items = sheet.Differences(s, of("T-3", "47 mm"))
	require.Len(t, items, 1)
	assert.True(t, items[0].Other)
	assert.Equal(t, "48.00 mm", items[0].Was)
}

func TestASheetIsWrittenAndRead(t *testing.T) {
	s := &sheet.Sheet{
		Family: "pump",
		Maker:  "Ø & Co",
		Model:  "GX-32",
		Values: []sheet.Value{{Key: "speed", Text: "1450 rpm"}},
	}
	text, err := s.Text()
	require.NoError(t, err)
	back, err := sheet.Read(text)
	require.NoError(t, err)
	assert.Equal(t, s, back)
	for name, c := range map[string]struct{ text, says string }{
		"nothing":             {"", "is no sheet"},
		"another file":        {`{"format": "corvek.job", "version": 3}`, "is no sheet"},
		"a later one":         {`{"format": "corvek.sheet", "version": 9, "family": "a", "model": "b"}`, "version 9"},
		"unknown words":       {`{"format": "corvek.sheet", "version": 1, "colour": "red"}`, "is no sheet"},
		"something behind it": {string(text) + "{}", "after the end"},
		"no model": {`{"format": "corvek.sheet", "version": 1, "family": "a", "model": "-"}`,
			"its family and its model"},
		"a value twice": {`{"format": "corvek.sheet", "version": 1, "family": "a", "model": "b", "values": [` +
			`{"key": "speed", "text": "1 rpm"}, {"key": "speed", "text": "2 rpm"}]}`, "twice"},
		"a figure of a test": {`{"format": "corvek.sheet", "version": 1, "family": "a", "model": "b", "values": [` +
			`{"key": "attempt/1/point/p100/flow", "text": "44 L/min"}]}`, "nothing that belongs to a model"},
		"a reading": {`{"format": "corvek.sheet", "version": 1, "family": "a", "model": "b", "values": [` +
			`{"key": "part/gear/feature/tip/found/v1", "text": "48 mm"}]}`, "nothing that belongs to a model"},
		"a serial": {`{"format": "corvek.sheet", "version": 1, "family": "a", "model": "b", "values": [` +
			`{"key": "serial", "text": "1"}]}`, "nothing that belongs to a model"},
		"serials backwards": {`{"format": "corvek.sheet", "version": 1, "family": "a", "model": "b", ` +
			`"serial_from": 9,` +
			` "serial_to": 3}`, "backwards"},
		"long": {strings.Repeat("x", sheet.MostText+1), "longer than 4 MB"},
	} {
		_, err := sheet.Read([]byte(c.text))
		assert.ErrorContains(t, err, c.says, name)
	}
}

func FuzzRead(f *testing.F) {
	f.Add([]byte(`{"format": "corvek.sheet", "version": 1, "family": "a", "model": "b"}`))
	f.Fuzz(func(t *testing.T, text []byte) {
		s, err := sheet.Read(text)
		if err != nil {
			return
		}
		again, err := s.Text()
		require.NoError(t, err)
		back, err := sheet.Read(again)
		require.NoError(t, err)
		assert.Equal(t, s.Model, back.Model)
	})
}
