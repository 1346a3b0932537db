package document_test

import (
	"bytes"
	"encoding/json"
	"testing"
	"time"

	"corvek/internal/document"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A paper that was kept as data is laid out as it was, whatever stands on it.
func TestAPaperAsDataIsTheSamePaper(t *testing.T) {
	d := document.Document{
		Shop:    document.Shop{Name: "Quay Hydraulics", Address: "Kai 3\nOstrey", Size: document.Letter},
		Tag:     "T-1",
		Kind:    "Findings report",
		Title:   "Press pump",
		Foot:    "12 lines",
		Layout:  "cardpage",
		Opens:   "https://bench/jobs/T-1",
		Printed: time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC),
	}
	d.Add(document.Heading{Text: "Cause"}, document.Text{Lead: "Worn", Text: "out", Quiet: true},
		document.Lines{Items: []string{"a", "b"}, Ordered: true, Large: true},
		document.Banner{Text: "PROVED", Items: []string{"up to 175 bar"}, Tone: document.Good},
		document.Big{Text: "T-1"}, document.Facts{Rows: []document.Fact{{Name: "Duty", Value: "175 bar"}}},
		document.Table{Heads: []string{"what", "is"}, Shares: []float64{1, 2}, None: "none", Rows: [][]document.Cell{
			{{Lines: []document.Line{{Text: "x", Bold: true, Box: true}}}, {Verdict: "out", Drawing: "<svg></svg>"}}}},
		document.Drawing{Name: "the unit", SVG: `<svg viewBox="0 0 9 9"><path d="M0 0L9 9"/></svg>`, Part: true},
		document.Pictures{List: []document.Picture{{Drawing: "<svg></svg>", Caption: "a crack",
			Marks: []document.Fact{{Name: "1", Value: "here"}}}}},
		document.Boxes{Names: []string{"yes"}}, document.Checks{Items: []string{"lip"}},
		document.Signs{Names: []string{"lead"}}, document.Seal{Words: "not yet"}, document.Code{},
		document.Small{Text: "ab12"})
	text, err := json.Marshal(d)
	require.NoError(t, err)
	var again document.Document
	require.NoError(t, json.Unmarshal(text, &again))
	assert.Equal(t, d, again)
	var was, is bytes.Buffer
	require.NoError(t, document.HTML(&was, d))
	require.NoError(t, document.HTML(&is, again))
	assert.Equal(t, was.String(), is.String())

	sealed := again.Sealed(document.Seal{Signed: true, Who: "Odd Renfeld"})
	assert.NotEqual(t, again.Blocks, sealed.Blocks)
	assert.Equal(t, d, again, "the paper that was kept stays")
	require.ErrorContains(t, json.Unmarshal([]byte(`{"Blocks":[{"Kind":"song"}]}`), &again), "song")
}
