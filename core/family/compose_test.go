package family_test

import (
	"testing"

	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const valved = `code: valved
name: Valved
action: pump
axes: [0]
variant_rules:
  - code: plain
    name: Without relief
    suffix: [N]
    change: {without: [relief]}
  - code: strong
    name: Strong spring
    suffix: [H]
    change:
      parts:
        relief_spring: {features: [{code: free_length, cols: 4}, {code: wire, name: Wire, method: value}]}
        body: {count: 2}
      tests: {relief: {hold: "2 min"}}
      with: [{after: body, use: check_valve, as: check}, {code: strainer, name: Strainer, kind: tube}]
      accept: {relief_low: 1.2}
parts:
  - {code: body, name: Body, kind: body, shape: {w: 30, od: 30, top: 30, base: -30}}
  - use: relief_valve
    as: relief
    branch: Relief valve
    without: [shims]
    change: {cap: {bolt: {circle: 4}, checks: []}}
tests:
  - {code: free, name: Free, kind: observe}
  - {code: leak, name: Leak, kind: leak}
relief: {part: relief_spring, feature: free_length, installed: relief_spring.installed,
  seat: relief_poppet.seat_diameter}
`

func codes(f *family.Family) (out []string) {
	for _, p := range f.Parts {
		out = append(out, p.Code)
	}
	return out
}

func steps(f *family.Family) (out []string) {
	for _, t := range f.Tests {
		out = append(out, t.Code)
	}
	return out
}

func part(t *testing.T, f *family.Family, code string) *family.Part {
	t.Helper()
	p, ok := f.PartByCode(code)
	require.True(t, ok, code)
	return p
}

func TestAFamilyIsPutTogetherFromAssemblies(t *testing.T) {
	f, err := family.Load("valved.yaml", []byte(valved))
	require.NoError(t, err)
	assert.Equal(t, []string{"body", "relief_cap", "relief_spring", "relief_poppet"}, codes(f))
	assert.Equal(t, []string{"free", "relief", "leak"}, steps(f), "what an assembly asks stands before the leak watch")
	cap := part(t, f, "relief_cap")
	assert.Equal(t, family.Bolt{Circle: 4}, *cap.Bolt)
	assert.Empty(t, cap.Checks)
	assert.Equal(t, "Relief valve", cap.Branch)
	assert.Equal(t, "relief", cap.Assembly)
	require.Len(t, f.Instances, 1)
	assert.Equal(t, family.Instance{Code: "relief", Assembly: "relief_valve", Name: "Relief valve", Base: "relief",
		Parts: []string{"relief_cap", "relief_spring", "relief_poppet"}}, f.Instances[0])

	shipped, err := family.Shipped()
	require.NoError(t, err)
	assert.Zero(t, part(t, shipped["external_gear_pump"], "relief_cap").Bolt.Circle,
		"a change here does not reach the assembly of others")
}

func TestAVariantChangesItsUnit(t *testing.T) {
	f, err := family.Load("valved.yaml", []byte(valved))
	require.NoError(t, err)
	plain, err := f.As("plain", nil)
	require.NoError(t, err)
	assert.Equal(t, []string{"body"}, codes(plain))
	assert.Nil(t, plain.Relief, "there is no spring to set")
	assert.Empty(t, plain.Instances)

	strong, err := f.As("Strong spring", nil)
	require.NoError(t, err)
	assert.Equal(t, []string{"body", "check_plug", "check_spring", "check_ball", "relief_cap", "relief_spring",
		"relief_poppet", "strainer"}, codes(strong))
	spring := part(t, strong, "relief_spring")
	length, _ := spring.FeatureByCode("free_length")
	assert.Equal(t, 4, length.Cols)
	assert.Equal(t, "Free length", length.Name, "what the variant does not name stays")
	_, wire := spring.FeatureByCode("wire")
	assert.True(t, wire)
	assert.Equal(t, 2, part(t, strong, "body").Count)
	relief, _ := strong.TestByCode("relief")
	assert.Equal(t, "2 min", relief.Hold)
	assert.Equal(t, "Relief setting", relief.Name)
	assert.InDelta(t, 1.2, strong.Accept.ReliefLow, 1e-9)

	for _, p := range strong.Parts {
		assert.Positive(t, p.Count, p.Code)
		for _, ft := range p.Features {
			assert.Positive(t, ft.Rows*ft.Cols, "%s.%s", p.Code, ft.Code)
			assert.NotEmpty(t, ft.LimitSource, "%s.%s", p.Code, ft.Code)
		}
	}
	assert.Equal(t, 1, part(t, f, "body").Count, "the family itself is as it was")
	same, err := f.As("something typed by hand", nil)
	require.NoError(t, err)
	assert.Same(t, f, same)
}

func TestAnAssemblyStandsOnceMore(t *testing.T) {
	f, err := family.Load("valved.yaml", []byte(valved))
	require.NoError(t, err)
	two, err := f.As("", map[string]int{"relief": 1})
	require.NoError(t, err)
	assert.Equal(t, []string{"body", "relief_cap", "relief_spring", "relief_poppet", "relief_2.cap", "relief_2.spring",
		"relief_2.poppet"}, codes(two))
	assert.Equal(t, []string{"free", "relief", "relief_2_relief", "leak"}, steps(two))
	p := part(t, two, "relief_2.spring")
	assert.Equal(t, "Relief spring, relief valve 2", p.Name)
	assert.Equal(t, "Relief valve 2", p.Branch)
	assert.Equal(t, "relief_spring", two.Relief.Part, "the first sets the pressure of the unit")
	_, err = f.As("", map[string]int{"relief": 500})
	assert.ErrorContains(t, err, "at most 24 times")

	part, feature := family.CutFeature("relief_2.spring.free_length")
	assert.Equal(t, "relief_2.spring", part)
	assert.Equal(t, "free_length", feature)
}

func TestFaultsOfCompositionNameTheirLine(t *testing.T) {
	head := "code: x\nname: X\naction: pump\nparts:\n  - {code: a, name: A, kind: plate}\n"
	rule := "variant_rules:\n  - {code: v, name: V, suffix: [V], change: "
	for name, c := range map[string]struct{ text, says string }{
		"no such assembly": {head + "  - {use: engine}\n", "x.yaml:6: there is no assembly \"engine\""},
		"key not known":    {head + "  - {use: check_valve, colour: red}\n", "line 6: \"colour\" is not known"},
		"part not in assembly": {head + "  - {use: check_valve, without: [hat]}\n",
			"x.yaml:6: the assembly check_valve has"},
		"changed part not there": {head + "  - {use: check_valve, change: {hat: {count: 2}}}\n", "has no part \"hat\""},
		"changed key not known":  {head + "  - {use: check_valve, change: {ball: {size: 2}}}\n", "line 6: \"size\""},
		"too many": {head + "  - {use: check_valve, as: c, times: 90}\n",
			"x.yaml:6: an assembly stands at most"},
		"bad figure in a change": {head + "  - use: check_valve\n    change:\n      spring: {features: [{code: " +
			"free_length, upper: 3 bar}]}\n", "free_length upper"},
		"variant changes nothing known": {head + rule + "{parts: {b: {count: 2}}}}\n",
			"x.yaml:7: there is no part \"b\" to change (in the variant v)"},
		"variant of bad count":                 {head + rule + "{parts: {a: {count: 99999}}}}\n", "99999 pieces"},
		"variant takes away what is not there": {head + rule + "{without: [b]}}\n", "no part or assembly \"b\""},
		"variant adds after nothing": {head + rule + "{with: [{after: q, use: check_valve}]}}\n",
			"no part or assembly \"q\" to come after"},
		"variant with an unknown key": {head + rule + "{colour: red}}\n", "\"colour\" is not known"},
		"variant of an unknown step":  {head + rule + "{tests: {p9: {hold: 2 min}}}}\n", "no step \"p9\""},
	} {
		t.Run(name, func(t *testing.T) {
			_, err := family.Load("x.yaml", []byte(c.text))
			require.ErrorContains(t, err, c.says)
		})
	}
}

// What ships is whole: each kind that is named has marks, each assembly is used.
func TestShippedAssembliesAndKinds(t *testing.T) {
	all, err := family.Assemblies()
	require.NoError(t, err)
	lib, err := family.Shipped()
	require.NoError(t, err)
	used := map[string]int{}
	for _, f := range lib {
		for _, in := range f.Instances {
			used[in.Assembly]++
			assert.True(t, f.Repeats(in.Base))
		}
		for _, v := range f.VariantRules {
			own, err := f.As(v.Code, nil)
			require.NoError(t, err)
			for _, in := range own.Instances {
				used[in.Assembly]++
			}
		}
	}
	for code := range all {
		assert.Positive(t, used[code], "no family has the assembly %s", code)
	}
	for _, code := range family.Kinds() {
		assert.NotEmpty(t, family.MarksOf(code), code)
		k, ok := family.KindByCode(code)
		require.True(t, ok)
		assert.Positive(t, k.Shape.W, "%s cannot be drawn", code)
	}
}
