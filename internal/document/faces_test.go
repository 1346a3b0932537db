package document

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestEveryLetterIsPrinted(t *testing.T) {
	for in, want := range map[string]string{
		"Ærø Šťastný Ψ Жук":       "Ærø Šťastný Ψ Жук",
		"½ µm ≤ ≥ → η − “x” °C ³": "½ µm ≤ ≥ → η − “x” °C ³",
		"泵":             "[U+6CF5]",
		"ok 🔧":          "ok [U+1F527]",
		"a\x00b\u202ec": "a b c",
	} {
		assert.Equal(t, want, printable(in))
	}
}

// What the faces of the pages lack is taken from the spare one, letter by letter.
func TestLettersComeFromTheFaceThatHasThem(t *testing.T) {
	got := pieces(cut("text", false), false, "5 µm Жук ok")
	assert.Equal(t, []piece{{"atkinson-hyperlegible-400", "5 µm "}, {"DejaVuSansCondensed", "Жук"},
		{"atkinson-hyperlegible-400", " ok"}}, got)
}

// What cannot be drawn, or is very long, ends as a file all the same.
func FuzzLetters(f *testing.F) {
	for _, s := range []string{"", "泵 of 🔧 \u202eevil\u0301", "\xff\xfe", "a\n\nb"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		d := Document{Shop: Shop{Name: s, Address: s}, Tag: s, Kind: s, Title: s, Foot: s, Opens: s}
		d.Add(Heading{s}, Text{Lead: s, Text: s}, Lines{Items: []string{s}, Ordered: true}, Banner{Text: s},
			Table{Heads: []string{s, s}, Shares: []float64{1, 3}, Rows: [][]Cell{Cells(s, s)}},
			Facts{Rows: []Fact{{s, s}}}, Boxes{Names: []string{s}}, Signs{Names: []string{s}}, Seal{Words: s})
		var b bytes.Buffer
		assert.NoError(t, PDF(&b, d))
		assert.NoError(t, HTML(&b, d))
	})
}
