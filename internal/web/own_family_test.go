package web

import (
	"html"
	"net/http"
	"net/url"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var familyText = regexp.MustCompile(`(?s)<textarea[^>]*name="text"[^>]*>(.*?)</textarea>`)

// Each shipped family is saved as the shop's own and as a copy of another code: its pages open for
// everyone, and so does a job with it.
func TestAFamilyOfTheShopsOwnOpens(t *testing.T) {
	t.Parallel()
	s := serve(t)
	lead, other := s.as("odd"), s.as("tove")
	for code := range s.server.Jobs.Families() {
		_, page := lead.get("/library/" + code)
		m := familyText.FindStringSubmatch(page)
		require.NotNil(t, m, code)
		text := html.UnescapeString(m[1])
		for _, as := range []string{"", "our_" + code} {
			res, page := lead.post("/library/"+code, url.Values{"text": {text}, "as": {as}, "reason": {"as it is"}})
			if as != "" && res.StatusCode == http.StatusUnprocessableEntity {
				continue // its text says another code
			}
			require.Equal(t, http.StatusSeeOther, res.StatusCode, "%s as %q: %s", code, as, plain(page))
			to := res.Header.Get("Location")
			for _, b := range []*browser{lead, other} {
				res, _ = b.get(to)
				assert.Equal(t, http.StatusOK, res.StatusCode, code)
			}
		}
		res, _ := lead.get("/library/" + code + "/form")
		assert.Equal(t, http.StatusOK, res.StatusCode, code)
		res, _ = other.get("/library")
		assert.Equal(t, http.StatusOK, res.StatusCode, code)
	}
}
