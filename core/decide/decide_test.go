package decide_test

import (
	"testing"

	"corvek/core/decide"
	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
)

func TestPropose(t *testing.T) {
	lap := []decide.Route{{Code: "lap", For: []string{"face"}}}
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
		{"cracked, however it measures", decide.Part{Marks: []decide.Mark{{Text: "cracked", Breaking: true}},
			Findings: face(metrology.In)}, decide.OnCondition, decide.Replace},
		{"cracked is not lapped", decide.Part{Marks: []decide.Mark{{Text: "cracked", Breaking: true}},
			Findings: face(metrology.Out), Routes: lap}, decide.OnCondition, decide.Replace},
		{"dirty", decide.Part{Marks: []decide.Mark{{Text: "dirt or chips in it"}}}, decide.OnCondition, decide.Keep},
		{"seized and not looked at", decide.Part{Stuck: "seized"}, decide.OnCondition, decide.Open},
		{"seized and sound", decide.Part{Stuck: "seized", Sound: true}, decide.OnCondition, decide.Keep},
		{"measured where no limit is published", decide.Part{Findings: []decide.Finding{{Name: "Face", Must: true,
			Measured: true}}}, decide.OnCondition, decide.Keep},
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

// New chosen by hand takes the rest of the set with it; kept by hand it does not.
func TestMatchedSetFollowsAPersonsChoice(t *testing.T) {
	parts := []decide.Part{{Name: "Front plate", Set: "plates", Chosen: decide.Replace}, {Name: "Rear plate",
		Set: "plates"}}
	got := decide.Propose(parts, decide.OnCondition)
	assert.Equal(t, decide.Replace, got[1].Choice)
	assert.Contains(t, got[1].Reason, "front plate")
	parts[0] = decide.Part{Name: "Front plate", Set: "plates", Short: 1, Chosen: decide.Keep}
	assert.Equal(t, decide.Keep, decide.Propose(parts, decide.OnCondition)[1].Choice)
}

// The reasons of a proposal stand strongest first, and what nobody looked at is
// never said to be sound.
func TestReasonsStandStrongestFirst(t *testing.T) {
	for want, p := range map[string]decide.Part{
		"cracked; 1 short of the count; seen: rust": {Short: 1, Marks: []decide.Mark{{Text: "rust"},
			{Text: "cracked", Breaking: true}}},
		"not looked at":       {},
		"looked at and sound": {Sound: true},
		"measured and within limits; looked at and sound": {Sound: true, Findings: []decide.Finding{{Code: "d",
			Name: "D", Verdict: metrology.In}}},
	} {
		assert.Equal(t, want, decide.Propose([]decide.Part{p}, decide.OnCondition)[0].Reason)
	}
}

// Hours at the bench add up; what goes out goes out together.
func TestWorkOfTheChosenRework(t *testing.T) {
	assert.Equal(t, decide.Work{}, decide.WorkOf(nil))
	assert.Equal(t, decide.Work{Hours: 3.5, Days: 9}, decide.WorkOf([]decide.Route{{Hours: 1}, {Hours: 2.5, Days: 9},
		{Days: 4}}))
}
