package draw

import (
	_ "embed"
	"regexp"
	"strings"
)

// Tokens are the colours, faces and sizes of pages and drawings, as a style sheet: in light and
// in dark.
//
//go:embed css/tokens.css
var Tokens string

// Styles are the looks of all drawings, as a style sheet over the tokens.
//
//go:embed css/drawing.css
var Styles string

var lightDark = regexp.MustCompile(`--([a-z0-9-]+):\s*(?:light-dark\((#[0-9a-f]+),[^)]*\)|(#[0-9a-f]+));`)

// lightColours are the colours of the light theme as plain values, for drawings
// that stand by themselves: their readers need not know themes.
func lightColours() string {
	var b strings.Builder
	for _, m := range lightDark.FindAllStringSubmatch(Tokens, -1) {
		b.WriteString("--" + m[1] + ":" + m[2] + m[3] + ";")
	}
	return b.String()
}

// Standalone gives a drawing the colours and strokes that pages take from their style sheets, so
// that it stands by itself as a file. What is no drawing stays as it is.
func Standalone(svg string) string {
	defs := Defs[strings.Index(Defs, "<defs>"):strings.Index(Defs, "</svg>")]
	head, tail, ok := strings.Cut(svg, ">")
	if !ok {
		return svg
	}
	faces := `--heading:"Barlow Condensed",sans-serif;--label:"Barlow Semi Condensed",` +
		`sans-serif;--text:"Atkinson Hyperlegible",sans-serif;`
	style := ":root,svg{" + lightColours() + faces + "}" + Styles
	return head + ` xmlns="http://www.w3.org/2000/svg"><style>` + style + `</style>` + defs + tail
}
