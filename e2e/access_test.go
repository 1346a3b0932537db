package e2e

import (
	_ "embed"
	"encoding/json"
	"strings"

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

// guidelines are WCAG 2.1, levels A and AA. A theme changes nothing but colours; between the widest and
// the narrowest screen nothing is shown that neither shows, and only what scrolls there is another.
var guidelines = map[string][]string{
	"light":   {"wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "best-practice"},
	"dark":    {"color-contrast"},
	"between": {"scrollable-region-focusable"},
}

// violations gives what the page breaks of some of the guidelines, shown in a theme.
func (u *user) violations(theme, some string) []violation {
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
	}`, theme, guidelines[some]).Str()
	var out []violation
	require.NoError(u.t, json.Unmarshal([]byte(found), &out))
	return out
}

// reports fails the test for each thing that a page breaks of the guidelines.
func (u *user) reports(page string, size [2]int, theme string) {
	some := theme
	if theme == "light" && size != screens[0] && size != screens[len(screens)-1] {
		some = "between"
	}
	for _, v := range u.violations(theme, some) {
		var where []string
		for _, n := range v.Nodes[:min(len(v.Nodes), 4)] {
			where = append(where, n.HTML+"\n      "+strings.ReplaceAll(n.Summary, "\n", " "))
		}
		u.t.Errorf("%s at %v, %s: %s, %d places:\n    %s", page, size, theme, v.Help, len(v.Nodes),
			strings.Join(where, "\n    "))
	}
}
