package site

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const twoFragments = `<body><div id="page">` +
	`<header class="a" data-fragment="head"><header>in</header><b>1</b></header>` +
	`<p>between</p><main data-fragment="main"><form>` +
	`<input type="hidden" name="once" value="ABCDEFGHIJKLMNOPQRSTUVWXYZ"></form><mainly>x</mainly></main></div></body>`

func TestFragmentsOfAPage(t *testing.T) {
	page := []byte(twoFragments)
	list := fragmentsOf(page)
	require.Len(t, list, 2)
	assert.Equal(t, "head", list[0].name)
	assert.Equal(t, `<header class="a" data-fragment="head"><header>in</header><b>1</b></header>`,
		string(page[list[0].begin:list[0].end]), "the inner element of the same name is no end")
	assert.True(t, strings.HasSuffix(string(page[list[1].begin:list[1].end]), "</mainly></main>"))
	assert.Contains(t, string(summed(page, list)),
		`<header class="a" data-sum="`+list[0].sum+`" data-fragment="head">`)

	other := []byte(strings.Replace(strings.Replace(twoFragments, "ABCDEFGHIJKLMNOPQRSTUVWXYZ",
		"ZYXWVUTSRQPONMLKJIHGFEDCBA", 1), "<b>1</b>", "<b>2</b>", 1))
	has := "head:" + list[0].sum + " main:" + list[1].sum + " foot:1"
	got := freshOf(other, fragmentsOf(other), has, Shell{Title: "T", Here: "/here"})
	assert.Contains(t, got.Fragments["head"], "<b>2</b>")
	assert.NotContains(t, got.Fragments, "main", "a form's own token is no change")
	assert.Contains(t, got.Fragments, "foot")
	assert.Empty(t, got.Fragments["foot"], "what the page has no more is empty")
}

func TestFragmentsOfABrokenPage(t *testing.T) {
	for _, page := range []string{"", "<p>none</p>", `<p data-fragment="a`, `<p data-fragment="a">`,
		` data-fragment="a"`} {
		assert.Empty(t, fragmentsOf([]byte(page)), page)
	}
}
