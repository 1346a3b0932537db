package web

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// letterhead sends the form of the head of the papers, with a mark where there is one.
func (b *browser) letterhead(fields map[string]string, mark []byte) (status int, answer string) {
	b.site.t.Helper()
	var sent *file
	if mark != nil {
		sent = &file{"mark", "mark.png", mark}
	}
	res, answer := b.sendForm("/shop/letterhead", fields, sent)
	return res.StatusCode, answer
}

// What a lead says of the shop stands at the head of every paper; what is wrong is told at its
// field, and nothing of it is kept then.
func TestLetterheadStandsOnThePapers(t *testing.T) {
	t.Parallel()
	b := serve(t).as("odd")
	good := map[string]string{"shop": "Quay & Sons Hydraulics", "address": " 1 Slip  Street \n\nTarnholm",
		"sheet": "letter", "site": "https://corvek.quay.example/"}
	with := func(name, value string) map[string]string {
		out := map[string]string{}
		for k, v := range good {
			out[k] = v
		}
		out[name] = value
		return out
	}
	for _, bad := range []struct{ field, value, says string }{
		{"shop", strings.Repeat("n", 81), "is longer than"}, {"shop", " ", "head of the papers"},
		{"address", strings.Repeat("a\n", 7), "6 lines"}, {"sheet", "a3", "A4 or Letter"},
		{"site", "corvek.quay.example", "https://"}, {"site", "https://user@x.example", "https://"},
		{"site", "javascript:alert(1)", "https://"},
	} {
		status, answer := b.letterhead(with(bad.field, bad.value), nil)
		assert.Equal(t, http.StatusUnprocessableEntity, status, bad.field)
		assert.Contains(t, answer, bad.says, bad.field)
	}
	status, answer := b.letterhead(good, []byte("no picture"))
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, answer, "is not a JPEG, PNG or WebP picture")
	_, paper := b.get("/jobs/T-0417/report")
	assert.Contains(t, paper, "Tarnholm Hydraulics", "nothing was kept")

	mark := image.NewGray(image.Rect(0, 0, 40, 20))
	mark.SetGray(3, 3, color.Gray{255})
	var shot bytes.Buffer
	require.NoError(t, png.Encode(&shot, mark))
	status, answer = b.letterhead(good, shot.Bytes())
	require.Equal(t, http.StatusOK, status, answer)
	_, paper = b.get("/jobs/T-0417/report")
	for _, part := range []string{"Quay &amp; Sons Hydraulics", "<span>1 Slip Street</span>", "<span>Tarnholm</span>",
		"data:image/png;base64,", "sheet-letter", `class="code"`} {
		assert.Contains(t, paper, part)
	}
	res, pdf := b.get("/jobs/T-0417/report.pdf")
	assert.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
	assert.Contains(t, pdf, "/MediaBox [0 0 612.00 792.00]", "Letter")
	_, pdf = b.get("/jobs/T-0417/report.pdf?sheet=a4")
	assert.Contains(t, pdf, "/MediaBox [0 0 595.28 841.89]", "A4")
	_, tag := b.get("/jobs/T-0417/tag")
	assert.Contains(t, tag, "https://corvek.quay.example/jobs/T-0417", "the code opens the job where the shop says")

	status, _ = b.letterhead(with("drop", "yes"), nil)
	require.Equal(t, http.StatusOK, status)
	_, paper = b.get("/jobs/T-0417/report")
	assert.NotContains(t, paper, "data:image/png")
}

// Only a lead signs papers off; it names him, the version and the record, and holds until
// something of what the papers say is changed.
func TestSignOffHoldsUntilSomethingChanges(t *testing.T) {
	t.Parallel()
	s := serve(t)
	iva, odd := s.as("iva"), s.as("odd")
	res, _ := iva.post("/jobs/T-0417/sign-off", url.Values{})
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
	_, paper := odd.get("/jobs/T-0417/certificate")
	assert.Contains(t, paper, "NOT SIGNED OFF")
	res, answer := odd.post("/jobs/T-0417/sign-off", url.Values{})
	require.Equal(t, http.StatusOK, res.StatusCode, answer)
	_, paper = odd.get("/jobs/T-0417/certificate")
	assert.Contains(t, plain(paper), "Signed off by Odd Renfeld")
	assert.Regexp(t, `Version 1, record of \d+ lines?, fingerprint [0-9a-f]{64}`, plain(paper))

	st := iva.state("T-0417", 1)
	res, answer = iva.set("T-0417", "job/lesson", "Count the needles.", st.Job.Lesson)
	require.Equal(t, http.StatusOK, res.StatusCode, answer)
	_, paper = odd.get("/jobs/T-0417/report")
	assert.Contains(t, paper, "Signed off by Odd Renfeld", "a lesson says nothing on the papers")

	res, answer = iva.set("T-0417", "u1/serial", "22-0918", st.Unit.Serial)
	require.Equal(t, http.StatusOK, res.StatusCode, answer)
	_, paper = odd.get("/jobs/T-0417/report")
	assert.Contains(t, paper, "NOT SIGNED OFF")
	assert.Contains(t, paper, "A change was written after Odd Renfeld signed version 1 off")
	res, answer = odd.post("/jobs/T-0417/sign-off", url.Values{})
	require.Equal(t, http.StatusOK, res.StatusCode, answer)
	_, paper = odd.get("/jobs/T-0417/report")
	assert.Contains(t, plain(paper), "Version 2, record of")
}
