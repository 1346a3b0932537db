package explain_test

import (
	"testing"

	"corvek/core/explain"
	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func base(t testing.TB) explain.Base {
	b, err := explain.Shipped()
	require.NoError(t, err)
	return b
}

func TestKnowledgeCoversTheBench(t *testing.T) {
	b := base(t)
	lib, err := family.Shipped()
	require.NoError(t, err)
	causes, evidence := map[string]bool{}, map[string]bool{}
	for _, f := range lib.List() {
		k := b[f.Code]
		if !assert.NotNil(t, k, "%s has no knowledge of its own", f.Code) {
			continue
		}
		for _, c := range k.Causes {
			causes[c.Name] = true
			assert.NotEmpty(t, c.Remedy, "%s %s", f.Code, c.Code)
			assert.NotEmpty(t, c.Prevention, "%s %s", f.Code, c.Code)
			assert.NotEmpty(t, c.Chain, "%s %s", f.Code, c.Code)
			assert.GreaterOrEqual(t, len(c.Points), 2, "%s %s", f.Code, c.Code)
			if c.Where == "outside" {
				assert.NotEmpty(t, c.Action, "%s %s lies outside and asks for an action", f.Code, c.Code)
			}
		}
		for _, e := range k.Evidence {
			evidence[e.Text] = true
		}
		assert.GreaterOrEqual(t, len(k.Causes), 16, f.Code)
	}
	assert.GreaterOrEqual(t, len(causes), 60)
	assert.GreaterOrEqual(t, len(evidence), 200)
	t.Logf("%d root causes, %d items of evidence", len(causes), len(evidence))
}

// What a remedy renews is a part or a kind of a unit that the cause can meet.
func TestRemediesRenewPartsThatAre(t *testing.T) {
	met, named := map[string]bool{}, map[string]bool{}
	eachUnit(t, func(_ *testing.T, f *family.Family, k *explain.Knowledge) {
		for i := range k.Causes {
			c := &k.Causes[i]
			for _, what := range c.Renews {
				one := explain.Cause{Renews: []string{what}}
				named[c.Code+" "+what] = true
				for _, p := range f.Parts {
					met[c.Code+" "+what] = met[c.Code+" "+what] || one.RenewsPart(p.Code, p.Kind)
				}
			}
		}
	})
	require.NotEmpty(t, named)
	for what := range named {
		assert.True(t, met[what], "%s renews nothing in any unit", what)
	}
}
