package e2e

import (
	_ "embed"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// axe finds faults against the accessibility guidelines in a page as it is laid out.
//
//go:embed lib/axe-core-4.10.2.min.js
var axe string

// violation is a rule that some places of the page break.
type violation struct {
	ID    string `json:"id"`
	Help  string `json:"help"`
	Nodes []struct {
		HTML    string `json:"html"`
		Summary string `json:"failureSummary"`
	} `json:"nodes"`
}

// guidelines are WCAG 2.1, levels A and AA. A theme changes nothing but colours.
var guidelines = map[string][]string{
	"light": {"wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "best-practice"},
	"dark":  {"color-contrast"},
}

// violations gives what the page breaks of the guidelines, shown in a theme.
func (u *user) violations(theme string) []violation {
	u.t.Helper()
	if !u.MustEval(`() => !!window.axe`).Bool() {
		u.MustEval(`(source) => { (0, eval)(source) }`, axe)
	}
	found := u.MustEval(`async (theme, runOnly) => {
		document.documentElement.dataset.theme = theme;
		const result = await axe.run(document, {
			runOnly, resultTypes: ["violations"], preload: false, pingWaitTime: 0,
		});
		return JSON.stringify(result.violations);
	}`, theme, guidelines[theme]).Str()
	var out []violation
	require.NoError(u.t, json.Unmarshal([]byte(found), &out))
	return out
}

// Everyone can use the main pages: names, roles and contrast hold in both
// themes, on the bench's screen, an upright tablet and a phone.
func TestMainPagesAreAccessible(t *testing.T) {
	t.Parallel()
	accessible(t, []string{"/jobs", "/jobs/new", "/toolbox", "/toolbox/feeler?goes=3+thou&stops=9+thou&upper=7+thou",
		"/library", "/library/winch_brake_pack", "/library/winch_brake_pack/form", "/instruments", "/shop",
		"/shop/store", "/shop/letterhead", "/me", "/change", "/jobs/T-0417/report", "/jobs/T-0388/certificate",
		"/jobs/T-0417/pictures"})
}

// The stations are used as well by everyone.
func TestStationsAreAccessible(t *testing.T) {
	t.Parallel()
	accessible(t, stationPages())
}

func accessible(t *testing.T, pages []string) {
	t.Helper()
	u := enter(t, serve(t), "odd", true)
	for _, page := range pages {
		u.MustSetViewport(1280, 800, 1, false)
		u.open(page)
		// Sizes and themes are all in the style sheets: the page need not come again. In
		// the dark only contrast is another, and of that drawings tell nothing: most of a
		// page need not be gone through again.
		for _, theme := range []string{"light", "dark"} {
			if theme == "dark" {
				if strings.HasSuffix(page, "/report") || strings.HasSuffix(page, "/certificate") {
					continue // paper is white
				}
				u.MustEval(`() => document.querySelectorAll("svg").forEach((x) => x.replaceChildren())`)
			}
			for _, size := range screens {
				if theme == "dark" && size[0] == 800 {
					continue // its colours are those of the widest and the narrowest
				}
				u.MustSetViewport(size[0], size[1], 1, false)
				u.reports(page, size, theme)
			}
		}
	}
}

// reports fails the test for each thing that a page breaks of the guidelines.
func (u *user) reports(page string, size [2]int, theme string) {
	for _, v := range u.violations(theme) {
		var where []string
		for _, n := range v.Nodes[:min(len(v.Nodes), 4)] {
			where = append(where, n.HTML+"\n      "+strings.ReplaceAll(n.Summary, "\n", " "))
		}
		u.t.Errorf("%s at %v, %s: %s, %d places:\n    %s", page, size, theme, v.Help, len(v.Nodes),
			strings.Join(where, "\n    "))
	}
}
