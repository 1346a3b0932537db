package web

import (
	"encoding/csv"
	"html"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
)

// The figures of the demo's one closed job: page, CSV and spreadsheet say the same, and its bar opens the job.
func TestTheOwnersFigures(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	_, page := b.get("/figures?measure=hours&by=family")
	assert.Contains(t, page, "1 went out")
	assert.Regexp(
		t,
		`Hours worked to hours offered <small class="quiet">of 1 job</small></span><b class="fig-sum">1.09`,
		page,
		"6 h to 5.5 h",
	)
	assert.Contains(t, page, "External gear pump")
	_, page = b.get("/figures?measure=hours&by=family&key=external_gear_pump")
	assert.Contains(t, page, `href="/jobs/T-0388/handover"`)
	cell := regexp.MustCompile(`href="(/figures[^"]*cause=[^"]+#jobs)" aria-label="External gear pump, [^"]*: 1"`)
	found := cell.FindStringSubmatch(page)
	require.NotNil(t, found, "its cause stands crosswise")
	_, page = b.get(strings.TrimSuffix(html.UnescapeString(found[1]), "#jobs"))
	assert.Contains(t, page, `href="/jobs/T-0388/handover"`, "and opens the job")
	_, page = b.get("/figures?by=family&key=external_gear_pump&cause=none_such")
	assert.NotContains(t, page, `href="/jobs/T-0388/handover"`)
	_, page = b.get("/figures?from=yesterday")
	assert.Contains(t, page, "yesterday is no day")
	_, page = b.get("/figures?from=2001-01-01&to=2001-02-01")
	assert.Contains(t, page, "No job went out in this time")

	_, text := b.get("/figures.csv?by=family")
	r := csv.NewReader(strings.NewReader(text))
	r.FieldsPerRecord = -1
	rows, err := r.ReadAll()
	require.NoError(t, err)
	res, sheet := b.get("/figures.xlsx?by=family")
	assert.Contains(t, res.Header.Get("Content-Disposition"), "figures.xlsx")
	f, err := excelize.OpenReader(strings.NewReader(sheet))
	require.NoError(t, err)
	defer f.Close()
	assert.Equal(t, []string{"by family", "jobs", "waiting"}, f.GetSheetList())
	groups, err := f.GetRows("by family")
	require.NoError(t, err)
	require.Len(t, groups, 2)
	assert.Equal(t, rows[0], groups[0])
	assert.Equal(t, rows[1], groups[1])
	kind, err := f.GetCellType("by family", "B2")
	require.NoError(t, err)
	assert.NotEqual(t, excelize.CellTypeSharedString, kind, "a number stays one")

	res, _ = s.as("iva").get("/figures")
	assert.Equal(t, http.StatusForbidden, res.StatusCode, "they are the lead's")
}
