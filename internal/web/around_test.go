package web

import (
	"encoding/csv"
	"encoding/json"
	"net/http"
	"net/url"
	"strings"
	"testing"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What goes on the invoice says the same on paper, as CSV and as JSON; hours that nobody wrote down are not made up.
func TestTheInvoiceSaysTheSameEverywhere(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/jobs/T-0412/invoice")
	assert.Contains(t, page, "hours worked (the offer reckoned with 9 h)")
	assert.Contains(t, page, "at least")
	for _, v := range [][3]string{{"job/worked_hours", "10.5", ""}, {"job/labour_rate", "50", ""}} {
		state := b.state("T-0412", 1).Job
		if v[0] == "job/labour_rate" {
			v[2] = state.LabourRate.Typed
		}
		res, body := b.set("T-0412", v[0], v[1], v[2])
		require.Equal(t, http.StatusOK, res.StatusCode, body)
	}
	_, page = b.get("/jobs/T-0412/invoice")
	assert.Contains(t, page, "525.00", "10.5 h at 50")
	_, text := b.get("/jobs/T-0412/invoice.csv")
	rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	require.NoError(t, err)
	_, text = b.get("/jobs/T-0412/invoice.json")
	var doc struct {
		Job   string
		Sum   float64
		Lines []struct {
			Kind, What string
			Sum        *float64
		}
	}
	require.NoError(t, json.Unmarshal([]byte(text), &doc))
	require.Len(t, doc.Lines, len(rows)-1)
	sum := 0.0
	for i, l := range doc.Lines {
		assert.Equal(t, []string{l.Kind, l.What}, []string{rows[i+1][2], rows[i+1][3]})
		if l.Sum != nil {
			sum += *l.Sum
		}
	}
	assert.InDelta(t, sum, doc.Sum, 0.005)
	assert.Equal(t, "T-0412", doc.Job)
	_, pdf := b.get("/jobs/T-0412/invoice.pdf")
	assert.True(t, strings.HasPrefix(pdf, "%PDF"))
}

func TestOrdersAndDeliveryNote(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	res, body := b.set("T-0412", "u1/part/rod_seal/order_supplier", "Merrow Seals", "")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page := b.get("/jobs/T-0412/parts-list")
	assert.Contains(t, page, "Order to Merrow Seals")
	_, page = b.get("/jobs/T-0412/order?" + url.Values{"supplier": {"Merrow Seals"}}.Encode())
	assert.Contains(t, page, "50 x 60 x 10 PU")
	assert.NotContains(t, page, "50 x 58 x 7", "the wiper is another's")
	b.post("/jobs/T-0412/kit/piece", url.Values{"name": {"rod seal"}, "place": {"rod_seal"}})
	_, page = b.get("/jobs/T-0412/order?" + url.Values{"supplier": {"Merrow Seals"}}.Encode())
	assert.Contains(t, page, "Nothing is to come of this supplier")
	_, page = b.get("/jobs/T-0412/outside-order")
	assert.Contains(t, page, "awaited back")
	_, page = b.get("/jobs/T-0388/delivery-note")
	assert.Contains(t, page, "Ostrey Fish Meal Works")
	_, page = b.get("/stock/order")
	assert.Contains(t, page, "SB2-07")
	assert.Regexp(t, `(?s)\b11\b.{0,200}SB2-07`, page, "six at least and one there: eleven bring it to twelve")
	assert.NotContains(t, page, "NB-2530")
}

// The calendar names what the shop must think of, each entry with a number that stays.
func TestTheCalendarOfReminders(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	b.post("/jobs/T-0412/decide/offered", url.Values{})
	res, text := b.get("/reminders.ics")
	assert.Equal(t, "text/calendar; charset=utf-8", res.Header.Get("Content-Type"))
	cal, err := ics.ParseCalendar(strings.NewReader(text))
	require.NoError(t, err)
	said := map[string]string{}
	for _, e := range cal.Events() {
		said[e.Id()] = e.GetProperty(ics.ComponentPropertySummary).Value
		day, err := e.GetAllDayStartAt()
		require.NoError(t, err)
		assert.False(t, day.IsZero())
	}
	found := func(words string) bool {
		for _, x := range said {
			if strings.Contains(x, words) {
				return true
			}
		}
		return false
	}
	assert.True(t, found("micrometer: its calibration ends"), said)
	assert.True(t, found("the answer to the offer"), said)
	_, again := b.get("/reminders.ics")
	second, err := ics.ParseCalendar(strings.NewReader(again))
	require.NoError(t, err)
	for _, e := range second.Events() {
		assert.Contains(t, said, e.Id())
	}
}
