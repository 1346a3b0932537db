package explain_test

import (
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"corvek/core/explain"
	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// written is a case as it came to a bench, written from the trade before it was run.
type written struct {
	line          int
	family, story string
	leads, not    []string // causes of which one leads; that must not lead
	next          []string // looks of which one is among the first three, none where it is not asked
	found         []explain.Finding
}

// openCase is the word for a case in which nothing may lead.
const openCase = "open"

func writtenCases(t testing.TB, name string) (out []written) {
	t.Helper()
	text, err := os.ReadFile("testdata/" + name)
	require.NoError(t, err)
	for i, line := range strings.Split(string(text), "\n") {
		if line == "" || line[0] == '#' {
			continue
		}
		cells := strings.Split(line, "|")
		require.Len(t, cells, 6, "%s:%d", name, i+1)
		for k := range cells {
			cells[k] = strings.TrimSpace(cells[k])
		}
		c := written{line: i + 1, family: cells[0], story: cells[1], leads: strings.Fields(cells[2]),
			not: strings.Fields(cells[3]), found: notes(cells[5])}
		if cells[4] != "-" {
			c.next = strings.Fields(cells[4])
		}
		out = append(out, c)
	}
	return out
}

// known is the knowledge of a whole unit of a family that lies stripped and washed.
func (c *written) known(t testing.TB) *explain.Knowledge {
	lib, err := family.Shipped()
	require.NoError(t, err)
	b, err := explain.Shipped()
	require.NoError(t, err)
	fam := lib[c.family]
	require.NotNil(t, fam, c.family)
	return b.For(c.family).Of(fam.Has()).In(explain.Situation{Reached: explain.Stripped, MayRun: true})
}

// Each sign and each cause of a written case is one that its family knows, four to six are found, and every family is
// spoken of.
func TestWrittenCasesSpeakOfWhatThereIs(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, name := range []string{"cases.txt", "cases_apart.txt"} {
		met := map[string]int{}
		cases := writtenCases(t, name)
		assert.GreaterOrEqual(t, len(cases), 120, name)
		for _, c := range cases {
			k := c.known(t)
			met[c.family]++
			where := fmt.Sprintf("%s:%d", name, c.line)
			for _, f := range c.found {
				_, known := k.EvidenceByCode(f.Code)
				assert.True(t, known, "%s: %s is no sign of %s", where, f.Code, c.family)
			}
			for _, code := range c.next {
				_, known := k.EvidenceByCode(code)
				assert.True(t, known, "%s: %s is no look at %s", where, code, c.family)
			}
			for _, code := range slices.Concat(c.leads, c.not) {
				_, known := k.CauseByCode(code)
				assert.True(t, known || code == openCase, "%s: %s is no cause of %s", where, code, c.family)
			}
			assert.True(t, len(c.found) >= 2 && len(c.found) <= 6, "%s: %d are found", where, len(c.found))
		}
		for code := range lib {
			assert.GreaterOrEqual(t, met[code], 2, "%s: %s", name, code)
		}
	}
}

// judged is what the engine made of a written case.
type judged struct {
	right, costly bool // a cause that the case names leads; one leads that would renew what is sound
	looked        bool // a look that a master would take is among the first three
	why           string
}

// costly is the probability from which a wrong lead costs somebody money: it is acted on.
const costly = 0.5

func judge(t testing.TB, c *written) judged {
	k := c.known(t)
	x := k.Explain(c.found)
	lead := x.Ranking[0]
	j := judged{right: slices.Contains(c.leads, lead.Cause.Code), looked: len(c.next) == 0}
	_, leads := explain.Lead(x.Ranking)
	if slices.Contains(c.leads, openCase) {
		j.right = !leads
	}
	j.costly = !j.right && leads && lead.Posterior >= costly && slices.Contains(c.not, lead.Cause.Code)
	var first []string
	for _, check := range x.Next[:min(3, len(x.Next))] {
		first = append(first, check.Evidence.Code)
		for _, e := range check.Or {
			first = append(first, e.Code)
		}
	}
	for _, code := range c.next {
		j.looked = j.looked || slices.Contains(first, code)
	}
	var ranked []string
	for _, r := range x.Ranking[:3] {
		ranked = append(ranked, fmt.Sprintf("%s %.2f", r.Cause.Code, r.Posterior))
	}
	j.why = fmt.Sprintf(
		"%s: wants %s, got %s; next %s",
		c.story,
		strings.Join(c.leads, "/"),
		strings.Join(ranked, ", "),
		strings.Join(first, " "),
	)
	return j
}

// summed judges all cases of a file; every miss is told.
func summed(t *testing.T, name string) (right, wrong, looked, asked, all int) {
	for _, c := range writtenCases(t, name) {
		j := judge(t, &c)
		all++
		if len(c.next) > 0 {
			asked++
			if j.looked {
				looked++
			}
		}
		switch {
		case j.right:
			right++
		case j.costly:
			wrong++
			t.Logf("%s:%d COSTLY %s: %s", name, c.line, c.family, j.why)
		default:
			t.Logf("%s:%d %s: %s", name, c.line, c.family, j.why)
		}
		if !j.looked {
			t.Logf("%s:%d look %s: wanted one of %v; %s", name, c.line, c.family, c.next, j.why)
		}
	}
	t.Logf(
		"%s: %d of %d right, %d costly, a master's look among the first three in %d of %d",
		name,
		right,
		all,
		wrong,
		looked,
		asked,
	)
	return right, wrong, looked, asked, all
}

// The cases to work with.
func TestCasesAsTheyCome(t *testing.T) {
	right, wrong, _, _, all := summed(t, "cases.txt")
	assert.GreaterOrEqual(t, right, all*9/10)
	assert.LessOrEqual(t, wrong, 2)
}

// The cases that were kept apart while engine and knowledge were worked on: of 128 at least 112 right, and at most
// two wrong leads that would cost somebody money. A look that a master would take is to stand among the first three
// in nine of ten; the list does not do that yet, and what is held here is only that it does not get worse.
func TestCasesKeptApart(t *testing.T) {
	right, wrong, looked, asked, all := summed(t, "cases_apart.txt")
	assert.GreaterOrEqual(t, right, all*105/120)
	assert.LessOrEqual(t, wrong, 2)
	assert.GreaterOrEqual(t, looked, asked*17/20, "the goal is nine in ten")
}
