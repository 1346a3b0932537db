package web

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a unit taught is read as one list, kept, offered to the next of the model as people write it, read in the
// Library, and written to a file that another shop takes up.
func TestASheetGoesRoundTheShop(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	first := b.newJob("external_gear_pump")
	for _, e := range [][2]string{{"u1/maker", "Tarn Hydraulikk"}, {"u1/model", "TH-9"},
		{"u1/part/drive_gear/feature/journal/new_low", "0.750 in"},
		{"u1/part/drive_gear/feature/journal/new_from", "unworn"}, {"u1/part/cover_bolts/thread", "1/2-13 UNC"},
		{"u1/part/cover_bolts/class", "grade_5"}} {
		res, body := b.set(first, e[0], e[1], "")
		require.Equal(t, http.StatusOK, res.StatusCode, "%s: %s", e[0], body)
	}
	_, page := b.get("/jobs/" + first + "/sheet")
	assert.Contains(t, plain(page), "journals: size as new 0.750 in, where it is known from unworn place")
	assert.Contains(t, plain(page), "1/2-13 UNC")
	res, body := b.post("/jobs/"+first+"/sheet", url.Values{"keep": {"part/cover_bolts/thread",
		"part/drive_gear/feature/journal/new_low"}})
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page = b.get("/jobs/" + first + "/sheet")
	assert.Contains(t, plain(page), "strength class on the head grade 5", "what was not ticked is still new")
	assert.NotContains(t, plain(page), "journals: size as new")

	second := b.newJob("external_gear_pump")
	res, body = b.set(second, "u1/model", "th 9", "")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page = b.get("/jobs/" + second + "/receive")
	require.Contains(t, plain(page), "Sheet Tarn Hydraulikk TH-9 , 1 unit behind it")
	st, err := s.jobs().Load(t.Context(), second, 1)
	require.NoError(t, err)
	offers := s.jobs().SheetsOf(st.Unit)
	require.Len(t, offers, 1)
	id := url.Values{"sheet": {fmt.Sprint(offers[0].ID)}}
	res, body = b.post("/jobs/"+second+"/sheet/use", id)
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page = b.get("/jobs/" + second + "/measure?part=drive_gear&feature=journal")
	assert.Contains(t, plain(page), "as new 19.050 mm · model sheet: Tarn Hydraulikk TH-9: measured on "+first)

	at := "/library/sheets/" + fmt.Sprint(offers[0].ID)
	res, paper := b.get(at + "/paper.pdf")
	require.Equal(t, http.StatusOK, res.StatusCode)
	assert.True(t, strings.HasPrefix(paper, "%PDF"), "printed for the bench")
	_, page = b.get(at)
	assert.Contains(t, plain(page), "Journals: size as new 0.750 in unworn place, made to one size, "+first+" 1 unit")
	_, text := b.get(at + "/file")
	res, page = b.post("/library/sheets", url.Values{"text": {"{"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, plain(page), "is no sheet")
	res, page = b.post("/library/sheets", url.Values{"text": {text}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode, page)
}
