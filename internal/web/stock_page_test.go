package web

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// item finds the number of a line of the stock by its words.
func itemNamed(t *testing.T, b *browser, find string) string {
	t.Helper()
	_, page := b.get("/stock?find=" + url.QueryEscape(find))
	found := regexp.MustCompile(`item=(\d+)`).FindStringSubmatch(page)
	require.NotNil(t, found, "%s is not in the stock", find)
	return found[1]
}

func TestTheDrawersOfTheDemo(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/stock")
	assert.Contains(t, page, "fewer free than 6")
	assert.Contains(t, page, "3 expire on", "a lot of the demo ends soon")
	_, page = b.get("/stock?show=age")
	assert.Contains(t, page, "Shaft seal")
	assert.NotContains(t, page, "Needle bearing")
	_, page = b.get("/stock?find=nowhere")
	assert.Contains(t, page, "Nothing in the drawers answers to that")

	id := itemNamed(t, b, "RD4-52")
	_, page = b.get("/stock?item=" + id)
	lot := regexp.MustCompile(`lot <b>(S-\w+)</b>`).FindStringSubmatch(page)
	require.NotNil(t, lot)
	for _, c := range []struct {
		to   string
		form url.Values
		says string
	}{
		{"/stock/came", url.Values{"at-item": {id}, "count": {"many"}}, "is a whole number, from 1"},
		{"/stock/came", url.Values{"at-item": {id}, "count": {"4"}, "cure": {"spring"}}, "is a quarter like"},
		{"/stock/count", url.Values{"at-item": {id}, "lot": {lot[1]}, "count": {"-1"}}, "is a whole number, from 0"},
		{"/stock/item", url.Values{"name": {""}, "number": {"Q-1"}}, "say what it is"},
		{"/stock/item", url.Values{"name": {"ring"}, "number": {"rd4-52"}}, "is that of another line already"},
		{"/stock/item", url.Values{"name": {"ring"}, "price": {"cheap"}}, "is an amount of money"},
		{"/stock/list", url.Values{"list": {"name;count\nring;many"}}, "line 1"},
	} {
		res, page := b.post(c.to, c.form)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, c.says)
		assert.Contains(t, page, c.says)
		for name, v := range c.form {
			if !strings.HasPrefix(name, "at-") && name != "lot" && v[0] != "" && name != "list" {
				assert.Contains(t, page, `value="`+v[0]+`"`, "what was typed is there again")
			}
		}
	}
	b.post("/stock/came", url.Values{"at-item": {id}, "count": {"5"}, "cure": {"2026-Q1"}})
	b.post("/stock/count", url.Values{"at-item": {id}, "lot": {lot[1]}, "count": {"11"}})
	_, page = b.get("/stock?item=" + id)
	assert.Contains(t, page, "<b>16</b> left")
	assert.Contains(t, page, "<b>-1</b> "+lot[1])
	assert.Contains(t, page, "Iva Brask")
	res, _ := b.get("/stock/lots/" + strings.ToLower(lot[1]))
	assert.Equal(t, "/stock?item="+id, res.Header.Get("Location"))
	res, _ = b.get("/stock/lots/S-222222")
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
	_, page = b.get("/stock/labels?item=" + id)
	assert.Equal(t, 2, strings.Count(page, `class="code"`), "a label for each lot")
	assert.Contains(t, page, "drawer A4")
	_, pdf := b.get("/stock/labels.pdf?find=ring")
	assert.True(t, strings.HasPrefix(pdf, "%PDF"))
	_, csv := b.get("/stock.csv")
	assert.Contains(t, csv, "RD4-52,O-ring,11,ISO 3601,64 x 3,NBR")
	b.post("/stock/empty", url.Values{"at-item": {id}})
	_, page = b.get("/stock?item=" + id)
	assert.Contains(t, page, "None is left.")
	assert.Contains(t, page, "drawer found empty")
	b.post("/stock/list", url.Values{"list": {csv}})
	_, page = b.get("/stock?item=" + id)
	assert.Contains(t, page, "<b>16</b> left")

	b.post("/stock/item", url.Values{"name": {"Old ring"}, "number": {"OLD-1"}, "material": {"NR"}, "minimum": {"3"}})
	old := itemNamed(t, b, "OLD-1")
	b.post("/stock/came", url.Values{"at-item": {old}, "count": {"9"}, "cure": {"2001-Q1"}})
	_, page = b.get("/stock?item=" + old)
	assert.Contains(t, page, "fewer free than 3", "what is too old is not there")
	code := regexp.MustCompile(`lot <b>(S-\w+)</b>`).FindStringSubmatch(page)[1]
	require.Contains(t, page, "Thrown away")
	b.post("/stock/count", url.Values{"at-item": {old}, "lot": {code}, "count": {"0"}, "old": {"yes"}})
	_, page = s.as("odd").get("/figures")
	assert.Contains(t, page, "9 thrown away as too old, 17 missed", "one by a count, sixteen by an empty drawer")

	viewer := s.as("tove")
	_, page = viewer.get("/stock?item=" + id)
	assert.NotContains(t, page, "The drawer is empty")
	res, _ = viewer.post("/stock/empty", url.Values{"at-item": {id}})
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
}

// A place that waits is filled of a drawer, or booked, so that the plan waits for no order of it.
func TestAKitIsFilledOfTheDrawers(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, plan := b.get("/plan?task=T-0412/1/order")
	assert.Contains(t, plan, "6 pieces ordered")
	_, page := b.get("/jobs/T-0412/kit?part=rod_seal")
	assert.Contains(t, page, "Take 1 from stock")
	assert.Contains(t, page, "In the shop's own stock")
	id := itemNamed(t, b, "GC-RS50")
	b.post("/jobs/T-0412/kit/book", url.Values{"place": {"rod_seal"}, "item": {id}})
	_, page = b.get("/jobs/T-0412/kit?part=rod_seal")
	assert.Contains(t, page, "<b>Booked:</b> 1 × Rod seal")
	_, page = b.get("/stock?item=" + id)
	assert.Contains(t, page, "1 booked for")
	_, plan = b.get("/plan?task=T-0412/1/order")
	assert.Contains(t, plan, "5 pieces ordered", "what is booked is not waited for")
	b.post("/jobs/T-0412/kit/unbook", url.Values{"place": {"rod_seal"}})
	_, page = b.get("/stock?item=" + id)
	assert.NotContains(t, page, "booked for")
	lot := regexp.MustCompile(`lot <b>(S-\w+)</b>`).FindStringSubmatch(page)[1]
	b.post("/jobs/T-0412/kit/take", url.Values{"lot": {lot}, "count": {"2"}, "place": {"rod_seal"}})
	_, page = b.get("/jobs/T-0412/kit")
	assert.Contains(t, page, "to the stock, in drawer")
	piece := regexp.MustCompile(`kit/stock"[^}]*?name="piece" value="(\d+)"`).
		FindStringSubmatch(strings.ReplaceAll(page, "\n", " "))
	require.NotNil(t, piece)
	b.post("/jobs/T-0412/kit/stock", url.Values{"piece": {piece[1]}})
	_, page = b.get("/jobs/T-0412/kit")
	assert.Contains(t, page, "<b>In the stock</b> as lot")
	_, page = b.get("/stock?item=" + id)
	assert.Contains(t, page, "<b>3</b> left")
	res, page := b.post("/jobs/T-0412/kit/take", url.Values{"lot": {lot}, "count": {"9"}, "place": {"rod_seal"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, page, "holds 3")
}
