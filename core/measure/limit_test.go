package measure_test

import (
	"math"
	"testing"

	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// sizes are those of a unit, in mm.
func sizes(mm map[string]float64) measure.Sizes {
	return func(path string) (measure.Size, bool) {
		v, ok := mm[path]
		return measure.Size{SI: v / 1e3, Read: v / 1e3, HasRead: ok}, ok
	}
}

func band(low, high string) unit.AsNew {
	return unit.AsNew{Low: size(low), High: size(high), From: unit.NewDocument}
}

func unworn(text string) unit.AsNew {
	return unit.AsNew{Low: size(text), From: unit.NewUnworn}
}

// Limits worked by hand from rule and size, in mm; a slack is how far the limit itself may lie off.
func TestLimitsFollowFromTheUnitsOwnSizes(t *testing.T) {
	nan := math.NaN()
	value := func(wears string, n unit.AsNew, r family.Rule) measure.Spec {
		return measure.Spec{Method: family.MethodValue, Wears: wears, New: n, Rule: &r}
	}
	gap := func(m family.Method, r family.Rule) measure.Spec {
		return measure.Spec{Method: m, Rule: &r, Measured: "total", LimitFor: "total",
			Sizes: sizes(map[string]float64{"gear.width": 35, "gear.tip": 45, "piston.d": 16, "rod.span": 800,
				"plate.core": 1.6, "shaft.d": 20, "plate.outer": 134})}
	}
	side := family.Rule{Of: "gear.width", Low: "0.1 %", High: "0.2 %", Times: 2}
	play := family.Rule{Of: "piston.d", Steps: []family.Step{{To: "16 mm", Most: "0.10 mm"},
		{To: "25 mm", Most: "0.15 mm"}, {Most: "0.20 mm"}}}
	for _, c := range []struct {
		name                string
		s                   measure.Spec
		lower, upper, slack float64
	}{
		{"a journal of 0.750 in: 0.1 % off it", value("shaft", unworn("0.750 in"), family.Rule{Out: "0.1 %"}),
			19.05 * 0.999, nan, 0},
		{"a bore: 0.1 % on it", value("bore", point("27 mm"), family.Rule{Out: "0.1 %"}), nan, 27.027, 0},
		{"of a band, the middle and half of it either way",
			value("shaft", band("19.980 mm", "19.993 mm"), family.Rule{Out: "0.1 %"}), 19.9865 * 0.999, nan, 0.0065},
		{"a lip's track: 0.03 mm off the diameter", value("shaft", point("35 mm"), family.Rule{Off: "0.03 mm"}),
			34.97, nan, 0},
		{"a cylinder of 80 H8: out above H10, 0.120 mm", value("bore", band("80.000 mm", "80.046 mm"),
			family.Rule{Fit: "H8", OutFit: "H10"}), nan, 80.120, 0},
		{"a point somewhere in 320 H8 (89 µm; H10 230 µm)", value("bore", point("320.03 mm"),
			family.Rule{Fit: "H8", OutFit: "H10"}), nan, 320.03 + 0.230 - 0.0445, 0.0445},
		{"a rod of 50 f7, −25 to −50 µm: out below f9, −87 µm", value("shaft", band("49.950 mm", "49.975 mm"),
			family.Rule{Fit: "f7", OutFit: "f9"}), 49.913, nan, 0},
		{"gear sides, 35 mm wide: new 0.035 to 0.070, out at twice", gap(family.MethodFeeler, side), 0.035, 0.140, 0},
		{"gear tips of 45 mm", gap(family.MethodFeeler, family.Rule{Of: "gear.tip", Out: "0.3 %"}), nan, 0.135, 0},
		{"a slipper of a 16 mm piston: the end of a line is in it", gap(family.MethodSisters, play), nan, 0.10, 0},
		{"a rod's swing over 800 mm", gap(family.MethodTIR, family.Rule{Of: "rod.span", Out: "0.1 %"}), nan, 0.8, 0},
		{"a shaft of 20 mm within IT9", gap(family.MethodTIR, family.Rule{Of: "shaft.d", Grade: "IT9"}), nan, 0.052, 0},
		{"a vane's film", gap(family.MethodFit, family.Rule{Least: "10 µm", Most: "30 µm"}), 0.010, 0.030, 0},
		{"a separator of 134 mm", gap(family.MethodFeeler,
			family.Rule{Of: "plate.outer", Out: "0.1 %"}), nan, 0.134, 0},
	} {
		b := measure.Evaluate(c.s, nil).Bound
		assert.Empty(t, b.Lacks, c.name)
		check := func(what string, want float64, has bool, got float64) {
			if math.IsNaN(want) {
				assert.False(t, has, "%s: %s", c.name, what)
				return
			}
			assert.True(t, has, "%s: %s", c.name, what)
			assert.InDelta(t, want/1e3, got, 1e-10, "%s: %s", c.name, what)
		}
		check("lower", c.lower, b.Limits.HasLower, b.Limits.Lower)
		check("upper", c.upper, b.Limits.HasUpper, b.Limits.Upper)
		assert.InDelta(t, c.slack/1e3, b.Slack, 1e-10, c.name)
	}
	lined := value("shaft", point("3.2 mm"), family.Rule{Out: "50 %", Less: "plate.core"})
	lined.Sizes = sizes(map[string]float64{"plate.core": 1.6})
	assert.InDelta(t, 2.4e-3, measure.Evaluate(lined, nil).Limits.Lower, 1e-12, "half of what is not core")
	pair := measure.Evaluate(gap(family.MethodFit, family.Rule{Low: "0.07 %", High: "0.15 %", Times: 2}),
		[]*unit.Reading{entry("h1", "20.020 mm"), entry("s1", "20.000 mm")})
	assert.InDelta(t, 20.020e-3*0.003, pair.Limits.Upper, 1e-12, "mating parts go by their own bore")
	spool := measure.Evaluate(gap(family.MethodFit, family.Rule{Low: "0.03 %", High: "0.08 %"}),
		[]*unit.Reading{entry("h1", "20.020 mm"), entry("s1", "20.000 mm")})
	assert.True(t, spool.ByTest)
	assert.Empty(t, spool.Verdict, "its leak test says when it is out")
}

// Where the size a limit goes by is not known there is no verdict and no per cent; nor is a size one as new
// before somebody said whence it is.
func TestNothingIsJudgedByWhatIsNotKnown(t *testing.T) {
	journal := measure.Spec{Method: family.MethodGrid, Rows: 2, Cols: 2, Wears: "shaft", Resolution: size("0.001 mm"),
		Rule: &family.Rule{Out: "0.1 %", Round: "IT6"}}
	read := func(c string) []*unit.Reading {
		return []*unit.Reading{entry("r1c1", "19.05 mm"), entry("r1c2", c), entry("r2c1", "19.05 mm"),
			entry("r2c2", "19.05 mm")}
	}
	round := measure.Evaluate(journal, read("19.049 mm"))
	assert.Empty(t, round.Verdict)
	assert.False(t, round.HasUsed)
	assert.Equal(t, measure.AsNewLacks, round.Bound.Lacks)
	require.Len(t, round.Lines, 1)
	assert.Equal(t, metrology.In, round.Lines[0].Verdict, "IT6 of 19 mm is 13 µm")
	oval := measure.Evaluate(journal, read("19.02 mm"))
	assert.Equal(t, metrology.Out, oval.Verdict, "out of round needs no size as new")
	assert.Equal(t, measure.OutOfRound, oval.Deciding)

	journal.New = unit.AsNew{Low: size("19.05 mm")}
	assert.Empty(t, measure.Evaluate(journal, read("19.049 mm")).Verdict, "nobody said whence it is")
	journal.New.From = unit.NewUnworn
	assert.Equal(t, metrology.In, measure.Evaluate(journal, read("19.049 mm")).Verdict)
	journal.New = unit.AsNew{Low: size("20 mm"), From: unit.NewEarlier}
	assert.Empty(t, measure.Evaluate(journal, read("19.049 mm")).Verdict, "an earlier version's guidance is no size")

	bush := measure.Spec{Method: family.MethodValue, Wears: "bore", Resolution: size("0.001 mm"),
		Mate: &family.Rule{Of: "shaft.journal", Out: "0.25 %"}, Sizes: sizes(map[string]float64{"shaft.journal": 50})}
	assert.Equal(t, metrology.In, measure.Evaluate(bush, []*unit.Reading{entry("v1", "50.10 mm")}).Verdict)
	worn := measure.Evaluate(bush, []*unit.Reading{entry("v1", "50.20 mm")})
	assert.Equal(t, metrology.Out, worn.Verdict, "0.20 mm in 50 is more than 2.5 per mille")
	assert.InDelta(t, 0.20e-3, worn.Lines[0].Value, 1e-9)
	set := bush
	set.Cols = 3
	part := measure.Evaluate(set, []*unit.Reading{entry("v1", "50.10 mm")})
	assert.Equal(t, metrology.Undecided, part.Verdict, "one of three is no set")
	assert.Equal(t, 2, part.ToGo)
	bush.Sizes = func(string) (measure.Size, bool) { return measure.Size{SI: 50e-3}, true }
	assert.Empty(t, measure.Evaluate(bush, []*unit.Reading{entry("v1", "50.10 mm")}).Verdict,
		"what its mate was as new is not what it is now")
	bush.Sizes = nil
	unknown := measure.Evaluate(bush, []*unit.Reading{entry("v1", "50.20 mm")})
	assert.Empty(t, unknown.Verdict)
	assert.Equal(t, []string{"shaft.journal"}, unknown.Lacks)
	assert.Equal(t, metrology.Out, measure.Evaluate(measure.Spec{Method: family.MethodSisters, Cols: 3,
		Rule: &family.Rule{Spread: "0.02 mm"}, Resolution: size("0.001 mm")},
		values("v", "6.00 mm", "6.00 mm", "5.95 mm")).Verdict, "one slipper is not as high as its sisters")
}

// A limit typed here wins over the rule, one of an earlier version does not.
func TestATypedLimitWins(t *testing.T) {
	s := measure.Spec{Method: family.MethodValue, Wears: "shaft", New: point("20 mm"), Lower: size("19.90 mm"),
		LimitSource: family.SourceShop, Rule: &family.Rule{Out: "0.1 %"}}
	assert.InDelta(t, 19.90e-3, measure.Evaluate(s, nil).Limits.Lower, 1e-12)
	s.LimitSource = family.SourceEarlier
	assert.InDelta(t, 19.98e-3, measure.Evaluate(s, nil).Limits.Lower, 1e-12)
}

// The same shares hold at any size: a unit so many times as large, measured with so many times the
// uncertainty, comes to the same verdict and the same share of its allowance.
func TestShareRulesKnowNoSize(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		k := rapid.Float64Range(0.05, 40).Draw(t, "factor")
		worn := rapid.Float64Range(-0.0005, 0.003).Draw(t, "worn")
		mm := func(v float64) quantity.Quantity {
			return quantity.Quantity{SI: v / 1e3, Dim: quantity.Length, Typed: "x"}
		}
		at := func(scale float64) []measure.Result {
			reading := func(slot string, v float64) *unit.Reading {
				return &unit.Reading{Slot: slot, Value: "x", Size: mm(v * scale)}
			}
			shaft := measure.Spec{Method: family.MethodValue, Wears: "shaft", Rule: &family.Rule{Out: "0.1 %"},
				New: unit.AsNew{Low: mm(20 * scale), From: unit.NewDocument}, Permitted: mm(0.002 * scale)}
			fit := measure.Spec{Method: family.MethodFit, Cols: 1, Permitted: mm(0.002 * scale), Measured: "total",
				LimitFor: "total", Rule: &family.Rule{Low: "0.07 %", High: "0.15 %", Times: 2}}
			return []measure.Result{
				measure.Evaluate(shaft, []*unit.Reading{reading("v1", 20*(1-worn))}),
				measure.Evaluate(fit, []*unit.Reading{reading("h1", 20*(1+math.Abs(worn))), reading("s1", 20)}),
			}
		}
		for i, r := range at(k) {
			one := at(1)[i]
			assert.Equal(t, one.Verdict, r.Verdict)
			assert.Equal(t, one.Finer, r.Finer)
			assert.Equal(t, one.HasUsed, r.HasUsed)
			assert.InDelta(t, one.Used, r.Used, 1e-6)
		}
	})
}
