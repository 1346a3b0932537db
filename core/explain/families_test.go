package explain_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"sort"
	"testing"

	"corvek/core/explain"
	"corvek/core/family"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// eachFamily goes through the families with what there is to know of a whole unit of each.
func eachFamily(t *testing.T, f func(t *testing.T, fam *family.Family, k *explain.Knowledge)) {
	t.Helper()
	lib, err := family.Shipped()
	require.NoError(t, err)
	b := base(t)
	for _, fam := range lib.List() {
		t.Run(fam.Code, func(t *testing.T) { f(t, fam, b.For(fam.Code).Of(fam.Has())) })
	}
}

// eachUnit goes through the families and, where they are another unit, their variants.
func eachUnit(t *testing.T, f func(t *testing.T, fam *family.Family, k *explain.Knowledge)) {
	t.Helper()
	eachFamily(t, f)
	lib, err := family.Shipped()
	require.NoError(t, err)
	b := base(t)
	for _, fam := range lib.List() {
		for _, v := range fam.VariantRules {
			own, err := fam.As(v.Code, nil)
			require.NoError(t, err)
			if own != fam {
				t.Run(fam.Code+" "+v.Code, func(t *testing.T) { f(t, own, b.For(fam.Code).Of(own.Has())) })
			}
		}
	}
}

// shownBy are the marks that a cause leaves as a rule and that are not there without
// it, those first that are soonest looked at.
func shownBy(k *explain.Knowledge, c *explain.Cause) (out []*explain.Evidence) {
	for i := range k.Evidence {
		e := &k.Evidence[i]
		if c.Points[e.Code].P() >= 0.75 && e.Background.P() <= 0.12 {
			out = append(out, e)
		}
	}
	sort.SliceStable(out, func(a, b int) bool { return out[a].Minutes < out[b].Minutes })
	return out
}

// The four of its marks that a bench comes upon first put every cause of every family
// in front, with the rest not looked at.
func TestEveryCauseOfEveryFamilyIsFound(t *testing.T) {
	eachUnit(t, func(t *testing.T, _ *family.Family, k *explain.Knowledge) {
		for i := range k.Causes {
			c := &k.Causes[i]
			marks := shownBy(k, c)
			if !assert.GreaterOrEqual(t, len(marks), 2, "%s leaves too few marks of its own", c.Code) {
				continue
			}
			var found []explain.Finding
			for _, e := range marks[:min(4, len(marks))] {
				found = append(found, explain.Finding{Code: e.Code, Strength: explain.Seen})
			}
			lead := k.Explain(found).Ranking[0]
			assert.Equal(t, c.Code, lead.Cause.Code, "found %v: %.2f", found, lead.Posterior)
		}
	})
}

// A telltale alone settles it, whatever is usual.
func TestATelltaleAloneOutweighsAnyPrior(t *testing.T) {
	eachUnit(t, func(t *testing.T, _ *family.Family, k *explain.Knowledge) {
		for i := range k.Evidence {
			e := &k.Evidence[i]
			if !e.Telltale() {
				continue
			}
			x := k.Explain([]explain.Finding{{Code: e.Code, Strength: explain.Seen}})
			lead := x.Ranking[0]
			assert.GreaterOrEqual(t, lead.Cause.Points[e.Code].P(), 0.4, "%s points to %s", e.Code, lead.Cause.Code)
			assert.NotEqual(t, "fair_wear", lead.Cause.Code, e.Code)
		}
	})
}

// No family is asked for marks of what its units have not, whichever of their parts
// and assemblies are away.
func TestNoMarkOfWhatIsNotThere(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 5))
	lib, err := family.Shipped()
	require.NoError(t, err)
	b := base(t)
	for _, fam := range lib.List() {
		for round := range 20 {
			gone := map[string]bool{}
			for _, p := range fam.Parts {
				gone[p.Code] = round > 0 && r.Float64() < 0.3
			}
			for _, in := range fam.Instances {
				if round > 0 && r.Float64() < 0.3 {
					for _, code := range in.Parts {
						gone[code] = true
					}
				}
			}
			has := fam.HasOf(func(code string) bool { return !gone[code] })
			k := b.For(fam.Code).Of(has)
			codes := map[string]bool{}
			for _, e := range k.Evidence {
				codes[e.Code] = true
				part, known := fam.PartByCode(e.Part)
				assert.True(
					t,
					e.Part == "" || known && !gone[part.Code],
					"%s asks for %s of the %s",
					fam.Code,
					e.Code,
					e.Part,
				)
				assert.True(t, len(e.Needs) == 0 || slices.ContainsFunc(e.Needs, has), "%s %s", fam.Code, e.Code)
			}
			for _, c := range k.Causes {
				assert.True(t, len(c.Needs) == 0 || slices.ContainsFunc(c.Needs, has), "%s %s", fam.Code, c.Code)
				for code := range c.Points {
					assert.True(t, codes[code], "%s: %s speaks of %s", fam.Code, c.Code, code)
				}
			}
		}
	}
}

// Whatever is told of a unit is heard: every symptom of its family, and every answer
// from the machine that points anywhere.
func TestEverythingToldIsEvidence(t *testing.T) {
	eachFamily(t, func(t *testing.T, fam *family.Family, k *explain.Knowledge) {
		heard := map[explain.From]bool{}
		for _, e := range k.Evidence {
			heard[explain.From{Symptom: e.From.Symptom, Gauge: e.From.Gauge}] = true
		}
		for _, s := range fam.Symptoms {
			assert.True(t, heard[explain.From{Symptom: s}], "the symptom %s is no evidence", s)
		}
		for _, code := range fam.Gauge {
			q, _ := family.QuestionByCode(code)
			for _, a := range q.Answers {
				// That something is whole is told by the absence of what else the question could have shown.
				if a.Points != family.Open && a.Points != family.Sound {
					assert.True(
						t,
						heard[explain.From{Gauge: explain.Answered{To: code, With: a.Code}}],
						"the answer %s=%s is no evidence",
						code,
						a.Code,
					)
				}
			}
		}
	})
}

// Of thin cases (a complaint, one to three own marks, one or two looks that found nothing, one or two red herrings)
// the true cause is in front in three of four in each family, and not much less often where the cases are drawn
// from knowledge that is a little wrong; what is said to be so is so about as often, and few leads would renew a
// unit for what came from outside.
func TestThinCasesOfEveryFamily(t *testing.T) {
	whole.Only(t)
	var all explain.Thin
	var falsified float64
	families := 0.0
	eachFamily(t, func(t *testing.T, _ *family.Family, k *explain.Knowledge) {
		k = k.In(explain.Situation{Reached: explain.Stripped, MayRun: true})
		x, wrong := k.TryThin(80, false, 3), k.TryThin(80, true, 4)
		assert.LessOrEqual(t, x.MarksTop, 9, "thin")
		assert.GreaterOrEqual(t, x.First, 0.65)
		assert.GreaterOrEqual(t, x.FirstThree, 0.86)
		all.First += x.First
		all.Led += x.Led
		all.Dangerous += x.Dangerous
		for i := range x.InBin {
			n := float64(x.InBin[i])
			all.Said[i] += n * x.Said[i]
			all.So[i] += n * x.So[i]
			all.InBin[i] += x.InBin[i]
		}
		falsified += wrong.First
		families++
	})
	assert.GreaterOrEqual(t, all.First/families, 0.78)
	assert.GreaterOrEqual(t, falsified/families, 0.76)
	assert.LessOrEqual(t, float64(all.Dangerous)/float64(all.Led), 0.05)
	for i, n := range all.InBin {
		if n < 400 {
			continue
		}
		said, so := all.Said[i]/float64(n), all.So[i]/float64(n)
		assert.InDelta(t, said, so, 0.09, "tenth %d: said %.3f, so %.3f of %d", i, said, so, n)
	}
}

// Following the list of what to look at next takes well under the minutes of a fixed
// order, quick checks first.
func TestTheNextCheckSavesTime(t *testing.T) {
	for _, code := range whole.Of(t, []string{"axial_piston_pump", "double_acting_cylinder", "winch_brake_pack",
		"relief_valve"}) {
		r := base(t)[code].RaceOnce(40, 3)
		assert.Less(t, r.Guided, 0.6*r.Fixed, fmt.Sprintf("%s: %.0f and %.0f min", code, r.Guided, r.Fixed))
		assert.GreaterOrEqual(t, r.GuidedSure, r.FixSure-0.1, code)
	}
}

// A part broken clean, and nothing else looked at, makes no exotic cause lead.
func TestALoneBrokenPartDecidesNothing(t *testing.T) {
	eachFamily(t, func(t *testing.T, _ *family.Family, k *explain.Knowledge) {
		x := k.Explain([]explain.Finding{{Code: "broken_part", Strength: explain.Seen}})
		lead := x.Ranking[0]
		assert.Less(t, lead.Posterior, 0.35, lead.Cause.Code)
		assert.Contains(t, []string{"fair_wear", "shock", "misassembly", "contamination"}, lead.Cause.Code)
	})
}
