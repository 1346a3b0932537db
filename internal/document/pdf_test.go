package document_test

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	"strings"
	"testing"
	"time"

	"corvek/internal/document"
	"corvek/internal/document/documenttest"
	"corvek/internal/draw"
	"corvek/internal/vector"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func paper(blocks ...document.Block) document.Document {
	return document.Document{Shop: document.Shop{Name: "Quay Hydraulics"}, Tag: "T-1", Kind: "Findings report",
		Title: "Feed pump", Foot: "record ab12", Printed: time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC), Blocks: blocks}
}

func pages(t *testing.T, d document.Document) []string {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, document.PDF(&b, d))
	return documenttest.Pages(t, b.Bytes())
}

// A long table goes on with its heads, and each page says which paper it belongs to and which
// of how many it is.
func TestLongTablesGoOnWithTheirHeads(t *testing.T) {
	table := document.Table{Heads: []string{"part", "as found"}, Shares: []float64{1, 1}}
	for i := range 120 {
		table.Rows = append(table.Rows, document.Cells(fmt.Sprintf("part %d.", i), "0.05 mm"))
	}
	got := pages(t, paper(document.Heading{Text: "Measured"}, table))
	require.Greater(t, len(got), 1)
	for i, page := range got {
		assert.Contains(t, page, "partasfound")
		assert.Contains(t, page, fmt.Sprintf("page%dof%d", i+1, len(got)))
		assert.Contains(t, page, "recordab12")
		assert.Contains(t, page, "T-1")
	}
	for i := range 120 {
		assert.Equal(t, 1, strings.Count(strings.Join(got, ""), fmt.Sprintf("part%d.", i)))
	}
}

// A cell that is taller than a sheet is not cut off.
func TestATallCellGoesOn(t *testing.T) {
	var words []string
	for i := range 2500 {
		words = append(words, fmt.Sprintf("w%d.", i))
	}
	got := pages(t, paper(document.Table{Heads: []string{"why"}, Shares: []float64{1},
		Rows: [][]document.Cell{document.Cells(strings.Join(words, " "))}}))
	require.Greater(t, len(got), 1)
	all := strings.Join(got, "")
	for _, w := range words {
		assert.Contains(t, all, w)
	}
}

// A heading is never alone at the foot of a page: what it heads comes with it.
func TestAHeadingStaysWithWhatItHeads(t *testing.T) {
	for lines := range 60 {
		filler := document.Lines{Items: make([]string, lines)}
		for i := range filler.Items {
			filler.Items[i] = "x"
		}
		heads := 0
		for _, page := range pages(t, paper(filler, document.Heading{Text: "Search"}, document.Text{Text: "Found."})) {
			heads += strings.Count(page, "Search")
			assert.Equal(t, strings.Contains(page, "Search"), strings.Contains(page, "Found."), lines)
		}
		assert.Equal(t, 1, heads, "with %d lines before it", lines)
	}
}

// The same paper printed anew is the same file, so that its fingerprint tells.
func TestTheSamePaperIsTheSameFile(t *testing.T) {
	d := paper(document.Banner{Text: "PROVED", Tone: document.Good}, document.Drawing{SVG: draw.Verdict("out")},
		document.Seal{Signed: true, Who: "Odd", Words: "Version 1"})
	var a, b bytes.Buffer
	require.NoError(t, document.PDF(&a, d))
	require.NoError(t, document.PDF(&b, d))
	assert.Equal(t, a.Bytes(), b.Bytes())
}

// In, out and undecided are told apart by shape and word, without any colour.
func TestVerdictsAreToldApartWithoutColour(t *testing.T) {
	shapes, words := map[string]bool{}, map[string]bool{}
	for _, verdict := range []string{"in", "out", "undecided"} {
		d, err := vector.Read(draw.Verdict(verdict))
		require.NoError(t, err)
		outline := ""
		for _, s := range d.Shapes {
			outline += fmt.Sprint(s.Outline, s.Text)
		}
		shapes[outline] = true
		words[document.VerdictWord(verdict)] = true
		cell := document.Table{Heads: []string{""}, Shares: []float64{1}, Rows: [][]document.Cell{{{Verdict: verdict}}}}
		assert.Contains(t, pages(t, paper(cell))[0], document.VerdictWord(verdict))
	}
	assert.Len(t, shapes, 3)
	assert.Len(t, words, 3)
}

// A photograph, a drawn one and one that cannot be had all leave a paper.
func TestPictures(t *testing.T) {
	var shot bytes.Buffer
	require.NoError(t, jpeg.Encode(&shot, image.NewGray(image.Rect(0, 0, 30, 20)), nil))
	files := map[string][]byte{"/1": shot.Bytes(), "/2": []byte(`<svg viewBox="0 0 9 9"><path d="M0 0h9v9z"/></svg>`),
		"/3": []byte("no picture at all"), "/5": []byte(`<svg viewBox="0 0 9 9"><path d="oops"/></svg>`)}
	list := document.Pictures{}
	for i := range 5 {
		marks := []draw.PicMark{{Number: 1, X: .5, Y: .5}}
		list.List = append(list.List, document.Picture{Caption: fmt.Sprintf("Picture %d", i+1),
			Drawing: draw.Picture(fmt.Sprintf("/%d", i+1), 30, 20, marks, "", false)})
	}
	d := paper(list)
	d.Load = func(address string) ([]byte, error) {
		if files[address] == nil {
			return nil, errors.New("gone")
		}
		return files[address], nil
	}
	var b bytes.Buffer
	require.NoError(t, document.PDF(&b, d))
	assert.Equal(t, 1, bytes.Count(b.Bytes(), []byte("/Subtype /Image")))
	all := strings.Join(documenttest.Pages(t, b.Bytes()), "")
	assert.Equal(t, 2, strings.Count(all, "Thispictureiskeptwiththejob."), "what is no picture, and what is gone")
	assert.Contains(t, all, "Picture5")
}
