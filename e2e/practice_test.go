package e2e

import (
	"strconv"
	"testing"

	"corvek/core/practice"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// An instrument is read by keys alone: the field is under the hand, Enter answers, and Enter again draws the next one.
func TestInstrumentsAreReadByKeys(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "iva", false)
	kind, known := practice.KindByCode("dial_indicator")
	require.True(t, known)
	u.open("/practice/reading/dial_indicator")
	seen := map[string]bool{}
	for range 3 {
		text := *u.MustElement(`input[name=seed]`).MustAttribute("value")
		seen[text] = true
		seed, err := strconv.ParseUint(text, 10, 64)
		require.NoError(t, err)
		u.MustWait(`() => document.activeElement.name === "answer0"`)
		for i, ask := range practice.New(kind, false, seed).Asks {
			if i > 0 {
				u.Keyboard.MustType(input.Tab)
				u.MustWait(`() => document.activeElement.name === "answer1"`)
			}
			u.MustInsertText(strconv.FormatFloat(ask.Want, 'f', 4, 64))
		}
		u.Keyboard.MustType(input.Enter)
		u.MustElementR(".prac-said", "Right.")
		assert.NotContains(t, u.MustElement("main").MustText(), "No.")
		u.MustWait(`() => document.activeElement.textContent === "Next one"`)
		u.Keyboard.MustType(input.Enter)
		u.MustWait(`(was) => (document.querySelector("input[name=seed]")?.value ?? was) !== was
			&& document.readyState === "complete"`, text)
	}
	assert.Len(t, seen, 3, "another one each time")
	u.quiet()
}

// And by thumb: the pad comes with the field, a slip is named, and an answer of several is pressed.
func TestInstrumentsAreReadByThumb(t *testing.T) {
	t.Parallel()
	u := enter(t, serve(t), "iva", true)
	kind, known := practice.KindByCode("micrometer")
	require.True(t, known)
	u.open("/practice/reading/micrometer?seed=4&inch=")
	want := practice.New(kind, false, 4).Asks[0].Want
	u.typeInto(u.MustElement("#in-answer0"), strconv.FormatFloat(want+0.5, 'f', 3, 64))
	u.press(u.MustElementR("button", "^Answer$"))
	u.MustElementR(".prac-said", "One line of the sleeve too many")
	u.open("/practice/drill/seal?seed=4&inch=")
	u.press(u.MustElement(".prac-option"))
	u.press(u.MustElementR("button", "^Answer$"))
	u.MustElementR(".prac-said", "Right.|No.")
	u.quiet()
}
