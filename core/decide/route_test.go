package decide_test

import (
	"testing"

	"corvek/core/decide"
	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
)

// A way is gone only as far as its stock reaches; where the first cannot be gone the next
// is proposed, and what nobody can save is new with the reason.
func TestRoutesKeepToTheirStock(t *testing.T) {
	worn := func(routes ...decide.Route) decide.Proposal {
		return decide.Propose([]decide.Part{{Name: "Tube", Routes: routes, Findings: []decide.Finding{{Code: "bore",
			Name: "Bore", Verdict: metrology.Out, HasLimit: true}}}}, decide.OnCondition)[0]
	}
	hone := decide.Route{Code: "hone", Name: "Hone", For: []string{"bore"}, Stock: 0.30e-3, Need: 0.12e-3}
	p := worn(hone)
	assert.Equal(t, decide.Rework, p.Choice)
	assert.Contains(t, p.Reason, "0.3 mm may still come off")

	hone.Taken = 0.20e-3
	p = worn(hone)
	assert.Equal(t, decide.Replace, p.Choice)
	assert.Contains(t, p.Reason, "0.12 mm would have to come off, 0.1 mm may")

	chrome := decide.Route{Code: "rechrome", Name: "Re-chrome", For: []string{"bore"}}
	p = worn(hone, chrome)
	assert.Equal(t, decide.Rework, p.Choice)
	assert.Equal(t, "rechrome", p.Routes[0].Code)
	assert.Contains(t, p.Reason, "Hone: ")

	hone.Taken = 0.31e-3
	assert.Contains(t, hone.Fault(), "0.31 mm taken off, at most 0.3 mm")
	hone.Goes = true
	assert.Equal(t, "hone", worn(hone, chrome).Routes[0].Code, "a person's way is kept, and its fault is a stop")
}

// One way that answers two features is gone once.
func TestOneWayForTwoFeatures(t *testing.T) {
	p := decide.Propose([]decide.Part{{Routes: []decide.Route{{Code: "rechrome", Name: "Re-chrome",
		For: []string{"diameter", "surface"}, Hours: 1, Days: 10}}, Findings: []decide.Finding{
		{Code: "diameter", Name: "Diameter", Verdict: metrology.Out},
		{Code: "surface", Name: "Surface", Verdict: metrology.Out}}}}, decide.OnCondition)[0]
	assert.Equal(t, decide.Rework, p.Choice)
	assert.Len(t, p.Routes, 1)
	assert.Equal(t, decide.Work{Hours: 1, Days: 10}, decide.WorkOf(p.Routes))
}

func TestTrendOfAFace(t *testing.T) {
	assert.Equal(t, decide.Flatter, decide.Trending(0.012e-3, 0.004e-3))
	assert.Equal(t, decide.LessFlat, decide.Trending(0.004e-3, 0.012e-3))
	assert.Equal(t, decide.NoTrend, decide.Trending(0.004e-3, 0.004e-3))
	assert.InDelta(t, 0.25e-3, decide.Oversize(80e-3, 80.25e-3), 1e-12)
	assert.Zero(t, decide.Oversize(80e-3, 79.9e-3))
}

// What else speaks for a part: an answer, a question, a cause, a fit, its age.
func TestProposalsByReasons(t *testing.T) {
	in := []decide.Finding{{Name: "Length", Verdict: metrology.In, HasLimit: true}}
	for _, c := range []struct {
		name string
		part decide.Part
		want decide.Choice
		says string
	}{
		{"a spring is asked about first", decide.Part{Ask: "free length 14 % off: is it another variant's?",
			Findings: []decide.Finding{{Name: "Free length", Verdict: metrology.Out}}}, decide.Open,
			"another variant's?"},
		{"changed on purpose", decide.Part{Calls: decide.Call{Choice: decide.Keep, Reason: "changed in the field"},
			Findings: []decide.Finding{{Name: "Free length", Verdict: metrology.Out}}}, decide.Keep, "changed"},
		{"broken, whatever was answered", decide.Part{Calls: decide.Call{Choice: decide.Keep, Reason: "x"},
			Marks: []decide.Mark{{Text: "broken", Breaking: true}}}, decide.Replace, "broken"},
		{"blamed and looked at by nobody", decide.Part{Blamed: []string{"dead piston"}}, decide.Open, "dead piston"},
		{"blamed and sound", decide.Part{Blamed: []string{"dead piston"}, Sound: true}, decide.Keep, "sound"},
		{"blamed and measured", decide.Part{Blamed: []string{"dead piston"}, Findings: in}, decide.Keep, "within"},
		{"renewed by the remedy", decide.Part{Remedies: []string{"water in the pack"}, Findings: in}, decide.Replace,
			"water in the pack"},
		{"a new one does not go in", decide.Part{Renew: true, Unfit: "the new one binds at 19.99 mm"}, decide.Keep,
			"binds"},
		{"too old", decide.Part{Aged: "cured in 2001, good for 15 years"}, decide.Replace, "2001"},
		{"worn and kept", decide.Part{Wear: "62 % of the wear limit used", Findings: in}, decide.Keep, "62 %"},
	} {
		got := decide.Propose([]decide.Part{c.part}, decide.OnCondition)[0]
		assert.Equal(t, c.want, got.Choice, c.name)
		assert.Contains(t, got.Reason, c.says, c.name)
	}
}

// The mate of a reworked part is looked at with it.
func TestMateOfAReworkedPart(t *testing.T) {
	parts := []decide.Part{{Name: "Barrel", Set: "faces", Chosen: decide.Rework}, {Name: "Valve plate", Set: "faces",
		Sound: true}}
	got := decide.Propose(parts, decide.OnCondition)
	assert.Equal(t, decide.Keep, got[1].Choice)
	assert.Contains(t, got[1].Reason, "try it against barrel")
	assert.NotContains(t, got[0].Reason, "mate")
}
