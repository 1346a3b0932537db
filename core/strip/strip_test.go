package strip_test

import (
	"testing"

	"corvek/core/strip"

	"github.com/stretchr/testify/assert"
)

func codes(issues []strip.Issue) []string {
	var out []string
	for _, i := range issues {
		out = append(out, string(i.Kind))
	}
	return out
}

func TestCheck(t *testing.T) {
	needles := strip.Part{Code: "needles", Name: "Needles", Off: true, Expected: 34, Found: 33, Counted: true}
	cases := []struct {
		name  string
		parts []strip.Part
		loose []strip.Loose
		want  []string
	}{
		{"one needle short", []strip.Part{needles}, nil, []string{"short"}},
		{"found loose in the sump", []strip.Part{with(needles, func(p *strip.Part) { p.Loose = 1 })},
			[]strip.Loose{{What: "needle", Tied: true}}, nil},
		{"explained", []strip.Part{with(needles, func(p *strip.Part) { p.Explained = "lost by the bench" })}, nil, nil},
		{"a ring in three pieces is one ring", []strip.Part{{Off: true, Expected: 1, Counted: true, Fragments: 3,
			FragmentsMake: 1}}, nil, nil},
		{
			"nine pistons and a bit of one",
			[]strip.Part{{Off: true, Expected: 10, Found: 9, Counted: true, Fragments: 1}},
			nil,
			[]string{"short"},
		},
		{
			"one bit cannot make up two",
			[]strip.Part{{Off: true, Expected: 2, Counted: true, Fragments: 1, FragmentsMake: 2}},
			nil,
			[]string{"short"},
		},
		{"a single piece that is off was there", []strip.Part{{Off: true, Expected: 1}}, nil, nil},
		{"a ring of which there is nothing faces nowhere", []strip.Part{{Off: true, Expected: 1, Counted: true,
			Facings: true}}, nil, []string{"short"}},
		{"one too many", []strip.Part{with(needles, func(p *strip.Part) { p.Found = 35 })}, nil, []string{"over"}},
		{"not counted is not zero", []strip.Part{with(needles, func(p *strip.Part) { p.Counted = false })}, nil,
			[]string{"uncounted"}},
		{"still on", []strip.Part{with(needles, func(p *strip.Part) { p.Off = false })}, nil, []string{"still_on"}},
		{"facing left out", []strip.Part{{Code: "plate", Name: "Plate", Off: true, Expected: 1, Found: 1,
			Counted: true, Facings: true}}, nil, []string{"facing"}},
		{"pin in the sump, none missing", []strip.Part{{Off: true, Expected: 2, Found: 2, Counted: true}},
			[]strip.Loose{{What: "pin"}}, []string{"loose"}},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) { assert.Equal(t, c.want, codes(strip.Check(c.parts, c.loose))) })
	}
}

func with(p strip.Part, f func(*strip.Part)) strip.Part { f(&p); return p }
