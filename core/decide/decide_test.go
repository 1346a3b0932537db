package decide_test

import (
	"testing"

	"corvek/core/decide"
	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
)

func TestPropose(t *testing.T) {
	lap := []decide.Route{{Code: "lap", For: "face"}}
	face := func(v metrology.Verdict) []decide.Finding {
		return []decide.Finding{{Code: "face", Name: "Face", Verdict: v, Must: true, HasLimit: true}}
	}
	cases := []struct {
		name   string
		part   decide.Part
		policy decide.Policy
		want   decide.Choice
	}{
		{"seal", decide.Part{Renew: true}, decide.OnCondition, decide.Replace},
		{"good plate", decide.Part{Wearing: true, Findings: face(metrology.In)}, decide.OnCondition, decide.Keep},
		{"good plate in an overhaul", decide.Part{Wearing: true, Findings: face(metrology.In)}, decide.FullOverhaul,
			decide.Replace},
		{"scored plate can be lapped", decide.Part{Findings: face(metrology.Out), Routes: lap}, decide.OnCondition,
			decide.Rework},
		{"scored plate without a route", decide.Part{Findings: face(metrology.Out)}, decide.OnCondition,
			decide.Replace},
		{"undecided stays open", decide.Part{Findings: face(metrology.Undecided)}, decide.OnCondition, decide.Open},
		{"never measured stays open", decide.Part{Findings: face("")}, decide.OnCondition, decide.Open},
		{"needle missing", decide.Part{Short: 1, Findings: face(metrology.In)}, decide.OnCondition, decide.Replace},
		{"cover", decide.Part{}, decide.OnCondition, decide.Keep},
		{"cover in an overhaul is no wearing part", decide.Part{}, decide.FullOverhaul, decide.Keep},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			got := decide.Propose([]decide.Part{c.part}, c.policy)[0]
			assert.Equal(t, c.want, got.Choice)
			assert.NotEmpty(t, got.Reason)
		})
	}
}

func TestMatchedSetGoesTogether(t *testing.T) {
	parts := []decide.Part{
		{Name: "Front plate", Set: "plates"},
		{Name: "Rear plate", Set: "plates", Findings: []decide.Finding{{Code: "face", Name: "Face",
			Verdict: metrology.Out}}},
		{Name: "Body"},
	}
	got := decide.Propose(parts, decide.OnCondition)
	assert.Equal(t, decide.Replace, got[0].Choice)
	assert.Contains(t, got[0].Reason, "rear plate")
	assert.Equal(t, decide.Keep, got[2].Choice)
}
