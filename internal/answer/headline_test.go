package answer_test

import (
	"slices"
	"testing"

	"corvek/core/calc"
	"corvek/core/quantity"
	"corvek/internal/answer"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestHeadlines(t *testing.T) {
	for _, c := range []struct {
		calc, in         string
		tone, word, text string
	}{
		{"cylinder", `{"bore":"63 mm","pressure":"210 bar"}`, "", "65462 N", "push force · 14716.5 lbf"},
		{"judge", `{"value":"6.9 thou","upper":"7 thou","resolution":"0.01 mm"}`, "ochre", "UNDECIDED",
			"room to the upper limit 0.003 mm · 0.10 thou"},
		{"proud", `{"thicknesses":["2 mm","3 mm"],"recess":"4.8 mm","lower":"0.1 mm","upper":"0.3 mm"}`, "petrol",
			"IN", "stands proud by 0.200 mm · 7.9 thou"},
		{"runout", `{"tir":"0.1 mm","limit":"0.08 mm"}`, "red", "OUT", "eccentricity 0.050 mm · 2.0 thou"},
		{"cleanliness", `{"counts":[2000,500,30],"target":"17/15/12"}`, "red", "OUT", "18/16/12"},
		{"cleanliness", `{"counts":[2000,500,30]}`, "", "18/16/12", ""},
		{"pump", `{"displacement":"45 cc/rev","speed":"1500 rpm","pressure":"200 bar","flow":"60.75 L/min"}`, "",
			"90.0 %", "volumetric efficiency"},
		{"pump", `{"displacement":"40 cc/rev","speed":"1500 rpm","pressure":"200 bar"}`, "", "60.00 L/min",
			"theoretical flow · 15.85 gpm"},
		{"oring_find", `{"inside":"0.984 in","section":"0.139 in"}`, "", "AS568 -214", ""},
		{"oring_find", `{"inside":"24.4 mm","section":"3.2 mm","tolerance":"0.01 mm"}`, "",
			"no standard size is near", ""},
		{"lip_seal_find", `{"shaft":"25 mm","bore":"40 mm"}`, "", "25.000 mm × 40.000 mm × 7.000 mm", ""},
		{"lip_offset", `{"groove_from_face":"5 mm","groove_width":"0.8 mm","seal_width":"7 mm",` +
			`"lip_position":"4 mm","bore_depth":"12 mm","margin":"0.5 mm"}`, "",
			"outer face 0.000 mm to 0.500 mm deep", ""},
		{"bolt_pattern", `{"count":4,"torque":"80 N·m"}`, "", "1 3 2 4", "order"},
		{"shelf_life", `{"elastomer":"NBR","cure_date":"2017-Q3","on":"2025-01-01"}`, "ochre", "EXTEND", "2024-09-30"},
		{"rebuild_or_replace", `{"parts":900,"labour_hours":12,"rate":80,"rebuild_days":5,"new_price":2500}`,
			"petrol", "REPLACE", "rebuild cost 1860"},
		{"shims", `{"measured_clearance":"9 thou","lower":"3 thou","upper":"7 thou","fitted":["0.10 mm"],` +
			`"available":[]}`, "petrol", "CAN BE SET", "resulting clearance 0.129 mm · 5.1 thou"},
	} {
		t.Run(c.calc+" "+c.word, func(t *testing.T) {
			out, err := calc.Run(c.calc, []byte(c.in))
			require.NoError(t, err)
			assert.Equal(t, answer.Headline{Tone: c.tone, Word: c.word, Text: c.text},
				answer.Head(out, quantity.Metric))
		})
	}
}

// Every calculator has a headline, and it is one of the results it promises.
func TestEveryCalculatorHasAHeadline(t *testing.T) {
	for _, d := range calc.All() {
		out, err := calc.Run(d.Name, []byte(d.Example))
		require.NoError(t, err)
		h := answer.Head(out, quantity.Inch)
		assert.NotEmpty(t, h.Word, d.Name)
		assert.NotContains(t, d.Title, "_")
		keys := d.Asked
		assert.NotEmpty(t, keys, d.Name)
		for _, key := range keys {
			assert.True(t, slices.ContainsFunc(d.Results, func(r calc.Result) bool { return r.Name == key }),
				"%s promises no %s", d.Name, key)
		}
	}
}
