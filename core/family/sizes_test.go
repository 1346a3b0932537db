package family_test

import (
	"strings"
	"testing"

	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A family is a form: whatever absolute size stands in it is refused, with its place.
func TestAFamilyHasNoSizes(t *testing.T) {
	const head = "code: x\nname: X\naction: pump\nparts:\n  - {code: a, name: A, kind: plate, "
	for text, says := range map[string]string{
		"features: [{code: f, name: F, method: value, as_new: 20 mm}]":                    "f as new is a size",
		"features: [{code: f, name: F, method: value, lower: 20 mm}]":                     "a limit of f is a size",
		"features: [{code: f, name: F, method: feeler, leaves: [1 thou], upper: 3 thou}]": "a limit of f is a size",
		"bolt: {thread: M10}":    "its thread is a size",
		"bolt: {class: \"8.8\"}": "its strength class is a size",
		"bolt: {torque: 40 N·m}": "its torque is a size",
		"stack: {pieces: [{code: s, name: S, kind: shim}], installed: 3 mm}": "the height of its stack",
		"stack: {pieces: [{code: s, name: S, kind: shim}], needed: 3 kN}":    "the force of its stack",
		"stack: {pieces: [{code: s, name: S, kind: shim, thickness: 1 mm}]}": "the thickness of a s",
		"stack: {pieces: [{code: s, name: S, kind: disc}], spring: {outside: 20 mm, inside: 10 mm, thickness: 1 mm, " +
			"cone: 1 mm}}": "its dished spring",
	} {
		_, err := family.Load("x.yaml", []byte(head+text+"}\n"))
		assert.ErrorContains(t, err, says, text)
		assert.ErrorContains(t, err, "x.yaml:5", text)
	}
	_, err := family.Load("x.yaml", []byte(head+"features: [{code: f, name: F, method: value}]}\nleaks:\n"+
		"  - {name: l, feature: a.f, shape: plane, width: 14 mm, length: a.f, gap_share: 1, share: 1}\n"))
	assert.ErrorContains(t, err, "is no sum of sizes")

	whole := head +
		"features: [{code: f, name: F, method: value, wears: shaft, rule: {out: 1 %, basis: b}}], bolt: {}}\n"
	f, err := family.Load("x.yaml", []byte(whole))
	require.NoError(t, err)
	sheet, _, err := f.WithVariant("own.yaml", []byte("{code: own, name: Own, suffix: [A], change: {parts: {a: "+
		"{bolt: {thread: M10, class: \"8.8\"}, features: [{code: f, as_new: 20 mm, lower: 19.8 mm}]}}}}"))
	require.NoError(t, err, "the sizes of a model stand on its own sheet")
	is, err := sheet.As("own", nil)
	require.NoError(t, err)
	p, _ := is.PartByCode("a")
	assert.Equal(t, "20 mm", p.Features[0].AsNew)
}

// A family of an earlier version is read without the sizes it had.
func TestSizesOfAnEarlierVersionAreLeftOut(t *testing.T) {
	const old = `code: x
name: X
action: pump
variant_rules:
  - {code: v, name: V, suffix: [V], measured: {feature: a.f, low: "1 mm", high: "2 mm"},
      change: {parts: {a: {features: [{code: f, nominal: "30 mm"}]}}}}
parts:
  - {code: a, name: A, kind: plate, bolt: {thread: M10, class: "8.8", circle: 4},
      features: [{code: f, name: F, method: value, nominal: "20 mm", lower: "19 mm", standing: guidance}]}
  - code: b
    name: B
    kind: plate_pack
    stack:
      pieces: [{code: d, name: D, kind: disc, faced: true}]
      as: d> d<
      installed: "3 mm"
      spring: {outside: "20 mm", inside: "10 mm", thickness: "1 mm", cone: "1 mm"}
      friction: {pressed_by: b, outer: "20 mm", inner: "10 mm", friction: 0.1}
leaks:
  - {name: l, feature: a.f, shape: plane, width: "14 mm", length: "20 mm", gap_share: 1, share: 1}
relief: {part: a, feature: f, rate: "33 N/mm", installed: "34 mm", seat: "4 mm"}
`
	_, err := family.Load("x.yaml", []byte(old))
	require.Error(t, err)
	text, had := family.WithoutSizes([]byte(old))
	assert.True(t, had)
	f, err := family.Load("x.yaml", text)
	require.NoError(t, err)
	p, _ := f.PartByCode("a")
	assert.Equal(t, family.Bolt{Circle: 4}, *p.Bolt)
	assert.Empty(t, f.Leaks)
	assert.Nil(t, f.Relief)
	b, _ := f.PartByCode("b")
	assert.Equal(t, "d> d<", b.Stack.As)
	again, had := family.WithoutSizes(text)
	assert.False(t, had, "there is nothing left to take out")
	assert.Equal(t, string(text), string(again))
	for _, code := range []string{"external_gear_pump", "winch_brake_pack"} {
		shipped, err := family.ShippedText(code)
		require.NoError(t, err)
		_, had := family.WithoutSizes([]byte(shipped))
		assert.False(t, had, code)
	}
	assert.False(t, strings.Contains(string(text), "mm"))
}
