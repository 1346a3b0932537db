package proof_test

import (
	"corvek/core/metrology"
	"corvek/core/quantity"
	"testing"

	"corvek/core/family"
	"corvek/core/proof"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func steps(plan []proof.PlanStep) map[string]proof.PlanStep {
	out := map[string]proof.PlanStep{}
	for _, s := range plan {
		out[s.Code] = s
	}
	return out
}

func all(string) bool { return true }

// What was complained of is called up again in its own condition, in the words of the
// shop, or in the customer's where no symptom was tapped.
func TestTheComplaintIsTheLastStep(t *testing.T) {
	f := gearPump(t)
	plan := proof.Plan(
		proof.Asked{Family: f, On: all, Symptoms: []string{"weak_hot", "leak_shaft"}, Words: "no push when hot"},
	)
	require.Len(t, plan, len(f.Tests)+1)
	last := plan[len(plan)-1]
	assert.Equal(t, family.ComplaintTest, last.Code)
	assert.Equal(t, "The complaint: weak when hot, leaks at the shaft", last.Name)
	assert.Contains(t, last.How, "as hot as on the machine; turning, warm")
	assert.Equal(t, []string{family.ComplaintGone}, last.Good)

	plan = proof.Plan(proof.Asked{Family: f, On: all, Symptoms: nil, Words: "  it groans in the mornings "})
	assert.Equal(t, "as it was told: “it groans in the mornings”", plan[len(plan)-1].How)
	assert.Len(
		t,
		proof.Plan(proof.Asked{Family: f, On: all, Symptoms: nil, Words: " "}),
		len(f.Tests),
		"nobody complained: nothing is made up",
	)
}

// The complaint's own condition is asked where it was told: its pressure, its oil within 5 K, and as long
// as it took to come.
func TestTheComplaintIsCalledUpInItsOwnCondition(t *testing.T) {
	at := func(text string, d quantity.Dimension) quantity.Quantity { return sized(t, text, d) }
	plan := proof.Plan(proof.Asked{Family: gearPump(t), On: all, Words: "it groans in the mornings",
		Condition: family.Condition{Pressure: at("120 bar", quantity.Pressure), Time: at("8 h", quantity.Time),
			Temperature: at("-5 °C", quantity.Temperature)}})
	step := &plan[len(plan)-1].Test
	assert.Equal(t, "8 h", step.Hold)
	r := press()
	r.Level = func(family.Tight) (float64, string) { return 120e5, "" }
	for temperature, v := range map[string]metrology.Verdict{"-4 °C": metrology.In, "20 °C": metrology.Out, "": ""} {
		figures := map[string]string{"pressure": "120 bar", "temperature": temperature}
		if temperature == "" {
			delete(figures, "temperature")
		}
		point := read(t, family.ComplaintGone, figures)
		assert.Equal(t, v, proof.JudgeStep(step, point, r).Verdict, temperature)
	}
	low := read(t, family.ComplaintGone, map[string]string{"pressure": "90 bar", "temperature": "-5 °C"})
	assert.True(t, proof.JudgeStep(step, low, r).Short)
}

// Every symptom of the vocabulary says under what condition it is called up again.
func TestEverySymptomHasItsCondition(t *testing.T) {
	seen := map[string]string{}
	for _, s := range family.Symptoms {
		require.NotEmpty(t, s.Again, s.Code)
		assert.Empty(t, seen[s.Again], "%s and %s are called up alike", s.Code, seen[s.Again])
		seen[s.Again] = s.Code
	}
}

// A step that came with an assembly does not apply where the assembly is away; one
// piece of it left on the unit, and it does.
func TestStepsOfWhatIsAwayDoNotApply(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	tried := 0
	for code, f := range lib {
		for _, step := range f.Tests {
			if step.Assembly == "" {
				continue
			}
			tried++
			away := func(part string) bool {
				p, ok := f.PartByCode(part)
				return ok && p.Assembly != step.Assembly
			}
			skipped := steps(proof.Plan(proof.Asked{Family: f, On: away, Symptoms: nil, Words: ""}))
			assert.Contains(t, skipped[step.Code].Skipped, "is not on this unit", "%s %s", code, step.Code)
			assert.Empty(
				t,
				steps(proof.Plan(proof.Asked{Family: f, On: all, Symptoms: nil, Words: ""}))[step.Code].Skipped,
				"%s %s",
				code,
				step.Code,
			)
			for _, other := range f.Tests {
				if other.Assembly == "" && !other.Judges(family.BySetting) {
					assert.Empty(t, skipped[other.Code].Skipped, "%s %s", code, other.Code)
				}
			}
		}
	}
	assert.Greater(t, tried, 5)
}
