package web

import (
	"bytes"
	"fmt"
	"image"
	"image/jpeg"
	"net/http"
	"net/url"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// upload sends a file to a job as a picture.
func (b *browser) upload(tag, name string, content []byte, more map[string]string) (status int, answer string) {
	b.site.t.Helper()
	res, answer := b.sendForm("/jobs/"+tag+"/pictures", more, &file{"picture", name, content})
	return res.StatusCode, answer
}

// photo adds a picture of the size to a job and gives its number.
func (b *browser) photo(tag, name string, width, height int, more map[string]string) string {
	t := b.site.t
	t.Helper()
	var shot bytes.Buffer
	require.NoError(t, jpeg.Encode(&shot, image.NewGray(image.Rect(0, 0, width, height)), nil))
	status, answer := b.upload(tag, name, shot.Bytes(), more)
	require.Equal(t, http.StatusOK, status, answer)
	m := regexp.MustCompile(`/pictures/(\d+)`).FindStringSubmatch(answer)
	require.NotNil(t, m, answer)
	return m[1]
}

func TestPictureItsMarksAndOneBesideIt(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	st := b.state("T-0417", 1)
	plate := st.ByCode["rear_plate"]
	a := b.photo("T-0417", "plate.jpg", 1600, 1200, map[string]string{"part": plate.Code,
		"caption": "wear face, as opened", "before_cleaning": "yes"})
	other := b.photo("T-0417", "plate after.jpg", 400, 300, nil)

	res, whole := b.get("/jobs/T-0417/pictures/" + a + "/file")
	assert.Equal(t, "image/jpeg", res.Header.Get("Content-Type"))
	assert.Contains(t, res.Header.Get("Content-Security-Policy"), "sandbox", "opened by itself it can do nothing")
	_, small := b.get("/jobs/T-0417/pictures/" + a + "/file?thumb=1")
	assert.Less(t, len(small), len(whole))
	config, err := jpeg.DecodeConfig(bytes.NewReader([]byte(small)))
	require.NoError(t, err)
	assert.LessOrEqual(t, max(config.Width, config.Height), 640)

	// Marks count from 1, keep their numbers, and want a place and something to say.
	mark := func(v url.Values) (*http.Response, string) { return b.post("/jobs/T-0417/pictures/"+a+"/mark", v) }
	for _, c := range []struct {
		in          url.Values
		field, says string
	}{
		{url.Values{"note": {"groove"}}, "place", "tap the picture"},
		{url.Values{"x": {"NaN"}, "y": {"0.5"}, "note": {"groove"}}, "place", "tap the picture"},
		{url.Values{"x": {"1.01"}, "y": {"0.5"}, "note": {"groove"}}, "place", "tap the picture"},
		{url.Values{"x": {"0.5"}, "y": {"0.5"}}, "note", "say what is seen"},
		{url.Values{"x": {"0.5"}, "y": {"0.5"}, "evidence": {"dragon_fire"}}, "evidence", "not on this unit's board"},
		{url.Values{"x": {"0.5"}, "y": {"0.5"}, "part": {"999999"}}, "part", "not a part"},
	} {
		res, body := mark(c.in)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, "%v", c.in)
		assert.Contains(t, body, `"field":"`+c.field+`"`)
		assert.Contains(t, body, c.says)
	}
	for _, note := range []string{"nail catches here", "grit"} {
		res, body := mark(url.Values{"x": {"0.25"}, "y": {"0.75"}, "note": {note}, "evidence": {"plate_scored"}})
		require.Equal(t, http.StatusOK, res.StatusCode, body)
	}
	res, body := b.post("/jobs/T-0417/pictures/"+a+"/unmark", url.Values{"number": {"1"}})
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	res, _ = mark(url.Values{"x": {"0.5"}, "y": {"0.5"}, "note": {"edge"}})
	require.Equal(t, http.StatusOK, res.StatusCode)
	_, page := b.get("/jobs/T-0417/pictures/" + a + "?with=" + other)
	text := plain(page)
	assert.Contains(t, text, "Side plates scored, nail catches: grit")
	assert.NotContains(t, text, "nail catches here", "taken off")
	assert.Contains(t, page, `value="2"`)
	assert.Contains(t, page, `value="3"`, "the next number, not one that was used")
	assert.Contains(t, page, "/pictures/"+other, "the other stands beside it")
	res, body = b.post("/jobs/T-0417/pictures/"+a+"/unmark", url.Values{"number": {"1"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, body)

	// The gallery and the report carry them; another job does not, and cannot mark them.
	_, page = b.get("/jobs/T-0417/pictures")
	assert.Contains(t, plain(page), "wear face, as opened")
	_, page = b.get("/jobs/T-0417/report")
	assert.Contains(t, page, "/pictures/"+a)
	res, _ = b.get("/jobs/T-0412/pictures/" + a)
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
	res, _ = b.post("/jobs/T-0412/pictures/"+a+"/mark", url.Values{"x": {"0.5"}, "y": {"0.5"}, "note": {"not mine"}})
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
	for _, id := range []string{"0", "999999", "-1", "x", "99999999999999999999999"} {
		res, _ = b.get("/jobs/T-0417/pictures/" + id + "/file")
		assert.Equal(t, http.StatusNotFound, res.StatusCode, id)
		res, _ = b.get("/jobs/T-0417/pictures/" + id)
		assert.Equal(t, http.StatusNotFound, res.StatusCode, id)
	}
}

// A person who may only look can neither add nor mark, and nobody signed out
// sees a picture.
func TestPicturesOfOthers(t *testing.T) {
	t.Parallel()
	s := serve(t)
	a := s.as("iva").photo("T-0417", "a.jpg", 60, 40, nil)
	tove := s.as("tove")
	res, _ := tove.get("/jobs/T-0417/pictures/" + a + "/file")
	assert.Equal(t, http.StatusOK, res.StatusCode)
	res, _ = tove.post(fmt.Sprintf("/jobs/T-0417/pictures/%s/mark", a),
		url.Values{"x": {"0.5"}, "y": {"0.5"}, "note": {"x"}})
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
	res, _ = s.as("").get("/jobs/T-0417/pictures/" + a + "/file")
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
}
