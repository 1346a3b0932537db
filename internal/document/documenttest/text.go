// Package documenttest reads back what a PDF of package document says.
package documenttest

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"io"
	"regexp"
	"strings"
	"testing"
	"unicode/utf16"

	"github.com/stretchr/testify/require"
)

var (
	streams = regexp.MustCompile(`(?s)stream\n(.*?)\nendstream`)
	shown   = regexp.MustCompile(`(?s)BT [-0-9.]+ [-0-9.]+ Td \((.*?)\) ?Tj ET`)
)

// Pages gives the text of each page in the order in which it is put down, without spaces:
// where a line was broken makes no difference then.
func Pages(t testing.TB, pdf []byte) (pages []string) {
	t.Helper()
	for _, m := range streams.FindAllSubmatch(pdf, -1) {
		r, err := zlib.NewReader(bytes.NewReader(m[1]))
		if err != nil {
			continue // a picture, or the number of a font
		}
		content, err := io.ReadAll(r)
		if err != nil || !bytes.Contains(content, []byte(" Td (")) {
			continue
		}
		var b strings.Builder
		for _, text := range shown.FindAllSubmatch(content, -1) {
			b.WriteString(decoded(t, text[1]))
		}
		pages = append(pages, Squeezed(b.String()))
	}
	return pages
}

// decoded reads a string of the PDF: UTF-16, the larger byte first, with signs escaped.
func decoded(t testing.TB, s []byte) string {
	var raw []byte
	for i := 0; i < len(s); i++ {
		if s[i] == '\\' && i+1 < len(s) {
			i++
			if s[i] == 'r' {
				raw = append(raw, '\r')
				continue
			}
		}
		raw = append(raw, s[i])
	}
	require.Zero(t, len(raw)%2, "%q", s)
	var units []uint16
	for i := 0; i < len(raw); i += 2 {
		units = append(units, binary.BigEndian.Uint16(raw[i:]))
	}
	return string(utf16.Decode(units))
}

// Squeezed is a text without spaces.
func Squeezed(s string) string {
	return strings.Join(strings.Fields(strings.ReplaceAll(s, "\u00a0", " ")), "")
}
