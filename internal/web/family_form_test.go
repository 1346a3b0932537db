package web

import (
	"html"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"corvek/internal/people"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var (
	draftField = regexp.MustCompile(`(?s)<textarea name="text" hidden>(.*?)</textarea>`)
	inputField = regexp.MustCompile(`<input[^>]*name="([^"]+)"[^>]*>`)
	valueOf    = regexp.MustCompile(`value="([^"]*)"`)
)

// typedIn is the form of a page as a browser would send it.
func typedIn(t *testing.T, page string) url.Values {
	t.Helper()
	m := draftField.FindStringSubmatch(page)
	require.NotNil(t, m, "the draft goes with the page")
	form := url.Values{"text": {html.UnescapeString(m[1])}}
	for _, in := range inputField.FindAllStringSubmatch(page, -1) {
		value := ""
		if v := valueOf.FindStringSubmatch(in[0]); v != nil {
			value = html.UnescapeString(v[1])
		}
		if strings.Contains(in[0], `type="checkbox"`) && !strings.Contains(in[0], " checked") ||
			in[1] == "csrf" || in[1] == "once" {
			continue
		}
		form.Add(in[1], value)
	}
	return form
}

// A lead writes a family by form: each act shows at once what it comes to, what is wrong
// is said at its field and nothing typed is lost, and only saving keeps it.
func TestAFamilyIsWrittenByForm(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	const at = "/library/gerotor_pump/form"
	do := func(form url.Values, what string, more ...string) (*http.Response, string) {
		form.Set("do", what)
		for i := 0; i+1 < len(more); i += 2 {
			form.Set(more[i], more[i+1])
		}
		return b.post(at, form)
	}
	res, page := b.get(at)
	require.Equal(t, http.StatusOK, res.StatusCode)
	assert.Contains(t, plain(page), "16 parts")

	res, page = do(typedIn(t, page), "part", "after", "0", "new_name", "Wear plate", "new_kind", "plate")
	require.Equal(t, http.StatusOK, res.StatusCode, plain(page))
	assert.Contains(t, plain(page), "17 parts")
	res, page = do(typedIn(t, page), "assembly", "after", "16", "new_assembly", "check_valve", "new_branch",
		"Check valve")
	require.Equal(t, http.StatusOK, res.StatusCode)
	assert.Contains(t, plain(page), "20 parts")
	assert.Contains(t, page, "CHECK VALVE", "the line shows it")

	res, page = do(typedIn(t, page), "look", "line-1-count", "two")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, plain(page), `"two" is no whole number`)
	assert.Contains(t, page, `name="line-1-count" value="two"`, "what was typed stays")
	res, page = do(typedIn(t, page), "look", "line-1-count", "2")
	require.Equal(t, http.StatusOK, res.StatusCode)
	res, page = do(typedIn(t, page), "part", "new_name", "", "new_kind", "plate")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, plain(page), "say what the part is called")
	_, page = do(typedIn(t, page), "variant", "new_variant", "Short rotor")
	form := typedIn(t, page)
	n := "variant-2-"
	require.Equal(t, "Short rotor", form.Get(n+"name"))
	form.Set(n+"suffix", "SH, SX")
	form.Set(n+"counts", "wear_plate 1")
	form.Add(n+"without", "ring")
	_, page = do(form, "look", "shown", "short_rotor")
	assert.Contains(t, plain(page), "19 parts", "drawn as the variant is")

	res, page = do(typedIn(t, page), "save", "reason", "")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, plain(page), "say what was changed and why")
	res, page = do(typedIn(t, page), "save", "code", "tarn_gerotor", "name", "Tarn gerotor", "reason",
		"their own casting")
	require.Equal(t, http.StatusSeeOther, res.StatusCode, plain(page))
	assert.Equal(t, "/library/tarn_gerotor", res.Header.Get("Location"))
	f := s.server.Jobs.Families()["tarn_gerotor"]
	require.NotNil(t, f)
	assert.Equal(t, 2, f.CountOf("wear_plate"))
	own, err := f.As("Short rotor", nil)
	require.NoError(t, err)
	assert.Equal(t, 1, own.CountOf("wear_plate"))
	assert.Equal(t, 16, len(s.server.Jobs.Families()["gerotor_pump"].Parts), "the shipped one is as it was")

	res, _ = s.as("iva").get(at)
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
}

// A draft that is no family, or longer than one may be, is refused in words.
func TestAFormWithoutAFamilyIsRefused(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	for _, text := range []string{"", "- a", "code: [", strings.Repeat("x", 300<<10)} {
		res, page := b.post("/library/gerotor_pump/form", url.Values{"text": {text}, "do": {"look"}})
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, plain(page))
	}
}

// A variant that was kept at the bench is changed by form as well.
func TestAKeptVariantIsChangedByForm(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	lead := people.Actor{ID: 1, Name: "Odd", Role: people.RoleLead}
	require.NoError(t, s.server.Jobs.SaveVariant(t.Context(), lead, "external_gear_pump", "tarn_short",
		"{code: tarn_short, name: Tarn short, suffix: [X], change: {without: [relief_spring]}}", "one unit"))
	_, page := b.get("/library/external_gear_pump")
	require.Contains(t, page, `id="variant-tarn_short"`)
	form := typedIn(t, page)
	prefix := form.Get("prefix")
	require.NotEmpty(t, prefix)
	require.Equal(t, "Tarn short", form.Get(prefix+"name"))
	form.Set(prefix+"counts", "cover_bolts 6")
	form.Set("reason", "six bolts on this one")
	res, body := b.post("/library/external_gear_pump/variant/tarn_short", form)
	require.Equal(t, http.StatusSeeOther, res.StatusCode, plain(body))
	own, err := s.server.Jobs.Families()["external_gear_pump"].As("Tarn short", nil)
	require.NoError(t, err)
	assert.Equal(t, 6, own.CountOf("cover_bolts"))
	_, there := own.PartByCode("relief_spring")
	assert.False(t, there, "what it was kept without, it is still without")
	form.Set(prefix+"counts", "cover_bolts")
	res, body = b.post("/library/external_gear_pump/variant/tarn_short", form)
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, plain(body), "is not a part and a number")
}
