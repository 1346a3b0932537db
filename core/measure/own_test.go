package measure_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

var bore80 = measure.Spec{Method: family.MethodGrid, Rows: 4, Cols: 2, New: point("80 mm"),
	Upper: size("80.12 mm"), Resolution: size("0.01 mm")}

func TestAFigureFarFromTheUnitsOwnSizeIsQuestioned(t *testing.T) {
	read := []*unit.Reading{entry("r1c1", "80.06 mm"), entry("r1c2", "80.07 mm")}
	for text, kept := range map[string]string{
		"80.05 mm": "80.05 mm",
		"3.152 in": "3.152 in", // 80.06 mm in the other measure
		"100 mm":   "100 mm ?", // another tube
		"60.06 mm": "60.06 mm ?",
		"80.06 in": "80.06 in ?", // the caliper stands in inch
		"8006 mm":  "8006 mm ?",
		"twenty":   "twenty", // is refused later, by its own words
	} {
		assert.Equal(t, kept, bore80.Asked(read, "r2c1", text), text)
	}
	assert.Equal(t, "100 mm ?", bore80.Asked(nil, "r1c1", "100 mm"), "the size as new is all that is known")
	assert.Equal(t, "90 mm", bore80.Asked(nil, "r1c1", "90 mm"),
		"a size as new that is not this unit's misleads nobody")
	assert.Equal(t, "90 mm ?", bore80.Asked(read, "r2c1", "90 mm"), "beside this unit's own readings it is far")
	unknown := measure.Spec{Method: family.MethodGrid, Rows: 4, Cols: 2}
	assert.Equal(t, "100 mm", unknown.Asked(nil, "r1c1", "100 mm"), "nothing is known of it")
}

func TestSayingItAgainSettlesAQuestion(t *testing.T) {
	asked := []*unit.Reading{entry("r1c1", "80.06 mm"), entry("r2c1", "100 mm ?")}
	assert.Equal(t, "100 mm", bore80.Asked(asked, "r2c1", "100 mm"))
	assert.Equal(t, "100.00 mm", bore80.Asked(asked, "r2c1", "100.00 mm"), "the same figure")
	assert.Equal(t, "100 mm", bore80.Asked(asked, "r2c1", "100 mm ?"), "the question is no part of the figure")
	assert.Equal(t, "101 mm ?", bore80.Asked(asked, "r2c1", "101 mm"), "another figure is asked anew")
	assert.Equal(t, "100 mm ?", bore80.Asked(asked, "r3c1", "100 mm"), "another place is asked by itself")
}

func TestAQuestionedFigureGivesNoVerdict(t *testing.T) {
	all := []*unit.Reading{}
	for _, slot := range bore80.Slots() {
		all = append(all, entry(slot, "80.06 mm"))
	}
	assert.Equal(t, metrology.In, measure.Evaluate(bore80, all).Verdict)
	all[2] = entry("r2c1", "100 mm ?")
	r := measure.Evaluate(bore80, all)
	assert.Equal(t, metrology.Undecided, r.Verdict)
	assert.Equal(t, []string{"r2c1"}, r.Questioned)
	assert.InDelta(t, 0.08006, r.Value, 1e-9, "it counts for nothing")
	assert.False(t, r.HasUsed)
	all[2] = entry("r2c1", "100 mm")
	assert.Equal(t, metrology.Out, measure.Evaluate(bore80, all).Verdict)
	only := measure.Evaluate(bore80, []*unit.Reading{entry("r1c1", "100 mm ?")})
	assert.True(t, only.Any)
	assert.Equal(t, metrology.Undecided, only.Verdict)
}

func TestACommaBeforeThreeDigits(t *testing.T) {
	for text, want := range map[string]string{
		"80,064": "80.064", "80,064 mm": "80.064 mm", "80,06 mm": "80,06 mm", "1,250": "1,250",
	} {
		assert.Equal(t, want, bore80.Decimal(nil, "r1c1", text, "mm"), text)
	}
	unknown := measure.Spec{Method: family.MethodGrid, Rows: 4, Cols: 2}
	assert.Equal(t, "80,064", unknown.Decimal(nil, "r1c1", "80,064", "mm"), "it is asked what was meant")
	sisters := []*unit.Reading{entry("r1c1", "80.06 mm")}
	assert.Equal(t, "80.064", unknown.Decimal(sisters, "r1c2", "80,064", "mm"))
}

func TestHolesAreNoSistersOfShafts(t *testing.T) {
	fit := measure.Spec{Method: family.MethodFit, Cols: 2}
	read := []*unit.Reading{entry("h1", "20.02 mm"), entry("s1", "14.98 mm")}
	assert.Equal(t, "15.00 mm", fit.Asked(read, "s2", "15.00 mm"))
	assert.Equal(t, "15.00 mm ?", fit.Asked(read, "h2", "15.00 mm"))
}
