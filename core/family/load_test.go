package family_test

import (
	"fmt"
	"strings"
	"testing"

	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestShippedFamiliesLoad(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	pump := lib["external_gear_pump"]
	require.NotNil(t, pump)
	p, ok := pump.PartByCode("rear_plate")
	require.True(t, ok)
	side, ok := p.FeatureByCode("side_clearance")
	require.True(t, ok)
	require.NotNil(t, side.Rule)
	assert.Equal(t, "drive_gear.width", side.Rule.Of)
	for _, f := range lib {
		for _, part := range f.Parts {
			assert.Positive(t, part.Count, "%s %s", f.Code, part.Code)
			assert.Positive(t, part.Shape.W, "%s %s has no length to draw", f.Code, part.Code)
		}
	}
}

func TestLoadNamesFileAndLine(t *testing.T) {
	head := "code: x\nname: X\naction: pump\nparts:\n"
	cases := []struct{ name, text, says string }{
		{"unknown part key", head + "  - {code: a, name: A, kind: plate, colour: red}\n", "x.yaml: line 5"},
		{"bad quantity", head + "  - code: a\n    name: A\n    kind: plate\n    features:\n      - {code: f, name: " +
			"F, method: value, upper: 7 bar}\n", "x.yaml:9: a.f upper"},
		{"feeler without leaves", head + "  - code: a\n    name: A\n    kind: plate\n    features:\n      - {code: " +
			"f, name: F, method: feeler}\n", "x.yaml:9"},
		{"facing not offered", head + "  - {code: a, name: A, kind: plate, facings: [left], facing: right}\n",
			"x.yaml:5"},
		{"part twice", head + "  - {code: a, name: A, kind: plate}\n  - {code: a, name: A, kind: plate}\n", "x.yaml:6"},
		{"leak from nowhere", head + "  - {code: a, name: A, kind: plate}\nleaks:\n  - {name: l, feature: a.gap, " +
			"shape: plane}\n", "x.yaml:7"},
		{"unknown caution", head + "  - {code: a, name: A, kind: plate, cautions: [dragons]}\n", "dragons"},
		{"bad thread", head + "  - {code: a, name: A, kind: bolts, bolt: {thread: M13, class: unknown}}\n", "M13"},
		{"a shape of no size", head + "  - {code: a, name: A, kind: plate, shape: {w: .nan}}\n",
			"x.yaml:5: .nan is no ordinary number"},
		{"an endless size", head + "  - {code: a, name: A, kind: plate, shape: {w: .inf}}\n",
			"x.yaml:5: .inf is no ordinary number"},
		{
			"limits upside down",
			head + "  - {code: a, name: A, kind: plate, features: [{code: f, name: F, method: value, " +
				"lower: 3 mm, upper: 2 mm}]}\n",
			"x.yaml:5: a.f: the lower limit 3 mm lies above the upper one, 2 mm",
		},
		{"a shape of a ship", head + "  - {code: a, name: A, kind: plate, shape: {w: 3, od: 1.0e+9}}\n",
			"x.yaml:5: part a: a size"},
		{"no yaml", "code: [", "x.yaml"},
		{"kind that cannot be drawn", head + "  - {code: a, name: A, kind: dragon}\n",
			"x.yaml:5: part a: kind \"dragon\""},
		{"unknown gauge question", "code: x\nname: X\naction: pump\ngauge: [weather]\nparts:\n  - {code: a, name: " +
			"A, kind: plate}\n", "x.yaml:4: gauge question \"weather\""},
		{"unknown symptom", "code: x\nname: X\naction: pump\nsymptoms: [tired]\nparts:\n  - {code: a, name: A, " +
			"kind: plate}\n", "x.yaml:4: symptom"},
		{"variant nothing tells", head + "  - {code: a, name: A, kind: plate}\nvariant_rules:\n  - {code: v, name: " +
			"V}\n", "x.yaml:7: variant v: nothing tells it"},
		{"variant by an unknown mark", head + "  - {code: a, name: A, kind: plate}\nvariant_rules:\n  - {code: v, " +
			"name: V, mark: hat}\n", "x.yaml:7: variant v: mark \"hat\""},
		{"serials backwards", head + "  - {code: a, name: A, kind: plate}\nvariant_rules:\n  - {code: v, name: V, " +
			"serial_from: 9, serial_to: 3}\n", "x.yaml:7: variant v: the serial range"},
		{"variant by an unknown feature", head + "  - {code: a, name: A, kind: plate}\nvariant_rules:\n  - {code: " +
			"v, name: V, measured: {feature: a.b, low: 1 mm, high: 2 mm}}\n",
			"x.yaml:7: variant v: there is no feature \"a.b\""},
		{"stack without pieces", head + "  - {code: a, name: A, kind: shims, stack: {installed: 3 mm}}\n",
			"x.yaml:5: part a: a stack needs its pieces"},
		{"stack that cannot be read", head + "  - {code: a, name: A, kind: shims, stack: {pieces: [{code: s, name: " +
			"S, kind: shim}], as: s s t}}\n", "x.yaml:5: part a: stack piece 3"},
		{"pack that nothing presses", head + "  - {code: a, name: A, kind: plate_pack, features: [{code: d, name: D, " +
			"method: value}], stack: {pieces: [{code: f, name: F, kind: friction}], " +
			"friction: {pressed_by: b, outer: a.d, inner: a.d}}}\n", "x.yaml:5: part a: pressed_by"},
		{"pack of a size", head + "  - {code: a, name: A, kind: plate_pack, stack: {pieces: [{code: f, name: F, " +
			"kind: friction}], friction: {outer: 10 mm, inner: 20 mm}}}\n",
			"x.yaml:5: part a: friction: it goes by 10 mm"},
		{"stack of a wrong spring", head + "  - {code: a, name: A, kind: shims, stack: {pieces: [{code: d, name: D, " +
			"kind: disc, faced: true}], spring: {outside: 20 mm, inside: 30 mm, thickness: 1 mm, cone: 1 mm}}}\n",
			"x.yaml:5: part a: spring inside"},
		{"far too many pieces", head + "  - {code: a, name: A, kind: shims, count: 1000000}\n",
			"x.yaml:5: part a: 1000000 pieces"},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			_, err := family.Load("x.yaml", []byte(c.text))
			require.Error(t, err)
			assert.Contains(t, err.Error(), c.says)
		})
	}
}

// Files that would cost much are refused with the line, and at once.
func TestHostileFamilyFilesAreRefused(t *testing.T) {
	const head = "code: x\nname: X\naction: pump\nparts:\n"
	const grid = "  - {code: a, name: A, kind: plate, features: [{code: f, name: F, method: grid, "
	part := "  - {code: a%d, name: A, kind: plate}\n"
	many := func(n int, line string) string {
		var b strings.Builder
		for i := range n {
			fmt.Fprintf(&b, line, i)
		}
		return b.String()
	}
	bomb := "a0: &a0 [x,x,x,x,x,x,x,x,x]\n"
	for i := range 9 {
		bomb += fmt.Sprintf("a%d: &a%d [*a%d,*a%d,*a%d,*a%d,*a%d,*a%d,*a%d,*a%d]\n", i+1, i+1, i, i, i, i, i, i, i, i)
	}
	for name, c := range map[string]struct{ text, says string }{
		"long":       {head + "# " + strings.Repeat("x", family.MostText), "x.yaml: is longer than 256 kB"},
		"aliases":    {bomb, "x.yaml:1: anchors and aliases"},
		"deep":       {strings.Repeat("[", 5000), "x.yaml"},
		"nested":     {"a: " + strings.Repeat("[", 40) + strings.Repeat("]", 40), "nested more than 16 deep"},
		"parts":      {head + many(401, part), "x.yaml:4: parts: 401 are more than 400"},
		"values":     {"axes: [" + strings.Repeat("1,", 25_000) + "1]", "more than 20000 values"},
		"keys":       {many(61, "k%d: 1\n"), "more than 60 keys"},
		"text":       {"name: " + strings.Repeat("n", 2001), "a text is longer"},
		"rows":       {head + grid + "rows: 100000}]}\n", "x.yaml:5: a.f: 100000 rows"},
		"minus rows": {head + grid + "rows: -3}]}\n", "-3 rows"},
		"tests": {head + "  - {code: a, name: A, kind: plate}\ntests:\n" +
			many(201, "  - {code: t%d, name: T, kind: observe}\n"), "x.yaml:6: tests: 201"},
	} {
		t.Run(name, func(t *testing.T) {
			_, err := family.Load("x.yaml", []byte(c.text))
			require.ErrorContains(t, err, c.says)
		})
	}
}

func FuzzLoad(f *testing.F) {
	f.Add("code: x\nname: X\naction: pump\nparts:\n  - {code: a, name: A, kind: plate}\n")
	f.Fuzz(func(t *testing.T, text string) {
		if _, err := family.Load("f.yaml", []byte(text)); err != nil && !strings.HasPrefix(err.Error(), "f.yaml") {
			t.Fatalf("%v does not name the file", err)
		}
	})
}
