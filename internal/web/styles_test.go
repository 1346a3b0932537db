package web

import (
	"fmt"
	"io/fs"
	"maps"
	"math"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"corvek/internal/draw"
	"corvek/internal/web/site"
	"corvek/internal/web/site/static"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var (
	action   = regexp.MustCompile(`\{\{.*?\}\}`)
	classes  = regexp.MustCompile(`\sclass="([^"]*)"`)
	selector = regexp.MustCompile(`\.([a-zA-Z][\w-]*)`)
	word     = regexp.MustCompile(`[A-Za-z][\w-]*`)
	remark   = regexp.MustCompile(`(?s)/\*.*?\*/`)
	block    = regexp.MustCompile(`\{[^{}]*\}`)
)

// hooks are classes that nothing draws: what a test or a script finds something by.
var hooks = []string{"clash"}

// made are classes that a template puts together of a word and a value.
var made = []string{"of-", "v-", "sheet-"}

func sources(t *testing.T, patterns ...string) string {
	var all strings.Builder
	for _, pattern := range patterns {
		names, err := filepath.Glob(pattern)
		require.NoError(t, err)
		require.NotEmpty(t, names, pattern)
		for _, name := range names {
			if strings.HasSuffix(name, "_test.go") {
				continue
			}
			content, err := os.ReadFile(name)
			require.NoError(t, err)
			all.Write(content)
			all.WriteByte('\n')
		}
	}
	return all.String()
}

// ruled are the classes that a style sheet has rules for.
func ruled(sheet string) map[string]bool {
	known := map[string]bool{}
	sheet = remark.ReplaceAllString(sheet, "")
	for sheet != block.ReplaceAllString(sheet, ";") { // the inside of a media query comes last
		for _, part := range block.Split(sheet, -1) {
			for _, m := range selector.FindAllStringSubmatch(part, -1) {
				known[m[1]] = true
			}
		}
		sheet = block.ReplaceAllString(sheet, ";")
	}
	return known
}

// A class that a page uses has a rule, and a rule of ours has something that it draws: what
// Bulma has is not shipped as a whole, so a class of its that is new asks for scripts/styles.sh.
func TestClassesAndStylesFit(t *testing.T) {
	t.Parallel()
	pages := sources(t, "*/templates/*.html", "*/templates/*/*.html", "../document/templates/*.html")
	br := serve(t).as("iva")
	sheet := func(name string) string {
		res, text := br.get("/static/now/" + name)
		require.Equal(t, http.StatusOK, res.StatusCode, name)
		return text
	}
	known := ruled(sheet("css/app.css"))
	used := map[string]bool{}
	for _, m := range classes.FindAllStringSubmatch(action.ReplaceAllString(pages, " "), -1) {
		for _, class := range strings.Fields(m[1]) {
			used[class] = true
		}
	}
	require.Greater(t, len(used), 200, "the classes were found")
	for _, class := range slices.Sorted(maps.Keys(used)) {
		if !slices.Contains(hooks, class) && !slices.Contains(made, class) {
			assert.True(t, known[class], "no style sheet knows the class %q", class)
		}
	}

	words := map[string]bool{}
	code := sources(t, "*.go", "*/*.go", "../draw/*.go", "../report/*.go", "../document/*.go", "site/static/js/*.js")
	for _, w := range word.FindAllString(pages+code, -1) {
		words[w] = true
	}
	for _, name := range site.Styles {
		if !strings.HasPrefix(name, "css/") {
			continue
		}
		for class := range ruled(sheet(name)) {
			start, _, _ := strings.Cut(class, "-")
			counted := strings.TrimRight(class, "0123456789")
			assert.True(t, words[class] || words[start+"-"] || words[counted],
				"%s has a rule for %q, which nothing uses", name, class)
		}
	}
}

// hsl gives hue, saturation and lightness of a colour, the two last in percent.
func hsl(t *testing.T, colour string) (h, s, l float64) {
	v, err := strconv.ParseUint(strings.TrimPrefix(colour, "#"), 16, 32)
	require.NoError(t, err)
	r, g, b := float64(v>>16)/255, float64(v>>8&255)/255, float64(v&255)/255
	high, low := max(r, g, b), min(r, g, b)
	l = (high + low) / 2
	if d := high - low; d > 0 {
		s = d / (1 - math.Abs(2*l-1))
		switch high {
		case r:
			h = math.Mod((g-b)/d+6, 6)
		case g:
			h = (b-r)/d + 2
		default:
			h = (r-g)/d + 4
		}
	}
	return h * 60, s * 100, l * 100
}

// Bulma mixes the colours of its buttons itself, from numbers that are compiled into it: they
// are those of the tokens, in both themes.
func TestBulmaHasTheColoursOfTheTokens(t *testing.T) {
	t.Parallel()
	tokens := []byte(draw.Tokens)
	bulma, err := fs.ReadFile(static.Files, "lib/bulma.min.css")
	require.NoError(t, err)
	for name, token := range map[string]string{"primary": "petrol", "danger": "red", "text": "ink"} {
		pair := regexp.MustCompile(`--` + token + `: light-dark\((#\w+), (#\w+)\)`).FindSubmatch(tokens)
		require.Len(t, pair, 3, token)
		for theme, colour := range map[string]string{"light": string(pair[1]), "dark": string(pair[2])} {
			rule := regexp.MustCompile(`\[data-theme=`+theme+`\][^{]*\{([^}]*)\}`).FindAllSubmatch(bulma, -1)
			require.NotEmpty(t, rule, theme)
			last := rule[len(rule)-1][1] // it wins
			h, s, l := hsl(t, colour)
			for part, want := range map[string]float64{"h": h, "s": s, "l": l} {
				says := regexp.MustCompile(fmt.Sprintf(`--bulma-%s-%s: ?([\d.]+)`, name, part))
				value := says.FindAllSubmatch(last, -1)
				require.NotEmpty(t, value, "%s %s-%s", theme, name, part)
				got, err := strconv.ParseFloat(string(value[len(value)-1][1]), 64)
				require.NoError(t, err)
				assert.InDelta(t, want, got, 0.51, "%s: %s-%s; run scripts/styles.sh", theme, name, part)
			}
		}
	}
}
