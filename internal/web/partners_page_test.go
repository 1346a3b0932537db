package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A lead says whom the shop waits for and what it takes: what is wrong is told at its field and nothing typed is
// lost, what is right is planned and reckoned with from then on.
func TestWhomTheShopWaitsFor(t *testing.T) {
	t.Parallel()
	s := serve(t)
	lead, iva := s.as("odd"), s.as("iva")
	res, _ := iva.get("/plan/partners")
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
	for fault, form := range map[string]url.Values{
		"is a number of days":          {"name": {"Vik Hone"}, "days": {"soon"}},
		"is more than the usual days":  {"name": {"Vik Hone"}, "days": {"5"}, "most": {"4"}},
		"say who it is":                {"days": {"5"}, "works": {"Vik Hone"}},
		"is a sum of money":            {"name": {"Vik Hone"}, "days": {"5"}, "price": {"much"}},
		"say how many days as a rule,": {"name": {"Vik Hone"}, "days": {"-2"}},
	} {
		res, page := lead.post("/plan/partner", form)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
		assert.Contains(t, page, fault)
		assert.Contains(t, page, `value="Vik Hone"`, "what was typed stays")
	}
	res, page := lead.post("/plan/partner", url.Values{"name": {"Vik Hone"}, "works": {"sleeve"}, "days": {"2,5"},
		"most": {"4"}, "price": {"48.50"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode, page)
	all, err := s.server.Store.Partners(t.Context())
	require.NoError(t, err)
	by := all.Does("Sleeve the seal track")
	require.NotNil(t, by)
	assert.Equal(t, 2.5, by.Days)

	res, page = lead.post("/plan/prices", url.Values{"hour_price": {"61"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode, page)
	res, page = iva.post("/jobs", url.Values{"customer": {"Skarv Boatyard"}, "title": {"Slip winch pump"},
		"family": {"external_gear_pump"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode, page)
	j, err := s.server.Store.Job(t.Context(), strings.Split(res.Header.Get("Location"), "/")[2])
	require.NoError(t, err)
	assert.Equal(t, "61", j.LabourRate.Typed, "a new job begins with the shop's price of an hour")

	_, page = lead.get("/plan/partners")
	assert.Contains(t, page, "2.5 days, up to 4")
	res, page = lead.post("/plan/partner/drop", url.Values{"id": {"1"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode, page)
	_, page = lead.get("/plan/partners")
	assert.NotContains(t, page, "Brenn &amp; Holt")
}
