package report

import (
	_ "embed"
	"fmt"
	"strings"
	"sync"
	"unicode"

	"golang.org/x/image/font/sfnt"
)

// The face of the PDF goes into the file, so that it prints the same everywhere. It
// has the letters of the Latin, Greek and Cyrillic alphabets and the signs we use.
const face = "DejaVu Sans Condensed"

var (
	//go:embed fonts/DejaVuSansCondensed.ttf
	regular []byte
	//go:embed fonts/DejaVuSansCondensed-Bold.ttf
	bold []byte
)

// glyphs is the face, read for which letters it has.
var glyphs = sync.OnceValue(func() *sfnt.Font {
	f, err := sfnt.Parse(regular)
	if err != nil {
		panic(err) // it is ours
	}
	return f
})

// mostPlane is the last letter that the PDF's fonts can address.
const mostPlane = 0xffff

// printable is text as the PDF can show it. A letter that the face does not have
// stands as its number, so that nobody takes a box for what was written.
func printable(s string) string {
	var buf sfnt.Buffer
	var b strings.Builder
	for _, r := range s {
		switch {
		case r == '\n' || r == '\t':
			b.WriteRune(r)
		case unicode.IsControl(r), unicode.Is(unicode.Cf, r), r == unicode.ReplacementChar:
			b.WriteByte(' ')
		case r > mostPlane || missing(&buf, r):
			fmt.Fprintf(&b, "[U+%04X]", r)
		default:
			b.WriteRune(r)
		}
	}
	return b.String()
}

func missing(buf *sfnt.Buffer, r rune) bool {
	i, err := glyphs().GlyphIndex(buf, r)
	return err != nil || i == 0
}
