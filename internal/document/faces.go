package document

import (
	"embed"
	"fmt"
	"strings"
	"unicode"

	"golang.org/x/image/font/sfnt"
)

// The faces of the PDF go into the file, so that it prints the same everywhere. A letter that
// the faces of the pages do not have stands in DejaVu, which has the Latin, Greek and Cyrillic
// alphabets.
//
//go:embed fonts/*.ttf
var faceFiles embed.FS

// face is one cut of a typeface.
type face struct {
	name string
	font *sfnt.Font
}

// spare is where a letter is taken from that a face does not have.
const spare = "spare"

// cuts are the faces by name, one for plain and one for bold letters.
var cuts = map[string][2]face{}

func init() {
	for name, paths := range map[string][2]string{
		"text":    {"atkinson-hyperlegible-400", "atkinson-hyperlegible-700"},
		"heading": {"barlow-condensed-600", "barlow-condensed-700"},
		"label":   {"barlow-semi-condensed-500", "barlow-semi-condensed-600"},
		spare:     {"DejaVuSansCondensed", "DejaVuSansCondensed-Bold"},
	} {
		var pair [2]face
		for i, path := range paths {
			font, err := sfnt.Parse(faceBytes(path))
			if err != nil {
				panic(err) // it is ours
			}
			pair[i] = face{path, font}
		}
		cuts[name] = pair
	}
}

func faceBytes(name string) []byte {
	content, err := faceFiles.ReadFile("fonts/" + name + ".ttf")
	if err != nil {
		panic(err) // it is ours
	}
	return content
}

// cut is the face with plain or bold letters.
func cut(name string, bold bool) face {
	if bold {
		return cuts[name][1]
	}
	return cuts[name][0]
}

// has tells whether a face has a letter.
func (f face) has(buf *sfnt.Buffer, r rune) bool {
	i, err := f.font.GlyphIndex(buf, r)
	return err == nil && i != 0
}

// use sets what follows in a face. Only faces that are used go into the PDF, and of them only
// the letters that are.
func (s *sheet) use(name string, size float64) {
	if !s.faces[name] {
		s.faces[name] = true
		s.pdf.AddUTF8FontFromBytes(name, "", faceBytes(name))
	}
	s.pdf.SetFont(name, "", size)
}

// mostPlane is the last letter that the PDF's fonts can address.
const mostPlane = 0xffff

// piece is a stretch of letters of one face.
type piece struct {
	face string
	text string
}

// pieces splits a text by the faces that have its letters. A letter that none has stands as
// its number, so that nobody takes a box for what was written; what cannot be seen is a space.
func pieces(f face, bold bool, text string) (out []piece) {
	var buf sfnt.Buffer
	other := cut(spare, bold)
	add := func(name, s string) {
		if n := len(out); n > 0 && out[n-1].face == name {
			out[n-1].text += s
			return
		}
		out = append(out, piece{name, s})
	}
	for _, r := range text {
		switch {
		case unicode.IsControl(r), unicode.Is(unicode.Cf, r), r == unicode.ReplacementChar:
			add(f.name, " ")
		case r <= mostPlane && f.has(&buf, r):
			add(f.name, string(r))
		case r <= mostPlane && other.has(&buf, r):
			add(other.name, string(r))
		default:
			add(f.name, fmt.Sprintf("[U+%04X]", r))
		}
	}
	return out
}

// printable is a text as the PDF shows it.
func printable(text string) string {
	var b strings.Builder
	for _, p := range pieces(cut("text", false), false, text) {
		b.WriteString(p.text)
	}
	return b.String()
}
